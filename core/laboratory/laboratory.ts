import type { Around, FactOf, RecordHead, StoredFile } from '../record';
import { atHand, checkMay, defineRecord, lasting } from '../record';
import type { HouseRules } from './rules';
import { checkRules, UNWRITTEN_RULES } from './houseRules';
import type { Settings } from './settings';
import { checkSettings, DEFAULT_SETTINGS } from './settings';
import { rulesFromLot } from './earlierRules';

/** The laboratory itself. */
export interface Laboratory {
  readonly name: string;
  /** IANA name, such as `Europe/Vienna`: due dates are plain dates there. */
  readonly timeZone: string;
}

export interface LaboratoryFactBodies {
  'laboratory.founded': Laboratory;
  'laboratory.renamed': { readonly name: string; readonly reason: string };
  'laboratory.rules-set': { readonly rules: HouseRules; readonly reason: string };
  'laboratory.settings-set': { readonly settings: Settings; readonly reason: string };
  /** What stands under the name on whatever it issues, a line each. */
  'laboratory.letterhead-set': { readonly lines: readonly string[]; readonly reason: string };
  /** The picture beside it. */
  'laboratory.logo-attached': StoredFile;
  'laboratory.logo-removed': { readonly reason: string };
}
export type LaboratoryFact = FactOf<LaboratoryFactBodies>;

export interface LaboratoryState extends Laboratory, RecordHead {
  /** Those in force. */
  readonly rules: HouseRules;
  readonly settings: Settings;
  readonly letterhead: readonly string[];
  readonly logo: StoredFile | null;
}

/** The laboratory: founded, and its rules set as often as they change. */
export const LABORATORY_RECORD = defineRecord<
  'laboratory',
  LaboratoryFactBodies,
  LaboratoryState,
  Pick<Around, 'author'>,
  'laboratory.founded' | 'laboratory.logo-attached'
>({
  kind: 'laboratory',
  first: 'laboratory.founded',
  begin: (fact) =>
    fact.kind === 'laboratory.founded'
      ? {
          ...fact.body,
          ...{ rules: UNWRITTEN_RULES, settings: DEFAULT_SETTINGS, letterhead: [], logo: null },
        }
      : null,
  listed: ({ name }) => ({ name, words: [], aboutId: null, ...atHand(lasting('in-use'), false) }),
  facts: {
    'laboratory.founded': {
      nature: 'decision',
      needsServer: true,
      check: () => [],
      apply: () => ({}),
      sentence: ({ name }) => `${name} founded.`,
    },
    'laboratory.renamed': {
      nature: 'decision',
      check: (_fact, _state, { author }) => checkMay(author, 'manage'),
      apply: (_state, { body: { name } }) => ({ name }),
      sentence: ({ name, reason }) => `now called ${name}: ${reason}.`,
    },
    'laboratory.rules-set': {
      nature: 'decision',
      earlier: rulesFromLot(1),
      check: ({ body: { rules } }, _state, { author }) => [
        ...checkMay(author, 'manage'),
        ...checkRules(rules),
      ],
      apply: (_state, { body: { rules } }) => ({ rules }),
      sentence: ({ reason }) => `house rules: ${reason}.`,
    },
    'laboratory.settings-set': {
      nature: 'decision',
      check: ({ body: { settings } }, _state, { author }) => [
        ...checkMay(author, 'manage'),
        ...checkSettings(settings),
      ],
      apply: (_state, { body: { settings } }) => ({ settings }),
      sentence: ({ reason }) => `settings: ${reason}.`,
    },
    'laboratory.letterhead-set': {
      nature: 'decision',
      check: (_fact, _state, { author }) => checkMay(author, 'manage'),
      apply: (_state, { body: { lines } }) => ({ letterhead: lines }),
      sentence: ({ reason }) => `letterhead: ${reason}.`,
    },
    'laboratory.logo-attached': {
      nature: 'decision',
      needsServer: true,
      file: (body) => body,
      check: (_fact, _state, { author }) => checkMay(author, 'manage'),
      apply: (_state, { body }) => ({ logo: body }),
      sentence: ({ name }) => `logo: ${name}.`,
    },
    'laboratory.logo-removed': {
      nature: 'decision',
      check: (_fact, _state, { author }) => checkMay(author, 'manage'),
      apply: () => ({ logo: null }),
      sentence: ({ reason }) => `no logo: ${reason}.`,
    },
  },
});

/** The house rules in force at a time (ISO 8601, UTC): the last that had come on record by then. */
export function rulesAt(facts: readonly LaboratoryFact[], at: string): HouseRules {
  const set = facts
    .filter((fact) => fact.kind === 'laboratory.rules-set')
    .findLast(({ recordedAt }) => (recordedAt ?? at) <= at);
  return set?.body.rules ?? UNWRITTEN_RULES;
}
