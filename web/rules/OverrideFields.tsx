import type { HouseRule, HouseRules } from '#core/laboratory';
import { HOUSE_RULES, RULE_GROUPS } from '#core/laboratory';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import type { FieldMessages } from '../ui/fieldMessages';
import { SelectField } from '../ui/fields';
import { RuleControl, typedRule } from './RuleControl';
import type { TypedMethod } from './typedMethod';

type Overrides = TypedMethod['rules'];

interface OverrideFieldsProps {
  readonly value: Overrides;
  readonly errors: FieldMessages;
  readonly onChange: (overrides: Overrides) => void;
}

/** What a method says otherwise than the house rules; any of them. */
export function OverrideFields({ value, errors, onChange }: OverrideFieldsProps) {
  const said = HOUSE_RULES.filter(({ key }) => key in value);
  const asTheHouse = ({ key }: HouseRule): void => {
    const { [key]: _, ...rest } = value;
    onChange(rest);
  };
  return (
    <fieldset className="col-span-full">
      <legend className="mb-1 font-bold">Says otherwise than the house rules</legend>
      <div className="grid grid-cols-1 items-center gap-x-4 gap-y-2 lg:grid-cols-[minmax(0,290px)_minmax(0,300px)_minmax(0,1fr)_auto]">
        {said.map((rule) => (
          <div key={rule.key} className="contents">
            <RuleControl
              rule={rule}
              value={value[rule.key] ?? ''}
              error={errors[rule.key]}
              onChange={(changed) => {
                onChange({ ...value, [rule.key]: changed });
              }}
            />
            <Button
              onClick={() => {
                asTheHouse(rule);
              }}
            >
              As the house <span className="sr-only">: {rule.question}</span>
            </Button>
          </div>
        ))}
      </div>
      <AnotherRule value={value} onChange={onChange} />
    </fieldset>
  );
}

/** Takes one more rule; it begins as the house has it. */
function AnotherRule({ value, onChange }: Omit<OverrideFieldsProps, 'errors'>) {
  const { laboratory } = useSession();
  return (
    <div className="mt-2 max-w-[480px]">
      <SelectField
        label="Another rule that differs"
        value=""
        onChange={(event) => {
          const key = event.target.value as keyof HouseRules;
          onChange({ ...value, [key]: typedRule(laboratory.rules[key]) });
        }}
      >
        <option value="">none</option>
        {RULE_GROUPS.map(({ heading, rules }) => (
          <optgroup key={heading} label={heading}>
            {rules
              .filter(({ key }) => !(key in value))
              .map(({ key, question }) => (
                <option key={key} value={key}>
                  {question}
                </option>
              ))}
          </optgroup>
        ))}
      </SelectField>
    </div>
  );
}
