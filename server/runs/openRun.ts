import type { Id } from '#core/grammar';
import type { RecordKind } from '#core/ledger';
import type { AnalysisRun, RunState, StandardizationRun } from '#core/titration/run';
import { isAnalysisRun, isStandardization } from '#core/titration/run';
import { lockAndOpen } from '../ledger/append';
import type { LoadedRun, Opened } from '../ledger/references';
import { foldLoaded, openRecords, recordOf } from '../ledger/references';
import { AppError } from '../http/appError';
import type { Services } from '../services';

/** A run with what it refers to. */
export interface RunAtHand extends LoadedRun {
  readonly surroundings: Opened['surroundings'];
}

/** A run with what it refers to; null when there is none. */
export async function openRun(services: Services, id: string): Promise<RunAtHand | null> {
  const { records, surroundings } = await openRecords(services, [{ id, kind: 'run' }]);
  const run = foldLoaded(recordOf(records, id));
  return run && { ...run, surroundings };
}

/**
 * A run, locked together with other records, so that something comes to all of them or to none. What a run rests on never changes, so
 * they are known before any is locked.
 */
export async function lockWith(
  services: Services,
  id: Id,
  others: readonly { readonly id: string; readonly kind: RecordKind }[],
): Promise<{ readonly run: LoadedRun; readonly opened: Opened }> {
  const opened = await lockAndOpen(services, [{ id, kind: 'run' }, ...others]);
  const run = foldLoaded(recordOf(opened.records, id));
  if (!run) throw new RangeError(`run ${id} vanished while it was being locked`);
  return { run, opened };
}

/** A run as a standardization. @throws AppError where samples are analysed: their results are no certificate of a bottle */
export function certifiable(run: RunState): StandardizationRun {
  if (isStandardization(run)) return run;
  throw new AppError(
    'invalid-request',
    'Samples are analysed in this run: it certifies no titrant.',
  );
}

/** A run as an analysis of samples. @throws AppError where a titrant is standardized: there is nothing to report */
export function reportable(run: RunState): AnalysisRun {
  if (isAnalysisRun(run)) return run;
  throw new AppError('invalid-request', 'This run certifies a titrant: it has no samples.');
}
