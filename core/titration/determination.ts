import type { Expression, Unit } from '../measurement';
import { evaluate, exact, product, sumDecimals, UNITS } from '../measurement';
import type { DilutionStep } from '../preparation';
import { dilutedMolarity, molarityOfSolution, overallDilutionFactor } from '../preparation';
import { requireNotNegative, requirePositive, Unanswerable } from '../problem';
import type { ConcordanceLimit, Summary } from '../statistics';
import { largestConcordantSet, summarize } from '../statistics';
import { endOnBurette } from './endOnBurette';
import type { ResultQuantity } from './equations';
import {
  amountByDifference,
  amountTitrated,
  molarityByAliquot,
  molarityByBackTitration,
  molarityByStandardInBurette,
  molarityByWeighedStandard,
  ratioOf,
  stateResult,
} from './equations';

/** One titration as it is written down. */
export interface TitrationReplicate {
  readonly id: string;
  /** Readings of the burette, one pair for each filling, mL. */
  readonly fillings: readonly { readonly initialMl: number; readonly finalMl: number }[];
  /** What was titrated: a mass, or an aliquot. */
  readonly portion: { readonly massG: number } | { readonly aliquotMl: number };
  /** Of this replicate alone. */
  readonly dilutions?: readonly DilutionStep[];
  readonly isRough?: boolean;
  readonly isVoided?: boolean;
}

/** Moles that react with one another. */
export interface Ratio {
  readonly titrant: number;
  readonly other: number;
}

/** A standard: a substance weighed into each flask, or a solution from which aliquots are taken. */
export type Standard =
  | { readonly kind: 'weighed'; readonly molarMassGPerMol: number; readonly purity: number }
  | {
      readonly kind: 'solution';
      readonly molarityMolPerL: number;
      readonly dilutions: readonly DilutionStep[];
      /** Titrated into aliquots of what is standardized, instead of the other way round. */
      readonly isInBurette?: boolean;
      /** For a back-titration: what an excess in each flask can take of what is standardized, mmol. */
      readonly excessMmol?: number;
    }
  | {
      readonly kind: 'made-up';
      readonly molarMassGPerMol: number;
      readonly purity: number;
      readonly massG: number;
      readonly volumeMl: number;
      readonly dilutions: readonly DilutionStep[];
    };

/** What an unknown is stated as, with what that needs. */
export interface Statement {
  readonly quantity: ResultQuantity;
  readonly unit: Unit;
  readonly molarMassGPerMol?: number;
  readonly unitMassG?: number;
  /** Equivalents in a mole of titrant, for an equivalent mass. */
  readonly titrantEquivalents?: number;
  readonly sampleDilutions: readonly DilutionStep[];
}

/** What is found out by titrating, and from what. */
export type Determination =
  | {
      readonly kind: 'standardization';
      readonly standard: Standard;
      /** Moles of titrant to moles of standard. */
      readonly ratio: Ratio;
      readonly blankMl: number | null;
    }
  | {
      readonly kind: 'assay';
      readonly titrantMolarityMolPerL: number;
      /** Moles of titrant to moles of analyte. */
      readonly ratio: Ratio;
      readonly blankMl: number | null;
      readonly statement: Statement;
    }
  | {
      readonly kind: 'back-titration';
      readonly titrantMolarityMolPerL: number;
      /** Moles of titrant to moles of reagent. */
      readonly ratio: Ratio;
      readonly analytePerReagent: number;
      /** The reagent added, or the titre that the same reagent takes without a sample. */
      readonly reagent:
        | { readonly molarityMolPerL: number; readonly volumeMl: number }
        | { readonly blankTitreMl: number };
      readonly statement: Statement;
    };

/** What one titration gives. */
export type ReplicateOutcome = { readonly id: string } & (
  | {
      readonly kind: 'found';
      readonly titreMl: number;
      /** Titre less the blank; null for a back-titration, which has none. */
      readonly netTitreMl: number | null;
      readonly result: number;
      readonly counts: boolean;
    }
  | { readonly kind: 'failed'; readonly problem: Unanswerable }
);

