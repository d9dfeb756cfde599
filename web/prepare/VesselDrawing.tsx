import type { PreparationState, Step } from '#core/preparation';
import { volumetricFlaskOf } from '#core/preparation';
import { appearanceOf } from '#core/reagent';

/** Level in the vessel once a piece of work is done, 0 to 1; the last one that is done counts. */
const LEVELS: Readonly<Partial<Record<Step['work'], number>>> = {
  measure: 0.12,
  add: 0.5,
  dissolve: 0.52,
  procedure: 1,
  'to-mark': 1,
  mix: 1,
};

/** The vessel as it stands now: dry, with its solid, half filled, at the mark. Nothing when it has been emptied. */
export function VesselDrawing({ preparation }: { readonly preparation: PreparationState }) {
  const { steps, status, plan } = preparation;
  const isDone = (work: Step['work']): boolean =>
    steps.some((step) => step.work === work && step.done !== null && !step.done.isLeftOut);
  const level =
    status === 'open'
      ? Math.max(
          0,
          ...steps.flatMap(({ work, done }) => (done && !done.isLeftOut ? (LEVELS[work] ?? 0) : 0)),
        )
      : 0;
  const hasSolid =
    status === 'open' && plan.source.kind === 'weigh' && isDone('weigh') && !isDone('dissolve');
  const isDissolved = plan.source.kind === 'weigh' ? isDone('dissolve') : isDone('measure');
  const { soluteId: substanceId, own, targetMolarity } = plan;
  const seen = isDissolved
    ? appearanceOf({ substanceId, own }, targetMolarity === null ? null : Number(targetMolarity))
    : null;
  const drawn = { level, fill: seen?.css ?? 'var(--color-titrant)' };
  return volumetricFlaskOf(plan) !== null ? (
    <Flask {...drawn} hasSolid={hasSolid && isDone('transfer')} />
  ) : (
    <Beaker {...drawn} hasSolid={hasSolid} />
  );
}

const GLASS = { fill: 'var(--color-glass)', stroke: 'var(--color-ink)', strokeWidth: 1.6 } as const;

interface VesselProps {
  readonly level: number;
  /** The colour of what is in it. */
  readonly fill: string;
  readonly hasSolid: boolean;
}

/** A volumetric flask: a bulb, a long neck, one mark. */
function Flask({ level, fill, hasSolid }: VesselProps) {
  const outline = 'M62 8v74c0 12-34 26-34 62 0 22 14 34 42 34s42-12 42-34c0-36-34-50-34-62V8z';
  // Half of it is in the bulb, the rest goes up into the neck.
  const y = level <= 0 ? 200 : level < 1 ? 178 - level * 84 : 44;
  return (
    <svg viewBox="0 0 140 186" className="mx-auto h-[170px]" role="img" aria-label={saying(level)}>
      <clipPath id="flask-inside">
        <path d={outline} />
      </clipPath>
      <path d={outline} {...GLASS} />
      <g clipPath="url(#flask-inside)">
        <path
          d={`M0 ${String(y)}q70 4 140 0V190H0z`}
          fill={fill}
          stroke="var(--color-titrant-edge)"
        />
        {hasSolid && <path d="M48 178q22-20 44 0z" fill="#fff" stroke="var(--color-rule-strong)" />}
      </g>
      <path d={outline} fill="none" stroke="var(--color-ink)" strokeWidth="1.6" />
      <path d="M56 8h28" stroke="var(--color-ink)" strokeWidth="2.4" />
      <path d="M58 44h24" stroke="var(--color-violet)" strokeWidth="1.8" />
      <path d="M88 44h14" stroke="var(--color-violet)" strokeWidth="1" strokeDasharray="2 2" />
    </svg>
  );
}

/** A beaker with a few marks: good to five per cent. */
function Beaker({ level, fill, hasSolid }: VesselProps) {
  const outline = 'M26 30 34 176q1 6 8 6h56q7 0 8-6l8-146';
  const y = 176 - level * 116;
  return (
    <svg viewBox="0 0 140 190" className="mx-auto h-[170px]" role="img" aria-label={saying(level)}>
      <clipPath id="beaker-inside">
        <path d={outline} />
      </clipPath>
      <path d={`${outline}z`} fill="var(--color-glass)" />
      <g clipPath="url(#beaker-inside)">
        {level > 0 && (
          <path
            d={`M0 ${String(y)}q70 5 140 0V190H0z`}
            fill={fill}
            stroke="var(--color-titrant-edge)"
          />
        )}
        {hasSolid && <path d="M50 182q20-16 40 0z" fill="#fff" stroke="var(--color-rule-strong)" />}
      </g>
      <path d={outline} fill="none" stroke="var(--color-ink)" strokeWidth="1.6" />
      <path d="M20 28q6-2 6 2M114 30h4" fill="none" stroke="var(--color-ink)" strokeWidth="1.6" />
      {[60, 89, 118, 147].map((mark) => (
        <path key={mark} d={`M94 ${String(mark)}h10`} stroke="var(--color-mark)" />
      ))}
    </svg>
  );
}

function saying(level: number): string {
  if (level <= 0) return 'the vessel is empty';
  return level < 1 ? 'the vessel is partly filled' : 'the vessel is filled';
}
