import * as v from 'valibot';
import { EQUATION_AT_MOST, HAZARD_STATEMENTS, RESULT_UNIT_KEYS } from '#core/chemistry';
import type { Catalogue, HazardCode, Own, OwnEntry, ResultUnit } from '#core/chemistry';
import { id as recordId, line, NOT_FILLED_IN, remark as text, storedInteger } from './fields';
import { houseRulesSchema } from './houseRules';

const id = v.pipe(
  v.string('Write an id.'),
  v.regex(/^[a-z0-9]+(-[a-z0-9.]+)*$/, 'Lower-case words joined by hyphens.'),
);
const ids = v.array(id);
const formula = line;

const positive = v.pipe(v.number('Write a number.'), v.finite(), v.gtValue(0, 'More than 0.'));
const range = v.pipe(
  v.tuple([positive, positive]),
  v.check(([low, high]) => low <= high, 'The lower limit comes first.'),
);
const percent = v.pipe(v.number(), v.minValue(0), v.maxValue(100, 'At most 100 %.'));
const remark = text;
const sentence = v.pipe(text, v.minLength(1, NOT_FILLED_IN));
const source = sentence;

/** The unit of a result. */
export const resultUnit = v.picklist(RESULT_UNIT_KEYS as readonly [ResultUnit, ...ResultUnit[]]);

export const hazardCode = v.picklist(
  Object.keys(HAZARD_STATEMENTS) as [HazardCode, ...HazardCode[]],
  'No such hazard statement.',
);
const hazards = v.array(v.strictObject({ fromPercent: percent, codes: v.array(hazardCode) }));

const drying = v.variant('kind', [
  v.strictObject({
    kind: v.literal('oven'),
    temperatureC: range,
    hours: v.nullable(positive),
    remark,
  }),
  v.strictObject({
    kind: v.picklist(['desiccator', 'not-heated', 'not-needed']),
    remark: sentence,
  }),
]);

const colour = v.strictObject({
  word: line,
  css: v.pipe(v.string(), v.hexColor('Write a colour as #rrggbb.')),
});

const substance = v.strictObject({
  id,
  name: line,
  shortName: line,
  formula,
  role: v.picklist(['primary-standard', 'titrant-material', 'reagent']),
  form: sentence,
  densityGPerCm3: v.nullable(v.pipe(positive, v.maxValue(25, 'No substance is that dense.'))),
  drying: v.nullable(drying),
  solubilityMolPerL: v.optional(v.nullable(positive), null),
  needs: v.optional(v.nullable(sentence), null),
  solutionColour: v.optional(
    v.nullable(v.strictObject({ ...colour.entries, atMolPerL: positive })),
    null,
  ),
  solution: v.optional(
    v.strictObject({
      solventId: id,
      additions: v.array(v.strictObject({ substanceId: id, gPerL: positive })),
    }),
    { solventId: 'water', additions: [] },
  ),
  hazards,
  cautions: v.array(sentence),
  waste: v.picklist([
    'acid-base',
    'manganese',
    'chromium',
    'mercury',
    'silver',
    'iodine',
    'metal',
    'organic',
    'harmless',
  ]),
  mistakenFor: ids,
  source,
});

const concentrate = v.strictObject({
  id,
  substanceId: id,
  massPercent: v.pipe(positive, v.maxValue(100, 'At most 100 %.')),
  densityGPerMl: v.pipe(positive, v.maxValue(5, 'No solution is that dense.')),
  source,
});

const solvent = v.strictObject({
  id,
  name: line,
  densityGPerMl: positive,
  cubicExpansionPerK: positive,
  isWater: v.optional(v.boolean(), false),
  hazards,
  source,
});

const number = v.pipe(v.number(), v.finite());
const wholeNumber = v.pipe(v.number(), v.integer(), v.minValue(0));
const duration = v.strictObject({
  months: v.exactOptional(wholeNumber),
  weeks: v.exactOptional(wholeNumber),
  days: v.exactOptional(wholeNumber),
});

/** What is done in a step of a recipe. */
export const stepWork = v.picklist([
  'dry',
  'cool',
  'boil',
  'draw',
  'weigh',
  'measure',
  'transfer',
  'dissolve',
  'add',
  'heat',
  'to-room-temperature',
  'to-mark',
  'mix',
  'stand',
  'filter',
  'procedure',
  'bottle',
  'label',
]);

