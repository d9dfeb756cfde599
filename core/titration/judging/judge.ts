import type { HouseRules } from '../../laboratory';
import type {
  Correlation,
  DecimalMark,
  DecimalText,
  Evaluation,
  Expression,
  WorkingStep,
} from '../../measurement';
import {
  correlationsIn,
  decimalMark,
  propagate,
  roundToUncertainty,
  working,
} from '../../measurement';
import type { Summary } from '../../statistics';
import {
  acceptedResults,
  DIXON_UP_TO,
  dixonCritical,
  dixonQ,
  grubbs,
  isConstant,
  largestConcordantSet,
  summarize,
} from '../../statistics';
import type { OutcomeSaid } from '../../wording';
import type { Corrections } from '../figures';
import {
  agreementOf,
  correctionsOf,
  curveEndOf,
  flaskMolarity,
  incidentCorrections,
  isOvershot,
  isSeenInScatter,
  measurementModel,
  netTitreMl,
  repeatabilityLimitPercent,
} from '../figures';
import type { AnalysisRun, Flask, Place, RunState } from '../run';
import { isBlank, openConflicts, titreMl } from '../run';
import { soughtOf } from '../setUp';
import type { Accounts } from './repeatability';
import { accountsOf } from './repeatability';

/** What became of a flask. */
export interface Replicate {
  readonly flask: Flask;
  readonly titreMl: DecimalText | null;
  readonly molarity: number | null;
  /**
   * `counts`: averaged. `set-aside`: accurate, but outside the concordant set; its scatter still enters s.
   * `open`: not yet titrated. `blank`: subtracted from the others. `overshot`: beyond the end point by more than the house
   * rule averages. `disputed`: two different entries for one place wait to be settled.
   */
  readonly verdict:
    'counts' | 'set-aside' | 'rough' | 'void' | 'open' | 'blank' | 'overshot' | 'disputed';
  /** Why it counts or does not, as far as that needs saying. */
  readonly why: OutcomeSaid | null;
}

/** The result of a series as it stands. */
export interface Judgement {
  readonly replicates: readonly Replicate[];
  /** Accurate titrations, whether or not they are in the concordant set. */
  readonly accurate: Summary | null;
  /** The titrations that are averaged. */
  readonly averaged: Summary | null;
  readonly isConcordant: boolean;
  /** `0.3 %` or `0.10 mL`: within what they must agree. A certificate keeps it in its words, so it has a point wherever it is made. */
  readonly limit: string;
  /** How wide a band of molarities that is, in %; null when nothing is asked of them. */
  readonly bandPercent: number | null;
  /** How far the accurate ones, and those that are averaged, spread, in the words of the limit. */
  readonly spread: { readonly accurate: string | null; readonly averaged: string | null };
  readonly outlier: OutlierVerdict | null;
  readonly result: Result | null;
}

/** A series of an analysis with what it came to. */
export interface JudgedSeries {
  readonly series: AnalysisRun;
  readonly judgement: Judgement;
}

/** What the house rule's test says of the titration that stands out most. */
interface OutlierVerdict {
  readonly flask: number;
  readonly test: 'grubbs' | 'dixon';
  readonly statistic: number;
  readonly critical: number;
  readonly isOutlier: boolean;
}

/** A molarity with its uncertainty and how it came about. */
export interface Result {
  readonly evaluation: Evaluation;
  readonly rounded: { readonly value: DecimalText; readonly uncertainty: DecimalText };
  /** Which account of repeatability entered the budget. */
  readonly repeatabilityFrom: Accounts['from'];
  /** The accounts as relative standard uncertainties of the mean; null where there is none. */
  readonly repeatability: Accounts['relative'];
  /** How the scatter was pooled with what the method usually shows; null where the house rule takes it by itself. */
  readonly pooling: Accounts['pooling'];
  /** What it would be as measured, and by how much each correction moves it. */
  readonly corrections: Corrections;
  readonly working: readonly WorkingStep[];
  /** The measurement equation, and the inputs of it whose effect the repeatability covers. */
  readonly model: Expression;
  readonly mutedInputIds: readonly string[];
  /** Between inputs that rest on the same. */
  readonly correlations: readonly Correlation[];
}

