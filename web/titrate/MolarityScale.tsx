import { figureText, roundHalfEven } from '#core/measurement';
import type { Judgement, Replicate } from '#core/titration/judging';

const WIDTH = 470;
const HEIGHT = 92;
const AXIS_Y = 62;
const MARGIN = 34;

/** Where nothing else says how far to look, the scale shows this part either way. */
const LEAST_REACH = 0.001;

interface Shown {
  readonly replicate: Replicate;
  readonly molarity: number;
}

interface MolarityScaleProps {
  readonly judgement: Judgement;
  readonly nominal: number;
  /** What is found, with its unit: `molarity / (mol/L)`. */
  readonly found?: string;
}

/** The molarities found so far on a line, with the band in which they must agree. */
export function MolarityScale({
  judgement,
  nominal,
  found = 'molarity / (mol/L)',
}: MolarityScaleProps) {
  const shown = judgement.replicates.flatMap((replicate): Shown[] =>
    replicate.molarity === null || replicate.verdict === 'void'
      ? []
      : [{ replicate, molarity: replicate.molarity }],
  );
  const centre = judgement.averaged?.mean ?? shown[0]?.molarity ?? nominal;
  const band = (centre * (judgement.bandPercent ?? 0)) / 100;
  const reach = Math.max(
    band * 1.6,
    centre * LEAST_REACH,
    ...shown.map(({ molarity }) => Math.abs(molarity - centre) * 1.15),
  );
  const x = (molarity: number): number =>
    WIDTH / 2 + ((molarity - centre) / reach) * (WIDTH / 2 - MARGIN);
  const { ticks, decimals } = axisTicks(centre - reach, centre + reach);
  return (
    <figure className="min-w-0">
      <svg
        viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`}
        className="w-full"
        role="img"
        aria-label={describe(shown)}
      >
        {judgement.averaged && (
          <rect
            x={x(centre - band / 2)}
            width={x(centre + band / 2) - x(centre - band / 2)}
            y="8"
            height={AXIS_Y - 8}
            fill="var(--color-leaf-wash)"
          />
        )}
        <path d={`M8 ${String(AXIS_Y)}H${String(WIDTH - 8)}`} stroke="var(--color-ink)" />
        {ticks.map((tick) => (
          <g key={tick}>
            <path d={`M${String(x(tick))} ${String(AXIS_Y)}v6`} stroke="var(--color-ink)" />
            <text
              x={x(tick)}
              y={AXIS_Y + 21}
              textAnchor="middle"
              fontSize="13"
              fontFamily="var(--font-mono)"
              fill="var(--color-ink-soft)"
            >
              {figureText(roundHalfEven(tick, decimals))}
            </text>
          </g>
        ))}
        {shown.map(({ replicate, molarity }) => (
          <Dot key={replicate.flask.number} replicate={replicate} x={x(molarity)} />
        ))}
        {labels(shown, x).map(({ at, flasks }) => (
          <text
            key={at}
            x={at}
            y="29"
            textAnchor="middle"
            fontSize="14"
            fontWeight="600"
            fill="var(--color-ink)"
          >
            {flasks.toSorted((a, b) => a - b).join(', ')}
          </text>
        ))}
      </svg>
      <figcaption className="text-center text-[13px] text-ink-soft">
        {found} found, and the band in which titrations must agree: {figureText(judgement.limit)}
      </figcaption>
    </figure>
  );
}

/** Filled where it counts, open where it does not. */
function Dot({ replicate, x }: { readonly replicate: Replicate; readonly x: number }) {
  const counts = replicate.verdict === 'counts';
  return (
    <circle
      cx={x}
      cy="44"
      r="7"
      fill={counts ? 'var(--color-leaf)' : 'var(--color-sheet)'}
      stroke={counts ? 'var(--color-leaf)' : 'var(--color-ink-soft)'}
      strokeWidth="2"
    />
  );
}

/** Numbers that would lie on each other stand beside each other, over the middle of their dots. */
const LABEL_WIDTH = 18;

function labels(
  shown: readonly Shown[],
  x: (molarity: number) => number,
): readonly { readonly at: number; readonly flasks: readonly number[] }[] {
  const groups: { xs: number[]; flasks: number[] }[] = [];
  for (const { replicate, molarity } of shown.toSorted((a, b) => a.molarity - b.molarity)) {
    const at = x(molarity);
    const last = groups.at(-1);
    const { number } = replicate.flask;
    if (last && at - (last.xs.at(-1) ?? 0) < LABEL_WIDTH) {
      last.xs.push(at);
      last.flasks.push(number);
    } else {
      groups.push({ xs: [at], flasks: [number] });
    }
  }
  return groups.map(({ xs, flasks }) => ({
    at: xs.reduce((sum, at) => sum + at, 0) / xs.length,
    flasks,
  }));
}

function describe(shown: readonly Shown[]): string {
  if (shown.length === 0) return 'no molarity found yet';
  return shown
    .map(
      ({ replicate, molarity }) =>
        `flask ${String(replicate.flask.number)}: ${figureText(roundHalfEven(molarity, 5))}`,
    )
    .join(', ');
}

/** About five round values between two limits, and the decimals that tell them apart. */
function axisTicks(
  from: number,
  to: number,
): { readonly ticks: readonly number[]; readonly decimals: number } {
  const rough = (to - from) / 5;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((factor) => factor * power).find((size) => size >= rough) ?? rough;
  const first = Math.ceil(from / step);
  const count = Math.floor(to / step) - first + 1;
  return {
    ticks: Array.from({ length: count }, (_, i) => (first + i) * step),
    decimals: Math.max(0, Math.ceil(-Math.log10(step) - 1e-9)),
  };
}