const steps = v.array(
  v.strictObject({ work: stepWork, text: sentence, waitMinutes: v.nullable(positive) }),
);

const indicator = v.strictObject({
  id,
  name: line,
  changes: v.array(
    v.variant('by', [
      v.strictObject({ by: v.picklist(['pH', 'potential-V']), range: v.tuple([number, number]) }),
      v.strictObject({ by: v.literal('reagent'), what: sentence }),
    ]),
  ),
  colours: v.array(v.tuple([line, line])),
  preparation: sentence,
  steps: v.optional(v.nullable(steps), null),
  dose: v.optional(v.nullable(sentence), null),
  keepsFor: duration,
  hazards,
  madeUp: v.optional(
    v.strictObject({
      ownPercent: v.pipe(number, v.minValue(0), v.maxValue(100)),
      holds: v.array(v.strictObject({ id, massPercent: v.pipe(positive, v.maxValue(100)) })),
    }),
    { ownPercent: 100, holds: [] },
  ),
  source,
});

/** Reactions in order, and what links them. */
const equations = v.pipe(
  v.array(v.pipe(sentence, v.check(isOfSizeToBalance, 'Write its steps on their own.'))),
  v.minLength(1, 'Write the reaction.'),
  v.maxLength(6, 'At most six reactions in a row.'),
);
const links = v.pipe(v.array(formula), v.maxLength(5, 'At most six reactions in a row.'));

/** Whether core would take on an equation of so many species. What cannot be read at all is for core to say. */
function isOfSizeToBalance(text: string): boolean {
  return text.split(/\s\+\s/).length <= EQUATION_AT_MOST.species;
}

const reacting = v.strictObject({ species: formula, perFormulaUnit: positive });

const keeping = v.strictObject({
  substanceId: id,
  interval: duration,
  dilute: v.optional(
    v.nullable(v.strictObject({ belowMolPerL: positive, interval: duration })),
    null,
  ),
  lastsFor: v.optional(v.nullable(duration), null),
  settles: v.optional(
    v.nullable(v.strictObject({ fromMolPerL: positive, interval: duration })),
    null,
  ),
  container: v.picklist(['plastic', 'brown-glass', 'clear-glass']),
  remark: sentence,
  endedBy: v.optional(remark, ''),
  source: v.optional(source, 'not stated'),
});

/** What goes in beside the solute, by volume or by mass. */
const ofAddition = { what: sentence, growsWithSolute: v.optional(v.boolean(), false) };
const addition = v.union([
  v.strictObject({ ...ofAddition, volumeMl: positive }),
  v.strictObject({ ...ofAddition, massG: positive }),
]);

const preparation = v.strictObject({
  id,
  name: line,
  soluteId: id,
  route: v.picklist(['weighed', 'from-solution', 'volumes-added']),
  exactness: v.picklist(['exact', 'approximate']),
  molarityMolPerL: positive,
  volumeMl: positive,
  from: v.nullable(
    v.variant('kind', [
      v.strictObject({ kind: v.literal('concentrate'), concentrateId: id }),
      v.strictObject({ kind: v.literal('stock'), molarityMolPerL: positive }),
    ]),
  ),
  additions: v.array(addition),
  solventId: id,
  steps,
  cautions: v.array(sentence),
  sinceEdition: v.optional(positive, 1),
  source,
});

/** How a titration is done. */
const procedure = {
  id,
  name: line,
  titrantIds: v.pipe(ids, v.minLength(1, 'Name the titrant.')),
  excess: v.optional(v.nullable(v.strictObject({ substanceId: id, reagent: reacting })), null),
  equations,
  links,
  titrant: reacting,
  nominalMolarityMolPerL: positive,
  indicatorId: v.nullable(id),
  indicatorDrops: v.nullable(positive),
  colours: v.strictObject({ before: colour, endPoint: colour, overshot: colour }),
  course: v.exactOptional(v.array(colour)),
  medium: sentence,
  mediumHolds: v.exactOptional(
    v.array(v.strictObject({ id, molarityMolPerL: v.nullable(positive) })),
  ),
  solventId: id,
  flaskTemperatureC: v.nullable(range),
  rules: v.optional(v.partial(houseRulesSchema), {}),
  needsBlank: v.optional(v.boolean(), false),
  cautions: v.array(sentence),
  source,
};

