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

/** One line for each preparation on a graduated scale of hours: hands in ink, waits as liquid. */
export function Timeline({
  placed,
  titleOf,
  now,
}: {
  readonly placed: readonly Placed[];
  readonly titleOf: (jobId: string) => ReactNode;
  readonly now: string;
}) {
  const from = Math.min(...placed.map(({ begins }) => minutesOf(begins)));
  const to = Math.max(...placed.map(({ ends }) => minutesOf(ends)));
  const span = Math.max(60, to - from);
  const x = (minutes: number): number => LEFT + ((minutes - from) / span) * (WIDTH - LEFT - 8);
  const step = stepFor(span);
  const marks: number[] = [];
  for (let at = Math.ceil(from / step) * step; at <= to; at += step) marks.push(at);
  const jobs = [...new Set(placed.map(({ jobId }) => jobId))];
  const height = TOP + jobs.length * ROW + 6;
  const nowX = x(minutesOf(now));
  return (
    <svg
      viewBox={`0 0 ${String(WIDTH)} ${String(height)}`}
      className="w-full"
      role="img"
      aria-label={`${String(jobs.length)} preparations from ${localText(new Date(from * 60_000).toISOString().slice(0, 16))} on; the table below says the same`}
    >
      {marks.map((at) => (
        <g key={at}>
          <path
            d={`M${String(x(at))} ${String(TOP - 6)}V${String(height)}`}
            stroke="var(--color-rule)"
          />
          <text
            x={x(at)}
            y={TOP - 10}
            textAnchor="middle"
            fontSize="12"
            fill="var(--color-ink-soft)"
          >
            {markText(at, step)}
          </text>
        </g>
      ))}
      {jobs.map((jobId, row) => {
        const y = TOP + row * ROW + ROW / 2;
        return (
          <g key={jobId}>
            <foreignObject x={0} y={y - ROW / 2} width={LEFT - 12} height={ROW}>
              <p className="flex h-full items-center text-[15px] leading-tight font-semibold">
                <span>{titleOf(jobId)}</span>
              </p>
            </foreignObject>
            {placed
              .filter((one) => one.jobId === jobId)
              .map(({ task, begins, handsEnd, ends }) => {
                const [begin, free, end] = [begins, handsEnd, ends].map((text) =>
                  x(minutesOf(text)),
                );
                return (
                  <g key={task.id}>
                    <title>{task.title}</title>
                    <rect
                      x={free}
                      y={y - 8}
                      width={Math.max(0, (end ?? 0) - (free ?? 0))}
                      height={16}
                      fill="var(--color-titrant)"
                      stroke="var(--color-titrant-edge)"
                    />
                    <rect
                      x={begin}
                      y={y - 13}
                      width={Math.max(2, (free ?? 0) - (begin ?? 0))}
                      height={26}
                      fill="var(--color-violet)"
                      stroke="var(--color-paper)"
                    />
                  </g>
                );
              })}
          </g>
        );
      })}
      {nowX >= LEFT && nowX <= WIDTH && (
        <>
          <path
            d={`M${String(nowX)} ${String(TOP - 6)}V${String(height)}`}
            stroke="var(--color-blush)"
            strokeWidth="2"
          />
          <text
            x={nowX + 4}
            y={height - 2}
            fontSize="12"
            fontWeight="700"
            fill="var(--color-blush)"
          >
            now
          </text>
        </>
      )}
    </svg>
  );
}

function markText(minutes: number, step: number): string {
  const text = localText(new Date(minutes * 60_000).toISOString().slice(0, 16));
  return step >= 720 ? (text.split(',')[0] ?? text) : (text.split(', ').at(-1) ?? text);
}
