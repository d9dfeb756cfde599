import { sumDecimals } from '../measurement';
import type { DilutionStep } from '../preparation';
import { overallDilutionFactor } from '../preparation';
import { requireDistinct, requireNotNegative, requirePositive, Unanswerable } from '../problem';
import type { ConcordanceLimit, Summary } from '../statistics';
import { largestConcordantSet, summarize } from '../statistics';
import type { Determination } from './determination';
import { requireSense, takesMasses } from './determination';
import { PlainDetermination } from './plainDetermination';

/** What was measured into a flask: a mass, or an aliquot. */
export type PlainPortion = { readonly massG: number } | { readonly aliquotMl: number };

/** One titration as it is written down. */
export interface TitrationReplicate {
  readonly id: string;
  /** Readings of the burette, one pair for each filling, mL. */
  readonly fillings: readonly { readonly initialMl: number; readonly finalMl: number }[];
  readonly portion: PlainPortion;
  /** Of this replicate alone. */
  readonly dilutions?: readonly DilutionStep[];
  readonly isRough?: boolean;
  readonly isVoided?: boolean;
}

/** What one titration gives. */
export type ReplicateOutcome = { readonly id: string } & (
  | {
      readonly kind: 'found';
      readonly titreMl: number;
      /** Titre less the blank; null where an excess is titrated back, of which it is the rest. */
      readonly netTitreMl: number | null;
      readonly result: number;
      readonly counts: boolean;
    }
  | {
      readonly kind: 'failed';
      readonly problem: Unanswerable;
      /** As its readings give it; null where these cannot be. */
      readonly titreMl: number | null;
    }
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
  const ids = replicates.map(({ id }) => id);
  requireDistinct(ids, 'id', 'titrations');
  const plain = new PlainDetermination(determination);
  const outcomes = replicates.map((replicate) => outcomeOf(determination, plain, replicate));
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

function outcomeOf(
  determination: Determination,
  plain: PlainDetermination,
  replicate: TitrationReplicate,
): ReplicateOutcome {
  let titreMl: number | null = null;
  try {
    const isBack = plain.excessTitreMl !== null;
    titreMl = titreOf(replicate);
    const netTitreMl = isBack ? null : netTitreOf(plain, titreMl);
    const portion = portionOf(determination, replicate.portion, replicate.dilutions);
    const result = plain.found(portion, netTitreMl ?? titreMl);
    if (isBack && !(result > 0)) {
      throw new Unanswerable(
        'no-reagent-consumed',
        'final_reading',
        'More reagent was left over than had been added; the sample consumed none.',
      );
    }
    const counts = !(replicate.isRough ?? false) && !(replicate.isVoided ?? false);
    return { id: replicate.id, kind: 'found', titreMl, netTitreMl, result, counts };
  } catch (error) {
    if (!(error instanceof Unanswerable)) throw error;
    return { id: replicate.id, kind: 'failed', problem: error, titreMl };
  }
}

/** A portion in g or mL, as much of it as comes into the flask after its dilutions. @throws Unanswerable */
export function portionOf(
  determination: Determination,
  portion: PlainPortion,
  dilutions: readonly DilutionStep[] = [],
): number {
  const isMass = 'massG' in portion;
  if (isMass !== takesMasses(determination)) {
    const sentence = isMass
      ? 'It needs an aliquot, not a mass.'
      : 'It needs a mass, not an aliquot.';
    throw new Unanswerable('incompatible-units', isMass ? 'mass' : 'aliquot', sentence);
  }
  const amount = isMass ? portion.massG : portion.aliquotMl;
  requirePositive(amount, isMass ? 'mass' : 'aliquot');
  return amount / overallDilutionFactor(dilutions);
}

/** Sum over the fillings of final minus initial reading, exact in the decimals as read. */
function titreOf({ fillings }: TitrationReplicate): number {
  for (const { initialMl, finalMl } of fillings) {
    requireNotNegative(initialMl, 'initial_reading');
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

/** The titre less the blank, exact in its decimals. */
function netTitreOf({ subtractedMl }: PlainDetermination, titreMl: number): number {
  const netMl = sumDecimals([titreMl, -subtractedMl]);
  if (netMl > 0) return netMl;
  throw new Unanswerable(
    'no-net-titre',
    'final_reading',
    'Nothing is left of the titre after the blank.',
  );
}
