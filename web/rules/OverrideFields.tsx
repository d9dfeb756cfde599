import type { HouseRules } from '#core/laboratory';
import { HOUSE_RULES, RULE_GROUPS } from '#core/laboratory';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import type { FieldMessages } from '../ui/fieldMessages';
import { SelectField } from '../ui/fields';
import type { TypedRule } from './RuleControl';
import { RuleControl, typedRule } from './RuleControl';

/** House rules that a method changes, as a form holds them. */
export type TypedOverrides = Partial<Record<keyof HouseRules, TypedRule>>;

/** What a method says otherwise than the house rules; any of them. */
export function OverrideFields({
  overrides,
  errors,
  onChange,
}: {
  readonly overrides: TypedOverrides;
  readonly errors: FieldMessages;
  readonly onChange: (overrides: TypedOverrides) => void;
}) {
  const { laboratory } = useSession();
  const said = HOUSE_RULES.filter(({ key }) => key in overrides);
  return (
    <fieldset className="col-span-full">
      <legend className="mb-1 font-bold">Says otherwise than the house rules</legend>
      <div className="grid grid-cols-1 items-center gap-x-4 gap-y-2 lg:grid-cols-[minmax(0,290px)_minmax(0,300px)_minmax(0,1fr)_auto]">
        {said.map((rule) => (
          <div key={rule.key} className="contents">
            <RuleControl
              rule={rule}
              value={overrides[rule.key] ?? ''}
              error={errors[rule.key]}
              onChange={(changed) => {
                onChange({ ...overrides, [rule.key]: changed });
              }}
            />
            <Button
              onClick={() => {
                const { [rule.key]: _, ...rest } = overrides;
                onChange(rest);
              }}
            >
              As the house <span className="sr-only">: {rule.question}</span>
            </Button>
          </div>
        ))}
      </div>
      <div className="mt-2 max-w-[480px]">
        <SelectField
          label="Another rule that differs"
          value=""
          onChange={(event) => {
            const key = event.target.value as keyof HouseRules;
            onChange({ ...overrides, [key]: typedRule(laboratory.rules[key]) });
          }}
        >
          <option value="">none</option>
          {RULE_GROUPS.map(({ heading, rules }) => (
            <optgroup key={heading} label={heading}>
              {rules
                .filter(({ key }) => !(key in overrides))
                .map(({ key, question }) => (
                  <option key={key} value={key}>
                    {question}
                  </option>
                ))}
            </optgroup>
          ))}
        </SelectField>
      </div>
    </fieldset>
  );
}
