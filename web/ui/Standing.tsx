import type { Freshness } from '#core/reagent';
import { dateText } from './typeset';

interface Look {
  readonly colour: string;
  readonly wash: string;
  /** Drawn in a box of 16 by 16. */
  readonly shape: 'leaf' | 'half' | 'crossed' | 'hollow' | 'square' | 'barred';
}

/** Each standing has a colour, a shape and a word. */
export const STANDING_LOOKS: Readonly<Record<Freshness['kind'], Look>> = {
  certified: { colour: 'var(--color-leaf)', wash: 'var(--color-leaf-wash)', shape: 'leaf' },
  'due-soon': { colour: 'var(--color-straw)', wash: 'var(--color-straw-wash)', shape: 'half' },
  overdue: { colour: 'var(--color-blush)', wash: 'var(--color-blush-wash)', shape: 'crossed' },
  'not-standardized': {
    colour: 'var(--color-ink-soft)',
    wash: 'var(--color-shade)',
    shape: 'hollow',
  },
  auxiliary: { colour: 'var(--color-ink-soft)', wash: 'var(--color-shade)', shape: 'square' },
  expired: { colour: 'var(--color-blush)', wash: 'var(--color-blush-wash)', shape: 'crossed' },
  withdrawn: { colour: 'var(--color-blush)', wash: 'var(--color-blush-wash)', shape: 'barred' },
};

/** What a standing means, and for how long, in a few words. */
function standingWords(freshness: Freshness): { readonly word: string; readonly detail: string } {
  switch (freshness.kind) {
    case 'not-standardized':
      return { word: 'nominal', detail: 'not standardized' };
    case 'certified':
      return {
        word: freshness.known.certificateNumber === null ? 'standard' : 'certified',
        detail: freshness.daysLeft === null ? 'no last day' : `${days(freshness.daysLeft)} left`,
      };
    case 'due-soon':
      return {
        word: freshness.known.certificateNumber === null ? 'standard' : 'due',
        detail: freshness.daysLeft === 0 ? 'today' : `in ${days(freshness.daysLeft ?? 0)}`,
      };
    case 'overdue':
      return { word: 'overdue', detail: `by ${days(-(freshness.daysLeft ?? 0))}` };
    case 'auxiliary':
      return {
        word: 'auxiliary',
        detail:
          freshness.useBy === null ? 'not for measuring' : `until ${dateText(freshness.useBy)}`,
      };
    case 'expired':
      return {
        word: 'expired',
        detail: freshness.useBy === null ? '' : `on ${dateText(freshness.useBy)}`,
      };
    case 'withdrawn':
      return { word: 'on hold', detail: 'not to be used' };
  }
}

function days(count: number): string {
  return count === 1 ? '1 day' : `${String(count)} days`;
}

/** The shape of a standing. */
export function StandingShape({ shape }: { readonly shape: Look['shape'] }) {
  return (
    <svg viewBox="0 0 16 16" className="inline size-4 shrink-0" aria-hidden="true">
      {shape === 'leaf' && (
        <path
          d="M2 14C2 6 6 2 14 2c0 8-4 12-12 12zM2 14 9 7"
          fill="currentColor"
          stroke="var(--color-sheet)"
        />
      )}
      {shape === 'half' && (
        <>
          <circle cx="8" cy="8" r="6" fill="none" stroke="currentColor" strokeWidth="2" />
          <path d="M8 2a6 6 0 0 1 0 12z" fill="currentColor" />
        </>
      )}
      {shape === 'crossed' && (
        <path
          d="M8 2a6 6 0 1 0 .01 0zM4 12l8-8"
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
        />
      )}
      {shape === 'square' && (
        <path d="M3 3h10v10H3z" fill="none" stroke="currentColor" strokeWidth="2" />
      )}
      {shape === 'barred' && (
        <path d="M3 3h10v10H3zM3 8h10" fill="none" stroke="currentColor" strokeWidth="2.4" />
      )}
      {shape === 'hollow' && (
        <circle
          cx="8"
          cy="8"
          r="6"
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
          strokeDasharray="3 2"
        />
      )}
    </svg>
  );
}

/** A standing as shape and words. */
export function StandingMark({
  freshness,
  className = '',
}: {
  readonly freshness: Freshness;
  readonly className?: string;
}) {
  const look = STANDING_LOOKS[freshness.kind];
  const { word, detail } = standingWords(freshness);
  return (
    <span
      className={`inline-flex flex-wrap items-center gap-x-1.5 ${className}`}
      style={{ color: look.colour }}
    >
      <StandingShape shape={look.shape} />
      <b>{word}</b>
      <span className="whitespace-nowrap">{detail}</span>
    </span>
  );
}
