import type { RunState, StandardizationRun } from '#core/titration/run';
import { isStandardization } from '#core/titration/run';
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
 * A run, locked together with the bottle whose molarity it seeks, so that something comes to both or to neither. What a run rests on
 * never changes, so its bottle is known before either is locked.
 */
export async function lockWithBottle(
  services: Services,
  { id, setUp }: Pick<StandardizationRun, 'id' | 'setUp'>,
): Promise<{ readonly run: LoadedRun; readonly opened: Opened }> {
  const opened = await lockAndOpen(services, [
    { id, kind: 'run' },
    { id: setUp.bottle.id, kind: 'bottle' },
  ]);
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
