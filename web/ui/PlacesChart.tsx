import type { ReactNode } from 'react';
import { CartesianGrid, ResponsiveContainer, ScatterChart, XAxis, YAxis } from 'recharts';

interface PlacesChartProps {
  readonly height: number;
  /** Across: places from 1, the named ones, and what they are called. */
  readonly across: {
    readonly count: number;
    readonly ticks: number[];
    readonly text: (place: number) => string;
  };
  /** Upwards: which field of the points, from where to where, and how a figure is written. */
  readonly up: {
    readonly dataKey: string;
    readonly domain: [number, number];
    readonly ticks?: number[];
    readonly text: (value: number) => string;
    readonly width: number;
  };
  readonly children: ReactNode;
}

/** The frame of a chart of values in their order, each at its place. */
export function PlacesChart({ height, across, up, children }: PlacesChartProps) {
  return (
    <ResponsiveContainer width="100%" height={height}>
      <ScatterChart margin={{ top: 8, right: 12, bottom: 0, left: 12 }}>
        <CartesianGrid stroke="var(--color-rule)" vertical={false} />
        <XAxis
          dataKey="place"
          type="number"
          domain={[0.5, across.count + 0.5]}
          ticks={across.ticks}
          tickFormatter={across.text}
          stroke="var(--color-ink-soft)"
          fontSize={13}
        />
        <YAxis
          dataKey={up.dataKey}
          type="number"
          domain={up.domain}
          {...(up.ticks && { ticks: up.ticks })}
          tickFormatter={up.text}
          width={up.width}
          stroke="var(--color-ink-soft)"
          fontSize={13}
        />
        {children}
      </ScatterChart>
    </ResponsiveContainer>
  );
}