/** An accurate titration: its titre less a blank, and the molarity that it gives. */
interface Titrated {
  readonly flask: Flask;
  readonly netTitreMl: number;
  readonly molarity: number;
}

/**
 * Judges a series: which titrations count under the house rule, their statistics, and the molarity with its
 * uncertainty budget. Where the rule keeps a concordant subset, s still comes from all accurate titrations:
 * choosing the closest would understate it.
 */
export function judgeRun(run: RunState): Judgement {
  const mark = decimalMark();
  const known = JUDGED.get(run);
  if (known?.mark === mark) return known.judgement;
  const judgement = judged(run);
  JUDGED.set(run, { mark, judgement });
  return judgement;
}

/** A state never changes, and lists, bench and pages ask for the same one many times; its words hold figures as they are written now. */
const JUDGED = new WeakMap<
  RunState,
  { readonly mark: DecimalMark; readonly judgement: Judgement }
>();

function judged(run: RunState): Judgement {
  const { rules } = run.setUp;
  const disputed = new Map(openConflicts(run).map(({ flask, place }) => [flask, place]));
  const titrated = run.flasks
    .filter(
      (flask) =>
        !flask.voided && !flask.isRough && !isOvershot(run, flask) && !disputed.has(flask.number),
    )
    .flatMap((flask): readonly Titrated[] => {
      const net = netTitreMl(run, flask);
      const molarity = flaskMolarity(run, flask);
      return net === null || molarity === null ? [] : [{ flask, netTitreMl: net, molarity }];
    });
  const molarities = titrated.map((item) => item.molarity);
  const agreement = agreementOf(run);
  const r = repeatabilityLimitPercent(run);
  const concordance =
    r === null
      ? largestConcordantSet(
          agreement.compares === 'titres' ? titrated.map((item) => item.netTitreMl) : molarities,
          agreement.limit,
          rules.agreeAtLeast,
        )
      : acceptedResults(molarities, r);
  // Until enough agree, the series is shown as it is: everything accurate is averaged.
  const counting = concordance
    ? concordance.indices.flatMap((index) => titrated[index] ?? [])
    : titrated;
  const counted = new Set(counting.map((item) => item.flask.number));
  const accurate = summarize(molarities);
  const averaged = summarize(counting.map((item) => item.molarity));
  const titresOf = (items: readonly Titrated[]): Summary | null =>
    summarize(items.map((item) => item.netTitreMl));
  const spreadOf = (items: readonly Titrated[], summary: Summary | null): string | null => {
    const titres = titresOf(items);
    return titres && summary && agreement.spreadText(titres, summary);
  };
  return {
    replicates: run.flasks.map((flask) =>
      replicateOf(run, flask, counted, disputed.get(flask.number), agreement.limitText),
    ),
    accurate,
    averaged,
    isConcordant: concordance !== null,
    limit: agreement.limitText,
    bandPercent: agreement.bandPercent(titresOf(counting)),
    spread: { accurate: spreadOf(titrated, accurate), averaged: spreadOf(counting, averaged) },
    outlier: outlierAmong(rules.outlierTest, titrated),
    result:
      accurate &&
      resultOf(
        run,
        counting.map((item) => item.flask),
        accurate,
      ),
  };
}

/** Dixon's table begins with three values, and Grubbs' test says little below four. */
const TESTED_FROM = { grubbs: 4, dixon: 3 } as const;

/** Confidence of the outlier tests. */
const OUTLIER_PERCENT = 95;

