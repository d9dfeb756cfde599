import {
  CartesianGrid,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  XAxis,
  YAxis,
} from 'recharts';
import { figureText, roundHalfEven } from '#core/measurement';
import type { inOrder } from '#core/titration/whatIf';

interface OrderChartProps {
  readonly points: ReturnType<typeof inOrder>['points'];
  /** mol/L */
  readonly mean: number;
  readonly halfU: number;
  /** How wide a band the rule allows, in % of the mean; null where it asks for none. */
  readonly bandPercent: number | null;
}

/** Molarities in the order of titrating, with the mean, U about it, and the band of the rule. */
export function OrderChart({ points, mean, halfU, bandPercent }: OrderChartProps) {
  const half = bandPercent === null ? 0 : (mean * bandPercent) / 200;
  const values = points.map(({ molarity }) => molarity);
  const reach = 1.15 * Math.max(halfU, half, ...values.map((one) => Math.abs(one - mean)));
  return (
    <figure>
      <ResponsiveContainer width="100%" height={190}>
        <ScatterChart margin={{ top: 8, right: 12, bottom: 0, left: 12 }}>
          <CartesianGrid stroke="var(--color-rule)" vertical={false} />
          <XAxis
            dataKey="place"
            type="number"
            domain={[0.5, points.length + 0.5]}
            ticks={points.map(({ place }) => place)}
            tickFormatter={(place: number) =>
              `flask ${String(points.find((one) => one.place === place)?.flask ?? '')}`
            }
            stroke="var(--color-ink-soft)"
            fontSize={13}
          />
          <YAxis
            dataKey="molarity"
            type="number"
            domain={[mean - reach, mean + reach]}
            tickFormatter={(tick: number) => figureText(roundHalfEven(tick, 5))}
            width={64}
            stroke="var(--color-ink-soft)"
            fontSize={13}
          />
          <ReferenceArea
            y1={mean - halfU}
            y2={mean + halfU}
            fill="var(--color-leaf-wash)"
            fillOpacity={0.9}
          />
          {half > 0 &&
            [mean - half, mean + half].map((y) => (
              <ReferenceLine key={y} y={y} stroke="var(--color-straw)" strokeDasharray="5 4" />
            ))}
          <ReferenceLine y={mean} stroke="var(--color-leaf)" strokeWidth={2} />
          <Scatter
            data={points.filter(({ counts }) => counts)}
            fill="var(--color-violet)"
            isAnimationActive={false}
          />
          <Scatter
            data={points.filter(({ counts }) => !counts)}
            fill="var(--color-straw)"
            shape="diamond"
            isAnimationActive={false}
          />
        </ScatterChart>
      </ResponsiveContainer>
      <figcaption className="text-sm text-ink-soft">
        Green: the mean and <i>U</i> about it{half > 0 && '; dashed: the band that the rule allows'}
        {points.some(({ counts }) => !counts) && '; diamonds: set aside'}.
      </figcaption>
    </figure>
  );
}
