import { Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { figureText, roundHalfEven } from '#core/measurement';
import type { CurvePoint } from '#core/titration/figures';
import type { ElectrodeQuantity } from '#core/titration/run';

interface CurveChartProps {
  readonly points: readonly CurvePoint[];
  readonly quantity: ElectrodeQuantity;
  /** Where the end lies; null while nothing tells it. */
  readonly endMl: number | null;
}

/** What the electrode showed against the volume delivered, and the end. */
export function CurveChart({ points, quantity, endMl }: CurveChartProps) {
  const end = endMl === null ? '' : `, the end at ${figureText(roundHalfEven(endMl, 2))} mL`;
  return (
    <div
      role="img"
      aria-label={`${quantity} against the volume delivered, ${String(points.length)} points${end}`}
    >
      <p className="text-sm text-ink-soft">{quantity}</p>
      <ResponsiveContainer width="100%" height={280}>
        <LineChart data={[...points]} margin={{ top: 6, right: 16, bottom: 18, left: -12 }}>
          <XAxis
            dataKey="volumeMl"
            type="number"
            domain={['dataMin', 'dataMax']}
            tickFormatter={(tick: number) => figureText(roundHalfEven(tick, 1))}
            tickCount={6}
            stroke="var(--color-ink-soft)"
            fontSize={14}
            label={{
              value: 'delivered / mL',
              position: 'insideBottom',
              offset: -12,
              fontSize: 14,
              fill: 'var(--color-ink-soft)',
            }}
          />
          <YAxis
            domain={['auto', 'auto']}
            stroke="var(--color-ink-soft)"
            fontSize={14}
            width={54}
          />
          <Line
            dataKey="value"
            type="linear"
            isAnimationActive={false}
            stroke="var(--color-titrant-edge)"
            strokeWidth={2}
            dot={{ r: 3, fill: 'var(--color-ink)', stroke: 'none' }}
          />
          {endMl !== null && (
            <ReferenceLine x={endMl} stroke="var(--color-violet)" strokeWidth={2} />
          )}
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