/** The rule by which titrations count as concordant. */
export interface ConcordanceRule {
  readonly quantity: 'titre' | 'result';
  readonly limit: ConcordanceLimit;
  readonly atLeast: number;
}

/** The concordant titrations by one rule. */
interface ConcordantSet {
  readonly ids: readonly string[];
  readonly titreRangeMl: number;
  readonly meanTitreMl: number;
  readonly meanResult: number;
}

/** All titrations of one determination, and what they come to. */
export interface DeterminationResult {
  readonly replicates: readonly ReplicateOutcome[];
  readonly countedIds: readonly string[];
  /** Of those that count; null when none does. */
  readonly summary: Summary | null;
  /** One for each rule; null when too few agree. */
  readonly concordance: readonly (ConcordantSet | null)[];
}

/**
 * Evaluates a series of titrations: every replicate's result, the statistics of those that count (not rough, not
 * voided, without error), and the concordant set under each rule.
 *
 * @throws Unanswerable when the determination itself makes no sense; what is wrong with one titration is its outcome.
 */
export function determine(
  determination: Determination,
  replicates: readonly TitrationReplicate[],
  rules: readonly ConcordanceRule[],
  confidence = 0.95,
): DeterminationResult {
  requireSense(determination);
  const outcomes = replicates.map((replicate) => outcomeOf(determination, replicate));
  const counted = outcomes.filter((outcome) => outcome.kind === 'found' && outcome.counts);
  const found = counted.filter((outcome) => outcome.kind === 'found');
  return {
    replicates: outcomes,
    countedIds: found.map((outcome) => outcome.id),
    summary: summarize(
      found.map((outcome) => outcome.result),
      confidence,
    ),
    concordance: rules.map(({ quantity, limit, atLeast }) => {
      const values = found.map((one) => (quantity === 'titre' ? one.titreMl : one.result));
      const set = largestConcordantSet(values, limit, atLeast);
      const members = set?.indices.flatMap((index) => found[index] ?? []) ?? [];
      const titres = summarize(members.map((member) => member.titreMl));
      const results = summarize(members.map((member) => member.result));
      return (
        titres &&
        results && {
          ids: members.map((member) => member.id),
          titreRangeMl: titres.range,
          meanTitreMl: titres.mean,
          meanResult: results.mean,
        }
      );
    }),
  };
}

/** Where a titration is expected to end. All in mL. */
export interface ExpectedEnd {
  readonly titreMl: number;
  /** The titre is expected within plus or minus this. */
  readonly halfBandMl: number;
  readonly readingMl: number;
  /** Up to here it may be run quickly. */
  readonly runFreelyToMl: number;
  /** Whether it ends before the last mark, band included. */
  readonly holds: boolean;
}

/** What a forecast rests on. */
export interface ForecastBasis {
  /** The result that is expected, in the unit of the determination, and how far it may be off, relative. */
  readonly expected: number;
  readonly relativeHalfBand: number;
  readonly initialMl: number;
  readonly capacityMl: number;
  readonly dropMl: number;
}

/**
 * Forecasts a titration, blank included: V = nu m P / (M c) + V_blank and its likes for an aliquot or an unknown.
 *
 * @throws Unanswerable when the determination, the portion or what is expected makes no sense; a back-titration takes no forecast.
 */
export function expectedEnd(
  determination: Exclude<Determination, { kind: 'back-titration' }>,
  portion: TitrationReplicate['portion'],
  { expected, relativeHalfBand, initialMl, capacityMl, dropMl }: ForecastBasis,
): ExpectedEnd {
  requireSense(determination);
  requirePositive(expected, 'expected');
  const perMl = resultOf(determination, { id: 'forecast', fillings: [], portion }, 1);
  // c = x / V for a titrant, c = x V for what is in the flask, where x is what 1 mL would give.
  const isTitrant =
    determination.kind === 'standardization' && !isInBurette(determination.standard);
  const netMl = isTitrant ? perMl / expected : expected / perMl;
  const titreMl = netMl + (determination.blankMl ?? 0);
  const halfBandMl = netMl * relativeHalfBand + dropMl / 2;
  const end = endOnBurette(initialMl, initialMl + titreMl, halfBandMl, capacityMl);
  return {
    titreMl,
    halfBandMl,
    readingMl: end.expected,
    runFreelyToMl: end.runFreelyTo,
    holds: end.holds,
  };
}

