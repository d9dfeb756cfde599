import { ReferenceLine, Scatter } from 'recharts';
import { figureText, roundSignificant } from '#core/measurement';
import { PlacesChart } from './PlacesChart';

/** A value of a chart, and how it is shown. */
export interface Charted {
  readonly value: number;
  /** In a few letters, under the chart. */
  readonly label: string;
  readonly look: 'before' | 'good' | 'warned' | 'out';
}

/** A line across a chart. */
export interface ChartLine {
  readonly at: number;
  readonly kind: 'centre' | 'warning' | 'action';
}

interface ControlChartProps {
  readonly name: string;
  readonly unit: string;
  readonly points: readonly Charted[];
  readonly lines: readonly ChartLine[];
}

/** How far a chart goes beyond its outermost value or line, as a part of its height. */
const MARGIN = 0.08;

/** Values in the order of time, with the lines that they are held against. */
export function ControlChart({ name, unit, points, lines }: ControlChartProps) {
  const heights = [...points.map(({ value }) => value), ...lines.map(({ at }) => at)];
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const margin = MARGIN * (high - low) || Math.abs(high) * MARGIN || 1;
  const data = points.map((point, i) => ({ ...point, place: i + 1 }));
  return (
    <figure aria-label={name}>
      <p className="mb-1 text-sm text-ink-soft">
        {name} / {unit}
      </p>
      <PlacesChart
        height={230}
        across={{
          count: points.length,
          ticks: ticksOf(points.length),
          text: (place) => points[place - 1]?.label ?? '',
        }}
        up={{
          dataKey: 'value',
          domain: [low - margin, high + margin],
          ...(lines.length > 0 && { ticks: lines.map(({ at }) => at).toSorted((a, b) => a - b) }),
          text: (value) => figureText(roundSignificant(value, 3)),
          width: 56,
        }}
      >
        {lines.map(({ at, kind }) => (
          <ReferenceLine key={`${kind} ${String(at)}`} y={at} {...LINES[kind]} />
        ))}
        {LOOKS.map(({ look, fill, shape }) => (
          <Scatter
            key={look}
            data={data.filter((point) => point.look === look)}
            fill={fill}
            shape={shape}
            isAnimationActive={false}
          />
        ))}
      </PlacesChart>
    </figure>
  );
}

const LINES = {
  centre: { stroke: 'var(--color-leaf)', strokeWidth: 2 },
  warning: { stroke: 'var(--color-straw)', strokeWidth: 1.5, strokeDasharray: '5 4' },
  action: { stroke: 'var(--color-blush)', strokeWidth: 1.5 },
} as const;

/** By colour and by shape. */
const LOOKS = [
  { look: 'before', fill: 'var(--color-ink-soft)', shape: 'circle' },
  { look: 'good', fill: 'var(--color-violet)', shape: 'circle' },
  { look: 'warned', fill: 'var(--color-straw)', shape: 'triangle' },
  { look: 'out', fill: 'var(--color-blush)', shape: 'diamond' },
] as const;

/** Places that are named: a handful of them. */
function ticksOf(count: number): number[] {
  const step = Math.max(1, Math.ceil(count / 6));
  return Array.from({ length: count }, (_, i) => i + 1).filter((i) => (count - i) % step === 0);
}
