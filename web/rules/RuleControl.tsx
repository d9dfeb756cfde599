import { useId } from 'react';
import type { HouseRule, Setting } from '#core/laboratory';
import { DEFAULT_HOUSE_RULES, DEFAULT_SETTINGS } from '#core/laboratory';
import { parseDecimal } from '#core/measurement';

/** A rule's value as it is typed or chosen. */
export type TypedRule = string | boolean;

/** What a rule or a setting may be. */
type Value = string | number | boolean;

/** A rule as a form holds it. */
export function typedRule(value: Value): TypedRule {
  return typeof value === 'boolean' ? value : String(value);
}

/** Rules, all of them or those that a method names, as a form holds them. */
export function typedRules<R extends Readonly<Partial<Record<keyof R, Value | undefined>>>>(
  rules: R,
): Record<keyof R, TypedRule> {
  const typed = Object.entries<Value | undefined>(rules).flatMap(([key, value]) =>
    value === undefined ? [] : [[key, typedRule(value)]],
  );
  return Object.fromEntries(typed) as Record<keyof R, TypedRule>;
}

/** Typed rules as the contract takes them: counts as numbers, quantities as decimal texts. */
export function ruleValues(
  typed: Readonly<Partial<Record<string, TypedRule>>>,
): Readonly<Record<string, unknown>> {
  return Object.fromEntries(
    Object.entries(typed).flatMap(([key, value]) =>
      value === undefined ? [] : [[key, ruleValue(key, value)]],
    ),
  );
}

/** What ships, by which a count is told from a figure. */
const SHIPPED: Readonly<Record<string, unknown>> = { ...DEFAULT_HOUSE_RULES, ...DEFAULT_SETTINGS };

function ruleValue(key: string, typed: TypedRule): unknown {
  if (typeof typed === 'boolean') return typed;
  const text = parseDecimal(typed) ?? typed;
  return typeof SHIPPED[key] === 'number' ? Number(text) : text;
}

interface RuleControlProps {
  readonly rule: HouseRule | Setting;
  readonly value: TypedRule;
  readonly error: string | undefined;
  readonly onChange: (value: TypedRule) => void;
}

/** One rule: its question, its answer, and why the default is what it is. */
export function RuleControl({ rule, value, error, onChange }: RuleControlProps) {
  const id = useId();
  const { answer } = rule;
  const control =
    'min-h-12 lg:min-h-11 w-full rounded-md border border-rule-strong bg-sheet px-3 text-base aria-invalid:border-2 aria-invalid:border-blush';
  const shared = { id, 'aria-invalid': error !== undefined, 'aria-describedby': `${id}-why` };
  return (
    <>
      <label htmlFor={id} className="self-center font-semibold">
        {rule.question}
      </label>
      {answer.kind !== 'choice' ? (
        <div className="flex items-center gap-2">
          <input
            {...shared}
            className={`${control} max-w-[110px] font-mono`}
            inputMode="decimal"
            maxLength={12}
            value={String(value)}
            onChange={(event) => {
              onChange(event.target.value);
            }}
          />
          <span className="text-ink-soft">{answer.unit}</span>
        </div>
      ) : (
        <select
          {...shared}
          className={control}
          value={String(value)}
          onChange={(event) => {
            const chosen = answer.choices.find(([choice]) => String(choice) === event.target.value);
            if (chosen) onChange(typedRule(chosen[0]));
          }}
        >
          {answer.choices.map(([choice, words]) => (
            <option key={String(choice)} value={String(choice)}>
              {words}
            </option>
          ))}
        </select>
      )}
      <p id={`${id}-why`} className="self-center text-sm text-ink-soft">
        {error === undefined ? (
          rule.why
        ) : (
          <span role="alert" className="font-semibold text-blush">
            {error}
          </span>
        )}
      </p>
    </>
  );
}
