import type { ComponentProps } from 'react';
import { paperUnitsOf } from '#core/laboratory';
import { figureText, roundHalfEven } from '#core/measurement';
import type { Recomputed, Result } from '#core/titration/judging';
import { recompute } from '#core/titration/judging';
import { correctionsText } from '#core/wording';
import type { Certificate, RunState } from '#core/titration/run';
import { certificateLink } from '#core/titration/run';
import { usePersonName } from '../app/records';
import { ButtonLink } from '../ui/Button';
import { Facts } from '../ui/Facts';
import { capitalized, dateText, Molarity } from '../ui/typeset';

interface CertificateViewProps {
  readonly run: RunState;
  readonly certificate: Certificate;
  /** What the entries come to today. */
  readonly result: Result;
}

/** The certificate as it was frozen, and whether the entries still give the same figures. */
export function CertificateView({ run, certificate, result }: CertificateViewProps) {
  const nameOf = usePersonName();
  return (
    <section aria-label="Certificate" className="rounded-md border border-leaf bg-leaf-wash p-4">
      <h2 className="text-lg font-bold text-leaf">Certified</h2>
      <p className="mt-1 mb-3 text-xl">
        <Stated certificate={certificate} />
      </p>
      <Facts rows={factsOf(certificate, nameOf)} />
      {certificate.deviations.length > 0 && (
        <ul aria-label="Not by the house rules" className="mt-3 border-l-4 border-straw pl-3">
          {certificate.deviations.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      <p className="mt-3">
        <ButtonLink look="primary" to={certificateLink('', run.id, certificate.number)}>
          The whole certificate
        </ButtonLink>
      </p>
      <ComputedAgain certificate={certificate} now={recompute(run, certificate, result)} />
    </section>
  );
}

/** The molarity as the house rule has it stated. */
function Stated({ certificate }: Pick<CertificateViewProps, 'certificate'>) {
  const { molarity, expandedUncertainty, coverageFactor, rules } = certificate;
  const unit = paperUnitsOf(rules).molarity;
  return rules.certificateStates === 'uncertainty' ? (
    <>
      <Molarity value={molarity} uncertainty={expandedUncertainty} unit={unit} />{' '}
      <span className="text-base whitespace-nowrap text-ink-soft">
        (<i>k</i> = {figureText(coverageFactor)})
      </span>
    </>
  ) : (
    <>
      <b className="font-mono">{figureText(molarity)}</b> {unit}
    </>
  );
}

function factsOf(
  certificate: Certificate,
  nameOf: (personId: string) => string,
): ComponentProps<typeof Facts>['rows'] {
  const { normality, relativeSdPercent, replicatesAveraged, replicatesMade } = certificate;
  return [
    ['Valid', `${dateText(certificate.certifiedOn)} to ${dateText(certificate.validUntil)}`],
    ['Titrations', `${String(replicatesAveraged)} averaged of ${String(replicatesMade)} made`],
    [
      'RSD',
      relativeSdPercent === null
        ? '–'
        : `${figureText(relativeSdPercent)} % of one titration, from the ${String(accurateOf(certificate))} that were accurate`,
    ],
    ...(normality
      ? ([
          [
            'Normality',
            `${figureText(normality.value)} ${paperUnitsOf(certificate.rules).normality ?? ''}, ${String(normality.equivalentsPerMole)} to the mole in this reaction`,
          ],
        ] as const)
      : []),
    ['End point', certificate.indicator],
    ['Temperature', temperatureText(certificate)],
    ...correctedRow(certificate),
    ['Standard', certificate.standard],
    ['With', `${certificate.measuredWith}, ${certificate.burette}`],
    ['Analyst', certificate.analystIds.map(nameOf).join(', ')],
    ...signedRows(certificate, nameOf),
    ...(certificate.reason === null ? [] : ([['Remark', certificate.reason]] as const)),
  ];
}

/** Who signed as what; on certificates of before one person did, under the earlier rule. */
function signedRows(
  { signatures, certifiedById, isIndependent }: Certificate,
  nameOf: (personId: string) => string,
): ComponentProps<typeof Facts>['rows'] {
  if (signatures.length === 0) {
    return [['Certified by', `${nameOf(certifiedById)}; signed once, under the earlier rule`]];
  }
  return [
    ...signatures.map(({ means, by }) => [capitalized(means), nameOf(by)] as const),
    ...(isIndependent ? [] : [['Note', 'Not independently checked.'] as const]),
  ];
}

/** Titrations that the scatter is of: those averaged, and those set aside. */
function accurateOf({ replicates }: Certificate): number {
  return replicates.filter(({ verdict }) => verdict === 'counts' || verdict === 'set-aside').length;
}

function temperatureText({ temperatureC, corrections }: Certificate): string {
  const by = corrections?.thermometer;
  return by
    ? `${figureText(temperatureC)} °C on ${by}`
    : `${figureText(temperatureC)} °C, not measured`;
}

/** What the molarity is as measured, beside what was corrected; nothing on certificates of before. */
function correctedRow({
  temperatureC,
  corrections,
}: Certificate): ComponentProps<typeof Facts>['rows'] {
  const text = corrections && correctionsText({ ...corrections, temperatureC });
  return text ? [[`At ${figureText(corrections.referenceC)} °C`, text]] : [];
}

interface ComputedAgainProps {
  readonly certificate: Certificate;
  readonly now: Recomputed;
}

/** Whether the entries give the same figures; else what they give now, and why. */
function ComputedAgain({ certificate, now }: ComputedAgainProps) {
  const { coreVersion, catalogueVersion, rules } = certificate;
  if (now.isSame) {
    return (
      <p className="mt-3 text-sm text-ink-soft">
        Computed again from the entries just now: the same figures (core {coreVersion}, catalogue{' '}
        {catalogueVersion}).
      </p>
    );
  }
  const { value, uncertainty } = now.rounded;
  const isSameRounded =
    value === certificate.molarity && uncertainty === certificate.expandedUncertainty;
  return (
    <div
      className={`mt-3 border-l-4 pl-3 text-sm ${isSameRounded ? 'border-straw' : 'border-blush'}`}
    >
      <p className={`font-semibold ${isSameRounded ? '' : 'text-blush'}`}>
        {isSameRounded ? (
          'Computed again from the entries, the figures are the same as they are rounded here.'
        ) : (
          <>
            Computed again from the entries, it comes to {figureText(value)} ±{' '}
            {figureText(uncertainty)} {paperUnitsOf(rules).molarity} (<i>k</i> ={' '}
            {figureText(roundHalfEven(now.coverageFactor, 2))}). The certificate keeps its own.
          </>
        )}
      </p>
      <p>
        Since core {coreVersion}, which certified it, the value has moved by{' '}
        {figureText(roundHalfEven(100 * now.movedByU, 0))} % of <i>U</i>.
      </p>
      {now.because.map((sentence) => (
        <p key={sentence} className="mt-1">
          {sentence}
        </p>
      ))}
    </div>
  );
}
