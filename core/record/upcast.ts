import type { Fact } from './fact';

/** Turns the body of one schema version into that of the next. */
type UpcastStep = (body: unknown) => unknown;

/** For each kind of fact, the steps from version 1 to 2, 2 to 3 and so on. */
export type UpcastTable = Readonly<Record<string, readonly UpcastStep[]>>;

/** The shapes that bodies had before, by kind. */
const UPCASTS: UpcastTable = {
  'lot.registered': [toLotWithAmount],
  'bottle.prepared': [toBottleWithParents],
  'preparation.started': [toPlanInBeaker],
  'laboratory.rules-set': [toMoreRules, toRulesOfFlaskAndCurve],
  'method.written': [toMethodWithoutExcess],
  'run.started': [toRunWithStandard, toRunWithoutExcess, toRulesOfFlaskAndCurve],
  'run.certified': [
    toCertificateOfPortions,
    toCertificateWithoutNormality,
    toCertificateOfFlaskAndCurve,
    toCertificateOfOneAnalyst,
  ],
};

/** Lots were solids of which nobody counted how much there was. */
function toLotWithAmount(body: unknown): unknown {
  return { ...(body as object), dissolved: null, amountReceived: null, store: '', openedOn: null };
}

/** Bottles were titrants, written down with the one lot that they were made from. */
function toBottleWithParents(body: unknown): unknown {
  const { lotId, ...rest } = body as { readonly lotId: string };
  return {
    ...rest,
    purpose: 'titrant',
    parents: [{ kind: 'lot', id: lotId }],
    preparationId: null,
    made: null,
    plausibleMolarity: null,
    dilutionFactor: null,
    useBy: null,
  };
}

interface FewRules {
  readonly readingDecimals: number;
}

/** What was left to the analyst, as the bench then did it. */
function toEarlierRules({ readingDecimals, ...rules }: FewRules): object {
  return {
    concordanceRangeMl: '0.10',
    weighedConcordance: 'relative-range',
    concordanceRsdPercent: '0.1',
    standardBy: 'weighed',
    weighing: 'tared',
    startOfTitration: 'carry-on',
    readingResolutionMl: readingDecimals === 1 ? '0.1' : '0.01',
    darkMeniscus: 'top',
    persistenceS: 30,
    indicatorDrops: 2,
    overshotCounts: 'within-a-drop',
    oxalateHeating: 'to-75-80',
    washDown: 'distilled',
    carbonDioxide: 'boiled',
    outlierTest: 'none',
    coverage: 'effective-degrees',
    cleaning: 'detergent',
    waste: 'container',
    ...rules,
  };
}

/** Standards were weighed, and nobody asked what becomes of an overshot titration. */
function toRunWithStandard(body: unknown): unknown {
  const { methodId, lot, balance, rules, ...rest } = body as {
    readonly methodId: string;
    readonly lot: unknown;
    readonly balance: unknown;
    readonly rules: FewRules;
  };
  return {
    ...rest,
    method: { kind: 'catalogue', id: methodId },
    standard: { kind: 'lot', lot, balance },
    rules: toEarlierRules(rules),
  };
}

/** What nobody could choose before there were these rules, as it was done. */
const FURTHER_RULES = {
  inBurette: 'titrant',
  primaryTitrants: 'weighed',
  toleranceAs: 'as-registered',
  testedBy: 'concordance',
  certificateStates: 'uncertainty',
  statesNormality: false,
  paperUnits: 'litre',
};

interface WithRules {
  readonly rules: object;
}

/** The rules in a body, with those that came later. */
function toMoreRules(body: unknown): WithRules {
  const { rules, ...rest } = body as WithRules;
  return { ...rest, rules: { ...FURTHER_RULES, ...rules } };
}

/** The rules in a body, with those that came after these. */
function toRulesOfFlaskAndCurve(body: unknown): WithRules {
  const { rules, ...rest } = body as WithRules;
  const LATER_RULES = { titrantsMadeUpIn: 'cylinder', endPointOfCurve: 'second-derivative' };
  return { ...rest, rules: { ...LATER_RULES, ...rules } };
}

function toCertificateOfFlaskAndCurve(body: unknown): unknown {
  const { certificate } = body as { readonly certificate: unknown };
  return { certificate: toRulesOfFlaskAndCurve(certificate) };
}

/** What came from a concentrate was made up in a beaker, and water for bases boiled. */
function toPlanInBeaker(body: unknown): unknown {
  const { source, ...rest } = body as { readonly source: { readonly kind: string } };
  return {
    ...rest,
    carbonDioxide: 'boiled',
    source: source.kind === 'concentrate' ? { flaskId: null, ...source } : source,
  };
}

/** There were no back-titrations. */
function toRunWithoutExcess(body: unknown): unknown {
  return { ...toMoreRules(body), excess: null };
}

/** Nor did a method of one's own add a reagent in excess. */
function toMethodWithoutExcess(body: unknown): unknown {
  const { method, ...rest } = body as { readonly method: object };
  return { ...rest, method: { excess: null, ...method } };
}

/** Certificates stated molarities only. */
function toCertificateWithoutNormality(body: unknown): unknown {
  const { certificate } = body as { readonly certificate: unknown };
  return { certificate: { ...toMoreRules(certificate), normality: null } };
}

/** Nobody compared the rules of a run with those in force, and its analyst was whoever set it up. */
function toCertificateOfOneAnalyst(body: unknown): unknown {
  const { certificate } = body as { readonly certificate: { readonly analystId: string } };
  const { analystId, ...rest } = certificate;
  return { certificate: { ...rest, analystIds: [analystId], deviations: [] } };
}

/** Certificates listed masses of a lot, by their numbers. */
function toCertificateOfPortions(body: unknown): unknown {
  const { certificate } = body as {
    readonly certificate: {
      readonly standardLot: string;
      readonly balance: string;
      readonly rules: FewRules;
      readonly replicates: readonly { readonly massG: string }[];
    };
  };
  const { standardLot, balance, rules, replicates, ...rest } = certificate;
  return {
    certificate: {
      ...rest,
      standard: `lot ${standardLot}`,
      measuredWith: balance,
      rules: toEarlierRules(rules),
      replicates: replicates.map(({ massG, ...replicate }) => ({
        ...replicate,
        portion: `${massG} g`,
      })),
    },
  };
}

/** The schema version that this program writes for a kind of fact. */
export function currentSchemaVersion(kind: string, table: UpcastTable = UPCASTS): number {
  return (table[kind]?.length ?? 0) + 1;
}

/**
 * The fact in the shape that this program understands. The one place where old shapes are known.
 *
 * @throws RangeError when the fact was written by a newer program.
 */
export function upcast(fact: Fact, table: UpcastTable = UPCASTS): Fact {
  const current = currentSchemaVersion(fact.kind, table);
  if (fact.schemaVersion > current) {
    throw new RangeError(
      `${fact.kind} of schema version ${String(fact.schemaVersion)} was written by a newer program; this one knows ${String(current)}`,
    );
  }
  const steps = (table[fact.kind] ?? []).slice(fact.schemaVersion - 1);
  const body = steps.reduce((older, step) => step(older), fact.body);
  return { ...fact, schemaVersion: current, body };
}
