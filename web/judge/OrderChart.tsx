import { ReferenceArea, ReferenceLine, Scatter } from 'recharts';
import { figureText, roundHalfEven } from '#core/measurement';
import type { inOrder } from '#core/titration/whatIf';
import { PlacesChart } from '../ui/PlacesChart';

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
      <PlacesChart
        height={190}
        across={{
          count: points.length,
          ticks: points.map(({ place }) => place),
          text: (place) =>
            `flask ${String(points.find((one) => one.place === place)?.flask ?? '')}`,
        }}
        up={{
          dataKey: 'molarity',
          domain: [mean - reach, mean + reach],
          text: (value) => figureText(roundHalfEven(value, 5)),
          width: 64,
        }}
      >
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
      </PlacesChart>
      <figcaption className="text-sm text-ink-soft">
        Green: the mean and <i>U</i> about it{half > 0 && '; dashed: the band that the rule allows'}
        {points.some(({ counts }) => !counts) && '; diamonds: set aside'}.
      </figcaption>
    </figure>
  );
}
