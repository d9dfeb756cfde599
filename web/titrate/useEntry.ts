import { useState } from 'react';
import { parseDecimal } from '#core/measurement';
import { impossible } from '#core/record';
import type { RunState } from '#core/titration/run';
import { arrangementOf } from '#core/titration/setUp';
import type { NewFact } from '#contract';
import type { Figures } from '../ui/FigurePair';
import { useQuestioned } from '../ui/useQuestioned';
import type { WeighingMode } from '../ui/WeighingModeChoice';
import type { Entering } from './entries';
import { carriedOver, entryOf } from './entries';
import { useEnter } from './useRun';

interface EntryOptions {
  readonly run: RunState;
  readonly step: Entering;
  readonly mode: WeighingMode;
  /** What is being typed, for the drawing of the burette. */
  readonly onPreview: (readingMl: number | null) => void;
  readonly onKept: () => void;
}

/** The next entry of a run while it is typed. Checked as it is kept, questioned when it is unlikely, never changed. */
export function useEntry({ run, step, mode, onPreview, onKept }: EntryOptions) {
  const { shown, setFindings, why, submit } = useQuestioned(useEnter(run));
  const fixedMl = step.action === 'pipette' ? arrangementOf(run.references).portion.fixedMl : null;
  const given = fixedMl === null ? '' : String(fixedMl);
  const [typed, setTyped] = useState<Figures>([given, '']);
  const isDifference = step.action === 'weigh' && mode === 'by-difference';

  const change = (next: Figures): void => {
    setTyped(next);
    setFindings([]);
    const reading = step.action.startsWith('read-') ? parseDecimal(next[0]) : null;
    onPreview(reading === null ? null : Number(reading));
  };
  const keep = async (entry: NewFact): Promise<void> => {
    if (!(await submit(entry))) return;
    onPreview(null);
    onKept();
  };
  const withFigures = async (make: (figures: Figures) => NewFact): Promise<void> => {
    const [first, second] = typed.map(parseDecimal);
    if (typeof first === 'string' && (!isDifference || typeof second === 'string')) {
      await keep(make([first, second ?? '']));
    } else {
      setFindings([impossible('not-a-number', 'entry', { examples: ['7.10'] })]);
    }
  };
  const { flask } = step;
  const carried = step.canCarryOver ? carriedOver(run, flask) : null;
  return {
    typed,
    isUntouched: typed[0] === given,
    isDifference,
    /** The second of two masses comes next. */
    isSecondNext: isDifference && typed[0] !== '',
    shown,
    change,
    keepTyped: () =>
      step.action === 'blank'
        ? keep(entryOf(run, step, mode, typed, null))
        : withFigures((figures) => entryOf(run, step, mode, figures, why)),
    keepProvisional: () =>
      withFigures(([readingMl]) => ({ kind: 'run.provisional-read', body: { flask, readingMl } })),
    carryOver: carried && (() => keep(carried)),
  };
}
