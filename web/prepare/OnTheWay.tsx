import { Link } from 'react-router';
import { findSubstance } from '#core/chemistry';
import { nextWork } from '#core/preparation';
import { dryness } from '#core/reagent';
import { useRecords } from '../app/records';
import { useSession } from '../app/session';
import { useNow } from '../app/useNow';
import { ShortName } from '../ui/ShortName';
import { clockText } from '../ui/typeset';
import { progressOf, strengthText, WORKS } from './wording';

/** What is being made and what one waits for: open preparations and standards in the oven. Nothing when there is nothing. */
export function OnTheWay() {
  const preparations = useRecords('preparation')?.filter(({ status }) => status === 'open') ?? [];
  const lots = useRecords('lot') ?? [];
  const { laboratory } = useSession();
  const now = useNow(20_000);
  const drying = lots.flatMap(({ id, lot, drying: spells }) => {
    const substance = findSubstance(lot.substanceId, lot.own);
    const state = dryness(substance?.drying ?? null, spells, now);
    const isWaiting = state.verdict === 'not-yet' || state.verdict === 'cooling';
    const isFresh = spells.length > 0 && isWaiting;
    return isFresh ? [{ id, lot, state }] : [];
  });
  if (preparations.length === 0 && drying.length === 0) return null;
  const clock = (instant: string): string => clockText(instant, now, laboratory.timeZone);
  return (
    <section aria-label="On the way" className="mb-6 flex flex-wrap gap-3">
      {preparations.map((preparation) => {
        const next = nextWork(preparation);
        const until = next?.waitsUntil ?? null;
        const isWaiting = until !== null && until > now;
        return (
          <Link
            key={preparation.id}
            to={`/preparations/${preparation.id}`}
            className="flex min-h-12 min-w-[min(300px,100%)] flex-1 items-stretch gap-3 rounded-md border border-rule-strong bg-sheet px-4 py-2 hover:bg-shade"
          >
            <Level part={progressOf(preparation)} />
            <span>
              <b>
                <ShortName of={preparation.plan.soluteId} own={preparation.plan.own} />
                {strengthText(preparation.plan)}
              </b>
              <span className="block text-[15px] text-ink-soft">
                {next === null
                  ? 'all steps done: bottle it'
                  : isWaiting
                    ? `${WORKS[next.work].toLowerCase()}, until ${clock(until)}`
                    : `next: ${WORKS[next.work].toLowerCase()}`}
              </span>
            </span>
          </Link>
        );
      })}
      {drying.map(({ id, lot, state }) => (
        <Link
          key={id}
          to={`/lots/${id}`}
          className="flex min-h-12 min-w-[min(300px,100%)] flex-1 flex-col justify-center rounded-md border border-rule-strong bg-sheet px-4 py-2 hover:bg-shade"
        >
          <b>
            <ShortName of={lot.substanceId} own={lot.own} />
            {state.weighableFrom === null
              ? ' is being dried'
              : ` may be weighed from ${clock(state.weighableFrom)}`}
          </b>
          <span className="text-[15px] text-ink-soft">{state.sentence}</span>
        </Link>
      ))}
    </section>
  );
}

/** How far a preparation has come, as the level in a small cylinder. */
function Level({ part }: { readonly part: number }) {
  const height = 36 * part;
  return (
    <svg width="18" height="44" viewBox="0 0 18 44" aria-hidden="true" className="my-auto shrink-0">
      <path
        d={`M3 ${String(40 - height)}h12V40H3z`}
        fill="var(--color-titrant)"
        stroke="var(--color-titrant-edge)"
      />
      <path d="M3 2v38h12V2" fill="none" stroke="var(--color-ink)" strokeWidth="1.5" />
      {[10, 17, 24, 31].map((y) => (
        <path key={y} d={`M3 ${String(y)}h4`} stroke="var(--color-ink)" />
      ))}
    </svg>
  );
}
