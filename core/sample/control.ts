import { figureText, roundHalfEven, roundSignificant } from '../measurement';
import { controlChart, controlVerdict, isConstant } from '../statistics';

/** A result of a control on its chart. */
export interface ControlPoint {
  /** The run that it is of; null for one from before. */
  readonly runId: string | null;
  /** A day or an instant; they sort as texts. */
  readonly at: string;
  readonly value: number;
  /** Between duplicates; null where there was one. */
  readonly range: number | null;
  /** Whether it was reported, or taken over: limits are from such. */
  readonly isSettled: boolean;
}

/** Limits are set from as many earlier points, at least. Source: ISO 7870-2:2013. */
export const BASELINE_POINTS = 20;

/** Where limits come from, and what they are. */
export interface ControlLimits {
  readonly centre: number;
  readonly sigma: number;
}

export const CONTROL_VERDICTS = ['no-limits', 'in-control', 'warned', 'out'] as const;

/** How the latest point of a control stands against those before it. */
export interface ControlStanding {
  readonly point: ControlPoint;
  /** Settled points before it. */
  readonly earlier: number;
  /** Null while there are too few of them. */
  readonly limits: ControlLimits | null;
  readonly verdict: (typeof CONTROL_VERDICTS)[number];
  /** Points in a row on one side of the centre, up to this one; null without limits. */
  readonly onOneSide: number | null;
}

/** How the last point of a chart stands, in the order of time; null where there is none. */
export function standingOfControl(points: readonly ControlPoint[]): ControlStanding | null {
  const point = points.at(-1);
  if (!point) return null;
  const before = points.slice(0, -1).filter(({ isSettled }) => isSettled);
  const baseline = before.map(({ value }) => value);
  const none = { point, earlier: baseline.length, limits: null, onOneSide: null } as const;
  if (baseline.length < BASELINE_POINTS || isConstant(baseline)) {
    return { ...none, verdict: 'no-limits' };
  }
  const { centre, sigma } = controlChart(baseline, baseline, 'sample-sd');
  const values = [...baseline, point.value];
  const side = Math.sign(point.value - centre);
  const lastOther = values.findLastIndex((value) => Math.sign(value - centre) !== side);
  return {
    point,
    earlier: baseline.length,
    limits: { centre, sigma },
    verdict: controlVerdict(values, { centre, sigma }),
    onOneSide: values.length - 1 - lastOther,
  };
}

const SAID: Readonly<Record<ControlStanding['verdict'], string>> = {
  'no-limits': `no limits yet, for which it takes ${String(BASELINE_POINTS)} earlier points`,
  'in-control': 'in control',
  warned: 'two of three beyond 2 s on one side: a warning',
  out: 'beyond 3 s: out of control',
};

/** A control of a batch, and how it stands. */
export interface ControlSaid {
  readonly code: string;
  /** As a result of it is written. */
  readonly unit: string;
  readonly standing: ControlStanding;
}

/** How a control stands, in a line. */
export function controlText({ code, unit, standing }: ControlSaid): string {
  const { point, earlier, limits, verdict, onOneSide } = standing;
  const value = figureText(roundSignificant(point.value, 4));
  const against = limits
    ? `; ${String(earlier)} earlier points, mean ${figureText(roundSignificant(limits.centre, 4))}, s ${figureText(roundSignificant(limits.sigma, 2))}, ${inSigmas(point.value, limits)} s from it`
    : `; ${String(earlier)} are there`;
  const row =
    onOneSide !== null && onOneSide >= LONG_ROW
      ? `; ${String(onOneSide)} in a row on one side of the mean`
      : '';
  return `Control ${code}: ${value} ${unit}, ${SAID[verdict]}${against}${row}`;
}

/** A row that is worth a look, though no rule that is on says so. */
const LONG_ROW = 8;

function inSigmas(value: number, { centre, sigma }: ControlLimits): string {
  return figureText(roundHalfEven(Math.abs(value - centre) / sigma, 1));
}
