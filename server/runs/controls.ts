import type { Knex } from 'knex';
import type { RunSummary } from '#core/ledger';
import { controlSaid } from '#core/ledger';
import type { ControlSaid } from '#core/sample';
import type { AnalysisRun } from '#core/titration/run';
import type { Wanted } from '../ledger/queries';
import { findProjection, listPage } from '../ledger/queries';

/** Runs of a control that its chart goes back to. */
const CHARTED_RUNS = 100;

/** How each control of a batch stands on its chart. */
export async function controlsOf(
  tx: Knex,
  { id: runId, references: { method, samples } }: AnalysisRun,
  day: Pick<Wanted, 'today' | 'warningDays'>,
): Promise<readonly ControlSaid[]> {
  const said: ControlSaid[] = [];
  for (const { state } of samples.filter((one) => one.state.sample.isControl === true)) {
    const now = (await findProjection(tx, 'sample', state.id)) ?? state;
    const rows = await listPage(
      tx,
      {
        ...{ kind: 'run', order: 'newest', terms: [], standing: [], aboutId: null, ...day },
        ...{ restsOnId: state.id, isAtHand: false },
      },
      null,
      CHARTED_RUNS,
    );
    const runs = rows.map(({ state: run }) => run as RunSummary);
    said.push(...controlSaid(now, method.id, runs, runId));
  }
  return said;
}
