import { figureText } from '#core/measurement';
import type { ReactNode } from 'react';
import type { Container } from '#core/chemistry';
import type { BottleState, Freshness } from '#core/reagent';
import { appearanceOf, knownMolarity, labelledMolarity } from '#core/reagent';
import { findContent } from '#core/chemistry';
import { ChemicalFormula } from '../ui/typeset';
import { STANDING_LOOKS, StandingShape } from '../ui/Standing';

interface Glass {
  readonly wall: string;
  readonly edge: string;
  readonly liquid: string;
  readonly cap: string;
}

const GLASSES: Readonly<Record<Container, Glass>> = {
  plastic: { wall: '#fbfaf4', edge: '#9a978a', liquid: '#dfe9e4', cap: '#3d5a80' },
  'brown-glass': { wall: '#b97a3c', edge: '#6d431a', liquid: '#8a5523', cap: '#2c2a26' },
  'clear-glass': { wall: '#f8fbfa', edge: '#7f9490', liquid: '#d4e4e4', cap: '#2c2a26' },
};

/** Outline of a narrow-necked bottle in a box of 140 by 244. */
const OUTLINE = 'M52 30v20c0 10-42 14-42 38v138q0 14 14 14h92q14 0 14-14V88c0-24-42-28-42-38V30z';

/** Where the liquid of a full and of an empty bottle stands. */
const FULL = 62;
const EMPTY = 238;

interface BottleDrawingProps {
  readonly bottle: BottleState;
  readonly freshness: Freshness;
  /** What is left, 0 to 1. */
  readonly fill: number;
}

/** A bottle as it stands on the shelf: container, level, label, and the freshness band that runs out. */
export function BottleDrawing({ bottle, freshness, fill }: BottleDrawingProps) {
  const glass = GLASSES[bottle.container];
  // Brown glass hides what colour it holds.
  const seen =
    bottle.container === 'brown-glass'
      ? null
      : appearanceOf(bottle, Number(labelledMolarity(bottle) ?? 0));
  const level = EMPTY - fill * (EMPTY - FULL);
  const clip = `outline-${bottle.id}`;
  const percent = String(Math.round(100 * fill));
  return (
    <div className="relative w-[140px]">
      <svg
        viewBox="0 0 140 241"
        className="block w-full overflow-visible"
        role="img"
        aria-label={`bottle ${bottle.code}, ${percent} % full`}
      >
        <clipPath id={clip}>
          <path d={OUTLINE} />
        </clipPath>
        <path d={OUTLINE} fill={glass.wall} />
        <g clipPath={`url(#${clip})`}>
          <path
            d={`M0 ${String(level)}q70 7 140 0V241H0z`}
            fill={seen?.css ?? glass.liquid}
            stroke={glass.edge}
            strokeWidth="0.8"
          />
          <path d="M19 96v126" stroke="#fff" strokeWidth="5" opacity="0.55" />
        </g>
        <path d={OUTLINE} fill="none" stroke={glass.edge} strokeWidth="2" />
        <rect x="46" y="8" width="48" height="24" rx="4" fill={glass.cap} />
        <path d="M54 10v20M62 10v20M70 10v20M78 10v20M86 10v20" stroke="#fff" opacity="0.35" />
        {[0.25, 0.5, 0.75].map((part) => (
          <path
            key={part}
            d={`M11 ${String(EMPTY - part * (EMPTY - FULL))}h8`}
            stroke={glass.edge}
            strokeWidth="1.2"
          />
        ))}
        <NeckTag freshness={freshness} />
      </svg>
      <Label bottle={bottle} freshness={freshness} />
    </div>
  );
}

/** A longer formula is set smaller, so that it fits on the label. */
function formulaSize({ length }: string): string {
  if (length > 16) return 'pt-2.5 text-[9.5px]';
  return length > 8 ? 'pt-2 text-[12px]' : 'pt-1.5 text-[18px]';
}

function Label({ bottle, freshness }: Pick<BottleDrawingProps, 'bottle' | 'freshness'>) {
  const look = STANDING_LOOKS[freshness.kind];
  const content = findContent(bottle.substanceId, bottle.own);
  return (
    <div className="absolute inset-x-[20px] top-[100px] h-[120px] overflow-hidden border border-rule-strong bg-label text-center leading-tight text-label-ink">
      {content?.formula ? (
        <p className={`font-bold ${formulaSize(content.formula)}`}>
          <ChemicalFormula of={content.formula} />
        </p>
      ) : (
        <p className="px-0.5 pt-1.5 text-[14px] font-bold">{content?.name}</p>
      )}
      <MolarityOnLabel bottle={bottle} freshness={freshness} />
      <p className="absolute inset-x-0 bottom-3.5 font-mono text-[15px]">{bottle.code}</p>
      <FreshnessBand freshness={freshness} colour={look.colour} wash={look.wash} />
    </div>
  );
}

function MolarityOnLabel({
  bottle,
  freshness,
}: Pick<BottleDrawingProps, 'bottle' | 'freshness'>): ReactNode {
  const known = knownMolarity(bottle);
  if (!known) {
    if (bottle.nominalMolarity === null) return null;
    return (
      <p className="text-[13px]">
        <span className="block font-mono text-[17px]">≈ {figureText(bottle.nominalMolarity)}</span>
        mol/L, nominal
      </p>
    );
  }
  const isPast = freshness.kind === 'overdue' || freshness.kind === 'withdrawn';
  return (
    <p className={`text-[13px] ${isPast ? 'opacity-80' : ''}`}>
      <span
        className={`block font-mono text-[17px] font-semibold ${isPast ? 'line-through decoration-blush' : ''}`}
      >
        {figureText(known.molarity)}
      </span>
      <span className="font-mono">± {figureText(known.expandedUncertainty)}</span>
      <span className="block">mol/L</span>
    </p>
  );
}

/** A tag on a string round the neck: its shape and colour tell the standing from across the room. */
function NeckTag({ freshness }: { readonly freshness: Freshness }) {
  const look = STANDING_LOOKS[freshness.kind];
  return (
    <g style={{ color: look.colour }}>
      <path
        d="M50 40q20 8 40 0l22 14"
        fill="none"
        stroke="var(--color-ink-soft)"
        strokeWidth="1.2"
      />
      <g transform="rotate(14 122 62)">
        <path
          d="M104 56l8-8h26v28h-26l-8-8z"
          fill={look.wash}
          stroke="currentColor"
          strokeWidth="1.4"
        />
        <svg x="115" y="54" width="16" height="16">
          <StandingShape shape={look.shape} />
        </svg>
      </g>
    </g>
  );
}

/** The band at the foot of the label: what is left of the time until use-by. */
function FreshnessBand({
  freshness,
  colour,
  wash,
}: {
  readonly freshness: Freshness;
  readonly colour: string;
  readonly wash: string;
}) {
  const remaining = 'remaining' in freshness ? freshness.remaining : 0;
  return (
    <div
      aria-hidden="true"
      className="absolute inset-x-0 bottom-0 h-3 border-t border-rule-strong"
      style={{ background: wash }}
    >
      <div
        className="h-full"
        style={{ width: `${String(100 * remaining)}%`, background: colour }}
      />
    </div>
  );
}