function outlierAmong(
  test: HouseRules['outlierTest'],
  titrated: readonly Titrated[],
): OutlierVerdict | null {
  const values = titrated.map(({ molarity }) => molarity);
  if (test === 'none' || values.length < TESTED_FROM[test] || isConstant(values)) return null;
  const verdict = (at: number | null, statistic: number, critical: number) => {
    const flask = at === null ? undefined : titrated[at]?.flask;
    return flask
      ? { flask: flask.number, test, statistic, critical, isOutlier: statistic > critical }
      : null;
  };
  if (test === 'grubbs') {
    const { suspectIndex, g, critical } = grubbs(values, OUTLIER_PERCENT / 100);
    return verdict(suspectIndex, g, critical);
  }
  if (values.length > DIXON_UP_TO) return null;
  const { suspectIndex, q } = dixonQ(values);
  return verdict(suspectIndex, q, dixonCritical(values.length, OUTLIER_PERCENT));
}

function replicateOf(
  run: RunState,
  flask: Flask,
  counted: ReadonlySet<number>,
  disputed: Place | undefined,
  limit: string,
): Replicate {
  const base = { flask, titreMl: titreMl(flask), molarity: flaskMolarity(run, flask) };
  if (flask.voided) {
    const { reason, cause } = flask.voided;
    const why = { code: 'voided', reason, ...(cause && { cause }) } as const;
    return { ...base, verdict: 'void', why };
  }
  if (disputed) {
    return { ...base, verdict: 'disputed', why: { code: 'disputed', place: disputed.at } };
  }
  if (isBlank(flask) && base.titreMl !== null) {
    return { ...base, verdict: 'blank', why: { code: 'blank' } };
  }
  if (base.molarity === null) {
    return { ...base, verdict: 'open', why: whyOpen(run, flask) };
  }
  if (flask.isRough) {
    return { ...base, verdict: 'rough', why: { code: 'rough' } };
  }
  if (isOvershot(run, flask)) {
    return { ...base, verdict: 'overshot', why: { code: 'overshot' } };
  }
  if (counted.has(flask.number)) {
    return { ...base, verdict: 'counts', why: endByCurve(run, flask) ?? byIncidents(run, flask) };
  }
  return { ...base, verdict: 'set-aside', why: { code: 'set-aside', limit } };
}

/** Where a curve puts the end, so that the titre on record can be followed; null where the last reading is the end. */
function endByCurve(run: RunState, flask: Flask): OutcomeSaid | null {
  const end = curveEndOf(run, flask);
  return end && { code: 'by-curve', endMl: end.volumeMl, way: end.way };
}

/** What incidents of measured size corrected; null where nothing was. */
function byIncidents(run: RunState, flask: Flask): OutcomeSaid | null {
  const corrections = incidentCorrections(run, flask);
  const correctionMl = corrections.reduce((total, one) => total + one.correctionMl, 0);
  return corrections.length === 0 ? null : { code: 'incident-corrected', correctionMl };
}

/** Why a flask gives no molarity. */
function whyOpen(run: RunState, flask: Flask): OutcomeSaid {
  if (!flask.final) return { code: 'not-titrated' };
  const isMoreThanAdded = run.references.excess !== null && titreMl(flask) !== null;
  return { code: isMoreThanAdded ? 'more-than-added' : 'contradictory' };
}

function resultOf(run: RunState, flasks: readonly Flask[], accurate: Summary): Result {
  const { unit } = soughtOf(run.references).as;
  const accounts = accountsOf(run, flasks, accurate);
  const model = measurementModel(run, flasks, accounts.given);
  const correlations = correlationsIn(model);
  const evaluation = propagate(model, unit, {
    correlations,
    isMuted: (effect) => accounts.from !== 'inputs' && isSeenInScatter(effect),
    ...(run.setUp.rules.coverage === 'two' && { coverageFactor: 2 }),
  });
  return {
    evaluation,
    rounded: roundToUncertainty(evaluation.value, evaluation.expandedUncertainty),
    repeatabilityFrom: accounts.from,
    repeatability: accounts.relative,
    pooling: accounts.pooling,
    corrections: correctionsOf(run, evaluation.value),
    working: working(model),
    model,
    correlations,
    mutedInputIds:
      accounts.from === 'inputs'
        ? []
        : evaluation.budget
            .map(({ input }) => input)
            .filter(isSeenInScatter)
            .map(({ id }) => id),
  };
}
