import { propagate } from '../../measurement';
import type { KnownScatter, PooledScatter, Summary } from '../../statistics';
import { poolScatter } from '../../statistics';
import type { Repeatability } from '../figures';
import { areWholeUnits, measurementModel } from '../figures';
import type { Flask, RunState } from '../run';
import { soughtOf } from '../setUp';

/** How the scatter of a series was pooled, relative. */
interface Pooling {
  /** Of a single titration, before this series. */
  readonly known: KnownScatter;
  /** Its last series, or what the inputs allow. */
  readonly knownFrom: 'series' | 'inputs';
  /** Series that it comes from; null where it comes from the inputs. */
  readonly series: number | null;
  /** Of this series; null for a single titration. */
  readonly ownSd: number | null;
  readonly n: number;
  readonly pooled: PooledScatter;
}

/** What is known of how well the titrations of a series are repeated, and which of it enters the budget. */
export interface Accounts {
  readonly from: 'inputs' | 'scatter' | 'pooled' | 'method';
  readonly relative: {
    readonly inputs: number;
    readonly scatter: number | null;
    readonly method: number | null;
  };
  readonly pooling: Pooling | null;
  readonly given: Repeatability;
}

/** No repeatability of its own: the varying inputs stand in the budget themselves. */
const NONE: Repeatability = {
  relativeStandardUncertainty: 0,
  degreesOfFreedom: Number.POSITIVE_INFINITY,
  source: 'counted in the inputs',
};

/** Where no series went before, what the inputs allow counts as if it had been found from nine titrations. */
const FREEDOM_OF_INPUTS = 8;

/** The accounts of repeatability of the mean over the flasks; varying effects enter by one of them only. */
export function accountsOf(run: RunState, flasks: readonly Flask[], accurate: Summary): Accounts {
  const root = Math.sqrt(flasks.length);
  const fromInputs = propagate(
    measurementModel(run, flasks, NONE),
    soughtOf(run.references).as.unit,
    { isMuted: (given) => given.variation === 'common' },
  );
  const { relativeSdPercent: scatterPercent, n } = accurate;
  const methodPercent = run.setUp.methodRepeatabilityPercent;
  const relative = {
    inputs: fromInputs.combinedStandardUncertainty / fromInputs.value,
    scatter: scatterPercent === null ? null : scatterPercent / 100 / root,
    method: methodPercent === null ? null : Number(methodPercent) / 100 / root,
  };
  // Whole units scatter by what they hold: that says nothing of the method, nor the method of that.
  const isPooled = run.setUp.rules.pooling === 'pooled' && !areWholeUnits(run);
  const pooling = isPooled ? poolingOf(run, relative.inputs * root, accurate) : null;
  const method = relative.method === null ? null : byMethod(relative.method);
  if (pooling && !pooling.pooled.isTooLarge) {
    const { sd, degreesOfFreedom } = pooling.pooled;
    const given = {
      relativeStandardUncertainty: sd / root,
      degreesOfFreedom,
      source: sourceOf(pooling),
    };
    return method && method.relativeStandardUncertainty > given.relativeStandardUncertainty
      ? { from: 'method', relative, pooling, given: method }
      : { from: 'pooled', relative, pooling, given };
  }
  return { relative, pooling, ...largest(relative, method, n) };
}

function poolingOf(run: RunState, inputsSd: number, { n, relativeSdPercent }: Summary): Pooling {
  const { earlierSeries } = run.setUp;
  const known = earlierSeries
    ? {
        sd: Number(earlierSeries.relativeSdPercent) / 100,
        degreesOfFreedom: earlierSeries.degreesOfFreedom,
      }
    : { sd: inputsSd, degreesOfFreedom: FREEDOM_OF_INPUTS };
  const ownSd = relativeSdPercent === null ? null : relativeSdPercent / 100;
  return {
    known,
    knownFrom: earlierSeries ? 'series' : 'inputs',
    series: earlierSeries?.series ?? null,
    ownSd,
    n,
    pooled: poolScatter(known, ownSd, n),
  };
}

function sourceOf({ knownFrom, series, n }: Pooling): string {
  const known =
    knownFrom === 'series'
      ? `${String(series)} earlier series of the method`
      : 'what its inputs allow';
  return n < 2
    ? `${known}; one titration has no scatter`
    : `scatter of ${String(n)} titrations, pooled with ${known}`;
}

function byMethod(relativeStandardUncertainty: number): Repeatability {
  return {
    relativeStandardUncertainty,
    degreesOfFreedom: Number.POSITIVE_INFINITY,
    source: 'known repeatability of the method',
  };
}

/** Varying effects enter once: from the inputs, the scatter or the method's record, the largest. */
function largest(
  { inputs, scatter }: Accounts['relative'],
  method: Repeatability | null,
  n: number,
): Pick<Accounts, 'from' | 'given'> {
  const known = method?.relativeStandardUncertainty ?? 0;
  if (scatter !== null && scatter > inputs && scatter >= known) {
    return {
      from: 'scatter',
      given: {
        relativeStandardUncertainty: scatter,
        degreesOfFreedom: n - 1,
        source: `scatter of ${String(n)} titrations`,
      },
    };
  }
  return method && known > inputs
    ? { from: 'method', given: method }
    : { from: 'inputs', given: NONE };
}
