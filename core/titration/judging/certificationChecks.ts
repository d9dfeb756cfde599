import type { Id, PlainDate } from '../../grammar';
import { describeDeviations } from '../../laboratory';
import { roundHalfEven } from '../../measurement';
import { knownMolarity, nominalMolPerL, suggestValidUntil } from '../../reagent';
import type { Finding } from '../../record';
import { impossible, unlikely } from '../../record';
import type { RunState } from '../run';
import { openConflicts } from '../run';
import { unresolvedIncidents } from './incidents';
import type { Judgement, Result } from './judge';

/** What the person who certifies decides. */
export interface CertificationDecision {
  /** Number of the certificate: the bottle's code and how many it has had. */
  readonly number: string;
  readonly certifiedById: Id;
  readonly certifiedOn: PlainDate;
  readonly validUntil: PlainDate;
  readonly reason: string | null;
}

/** What speaks against certifying a run now. The unlikely ones give way to a reason. */
export function certificationFindings(
  run: RunState,
  judgement: Judgement,
  decision: Pick<CertificationDecision, 'certifiedOn' | 'validUntil'>,
): readonly Finding[] {
  const { rules } = run.setUp;
  if (run.status !== 'open') {
    return [impossible('run-closed', 'run', `This run is ${run.status}; it cannot be certified.`)];
  }
  if (!judgement.result) {
    return [
      impossible('no-result', 'run', 'No titration counts yet, so there is nothing to certify.'),
    ];
  }
  const findings: Finding[] = [];
  if (openConflicts(run).length > 0) {
    const message =
      'Two entries for one place contradict each other. Settle which one stands first.';
    findings.push(impossible('conflict-open', 'run', message));
  }
  findings.push(...testedBy(run, judgement, judgement.result));
  if (deviationsOf(run).length > 0) {
    const message =
      'This run follows other rules than the house rules in force when it began. Say why that is right.';
    findings.push(unlikely('rules-deviate', 'run', message));
  }
  if (judgement.replicates.some((replicate) => replicate.verdict === 'set-aside')) {
    findings.push(
      unlikely(
        'set-aside-without-fault',
        'run',
        'A titration is left out by concordance alone, without a recorded fault. Say why that is right.',
      ),
    );
  }
  for (const { flask, assessment } of unresolvedIncidents(run, judgement)) {
    const message = `Flask ${String(flask)} counts although “${assessment.incident.name}” was noted: ${assessment.reason} Void it, or say why it counts.`;
    findings.push(unlikely('incident-unresolved', 'run', message));
  }
  const away = percentFromNominal(run, judgement.result);
  if (Math.abs(away) > Number(rules.farFromNominalReasonPercent)) {
    findings.push(
      unlikely(
        'far-from-nominal',
        'run',
        `The molarity is ${roundHalfEven(away, 1)} % from the label. That is more likely a slip than a discovery; say what was checked.`,
      ),
    );
  }
  if (decision.validUntil < decision.certifiedOn) {
    findings.push(
      impossible(
        'valid-before-certified',
        'validUntil',
        'It cannot expire before it is certified.',
      ),
    );
  }
  const suggested = suggestValidUntil(run.references.bottle.substanceId, decision.certifiedOn);
  if (suggested !== null && decision.validUntil > suggested) {
    findings.push(
      unlikely(
        'valid-too-long',
        'validUntil',
        `The keeping time of this titrant ends on ${suggested}. Say why it holds longer.`,
      ),
    );
  }
  return findings;
}

/** Where a run follows other rules than those in force when it began, in a sentence each. */
export function deviationsOf({ setUp, references }: RunState): readonly string[] {
  return describeDeviations(setUp.rules, references.rulesInForce);
}

/** What the house rule's test of a result says against it. */
function testedBy(run: RunState, judgement: Judgement, result: Result): readonly Finding[] {
  const { rules } = run.setUp;
  const farther = (percent: number, what: string): readonly Finding[] =>
    Math.abs(percent) <= Number(rules.farFromNominalAskPercent)
      ? []
      : [
          unlikely(
            'off-accepted',
            'run',
            `The molarity is ${roundHalfEven(percent, 1)} % from ${what}, more than the ${rules.farFromNominalAskPercent} % of the house rule. Say why it is certified.`,
          ),
        ];
  switch (rules.testedBy) {
    case 'concordance':
      return judgement.isConcordant
        ? []
        : [
            unlikely(
              'not-concordant',
              'run',
              `The house rule asks for ${String(rules.agreeAtLeast)} titrations within ${judgement.limit}. Say why it is certified without them.`,
            ),
          ];
    case 'label':
      return farther(percentFromNominal(run, result), 'the label');
    case 'accepted-value': {
      const accepted = knownMolarity(run.references.bottle)?.molarity;
      if (accepted !== undefined) {
        const percent = 100 * (result.evaluation.value / Number(accepted) - 1);
        return farther(percent, `the ${accepted} mol/L accepted before`);
      }
      const message =
        'The house rule tests a result by the value accepted before, and this bottle has none. Say what it was compared with.';
      return [unlikely('no-accepted-value', 'run', message)];
    }
  }
}

/** How far the result lies from the label, in percent of the label. */
export function percentFromNominal(run: RunState, result: Result): number {
  return 100 * (result.evaluation.value / nominalMolPerL(run.references.bottle) - 1);
}
