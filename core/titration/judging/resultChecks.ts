import { describeDeviations } from '../../laboratory';
import type { Finding } from '../../record';
import { unlikely } from '../../record';
import type { RunState } from '../run';
import { buretteChecks } from '../setUp';
import { unresolvedIncidents } from './incidents';
import type { Judgement } from './judge';

/** What speaks against the result of a series, whatever was sought; it gives way to a reason. */
export function seriesFindings(series: RunState, judgement: Judgement): readonly Finding[] {
  const pooling = judgement.result?.pooling;
  const isScattered = pooling?.pooled.isTooLarge === true;
  const isLeftOut = judgement.replicates.some(({ verdict }) => verdict === 'set-aside');
  return [
    ...(isScattered
      ? [
          unlikely('scatter-too-large', 'run', {
            ownPercent: 100 * (pooling.ownSd ?? 0),
            knownPercent: 100 * pooling.known.sd,
          }),
        ]
      : []),
    ...(isLeftOut ? [unlikely('set-aside-without-fault', 'run')] : []),
    ...unresolvedIncidents(series, judgement).map(({ flask, incident, verdict, reason }) =>
      unlikely('incident-unresolved', 'run', { flask, incident: incident.name, verdict, reason }),
    ),
  ];
}

/** What speaks against all that a run comes to: other rules than those in force, a burette with a fault. */
export function circumstanceFindings(run: RunState): readonly Finding[] {
  return [
    ...(deviationsOf(run).length > 0 ? [unlikely('rules-deviate', 'run')] : []),
    ...(run.buretteChecked.at(-1)?.faults ?? []).map(({ checkId, remark }) => {
      const check = buretteChecks(run.references, run.setUp.rules).find(({ id }) => id === checkId);
      return unlikely('burette-fault', 'run', { check: check?.text ?? checkId, remark });
    }),
  ];
}

/** Where a run follows other rules than those in force when it began, in a sentence each. */
export function deviationsOf({ setUp, references }: RunState): readonly string[] {
  return describeDeviations(setUp.rules, references.rulesInForce);
}
