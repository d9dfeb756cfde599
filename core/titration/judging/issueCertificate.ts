import { equivalentsOfTitrant } from '../../chemistry';
import {
  decimalOf,
  decimalPlaces,
  keptFreedom,
  originsOf,
  roundHalfEven,
  withFigures,
} from '../../measurement';
import { digestOf } from '../../record';
import { CORRECTION_DECIMALS, outcomeText } from '../../wording';
import type { Certificate, RunState } from '../run';
import { portionText, standardizationOf, titreMl } from '../run';
import { describeStandard } from '../setUp';
import type { CertificationDecision } from './certificationChecks';
import type { Judgement, Result } from './judge';
import { CATALOGUE_VERSION, CORE_VERSION } from './versions';
import { endPointText, workOf } from './work';

/** Doubles differ in their last bits when a product is calculated in another order: figures are the same within this part. */
export const SAME_WITHIN = 1e-12;

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

/** What a certificate states before anybody has signed it. */
type Stated = Omit<
  Certificate,
  | keyof CertificationDecision
  | 'unrounded'
  | 'effectiveDegreesOfFreedom'
  | 'restsOn'
  | 'runVersion'
  | 'coreVersion'
  | 'catalogueVersion'
>;

/** The certificate of a run as judged. @throws RangeError when the judgement has no result. */
export function issueCertificate(
  run: RunState,
  judgement: Judgement,
  decision: CertificationDecision,
): Certificate {
  const result = resultOf(judgement);
  const { evaluation } = result;
  return {
    ...stated(run, judgement),
    unrounded: {
      molarity: evaluation.value,
      standardUncertainty: evaluation.combinedStandardUncertainty,
    },
    effectiveDegreesOfFreedom: keptFreedom(evaluation),
    restsOn: originsOf(evaluation),
    ...decision,
    runVersion: run.version,
    coreVersion: CORE_VERSION,
    catalogueVersion: CATALOGUE_VERSION,
  };
}

/**
 * The digest of what is signed: what the certificate will state, and on how many entries of the run it rests, so that whatever is
 * entered afterwards makes it another. @throws RangeError when the judgement has no result.
 */
export function certificateDigest(run: RunState, judgement: Judgement): string {
  return digestOf({ run: run.id, entries: run.entries, states: stated(run, judgement) });
}

function resultOf({ result }: Judgement): Result {
  if (!result) throw new RangeError('a certificate needs a result');
  return result;
}

/** What is stated, with a decimal point wherever it is made: it is stored and digested. */
function stated(run: RunState, judgement: Judgement): Stated {
  return withFigures('.', () => statedOf(run, judgement));
}

function statedOf(run: RunState, judgement: Judgement): Stated {
  const { accurate } = judgement;
  const result = resultOf(judgement);
  const { evaluation, rounded } = result;
  const verdictCount = (verdict: string): number =>
    judgement.replicates.filter((replicate) => replicate.verdict === verdict).length;
  return {
    molarity: rounded.value,
    expandedUncertainty: rounded.uncertainty,
    coverageFactor: roundHalfEven(evaluation.coverageFactor, 2),
    normality: run.setUp.rules.statesNormality ? normalityOf(run, result) : null,
    corrections: certifiedCorrections(run, result),
    relativeSdPercent:
      typeof accurate?.relativeSdPercent === 'number'
        ? roundHalfEven(accurate.relativeSdPercent, 3)
        : null,
    replicatesMade: judgement.replicates.length - verdictCount('open'),
    replicatesAveraged: verdictCount('counts'),
    replicates: judgement.replicates.map(({ flask, verdict, why }) => ({
      flask: flask.number,
      portion: portionText(flask.portion.value),
      titreMl: titreMl(flask),
      verdict,
      why: why && outcomeText(why),
    })),
    indicator: endPointText(run, [judgement]),
    standard: describeStandard(standardizationOf(run).references),
    ...workOf(run),
  };
}

function normalityOf(run: RunState, { evaluation, rounded }: Result): Certificate['normality'] {
  const equivalentsPerMole = equivalentsOfTitrant(standardizationOf(run).references.method);
  const value = equivalentsPerMole * evaluation.value;
  return { equivalentsPerMole, value: roundHalfEven(value, decimalPlaces(rounded.value)) };
}

function certifiedCorrections(
  { references }: RunState,
  { corrections, rounded }: Result,
): Certificate['corrections'] {
  const { referenceC, asMeasured, temperature, buoyancy } = corrections;
  const stated = (size: typeof temperature) =>
    size && { percent: roundHalfEven(size.percent, CORRECTION_DECIMALS), how: size.how };
  return {
    referenceC: decimalOf(referenceC),
    asMeasured: roundHalfEven(asMeasured, decimalPlaces(rounded.value)),
    temperature: stated(temperature),
    buoyancy: stated(buoyancy),
    thermometer: references.thermometer?.name ?? null,
  };
}
