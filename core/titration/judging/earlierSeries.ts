import { roundSignificant } from '../../measurement';
import type { Burette } from '../../metrology';
import type { RunState } from '../run';
import type { EarlierSeries, MethodChoice } from '../setUp';
import type { Judgement } from './judge';

/** How one certified series scattered, and with what it was made. */
export interface SeriesScatter {
  /** The method, by its id. */
  readonly methodId: string;
  readonly burette: string;
  /** Of a single titration. */
  readonly relativeSdPercent: number;
  readonly degreesOfFreedom: number;
}

/** So many series tell how a method scatters: older ones may have been made by other hands. */
const LAST_SERIES = 10;

/** Burettes that are read alike: of one construction and size. */
function buretteClass({ construction, capacityMl }: Burette): string {
  return `${construction} ${String(Number(capacityMl))} mL`;
}

/** How a series scattered; null while it is not certified, and where it was a single titration or without any scatter. */
export function scatterOf(run: RunState, { accurate }: Judgement): SeriesScatter | null {
  const relativeSdPercent = accurate?.relativeSdPercent ?? 0;
  if (run.status !== 'certified' || !accurate || relativeSdPercent === 0) return null;
  return {
    methodId: run.setUp.method.id,
    burette: buretteClass(run.references.burette),
    relativeSdPercent,
    degreesOfFreedom: accurate.n - 1,
  };
}

/** What the last series by a method with such a burette showed together, the newest first; null where there were none. */
export function earlierSeriesOf(
  scatters: readonly (SeriesScatter | null)[],
  method: MethodChoice,
  burette: Burette,
): EarlierSeries | null {
  const alike = scatters
    .filter((one) => one !== null)
    .filter((one) => one.methodId === method.id && one.burette === buretteClass(burette))
    .slice(0, LAST_SERIES);
  const freedom = alike.reduce((total, one) => total + one.degreesOfFreedom, 0);
  if (freedom === 0) return null;
  const squares = alike.reduce(
    (total, one) => total + one.degreesOfFreedom * one.relativeSdPercent ** 2,
    0,
  );
  return {
    series: alike.length,
    relativeSdPercent: roundSignificant(Math.sqrt(squares / freedom), 3),
    degreesOfFreedom: freedom,
  };
}
