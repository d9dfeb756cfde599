import * as v from 'valibot';
import type {
  HouseRule,
  HouseRules,
  RuleKey,
  Setting,
  SettingKey,
  Settings,
} from '#core/laboratory';
import { HOUSE_RULES, SETTINGS } from '#core/laboratory';
import { count, line, nonNegativeDecimal } from './fields';

/** What may be answered; whether a figure lies within its bounds, core's check says. */
function schemaOf({ answer }: HouseRule | Setting): v.GenericSchema {
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

/** What a laboratory sets of how the program works for it. */
export const settingsSchema = v.strictObject({
  ...(Object.fromEntries(SETTINGS.map((entry) => [entry.key, schemaOf(entry)])) as unknown as {
    readonly [K in SettingKey]: v.GenericSchema<unknown, Settings[K]>;
  }),
  keeping: v.pipe(
    v.array(v.strictObject({ substanceId: line, days: count(1, 3650) })),
    v.maxLength(200, 'So many substances are not kept.'),
    v.readonly(),
  ),
});
