import * as v from 'valibot';
import type { HouseRule, HouseRules, RuleKey } from '#core/laboratory';
import { HOUSE_RULES } from '#core/laboratory';
import { count, nonNegativeDecimal } from './fields';

/** What may be answered; whether a figure lies within its bounds, core's check says. */
function schemaOf({ answer }: HouseRule): v.GenericSchema {
  switch (answer.kind) {
    case 'choice':
      return answer.choices.some(([value]) => typeof value === 'boolean')
        ? v.boolean()
        : v.picklist(answer.choices.map(([value]) => String(value)));
    case 'count':
      return count(answer.least, answer.most);
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