const weighed = v.strictObject({ kind: v.literal('weighed'), massG: range });

/** How a titrant is standardized. */
const method = v.strictObject({
  ...procedure,
  standardId: id,
  inBurette: v.picklist(['titrant', 'standard']),
  standard: reacting,
  portions: v.pipe(
    v.array(
      v.variant('kind', [
        weighed,
        v.strictObject({
          kind: v.literal('aliquot'),
          standardMolarityMolPerL: positive,
          volumeMl: range,
        }),
      ]),
    ),
    v.minLength(1, 'Choose at least one.'),
  ),
});

const statedAs = v.array(
  v.strictObject({
    name: line,
    formula,
    perFormulaUnit: positive,
    densityGPerMl: v.nullable(positive),
  }),
);

/** How many times a titre counts in that of a part. */
const times = v.pipe(v.number(), v.integer(), v.minValue(-9), v.maxValue(9));

const part = v.strictObject({
  id,
  name: line,
  titre: v.strictObject({ toFirst: times, toLast: times }),
  statedAs: v.pipe(statedAs, v.minLength(1)),
});

const analysis = v.strictObject({
  ...procedure,
  analyte: v.pipe(v.string(), v.minLength(1)),
  statedAs,
  twoEnds: v.exactOptional(
    v.strictObject({
      first: v.strictObject({
        indicatorId: id,
        indicatorDrops: positive,
        until: line,
        colours: v.strictObject({ before: colour, endPoint: colour }),
      }),
      always: v.array(part),
      cases: v.array(v.array(part)),
    }),
  ),
  units: v.pipe(v.array(resultUnit), v.minLength(1, 'Choose at least one.')),
  portions: v.pipe(
    v.array(
      v.variant('kind', [weighed, v.strictObject({ kind: v.literal('aliquot'), volumeMl: range })]),
    ),
    v.minLength(1, 'Choose at least one.'),
  ),
  typical: positive,
  targetUPercent: positive,
  performance: v.exactOptional(
    v.strictObject({
      methodUncertaintyPercent: v.nullable(positive),
      repeatabilityPercent: v.nullable(positive),
      detectionLimit: v.nullable(positive),
      quantificationLimit: v.nullable(positive),
    }),
  ),
  remark: sentence,
});

/** An entry that a laboratory has written itself. */
export const ownEntrySchema: v.GenericSchema<unknown, OwnEntry> = v.variant('kind', [
  v.strictObject({
    kind: v.literal('substance'),
    substance,
    keeping: v.nullable(keeping),
  }),
  v.strictObject({ kind: v.literal('indicator'), indicator }),
  v.strictObject({ kind: v.literal('recipe'), recipe: preparation }),
  v.strictObject({ kind: v.literal('analysis'), analysis }),
]);

/** Entries of the laboratory's own. */
export const ownEntries: v.GenericSchema<unknown, Own> = v.pipe(
  v.array(v.strictObject({ id: recordId, version: storedInteger(1), entry: ownEntrySchema })),
  v.maxLength(20, 'It names too many entries.'),
  v.readonly(),
);

/** What of the laboratory's own a record names. */
export const own = v.exactOptional(ownEntries);

/** A method of a laboratory's own. */
export const methodSchema = v.strictObject({ ...method.entries, own });

/** An analysis, as whatever rests on it carries it. */
export const analysisSchema = v.strictObject({ ...analysis.entries, own });

/**
 * Catalogue entries, those that ship and a laboratory's own alike; a list that is left out is empty. Whether reactions
 * balance and names lead somewhere is for core's `checkCatalogue`.
 */
export const catalogueSchema = v.strictObject({
  substances: v.optional(v.array(substance), []),
  concentrates: v.optional(v.array(concentrate), []),
  solvents: v.optional(v.array(solvent), []),
  indicators: v.optional(v.array(indicator), []),
  methods: v.optional(v.array(method), []),
  analyses: v.optional(v.array(analysis), []),
  preparations: v.optional(v.array(preparation), []),
  keeping: v.optional(v.array(keeping), []),
}) satisfies v.GenericSchema<unknown, Catalogue>;
