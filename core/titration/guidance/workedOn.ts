import { judgeRun } from '../judging';
import type { RunState } from '../run';
import { flaskUnderBurette, openConflicts, seriesOf, seriesWith } from '../run';
import { nextStep } from './next';

/** What is left to do of a series: it needs nothing more, or nothing can be done. */
const DONE: ReadonlySet<string> = new Set(['certify', 'stop', 'closed']);

/**
 * The series of a run that is worked on: that of the flask under the burette, else the first in which something is to be settled or
 * titrated; the last where all are done.
 */
export function workedOn(run: RunState): RunState {
  const series = seriesOf(run);
  const [only, ...others] = series;
  if (only && others.length === 0) return only;
  const busy = flaskUnderBurette(run);
  if (busy) return seriesWith(run, busy);
  return (
    series.find((one) => openConflicts(one).length > 0) ??
    series.find((one) => !DONE.has(nextStep(one, judgeRun(one)).action)) ??
    series.at(-1) ??
    run
  );
}
