import type { Id, PlainDate } from '../../grammar';
import { knownMolarity, lastsUntil, suggestValidUntil } from '../../reagent';
import type { Finding } from '../../record';
import { impossible, unlikely } from '../../record';
import type { Certificate, RunState } from '../run';
import { openConflicts, standardizationOf } from '../run';
import { soughtOf } from '../setUp';
import type { Judgement, Result } from './judge';
import { circumstanceFindings, seriesFindings } from './resultChecks';

/** What the person who certifies decides. */
export interface CertificationDecision {
  /** Number of the certificate: the bottle's code and how many it has had. */
  readonly number: string;
  readonly certifiedById: Id;
  readonly signatures: Certificate['signatures'];
  readonly isIndependent: Certificate['isIndependent'];
  readonly certifiedOn: PlainDate;
  readonly validUntil: PlainDate;
  readonly reason: string | null;
}

/**
 * What speaks against certifying a run now. The unlikely ones give way to a reason.
 *
 * @param ownDays how long the laboratory says that such a solution keeps; null where it follows the catalogue
 */
export function certificationFindings(
  run: RunState,
  judgement: Judgement,
  decision: Pick<CertificationDecision, 'certifiedOn' | 'validUntil'>,
  ownDays: number | null = null,
): readonly Finding[] {
  const { rules } = run.setUp;
  if (run.status !== 'open') {
    return [impossible('run-closed', 'run', { status: run.status })];
  }
  if (!judgement.result) {
    return [impossible('no-result', 'run')];
  }
  const findings: Finding[] = [
    ...(openConflicts(run).length > 0 ? [impossible('conflict-open', 'run')] : []),
    ...testedBy(run, judgement, judgement.result),
    ...seriesFindings(run, judgement),
    ...circumstanceFindings(run),
  ];
  const away = percentFromNominal(run, judgement.result);
  if (Math.abs(away) > Number(rules.farFromNominalReasonPercent)) {
    findings.push(unlikely('far-from-nominal', 'run', { percent: away }));
  }
  if (decision.validUntil < decision.certifiedOn) {
    findings.push(impossible('valid-before-certified', 'validUntil'));
  }
  const { bottle } = standardizationOf(run).references;
  const lastDay = lastsUntil(bottle);
  if (lastDay !== null && lastDay < decision.certifiedOn) {
    return [...findings, unlikely('too-old', 'run', { lastDay })];
  }
  const suggested = suggestValidUntil(bottle, decision.certifiedOn, ownDays);
  if (suggested !== null && decision.validUntil > suggested) {
    findings.push(unlikely('valid-too-long', 'validUntil', { until: suggested }));
  }
  return findings;
}

/** What the house rule's test of a result says against it. */
function testedBy(run: RunState, judgement: Judgement, result: Result): readonly Finding[] {
  const { rules } = run.setUp;
  const farther = (percent: number, acceptedMolPerL: string | null): readonly Finding[] =>
    Math.abs(percent) <= Number(rules.farFromNominalAskPercent)
      ? []
      : [
          unlikely('off-accepted', 'run', {
            percent,
            acceptedMolPerL,
            atMostPercent: rules.farFromNominalAskPercent,
          }),
        ];
  switch (rules.testedBy) {
    case 'concordance':
      return judgement.isConcordant
        ? []
        : [
            unlikely('not-concordant', 'run', {
              atLeast: rules.agreeAtLeast,
              limit: judgement.limit,
            }),
          ];
    case 'label':
      return farther(percentFromNominal(run, result), null);
    case 'accepted-value': {
      const accepted = knownMolarity(standardizationOf(run).references.bottle)?.molarity;
      if (accepted !== undefined) {
        const percent = 100 * (result.evaluation.value / Number(accepted) - 1);
        return farther(percent, accepted);
      }
      return [unlikely('no-accepted-value', 'run')];
    }
  }
}

/** How far the result lies from the label, in percent of the label. */
export function percentFromNominal(run: RunState, result: Result): number {
  return 100 * (result.evaluation.value / soughtOf(run.references).expected - 1);
}
