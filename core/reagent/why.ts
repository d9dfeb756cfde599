import { findContent, keepingOf } from '../chemistry';
import type { CalendarDuration } from '../grammar';
import type { MadeUp } from './freshness';
import { intervalOf } from './freshness';

/** Why a bottle or a lot is said to hold so much still; it came with `amount`, its unit included. */
export function whyLeft(amount: string): string {
  return `Of the ${amount} that it held at first, or of what was counted last, less what every preparation and titration begun since has taken.`;
}

/** How long a solution may be relied on, and who says so. */
export function whyKept(
  { substanceId, own, nominalMolarity }: Omit<MadeUp, 'preparedOn'>,
  ownDays: number | null,
): string {
  const name = findContent(substanceId, own)?.shortName ?? 'It';
  const keeping = keepingOf(substanceId, own);
  if (ownDays !== null) {
    return `${name} keeps for ${String(ownDays)} days by the laboratory’s own time (Settings).`;
  }
  if (!keeping) {
    return 'Nobody has said how long it keeps: the last day is what was written when it was certified.';
  }
  return `${name} keeps for ${spanText(intervalOf(keeping, nominalMolarity))} at this strength, by the catalogue; the laboratory may set its own time (Settings).`;
}

function spanText(span: CalendarDuration): string {
  return Object.entries(span)
    .map(([unit, count]) => `${String(count)} ${count === 1 ? unit.replace(/s$/, '') : unit}`)
    .join(' ');
}
