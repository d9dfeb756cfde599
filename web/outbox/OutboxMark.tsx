import type { Weighing } from '#core/metrology';
import type { PreparationFact, Quantity } from '#core/preparation';
import type { RunFact } from '#core/titration';
import type { Reach } from '../app/reachability';
import { useReach } from '../app/reachability';
import type { Waiting } from './outbox';
import { asFact, asRunFact } from './outbox';
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
      ? 'the disk of the server is full, tell who runs it'
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
  return (
    <div role="alert" className="mt-2 rounded border-l-4 border-blush bg-blush-wash p-2">
      <p>
        Not accepted: <b>{what(entry)}</b> {entry.refusal}
      </p>
      <button type="button" className="min-h-8 font-semibold text-blush underline" onClick={onRead}>
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
  return entry.fact.recordKind === 'preparation'
    ? whatOfPreparation(asFact(entry.fact) as PreparationFact)
    : whatOfRun(asRunFact(entry.fact));
}

function whatOfRun(fact: RunFact): string {
  switch (fact.kind) {
    case 'run.burette-read':
      return `flask ${String(fact.body.flask)}, ${fact.body.moment} reading ${fact.body.readingMl} mL.`;
    case 'run.flask-weighed':
      return `flask ${String(fact.body.flask)}, ${weighed(fact.body.weighing)}.`;
    case 'run.flask-pipetted':
      return `flask ${String(fact.body.flask)}, ${fact.body.volumeMl} mL.`;
    case 'run.blank-made':
      return `flask ${String(fact.body.flask)}, a blank.`;
    case 'run.burette-refilled':
    case 'run.provisional-read':
      return `flask ${String(fact.body.flask)}, ${fact.body.readingMl} mL.`;
    case 'run.electrode-read': {
      const { flask, readingMl, quantity, value } = fact.body;
      return `flask ${String(flask)}, ${quantity} ${value} at ${readingMl} mL.`;
    }
    case 'run.electrode-reading-struck':
      return 'a point of the curve struck out.';
    case 'run.temperature-taken':
      return `flask ${String(fact.body.flask)}, ${fact.body.temperatureC} °C.`;
    case 'run.end-point-graded':
      return `flask ${String(fact.body.flask)}, how its end point was met.`;
    case 'run.end-point-taken-back':
      return `flask ${String(fact.body.flask)}, its end point taken back.`;
    case 'run.reading-confirmed':
      return 'confirming a reading.';
    case 'run.paused':
      return 'pausing the run.';
    case 'run.resumed':
      return 'going on with the run.';
    case 'run.volume-corrected':
      return `volume corrected to ${fact.body.volumeMl} mL.`;
    case 'run.reading-corrected':
      return `reading corrected to ${fact.body.readingMl} mL.`;
    case 'run.weighing-corrected':
      return `mass corrected to ${weighed(fact.body.weighing)}.`;
    case 'run.flask-voided':
      return `flask ${String(fact.body.flask)} void.`;
    case 'run.conflict-settled':
      return 'settling two entries.';
    case 'run.abandoned':
      return 'abandoning the run.';
    case 'run.burette-checked':
      return 'the check of the burette.';
    case 'run.incident-noted':
      return `flask ${String(fact.body.flask)}, an incident.`;
    case 'run.started':
    case 'run.flask-photographed':
    case 'run.certified':
      return '';
  }
}

function whatOfPreparation(fact: PreparationFact): string {
  switch (fact.kind) {
    case 'preparation.measured':
      return `step ${fact.body.step}, ${measured(fact.body.quantity)}.`;
    case 'preparation.step-begun':
    case 'preparation.step-done':
    case 'preparation.mishap':
      return `step ${fact.body.step}.`;
    case 'preparation.discarded':
      return 'discarding the preparation.';
    case 'preparation.started':
    case 'preparation.bottled':
      return '';
  }
}

function weighed(weighing: Weighing): string {
  return weighing.mode === 'tared'
    ? `${weighing.massG} g`
    : `${weighing.beforeG} g before, ${weighing.afterG} g after`;
}

function measured(quantity: Quantity): string {
  switch (quantity.kind) {
    case 'mass':
      return weighed(quantity.weighing);
    case 'volume':
      return `${quantity.volumeMl} mL`;
    case 'temperature':
      return `${quantity.temperatureC} °C`;
  }
}
