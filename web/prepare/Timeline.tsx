import type { ReactNode } from 'react';
import type { Placed } from '#core/preparation';
import { localText } from '../ui/typeset';

const ROW = 46;
const TOP = 26;
const LEFT = 240;
const WIDTH = 1060;

/** Minutes of a local date and time. */
function minutesOf(local: string): number {
  return Date.parse(`${local}:00Z`) / 60_000;
}

/** A step between the marks of the scale that leaves room for their times, minutes. */
function stepFor(span: number): number {
  return [15, 30, 60, 120, 240, 720, 1440, 2880].find((step) => span / step <= 12) ?? 7 * 1440;
}

interface TimelineProps {
  readonly placed: readonly Placed[];
  readonly titleOf: (jobId: string) => ReactNode;
  readonly now: string;
}

/** One line for each preparation on a graduated scale of hours: hands in ink, waits as liquid. */
export function Timeline({ placed, titleOf, now }: TimelineProps) {
  const from = Math.min(...placed.map(({ begins }) => minutesOf(begins)));
  const to = Math.max(...placed.map(({ ends }) => minutesOf(ends)));
  const span = Math.max(60, to - from);
  const x = (minutes: number): number => LEFT + ((minutes - from) / span) * (WIDTH - LEFT - 8);
  const jobs = [...new Set(placed.map(({ jobId }) => jobId))];
  const height = TOP + jobs.length * ROW + 6;
  return (
    <svg
      viewBox={`0 0 ${String(WIDTH)} ${String(height)}`}
      className="w-full"
      role="img"
      aria-label={`${String(jobs.length)} preparations from ${localText(localOf(from))} on; the table below says the same`}
    >
      <Marks from={from} to={to} x={x} height={height} />
      {jobs.map((jobId, row) => (
        <g key={jobId} transform={`translate(0 ${String(TOP + row * ROW)})`}>
          <foreignObject x={0} y={0} width={LEFT - 12} height={ROW}>
            <p className="flex h-full items-center text-[15px] leading-tight font-semibold">
              <span>{titleOf(jobId)}</span>
            </p>
          </foreignObject>
          {placed
            .filter((one) => one.jobId === jobId)
            .map((one) => (
              <Work key={one.task.id} work={one} x={x} />
            ))}
        </g>
      ))}
      <Now x={x(minutesOf(now))} height={height} />
    </svg>
  );
}

/** Where a minute lies across. */
type Scale = (minutes: number) => number;

/** The times of the scale. */
function Marks({
  from,
  to,
  x,
  height,
}: {
  readonly from: number;
  readonly to: number;
  readonly x: Scale;
  readonly height: number;
}) {
  const step = stepFor(Math.max(60, to - from));
  const first = Math.ceil(from / step) * step;
  const count = Math.max(0, Math.floor((to - first) / step) + 1);
  return Array.from({ length: count }, (_, i) => first + i * step).map((at) => (
    <g key={at}>
      <path
        d={`M${String(x(at))} ${String(TOP - 6)}V${String(height)}`}
        stroke="var(--color-rule)"
      />
      <text x={x(at)} y={TOP - 10} textAnchor="middle" fontSize="12" fill="var(--color-ink-soft)">
        {markText(at, step)}
      </text>
    </g>
  ));
}

/** One piece of work on its row: hands, then what waits. */
function Work({
  work: { task, begins, handsEnd, ends },
  x,
}: {
  readonly work: Placed;
  readonly x: Scale;
}) {
  const at = (local: string): number => x(minutesOf(local));
  return (
    <g>
      <title>{task.title}</title>
      <rect
        x={at(handsEnd)}
        y={ROW / 2 - 8}
        width={Math.max(0, at(ends) - at(handsEnd))}
        height={16}
        fill="var(--color-titrant)"
        stroke="var(--color-titrant-edge)"
      />
      <rect
        x={at(begins)}
        y={ROW / 2 - 13}
        width={Math.max(2, at(handsEnd) - at(begins))}
        height={26}
        fill="var(--color-violet)"
        stroke="var(--color-paper)"
      />
    </g>
  );
}

/** The present, while it lies on the scale. */
function Now({ x, height }: { readonly x: number; readonly height: number }) {
  if (x < LEFT || x > WIDTH) return null;
  return (
    <>
      <path
        d={`M${String(x)} ${String(TOP - 6)}V${String(height)}`}
        stroke="var(--color-blush)"
        strokeWidth="2"
      />
      <text x={x + 4} y={height - 2} fontSize="12" fontWeight="700" fill="var(--color-blush)">
        now
      </text>
    </>
  );
}

/** Local date and time of minutes. */
function localOf(minutes: number): string {
  return new Date(minutes * 60_000).toISOString().slice(0, 16);
}

function markText(minutes: number, step: number): string {
  const text = localText(localOf(minutes));
  return step >= 720 ? (text.split(',')[0] ?? text) : (text.split(', ').at(-1) ?? text);
}
