import { useOutbox, useWaiting } from './useOutbox';

/** The calm mark that says whether everything entered has reached the server, and what was refused. */
export function OutboxMark() {
  const waiting = useWaiting();
  const outbox = useOutbox();
  const onTheirWay = waiting.filter((entry) => entry.refusal === null).length;
  const refused = waiting.filter((entry) => entry.refusal !== null);
  return (
    <div>
      <p role="status" className="flex items-center gap-2">
        <span
          aria-hidden="true"
          className={`inline-block size-2.5 shrink-0 rounded-full ${onTheirWay === 0 ? 'bg-leaf' : 'border-2 border-straw'}`}
        />
        {onTheirWay === 0 ? 'all entries kept' : `${String(onTheirWay)} kept here, to be sent`}
      </p>
      {refused.map(({ fact, refusal }) => (
        <div
          key={fact.id}
          role="alert"
          className="mt-2 rounded border-l-4 border-blush bg-blush-wash p-2"
        >
          <p>Not accepted: {refusal}</p>
          <button
            type="button"
            className="min-h-8 font-semibold text-blush underline"
            onClick={() => void outbox.discard(fact.id)}
          >
            I have read it
          </button>
        </div>
      ))}
    </div>
  );
}
