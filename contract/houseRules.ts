import * as v from 'valibot';
import type { HouseRule, HouseRules, RuleKey } from '#core/laboratory';
import { HOUSE_RULES } from '#core/laboratory';
import { nonNegativeDecimal, storedInteger } from './fields';

/** What may be answered; whether a number lies within its bounds, core's check says. */
function schemaOf({ answer }: HouseRule): v.GenericSchema {
  switch (answer.kind) {
    case 'choice':
      return v.union(answer.choices.map(([value]) => v.literal(value)));
    case 'count':
      return storedInteger(0);
    case 'figure':
      return nonNegativeDecimal;
  }
}

/** The conventions of a laboratory. */
export const houseRulesSchema = v.strictObject(
  // One for each rule: the compiler does not follow the table through the loop.
  Object.fromEntries(HOUSE_RULES.map((rule) => [rule.key, schemaOf(rule)])) as unknown as {
    readonly [K in RuleKey]: v.GenericSchema<unknown, HouseRules[K]>;
  },
);
