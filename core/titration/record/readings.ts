import { figureText } from '../../measurement';
import type { Id } from '../../grammar';
import type { DecimalText } from '../../measurement';
import type { Fact } from '../../record';
import { impossible, provenance } from '../../record';
import { PLACE_NAMES } from '../../wording';
import type { BuretteMoment, ReadingPlace, RefillMoment } from '../run';
import { INITIAL, readingsOf } from '../run';
import type { Draft, RunFactTable } from './draft';
import { beginsFilling, draftAt, entryOf, newEntry, NONE, sharesFlask } from './draft';
import { checkNewReading, checkProvisionalReading } from './readingChecks';
import { unknownEntry } from './refusals';

/** What is read of the burette. */
export interface ReadingBodies {
  'run.burette-read': {
    readonly flask: number;
    readonly moment: BuretteMoment;
    readonly readingMl: DecimalText;
    /** The fact of the final reading that this initial one is, when the burette was not touched since. */
    readonly carriedFrom: Id | null;
    readonly reason: string | null;
  };
  'run.burette-refilled': {
    readonly flask: number;
    /** Which refill of this titration, from 1. */
    readonly refill: number;
    readonly moment: RefillMoment;
    readonly readingMl: DecimalText;
    readonly reason: string | null;
  };
  /** Read before a doubtful drop: should the next one overshoot, the end point lies after this. */
  'run.provisional-read': { readonly flask: number; readonly readingMl: DecimalText };
  /** A second person has read the same. */
  'run.reading-confirmed': { readonly confirms: string };
}

export const READING_FACTS: RunFactTable<ReadingBodies> = {
  'run.burette-read': {
    nature: 'observation',
    names: ({ carriedFrom }) => [carriedFrom],
    supports: (body, later) => body.moment !== 'final' && goesOn(body, later),
    check: ({ body }, run) => checkNewReading(run, body.flask, { at: body.moment }, body),
    apply: (draft, fact) => {
      const { moment, carriedFrom } = fact.body;
      applyReading(draft, fact, { at: moment }, carriedFrom);
    },
    sentence: ({ flask, moment, readingMl }) =>
      `flask ${String(flask)}, ${PLACE_NAMES[moment]} ${figureText(readingMl)} mL.`,
  },
  'run.burette-refilled': {
    nature: 'observation',
    supports: goesOn,
    check: ({ body: { flask, moment, refill, readingMl } }, run) =>
      checkNewReading(run, flask, { at: moment, refill }, { readingMl, carriedFrom: null }),
    apply: (draft, fact) => {
      const { flask, refill, moment } = fact.body;
      const known = draft.flasks.get(flask);
      if (known && draftAt(known, placeBefore(moment, refill))) {
        applyReading(draft, fact, { at: moment, refill }, null);
      }
    },
    sentence: ({ flask, readingMl }) => `flask ${String(flask)}, ${figureText(readingMl)} mL.`,
  },
  'run.provisional-read': {
    nature: 'observation',
    check: ({ body }, run) => checkProvisionalReading(run, body.flask, body.readingMl),
    apply: (draft, fact) => {
      const flask = draft.flasks.get(fact.body.flask);
      if (!flask) return;
      draft.readings.set(fact.id, newEntry(fact, fact.body.readingMl, null));
      flask.provisional = [...flask.provisional, fact.id];
    },
    sentence: ({ flask, readingMl }) => `flask ${String(flask)}, ${figureText(readingMl)} mL.`,
  },
  'run.reading-confirmed': {
    nature: 'observation',
    names: ({ confirms }) => [confirms],
    check: (fact, run) => {
      const entry = run.flasks
        .flatMap(readingsOf)
        .find(({ entry: { factId } }) => factId === fact.body.confirms)?.entry;
      if (!entry) return [unknownEntry('confirms')];
      return entry.by === fact.authorId ? [impossible('same-person', 'confirms')] : [];
    },
    apply: (draft, fact) => {
      const { confirms } = fact.body;
      const earlier = draft.confirmed.get(confirms) ?? [];
      if (draft.readings.has(confirms)) {
        draft.confirmed.set(confirms, [...earlier, provenance(fact)]);
      }
    },
    sentence: () => 'confirming a reading.',
  },
};

/** Whether a later fact reads the burette in the same titration; the first reading of one stands on its own. */
function goesOn(body: { readonly flask: number }, later: object): boolean {
  const isFirst = 'moment' in later && later.moment === 'initial';
  return sharesFlask(body, later) && 'readingMl' in later && !isFirst;
}

function applyReading(
  draft: Draft,
  fact: Fact<string, ReadingBodies['run.burette-read' | 'run.burette-refilled']>,
  place: ReadingPlace,
  carriedFrom: string | null,
): void {
  const { flask: number, readingMl, reason } = fact.body;
  const flask = draft.flasks.get(number);
  if (!flask) return;
  const standing = draftAt(flask, place);
  if (standing) {
    draft.readings.set(fact.id, newEntry(fact, readingMl, reason));
    const known = entryOf(draft.readings, standing.factId).value;
    if (Number(known) !== Number(readingMl)) standing.rivals = [...standing.rivals, fact.id];
    return;
  }
  const source = carriedFrom !== null && draft.readings.has(carriedFrom) ? carriedFrom : null;
  if (source === null) draft.readings.set(fact.id, newEntry(fact, readingMl, reason));
  const factId = source ?? fact.id;
  if (place.at === 'initial') draft.titrationOrder.push(number);
  // What was not carried over was read after a filling.
  if (source === null && beginsFilling(place)) draft.fillings.push(factId);
  const carriedFromFlask = source === null ? null : (draft.endings.get(source) ?? null);
  flask.readings = [...flask.readings, { place, factId, rivals: NONE, carriedFromFlask }];
  if (place.at === 'final') draft.endings.set(factId, number);
  draft.lastRead = { factId, flask: number };
}

/** The reading that must be there before one of a refill makes sense. */
function placeBefore(moment: RefillMoment, refill: number): ReadingPlace {
  if (moment === 'restart') return { at: 'stop', refill };
  return refill === 1 ? INITIAL : { at: 'restart', refill: refill - 1 };
}
