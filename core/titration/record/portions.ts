import { figureText } from '../../measurement';
import type { Id } from '../../grammar';
import type { DecimalText } from '../../measurement';
import type { Weighing } from '../../metrology';
import { weighingText } from '../../metrology';
import type { Fact, Finding } from '../../record';
import { impossible } from '../../record';
import type { Portion, RunState } from '../run';
import { portionAmount, sampleIdOf, seriesOf } from '../run';
import type { Draft, RunFactTable } from './draft';
import { entryOf, newEntry, NONE, sharesFlask } from './draft';
import { checkAliquot, checkWeighingOf } from './portionChecks';

/** What is put into a flask. */
export interface PortionBodies {
  'run.flask-weighed': {
    readonly flask: number;
    /** Of which sample, where a run has several. */
    readonly sampleId?: Id;
    readonly weighing: Weighing;
    readonly reason: string | null;
  };
  'run.flask-pipetted': {
    readonly flask: number;
    readonly sampleId?: Id;
    readonly volumeMl: DecimalText;
    readonly reason: string | null;
  };
  /** A flask with medium and indicator, and an excess if there is one, but nothing of what is to be found. */
  'run.blank-made': { readonly flask: number };
}

export const PORTION_FACTS: RunFactTable<PortionBodies> = {
  'run.flask-weighed': {
    nature: 'observation',
    supports: sharesFlask,
    check: ({ body: { flask, weighing, sampleId } }, run) =>
      checkEmpty(run, flask) ??
      withSample(run, sampleId, (series) => checkWeighingOf(series, weighing)),
    apply: (draft, fact) => {
      const { flask, weighing, reason, sampleId } = fact.body;
      const portion = { kind: 'mass', weighing } as const;
      applyPortion(draft, fact, { number: flask, sampleId }, portion, reason);
    },
    sentence: ({ flask, weighing }) => `flask ${String(flask)}, ${weighingText(weighing)}.`,
  },
  'run.flask-pipetted': {
    nature: 'observation',
    supports: sharesFlask,
    check: ({ body: { flask, volumeMl, sampleId } }, run) =>
      checkEmpty(run, flask) ??
      withSample(run, sampleId, (series) => checkAliquot(series, volumeMl)),
    apply: (draft, fact) => {
      const { flask, volumeMl, reason, sampleId } = fact.body;
      const portion = { kind: 'volume', volumeMl } as const;
      applyPortion(draft, fact, { number: flask, sampleId }, portion, reason);
    },
    sentence: ({ flask, volumeMl }) => `flask ${String(flask)}, ${figureText(volumeMl)} mL.`,
  },
  'run.blank-made': {
    nature: 'observation',
    supports: sharesFlask,
    check: ({ body: { flask } }, run) => checkEmpty(run, flask) ?? [],
    apply: (draft, fact) => {
      applyPortion(draft, fact, { number: fact.body.flask }, { kind: 'blank' }, null);
    },
    sentence: ({ flask }) => `flask ${String(flask)}, a blank.`,
  },
};

/** What speaks against a portion of a sample: that nobody said of which, or what speaks against it in the series of that. */
function withSample(
  run: RunState,
  sampleId: Id | undefined,
  check: (series: RunState) => readonly Finding[],
): readonly Finding[] {
  const series = seriesOf(run);
  const [only, ...others] = series;
  if (only && others.length === 0 && sampleId === undefined) return check(only);
  const meant = series.find((one) => sampleIdOf(one) === sampleId);
  return meant && sampleId !== undefined ? check(meant) : [impossible('which-sample', 'sampleId')];
}

/** What speaks against putting something into a flask that holds something; null for one that is empty. */
function checkEmpty(run: RunState, flask: number): readonly Finding[] | null {
  if (!run.flasks.some(({ number }) => number === flask)) return null;
  return [impossible('already-filled', 'portion', { flask })];
}

function applyPortion(
  draft: Draft,
  fact: Fact,
  { number, sampleId }: { readonly number: number; readonly sampleId?: Id | undefined },
  portion: Portion,
  reason: string | null,
): void {
  draft.portions.set(fact.id, newEntry(fact, portion, reason));
  const known = draft.flasks.get(number);
  if (known) {
    const standing = entryOf(draft.portions, known.portion.factId).value;
    if (standing.kind !== portion.kind || portionAmount(standing) !== portionAmount(portion)) {
      known.portion.rivals = [...known.portion.rivals, fact.id];
    }
    return;
  }
  draft.flasks.set(number, {
    portion: { factId: fact.id, rivals: NONE },
    sampleId: sampleId ?? null,
    readings: NONE,
    provisional: NONE,
    electrode: NONE,
    photographs: NONE,
    temperatures: NONE,
    grade: null,
    incidents: NONE,
    voided: null,
  });
}