function requireSense(determination: Determination): void {
  requirePositive(determination.ratio.titrant, 'mole_ratio');
  requirePositive(determination.ratio.other, 'mole_ratio');
  if (determination.kind !== 'standardization') {
    requirePositive(determination.titrantMolarityMolPerL, 'titrantMolarityMolPerL');
    overallDilutionFactor(determination.statement.sampleDilutions);
    return;
  }
  const { standard } = determination;
  if (standard.kind === 'solution') {
    requirePositive(standard.molarityMolPerL, 'molarityMolPerL');
  } else {
    requirePositive(standard.molarMassGPerMol, 'molarMassGPerMol');
    requirePositive(standard.purity, 'purity');
    if (standard.purity > 1) {
      throw new Unanswerable('out-of-range', 'purity', 'A purity above 100 % cannot be.');
    }
  }
  if (standard.kind === 'made-up') {
    requirePositive(standard.massG, 'massG');
    requirePositive(standard.volumeMl, 'volumeMl');
  }
  if (standard.kind !== 'weighed') overallDilutionFactor(standard.dilutions);
}

function outcomeOf(determination: Determination, replicate: TitrationReplicate): ReplicateOutcome {
  try {
    const titreMl = titreOf(replicate);
    const netTitreMl = netTitreOf(determination, titreMl);
    const result = resultOf(determination, replicate, netTitreMl ?? titreMl);
    const counts = !(replicate.isRough ?? false) && !(replicate.isVoided ?? false);
    return { id: replicate.id, kind: 'found', titreMl, netTitreMl, result, counts };
  } catch (error) {
    if (!(error instanceof Unanswerable)) throw error;
    return { id: replicate.id, kind: 'failed', problem: error };
  }
}

/** Sum over the fillings of final minus initial reading, exact in the decimals as read. */
function titreOf({ fillings }: TitrationReplicate): number {
  for (const { initialMl, finalMl } of fillings) {
    if (finalMl < initialMl) {
      throw new Unanswerable(
        'negative-titre',
        'final_reading',
        `The final reading ${String(finalMl)} lies above the initial reading ${String(initialMl)}; burettes read downwards.`,
      );
    }
  }
  return sumDecimals(fillings.flatMap(({ initialMl, finalMl }) => [finalMl, -initialMl]));
}

function netTitreOf(determination: Determination, titreMl: number): number | null {
  if (determination.kind === 'back-titration') return null;
  const net = sumDecimals([titreMl, -(determination.blankMl ?? 0)]);
  if (!(net > 0)) {
    throw new Unanswerable(
      'no-net-titre',
      'final_reading',
      'Nothing is left of the titre after the blank.',
    );
  }
  return net;
}

function resultOf(
  determination: Determination,
  replicate: TitrationReplicate,
  volumeMl: number,
): number {
  const portion =
    'massG' in replicate.portion ? replicate.portion.massG : replicate.portion.aliquotMl;
  requirePositive(portion, 'massG' in replicate.portion ? 'mass' : 'aliquot');
  if (determination.kind === 'standardization') {
    return evaluate(standardizationOf(determination, replicate, volumeMl), UNITS.molePerLitre);
  }
  const { statement } = determination;
  const amount = analyteAmount(determination, volumeMl);
  const factor =
    overallDilutionFactor(statement.sampleDilutions) *
    overallDilutionFactor(replicate.dilutions ?? []);
  return evaluate(
    stateResult(statement.quantity, amount, {
      portion: portionOf(replicate),
      dilutionFactor: exact(factor),
      ...(statement.molarMassGPerMol !== undefined && {
        molarMass: exact(statement.molarMassGPerMol, UNITS.gramPerMole),
      }),
      ...(statement.unitMassG !== undefined && {
        unitMass: exact(statement.unitMassG, UNITS.gram),
      }),
      // Equal equivalents react, so a mole of analyte holds z' times the titrant that it takes.
      equivalents: exact(
        ((statement.titrantEquivalents ?? 1) * determination.ratio.titrant) /
          determination.ratio.other,
      ),
    }),
    statement.unit,
  );
}

