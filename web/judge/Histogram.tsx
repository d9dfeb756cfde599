import { Area, AreaChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Simulation } from '#core/measurement';
import { figureText, roundHalfEven } from '#core/measurement';

interface HistogramProps {
  readonly simulation: Simulation;
  /** The result and the ends of its interval by the law of propagation. */
  readonly at: readonly number[];
}

/** How the trials spread, with both intervals. */
export function Histogram({
  simulation: { histogram, symmetricInterval, trials },
  at,
}: HistogramProps) {
  const { from, to, counts } = histogram;
  const width = (to - from) / counts.length;
  const data = counts.map((count, i) => ({ molarity: from + (i + 0.5) * width, count }));
  return (
    <figure className="mb-2">
      <ResponsiveContainer width="100%" height={150}>
        <AreaChart data={data} margin={{ top: 8, right: 8, bottom: 0, left: 8 }}>
          <XAxis
            dataKey="molarity"
            type="number"
            domain={[from, to]}
            tickFormatter={(tick: number) => figureText(roundHalfEven(tick, 5))}
            tickCount={5}
            stroke="var(--color-ink-soft)"
            fontSize={13}
          />
          <YAxis hide />
          <Area
            dataKey="count"
            type="step"
            isAnimationActive={false}
            stroke="var(--color-titrant-edge)"
            fill="var(--color-titrant)"
          />
          {at.map((x) => (
            <ReferenceLine key={x} x={x} stroke="var(--color-violet)" strokeWidth={2} />
          ))}
          {symmetricInterval.map((x) => (
            <ReferenceLine key={x} x={x} stroke="var(--color-ink)" strokeDasharray="4 3" />
          ))}
        </AreaChart>
      </ResponsiveContainer>
      <figcaption className="text-sm text-ink-soft">
        {trials.toLocaleString('en-GB')} trials. Violet: the result and its interval by propagation;
        dashed: the Monte Carlo interval.
      </figcaption>
    </figure>
  );
}
