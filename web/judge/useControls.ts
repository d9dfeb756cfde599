import { useQueries } from '@tanstack/react-query';
import { controlSaid } from '#core/ledger';
import type { ControlSaid } from '#core/sample';
import type { AnalysisRun } from '#core/titration/run';
import { KEYS } from '../app/atHand';
import { pageOf } from '../app/listPages';
import { useRecordsOf } from '../app/records';

/** How each control of a batch stands, as far as its runs have been read. */
export function useControls({ id, references }: AnalysisRun): readonly ControlSaid[] {
  const controls = references.samples
    .map(({ state }) => state)
    .filter(({ sample }) => sample.isControl === true);
  const now = useRecordsOf(
    'sample',
    controls.map((one) => one.id),
  );
  const lists = useQueries({
    queries: controls.map((one) => ({
      queryKey: [...KEYS.lists('run'), 'of control', one.id],
      queryFn: () => pageOf('run', { order: 'newest', restsOn: one.id }),
    })),
  });
  return controls.flatMap((one, i) => {
    const runs = lists[i]?.data?.records ?? [];
    const state = now.find((known) => known.id === one.id) ?? one;
    return controlSaid(state, references.method.id, runs, id);
  });
}
