import { describeEndPoint, equivalentsOfTitrant } from '../chemistry';
import { describeDeviations } from '../laboratory';
import { decimalPlaces, roundHalfEven } from '../measurement';
import { knownMolarity, nominalMolPerL, suggestValidUntil } from '../reagent';
import type { Finding } from '../record';
import { impossible, unlikely } from '../record';
import type { Id, PlainDate } from '../grammar';
import type { Certificate } from './certified';
import { unresolvedIncidents } from './incidents';
import type { Judgement, Result } from './judge';
import type { RunState } from './state';
import { portionText } from './portion';
import { curveEndOf } from './volumes';
import { CURVE_WAYS } from './curve';
import { openConflicts, titreMl } from './run';
import { arrangementOf, describeInstruments, describeStandard } from './arrangement';

/** Version of the computing core, written on every certificate. Raised when a figure could change. */
const CORE_VERSION = '3';

/** Version of the catalogue (substances, methods, atomic weights), written on every certificate. */
const CATALOGUE_VERSION = '3';

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

/** Doubles differ in their last bits when a product is reckoned in another order: figures are the same within this part. */
const SAME_WITHIN = 1e-12;

/** A certificate keeps k with two decimals only. */
const HALF_OF_LAST_PLACE_OF_K = 0.005;

/** Whether entries that are computed again come to what a certificate froze: the value, u and k. */
export function comesToTheSame(
  { unrounded, coverageFactor }: Pick<Certificate, 'unrounded' | 'coverageFactor'>,
  { value, combinedStandardUncertainty, coverageFactor: k }: Result['evaluation'],
): boolean {
  const isClose = (a: number, b: number): boolean => Math.abs(a - b) <= SAME_WITHIN * Math.abs(b);
  return (
    isClose(value, unrounded.molarity) &&
    isClose(combinedStandardUncertainty, unrounded.standardUncertainty) &&
    Math.abs(k - Number(coverageFactor)) <= HALF_OF_LAST_PLACE_OF_K + SAME_WITHIN * k
  );
}

/** The certificate of a run as judged. @throws RangeError when the judgement has no result. */
export function issueCertificate(
  run: RunState,
  judgement: Judgement,
  decision: CertificationDecision,
): Certificate {
  const { result, accurate } = judgement;
  if (!result || !accurate) throw new RangeError('a certificate needs a result');
  const { evaluation, rounded } = result;
  const { burette } = run.references;
  const verdictCount = (verdict: string): number =>
    judgement.replicates.filter((replicate) => replicate.verdict === verdict).length;
  return {
    molarity: rounded.value,
    expandedUncertainty: rounded.uncertainty,
    coverageFactor: roundHalfEven(evaluation.coverageFactor, 2),
    normality: run.setUp.rules.statesNormality ? normalityOf(run, result) : null,
    unrounded: {
      molarity: evaluation.value,
      standardUncertainty: evaluation.combinedStandardUncertainty,
    },
    effectiveDegreesOfFreedom: Number.isFinite(evaluation.effectiveDegreesOfFreedom)
      ? evaluation.effectiveDegreesOfFreedom
      : null,
    relativeSdPercent:
      accurate.relativeSdPercent === null ? null : roundHalfEven(accurate.relativeSdPercent, 3),
    replicatesMade: judgement.replicates.length - verdictCount('open'),
    replicatesAveraged: verdictCount('counts'),
    replicates: judgement.replicates.map(({ flask, verdict, why }) => ({
      flask: flask.number,
      portion: portionText(flask.portion.value),
      titreMl: titreMl(flask),
      verdict,
      why,
    })),
    indicator: endPointText(run, judgement),
    temperatureC: run.setUp.temperatureC,
    standard: describeStandard(run.references),
    measuredWith: describeInstruments(arrangementOf(run.references)),
    burette: burette.calibration ? `${burette.name}, calibrated` : burette.name,
    analystIds: analystsOf(run),
    ...decision,
    rules: run.setUp.rules,
    deviations: deviationsOf(run),
    runVersion: run.version,
    coreVersion: CORE_VERSION,
    catalogueVersion: CATALOGUE_VERSION,
  };
}

/** Who weighed and read; whoever set the run up, while nobody has. */
function analystsOf({ flasks, started }: RunState): readonly Id[] {
  const entries = flasks.flatMap(({ portion, initial, final, refills }) => [
    portion,
    initial,
    ...refills.flatMap(({ stop, restart }) => [stop, restart]),
    final,
  ]);
  const authors = entries.flatMap((entry) => (entry ? [entry.by] : []));
  return authors.length > 0 ? [...new Set(authors)] : [started.by];
}

/** What told the end points that count: the indicator, or an electrode. */
function endPointText(run: RunState, judgement: Judgement): string {
  const counting = judgement.replicates.filter(({ verdict }) => verdict === 'counts');
  const ways = counting.map(({ flask }) => curveEndOf(run, flask)?.way);
  const isByCurve = ways.every((way) => way !== undefined);
  return isByCurve
    ? `electrode, ${[...new Set(ways)].map((way) => CURVE_WAYS[way]).join(' or ')}`
    : describeEndPoint(run.references.method, run.setUp.rules);
}

function normalityOf(run: RunState, { evaluation, rounded }: Result): Certificate['normality'] {
  const equivalentsPerMole = equivalentsOfTitrant(run.references.method);
  const value = equivalentsPerMole * evaluation.value;
  return { equivalentsPerMole, value: roundHalfEven(value, decimalPlaces(rounded.value)) };
}
