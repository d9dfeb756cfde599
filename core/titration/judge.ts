import type { DecimalText, Evaluation, Expression, WorkingStep } from '../measurement';
import { propagate, roundToUncertainty, UNITS, working } from '../measurement';
import type { Summary } from '../statistics';
import { largestConcordantSet, summarize } from '../statistics';
import { flaskMolarity } from './forecast';
import type { Repeatability } from './model';
import { isSeenInScatter, standardizationModel } from './model';
import type { Flask, Place, RunState } from './run';
import { openConflicts, placeName, titreMl } from './run';

/** What became of a flask. */
export interface Replicate {
  readonly flask: Flask;
  readonly titreMl: DecimalText | null;
  readonly molarity: number | null;
  /**
   * `counts`: averaged. `set-aside`: accurate, but outside the concordant set; its scatter still enters s.
   * `open`: not yet titrated. `disputed`: two different entries for one place wait to be settled.
   */
  readonly verdict: 'counts' | 'set-aside' | 'rough' | 'void' | 'open' | 'disputed';
  /** Why it does not count, as a clause. */
  readonly why: string | null;
}

/** The result of a series as it stands. */
export interface Judgement {
  readonly replicates: readonly Replicate[];
  /** Accurate titrations, whether or not they are in the concordant set. */
  readonly accurate: Summary | null;
  /** The titrations that are averaged. */
  readonly averaged: Summary | null;
  readonly isConcordant: boolean;
  readonly result: Result | null;
}

/** A molarity with its uncertainty and how it came about. */
export interface Result {
  readonly evaluation: Evaluation;
  readonly rounded: { readonly value: DecimalText; readonly uncertainty: DecimalText };
  /** Which of the three accounts of repeatability was the largest and entered the budget. */
  readonly repeatabilityFrom: 'inputs' | 'scatter' | 'method';
  /** The three accounts as relative standard uncertainties of the mean; null where there is none. */
  readonly repeatability: {
    readonly inputs: number;
    readonly scatter: number | null;
    readonly method: number | null;
  };
  readonly working: readonly WorkingStep[];
  /** The measurement equation, and the inputs of it whose effect the repeatability covers. */
  readonly model: Expression;
  readonly mutedInputIds: readonly string[];
}

/**
 * Judges a series: which titrations count under the house rule, their statistics, and the molarity with its
 * uncertainty budget. Where the rule keeps a concordant subset, s still comes from all accurate titrations:
 * choosing the closest would understate it.
 */
export function judgeRun(run: RunState): Judgement {
  const { rules } = run.setUp;
  const disputed = new Map(openConflicts(run).map(({ flask, place }) => [flask, place]));
  const titrated = run.flasks
    .filter((flask) => !flask.voided && !flask.isRough && !disputed.has(flask.number))
    .map((flask) => ({ flask, molarity: flaskMolarity(run, flask) }))
    .filter((item): item is { flask: Flask; molarity: number } => item.molarity !== null);
  const molarities = titrated.map((item) => item.molarity);
  const concordance = largestConcordantSet(
    molarities,
    { maxRelativeRangePercent: Number(rules.concordanceRelativeRangePercent) },
    rules.agreeAtLeast,
  );
  // Until enough agree, the series is shown as it is: everything accurate is averaged.
  const counting = concordance
    ? concordance.indices.flatMap((index) => titrated[index] ?? [])
    : titrated;
  const counted = new Set(counting.map((item) => item.flask.number));
  const accurate = summarize(molarities);
  return {
    replicates: run.flasks.map((flask) =>
      replicateOf(run, flask, counted, disputed.get(flask.number)),
    ),
    accurate,
    averaged: summarize(counting.map((item) => item.molarity)),
    isConcordant: concordance !== null,
    result:
      accurate &&
      resultOf(
        run,
        counting.map((item) => item.flask),
        accurate,
      ),
  };
}

function replicateOf(
  run: RunState,
  flask: Flask,
  counted: ReadonlySet<number>,
  disputed: Place | undefined,
): Replicate {
  const base = { flask, titreMl: titreMl(flask), molarity: flaskMolarity(run, flask) };
  if (flask.voided) return { ...base, verdict: 'void', why: flask.voided.reason };
  if (disputed) {
    const why = `two different entries for its ${placeName(disputed)}: settle which one stands`;
    return { ...base, verdict: 'disputed', why };
  }
  if (base.molarity === null) {
    const why = flask.final ? 'its readings contradict each other' : 'not titrated yet';
    return { ...base, verdict: 'open', why };
  }
  if (flask.isRough) {
    return { ...base, verdict: 'rough', why: 'rough titration, left out by the house rule' };
  }
  if (counted.has(flask.number)) return { ...base, verdict: 'counts', why: null };
  const limit = run.setUp.rules.concordanceRelativeRangePercent;
  return {
    ...base,
    verdict: 'set-aside',
    why: `outside the ${limit} % in which the others agree; its scatter still enters s`,
  };
}

/** No repeatability of its own: the varying inputs stand in the budget themselves. */
const NONE: Repeatability = {
  relativeStandardUncertainty: 0,
  degreesOfFreedom: Number.POSITIVE_INFINITY,
  source: 'counted in the inputs',
};

function resultOf(run: RunState, flasks: readonly Flask[], accurate: Summary): Result {
  const n = Math.sqrt(flasks.length);
  const fromInputs = propagate(standardizationModel(run, flasks, NONE), UNITS.molePerLitre, {
    isMuted: (given) => given.variation === 'common',
  });
  const scatterPercent = accurate.relativeSdPercent;
  const methodPercent = run.setUp.methodRepeatabilityPercent;
  const repeatability = {
    inputs: fromInputs.combinedStandardUncertainty / fromInputs.value,
    scatter: scatterPercent === null ? null : scatterPercent / 100 / n,
    method: methodPercent === null ? null : Number(methodPercent) / 100 / n,
  };
  const { from, given } = largerRepeatability(repeatability, accurate);
  const model = standardizationModel(run, flasks, given);
  const evaluation = propagate(model, UNITS.molePerLitre, {
    isMuted: (effect) => from !== 'inputs' && isSeenInScatter(effect),
  });
  return {
    evaluation,
    rounded: roundToUncertainty(evaluation.value, evaluation.expandedUncertainty),
    repeatabilityFrom: from,
    repeatability,
    working: working(model),
    model,
    mutedInputIds:
      from === 'inputs'
        ? []
        : evaluation.budget
            .map(({ input }) => input)
            .filter(isSeenInScatter)
            .map(({ id }) => id),
  };
}

/** Varying effects enter once: from the inputs, the scatter or the method's record, the largest. */
function largerRepeatability(
  accounts: Result['repeatability'],
  accurate: Summary,
): { from: Result['repeatabilityFrom']; given: Repeatability } {
  const { inputs, scatter, method } = accounts;
  if (scatter !== null && scatter > inputs && scatter >= (method ?? 0)) {
    return {
      from: 'scatter',
      given: {
        relativeStandardUncertainty: scatter,
        degreesOfFreedom: accurate.n - 1,
        source: `scatter of ${String(accurate.n)} titrations`,
      },
    };
  }
  if (method !== null && method > inputs) {
    return {
      from: 'method',
      given: {
        relativeStandardUncertainty: method,
        degreesOfFreedom: Number.POSITIVE_INFINITY,
        source: 'known repeatability of the method',
      },
    };
  }
  return { from: 'inputs', given: NONE };
}