function portionOf({ portion }: TitrationReplicate): Expression {
  return 'massG' in portion
    ? exact(portion.massG, UNITS.gram)
    : exact(portion.aliquotMl, UNITS.millilitre);
}

function standardizationOf(
  { standard, ratio }: Extract<Determination, { kind: 'standardization' }>,
  replicate: TitrationReplicate,
  volumeMl: number,
): Expression {
  const volume = exact(volumeMl, UNITS.millilitre);
  const nu = ratioOf(ratio.titrant, ratio.other);
  const portion = portionOf(replicate);
  if (standard.kind === 'weighed') {
    return molarityByWeighedStandard(
      {
        ratio: nu,
        mass: portion,
        purity: exact(standard.purity),
        molarMass: exact(standard.molarMassGPerMol, UNITS.gramPerMole),
      },
      volume,
    );
  }
  const undiluted =
    standard.kind === 'solution'
      ? exact(standard.molarityMolPerL, UNITS.molePerLitre)
      : molarityOfSolution(
          exact(standard.massG, UNITS.gram),
          exact(standard.purity),
          exact(standard.molarMassGPerMol, UNITS.gramPerMole),
          exact(standard.volumeMl, UNITS.millilitre),
        );
  const steps = [...standard.dilutions, ...(replicate.dilutions ?? [])].map((step) => ({
    aliquot: exact(step.aliquotMl, UNITS.millilitre),
    flask: exact(step.flaskMl, UNITS.millilitre),
  }));
  const molarity = dilutedMolarity(undiluted, steps);
  if (standard.kind === 'solution' && standard.excessMmol !== undefined) {
    const added = exact(standard.excessMmol / 1000, UNITS.mole);
    const left = product([nu, molarity, volume]);
    const found = molarityByBackTitration(added, left, portion);
    requireConsumed(found, UNITS.molePerLitre);
    return found;
  }
  const molarityBy = isInBurette(standard) ? molarityByStandardInBurette : molarityByAliquot;
  return molarityBy(nu, molarity, portion, volume);
}

function isInBurette(standard: Standard): boolean {
  return standard.kind === 'solution' && (standard.isInBurette ?? false);
}

function analyteAmount(
  determination: Exclude<Determination, { kind: 'standardization' }>,
  volumeMl: number,
): Expression {
  const { titrant, other } = determination.ratio;
  const ratio = ratioOf(titrant, other);
  const molarity = exact(determination.titrantMolarityMolPerL, UNITS.molePerLitre);
  const consumed = (ml: number): Expression =>
    amountTitrated(molarity, exact(ml, UNITS.millilitre), ratio);
  if (determination.kind === 'assay') return consumed(volumeMl);
  const { reagent } = determination;
  if ('molarityMolPerL' in reagent) {
    requirePositive(reagent.molarityMolPerL, 'reagentMolarity');
    requirePositive(reagent.volumeMl, 'reagentVolume');
  } else {
    requireNotNegative(reagent.blankTitreMl, 'blankTitre');
  }
  const added =
    'blankTitreMl' in reagent
      ? consumed(reagent.blankTitreMl)
      : amountTitrated(
          exact(reagent.molarityMolPerL, UNITS.molePerLitre),
          exact(reagent.volumeMl, UNITS.millilitre),
          exact(1),
        );
  const amount = amountByDifference(
    added,
    consumed(volumeMl),
    exact(determination.analytePerReagent),
  );
  requireConsumed(amount, UNITS.mole);
  return amount;
}

/** @throws Unanswerable `no-reagent-consumed` where nothing of the reagent was taken up. */
function requireConsumed(found: Expression, unit: Unit): void {
  if (evaluate(found, unit) > 0) return;
  throw new Unanswerable(
    'no-reagent-consumed',
    'final_reading',
    'More reagent was left over than had been added; the sample consumed none.',
  );
}
