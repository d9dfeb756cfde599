import { figureText } from '../../measurement';
import type { Id } from '../../grammar';
import type { DecimalText } from '../../measurement';
import type { Weighing } from '../../metrology';
import { weighingText } from '../../metrology';
import type { Fact, Finding } from '../../record';
import { provenance } from '../../record';
import type { Entry, Portion, RunState } from '../run';
import { entriesAt, flaskOf, INITIAL, openConflicts, seriesWith } from '../run';
import type { Contested, Draft, ReadingDraft, RunFactTable } from './draft';
import { beginsFilling, draftAt, entryOf } from './draft';
import { checkAliquot, checkWeighingOf } from './portionChecks';
import { checkCorrectedReading } from './readingChecks';
import { unknownEntry } from './refusals';

/** What was entered, put right. */
export interface CorrectionBodies {
  'run.weighing-corrected': {
    readonly corrects: Id;
    readonly weighing: Weighing;
    readonly reason: string;
  };
  'run.volume-corrected': {
    readonly corrects: Id;
    readonly volumeMl: DecimalText;
    readonly reason: string;
  };
  'run.reading-corrected': {
    readonly corrects: Id;
    readonly readingMl: DecimalText;
    readonly reason: string;
  };
  /** Of two different entries for one place, made without knowing of each other, one stands. */
  'run.conflict-settled': { readonly keeps: Id; readonly reason: string };
}

export const CORRECTION_FACTS: RunFactTable<CorrectionBodies> = {
  'run.weighing-corrected': {
    nature: 'decision',
    names: ({ corrects }) => [corrects],
    check: ({ body: { corrects, weighing } }, run) => {
      const series = seriesOfPortion(run, corrects, 'mass');
      return series
        ? impossibleOnly(checkWeighingOf(series, weighing))
        : [unknownEntry('weighing')];
    },
    apply: (draft, fact) => {
      const { corrects, weighing } = fact.body;
      correctPortion(draft, corrects, { kind: 'mass', weighing }, fact);
    },
    sentence: ({ weighing }) => `mass corrected to ${weighingText(weighing)}.`,
  },
  'run.volume-corrected': {
    nature: 'decision',
    names: ({ corrects }) => [corrects],
    check: ({ body: { corrects, volumeMl } }, run) => {
      const series = seriesOfPortion(run, corrects, 'volume');
      return series ? impossibleOnly(checkAliquot(series, volumeMl)) : [unknownEntry('volumeMl')];
    },
    apply: (draft, fact) => {
      const { corrects, volumeMl } = fact.body;
      correctPortion(draft, corrects, { kind: 'volume', volumeMl }, fact);
    },
    sentence: ({ volumeMl }) => `volume corrected to ${figureText(volumeMl)} mL.`,
  },
  'run.reading-corrected': {
    nature: 'decision',
    names: ({ corrects }) => [corrects],
    check: ({ body: { corrects, readingMl } }, run) =>
      checkCorrectedReading(run, corrects, readingMl),
    apply: (draft, fact) => {
      correct(draft.readings, fact.body.corrects, fact.body.readingMl, fact);
    },
    sentence: ({ readingMl }) => `reading corrected to ${figureText(readingMl)} mL.`,
  },
  'run.conflict-settled': {
    nature: 'decision',
    names: ({ keeps }) => [keeps],
    check: ({ body: { keeps } }, run) => {
      const isOpen = openConflicts(run).some(({ flask: number, place }) => {
        const flask = flaskOf(run, number);
        return flask && entriesAt(flask, place).some(({ factId }) => factId === keeps);
      });
      return isOpen ? [] : [unknownEntry('keeps')];
    },
    apply: settle,
    sentence: () => 'settling two entries.',
  },
};

/** The series with a portion of a kind that an entry wrote down; null where there is none. */
function seriesOfPortion(run: RunState, factId: string, kind: 'mass' | 'volume'): RunState | null {
  const flask = run.flasks.find(
    ({ portion }) => portion.factId === factId && portion.value.kind === kind,
  );
  return flask ? seriesWith(run, flask) : null;
}

/** A correction brings its own reason, so only what cannot be is held against it. */
function impossibleOnly(findings: readonly Finding[]): readonly Finding[] {
  return findings.filter((finding) => finding.severity === 'impossible');
}

/** A mass is corrected by a mass, a volume by a volume. */
function correctPortion(
  draft: Draft,
  target: string,
  portion: Portion,
  fact: Fact<string, { readonly reason: string }>,
): void {
  if (draft.portions.get(target)?.value.kind !== portion.kind) return;
  correct(draft.portions, target, portion, fact);
}

function correct<T>(
  entries: Map<string, Entry<T>>,
  target: string,
  value: T,
  fact: Fact<string, { readonly reason: string }>,
): void {
  const entry = entries.get(target);
  if (!entry) return;
  const { by, at } = provenance(fact);
  const superseded = [
    ...entry.superseded,
    { value: entry.value, reason: fact.body.reason, by, at },
  ];
  entries.set(target, { ...entry, value, superseded });
}

type Settled = Fact<string, CorrectionBodies['run.conflict-settled']>;

/** Lets one of two different entries for a place stand; what is given up is told with the entry that stands. */
function settle(draft: Draft, fact: Settled): void {
  for (const { portion, readings } of draft.flasks.values()) {
    settlePlace(draft.portions, portion, fact);
    for (const reading of readings) {
      const given = reading.factId;
      settlePlace(draft.readings, reading, fact);
      if (reading.factId !== given) followReading(draft, reading, given);
    }
  }
}

/** Ends the conflict over one place, if it is about that place. */
function settlePlace<T>(entries: Map<string, Entry<T>>, contested: Contested, fact: Settled): void {
  const { keeps, reason } = fact.body;
  const { factId: standing, rivals } = contested;
  if (rivals.length === 0 || (keeps !== standing && !rivals.includes(keeps))) return;
  const { by, at } = provenance(fact);
  const kept = entryOf(entries, keeps);
  const givenUp = [standing, ...rivals].filter((factId) => factId !== keeps);
  // What a value had taken the place of before goes with it, so that every value stays to be read.
  const superseded = givenUp.flatMap((factId) => {
    const { value, superseded: earlier } = entryOf(entries, factId);
    return [...earlier, { value, reason, by, at }];
  });
  entries.set(keeps, { ...kept, superseded: [...kept.superseded, ...superseded] });
  contested.rivals = [];
  contested.factId = keeps;
}

/** What stood on a reading that gave way; a final one stands for the flask that carried it over too: it is one level. */
function followReading(draft: Draft, reading: ReadingDraft, given: string): void {
  const { place, factId: kept } = reading;
  reading.carriedFromFlask = null;
  if (draft.lastRead?.factId === given) draft.lastRead = { ...draft.lastRead, factId: kept };
  if (beginsFilling(place)) {
    draft.fillings = [...draft.fillings.filter((factId) => factId !== given), kept];
  }
  if (place.at !== 'final') return;
  const flask = draft.endings.get(given);
  if (flask !== undefined) draft.endings.set(kept, flask);
  for (const one of draft.flasks.values()) {
    const initial = draftAt(one, INITIAL);
    if (initial?.factId === given) initial.factId = kept;
  }
}
