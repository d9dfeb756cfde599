import { sentenceOf } from '#core/ledger';
import type { Reach } from '../app/reachability';
import { useReach } from '../app/reachability';
import type { Waiting } from './outbox';
import { OtherCode } from './OtherCode';
import { useOutbox, useWaiting } from './useOutbox';

/** After so many failures at one entry it is no passing trouble, and the analyst is told. */
const TOLD_AFTER = 3;

/** The calm mark that says whether everything entered has reached the server, and what was refused. */
export function OutboxMark() {
  const waiting = useWaiting();
  const outbox = useOutbox();
  const reach = useReach();
  const onTheirWay = waiting.filter((entry) => entry.refusal === null && !entry.isHeld).length;
  const held = waiting.filter((entry) => entry.isHeld).length;
  const refused = waiting.filter((entry) => entry.refusal !== null);
  const failing = waiting.filter(({ failure }) => failure !== null && failure.times >= TOLD_AFTER);
  return (
    <div>
      <p role="status" className="flex items-start gap-2 leading-snug">
        <Dot isCalm={onTheirWay === 0 && reach === 'reached'} />
        {sentence(onTheirWay, reach)}
      </p>
      {refused.map((entry) => (
        <Refused
          key={entry.fact.id}
          entry={entry}
          onRead={() => void outbox.discard(entry.fact.id)}
        />
      ))}
      {failing.map((entry) => (
        <Failing key={entry.fact.id} entry={entry} />
      ))}
      {held > 0 && (
        <p className="mt-1 leading-snug">
          {held} more {held === 1 ? 'waits' : 'wait'} for that one
          {refused.length > 0 ? ': read it, then it goes on.' : '.'}
        </p>
      )}
    </div>
  );
}

function sentence(onTheirWay: number, reach: Reach): string {
  const kept = `${String(onTheirWay)} kept here, to be sent`;
  if (reach === 'reached') return onTheirWay > 0 ? kept : 'all entries kept';
  const trouble =
    reach === 'disk-full'
      ? 'the server’s disk is full: tell whoever runs it'
      : 'server away, go on';
  return `${trouble}: ${onTheirWay > 0 ? kept : 'entries are kept here'}`;
}

function Dot({ isCalm }: { readonly isCalm: boolean }) {
  return (
    <span
      aria-hidden="true"
      className={`mt-[0.3em] inline-block size-2.5 shrink-0 rounded-full ${isCalm ? 'bg-leaf' : 'border-2 border-straw'}`}
    />
  );
}

/** An entry that the server did not take: what it was, why, and that it has been seen. */
function Refused({ entry, onRead }: { readonly entry: Waiting; readonly onRead: () => void }) {
  if (entry.code === 'already-exists' && entry.fact.kind === 'bottle.prepared') {
    return <OtherCode fact={entry.fact} onRead={onRead} />;
  }
  return (
    <div role="alert" className="mt-2 rounded border-l-4 border-blush bg-blush-wash p-2">
      <p>
        Not accepted: <b>{what(entry)}</b> {entry.refusal}
      </p>
      <button
        type="button"
        className="min-h-12 font-semibold text-blush underline lg:min-h-8"
        onClick={onRead}
      >
        I have read it
      </button>
    </div>
  );
}

/** An entry at which the server fails again and again: it stays, and the others go by. */
function Failing({ entry }: { readonly entry: Waiting }) {
  return (
    <div role="alert" className="mt-2 rounded border-l-4 border-straw bg-straw-wash p-2">
      <p>
        The server fails at <b>{what(entry)}</b> Kept here and tried again; the others go by. Tell
        who runs it: <span className="font-mono">{entry.failure?.requestId.slice(0, 8)}</span>
      </p>
    </div>
  );
}

/** The entry in a few words, so that it can be written down again. */
function what(entry: Waiting): string {
  return sentenceOf(entry.fact);
}
