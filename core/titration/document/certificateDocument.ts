import type { Document, Row } from '../../document';
import { rowsOf, sectionOf } from '../../document';
import { findSubstance } from '../../chemistry';
import { paperUnitsOf } from '../../laboratory';
import { COVERAGE_PROBABILITY, figureText, roundHalfEven } from '../../measurement';
import { endOfSentence } from '../../wording';
import type { Judgement, Result } from '../judging';
import type { Certificate, RunState } from '../run';
import { standardizationOf } from '../run';
import type { CertificateContext } from './context';
import { equipmentSection, methodSection, standardSection } from './restsOn';
import { replicatesSection, statisticsSection } from './series';
import { recordSection, signaturesSection } from './signed';
import { uncertaintySection } from './uncertainty';

/**
 * The certificate of a run in words, each line only where it was computed or recorded.
 *
 * @throws RangeError when the judgement has no result
 */
export function certificateDocument(
  run: RunState,
  judgement: Judgement,
  certificate: Certificate,
  context: CertificateContext,
): Document {
  const { result } = judgement;
  if (!result) throw new RangeError('a certificate needs a result');
  const title = 'Standardization certificate';
  const parts = [
    resultSection(run, certificate, result, context),
    methodSection(run, certificate),
    standardSection(run, context),
    equipmentSection(run, context),
    replicatesSection(run, judgement),
    statisticsSection(run, judgement),
    certificate.rules.certificateStates === 'uncertainty' ? uncertaintySection(run, result) : null,
    signaturesSection({ ...certificate, signedOnceById: certificate.certifiedById }, context),
    recordSection(run, certificate, context),
  ];
  return {
    title,
    number: certificate.number,
    headline: headlineOf(certificate),
    issuer: context.issuer,
    sections: parts.flatMap((part) => part ?? []),
    end: `End of certificate ${certificate.number}.`,
  };
}

/** The molarity as the house rule has it stated. */
function headlineOf({
  molarity,
  expandedUncertainty,
  coverageFactor,
  corrections,
  rules,
}: Certificate): string {
  const unit = paperUnitsOf(rules).molarity;
  const at = corrections ? ` at ${figureText(corrections.referenceC)} °C` : '';
  return rules.certificateStates === 'uncertainty'
    ? `${figureText(molarity)} ± ${figureText(expandedUncertainty)} ${unit} (k = ${figureText(coverageFactor)})${at}`
    : `${figureText(molarity)} ${unit}${at}`;
}

function resultSection(
  run: RunState,
  certificate: Certificate,
  { evaluation }: Result,
  context: CertificateContext,
) {
  const { bottle } = standardizationOf(run).references;
  const { molarity, expandedUncertainty, coverageFactor, corrections, normality, rules } =
    certificate;
  const units = paperUnitsOf(rules);
  const freedom = evaluation.effectiveDegreesOfFreedom;
  const isUStated = rules.certificateStates === 'uncertainty';
  return sectionOf('Result', [
    rowsOf([
      ['Solution', findSubstance(bottle.substanceId, bottle.own)?.name ?? bottle.substanceId],
      ['Bottle', `${bottle.code}, prepared ${context.dateText(bottle.preparedOn)}`],
      [
        corrections ? `Molarity at ${figureText(corrections.referenceC)} °C` : 'Molarity',
        `${figureText(molarity)} ${units.molarity}`,
      ],
      ...correctionRows(certificate),
      [
        'Expanded uncertainty U',
        isUStated &&
          `${figureText(expandedUncertainty)} ${units.molarity}, k = ${figureText(coverageFactor)}`,
      ],
      [
        'Coverage probability',
        isUStated &&
          `about ${String(100 * COVERAGE_PROBABILITY)} %; effective degrees of freedom ${Number.isFinite(freedom) ? String(Math.floor(freedom)) : 'infinite'}`,
      ],
      [
        'Normality',
        normality &&
          `${figureText(normality.value)} ${units.normality ?? ''}, ${String(normality.equivalentsPerMole)} to the mole in this reaction`,
      ],
      ['Takes the place of', replacedText(run, certificate, context)],
      ['Change', changeText(certificate, context)],
      [
        'Valid',
        `${context.dateText(certificate.certifiedOn)} to ${context.dateText(certificate.validUntil)}`,
      ],
      ['On condition that', conditionsText(run, certificate)],
    ]),
  ]);
}

const DONE = {
  corrected: 'corrected',
  carried: 'not corrected, carried in U',
  'left-out': 'not corrected',
} as const;

/** What was corrected, and what the molarity is without; nothing on certificates of before there were corrections. */
function correctionRows({ corrections, temperatureC, rules }: Certificate): readonly Row[] {
  const thermometer = corrections?.thermometer ?? null;
  const temperature: Row = [
    'Temperature',
    `${figureText(temperatureC)} °C${thermometer === null ? ', not measured' : `, read on ${thermometer}`}`,
  ];
  if (!corrections) return [temperature];
  const size = (of: typeof corrections.temperature): string | null =>
    of && `${DONE[of.how]}, ${figureText(of.percent)} %`;
  return [
    [
      'As measured, uncorrected',
      `${figureText(corrections.asMeasured)} ${paperUnitsOf(rules).molarity}`,
    ],
    temperature,
    ['Expansion of the solution', size(corrections.temperature)],
    ['Buoyancy of air', size(corrections.buoyancy)],
  ];
}

/** How far the value has moved since the last certificate of the same bottle, against the U of both. */
function changeText(
  { unrounded, expandedUncertainty }: Certificate,
  { bottle, dateText }: CertificateContext,
): string | null {
  const last = bottle.certified.at(-1);
  if (!last) return null;
  const was = last.unrounded?.molarity ?? Number(last.molarity);
  const percent = 100 * (unrounded.molarity / was - 1);
  const both = Math.hypot(Number(expandedUncertainty), Number(last.expandedUncertainty));
  const parts = roundHalfEven(Math.abs(unrounded.molarity - was) / both, 1);
  return `${percent < 0 ? '' : '+'}${figureText(roundHalfEven(percent, 2))} % since ${last.certificateNumber} of ${dateText(last.certifiedOn)}: ${figureText(parts)} of the U of their difference`;
}

/** The certificate of the same run that was withdrawn before this one was issued, and why. */
function replacedText(
  { certificates }: RunState,
  { number }: Certificate,
  { dateText, instantText }: CertificateContext,
): string | null {
  const own = certificates.findIndex(({ certificate }) => certificate.number === number);
  const before = own < 0 ? certificates.at(-1) : certificates[own - 1];
  if (!before?.withdrawn) return null;
  const { certificate, withdrawn } = before;
  return `${certificate.number} of ${dateText(certificate.certifiedOn)}, withdrawn ${instantText(withdrawn.at)}: ${endOfSentence(withdrawn.reason)}`;
}

const CONTAINERS = {
  plastic: 'in plastic',
  'brown-glass': 'in brown glass',
  'clear-glass': 'in glass',
} as const;

/** Under what the molarity holds until its last day. */
function conditionsText(run: RunState, { indicator, corrections }: Certificate): string {
  const { bottle } = standardizationOf(run).references;
  const at = corrections ? `, taken as a volume at ${figureText(corrections.referenceC)} °C` : '';
  return endOfSentence(
    `the bottle is kept closed, ${CONTAINERS[bottle.container]}, and is used with the same end point (${indicator})${at}`,
  );
}
