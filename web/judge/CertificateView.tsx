import type { Result } from '#core/titration/judging';
import type { Certificate } from '#core/titration/run';
import { comesToTheSame } from '#core/titration/judging';
import { paperUnitsOf } from '#core/laboratory';
import { usePersonName } from '../app/records';
import { Facts } from '../ui/Facts';
import { dateText, Molarity } from '../ui/typeset';

/** The certificate as it was frozen, and whether the entries still give the same figures. */
export function CertificateView({
  certificate,
  recomputed,
}: {
  readonly certificate: Certificate;
  readonly recomputed: Result;
}) {
  const nameOf = usePersonName();
  const { normality } = certificate;
  const units = paperUnitsOf(certificate.rules);
  const statesUncertainty = certificate.rules.certificateStates === 'uncertainty';
  const isSame = comesToTheSame(certificate, recomputed.evaluation);
  return (
    <section aria-label="Certificate" className="rounded-md border border-leaf bg-leaf-wash p-4">
      <h2 className="text-lg font-bold text-leaf">Certified</h2>
      <p className="mt-1 mb-3 text-xl">
        {statesUncertainty ? (
          <>
            <Molarity
              value={certificate.molarity}
              uncertainty={certificate.expandedUncertainty}
              unit={units.molarity}
            />{' '}
            <span className="text-base text-ink-soft">
              (<i>k</i> = {certificate.coverageFactor})
            </span>
          </>
        ) : (
          <>
            <b className="font-mono">{certificate.molarity}</b> {units.molarity}
          </>
        )}
      </p>
      <Facts
        rows={[
          ['Valid', `${dateText(certificate.certifiedOn)} to ${dateText(certificate.validUntil)}`],
          [
            'Titrations',
            `${String(certificate.replicatesAveraged)} averaged of ${String(certificate.replicatesMade)} made`,
          ],
          [
            'RSD',
            certificate.relativeSdPercent === null ? '–' : `${certificate.relativeSdPercent} %`,
          ],
          ...(normality
            ? [
                [
                  'Normality',
                  `${normality.value} eq/L, ${String(normality.equivalentsPerMole)} to the mole in this reaction`,
                ] as const,
              ]
            : []),
          ['End point', certificate.indicator],
          ['Temperature', `${certificate.temperatureC} °C`],
          ['Standard', certificate.standard],
          ['With', `${certificate.measuredWith}, ${certificate.burette}`],
          ['Analyst', certificate.analystIds.map(nameOf).join(', ')],
          ['Certified by', nameOf(certificate.certifiedById)],
          ...(certificate.reason === null ? [] : [['Remark', certificate.reason] as const]),
        ]}
      />
      {certificate.deviations.length > 0 && (
        <ul aria-label="Not by the house rules" className="mt-3 border-l-4 border-straw pl-3">
          {certificate.deviations.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      <p className={`mt-3 text-sm ${isSame ? 'text-ink-soft' : 'font-semibold text-blush'}`}>
        {isSame
          ? `Computed again from the entries just now: the same figures (core ${certificate.coreVersion}, catalogue ${certificate.catalogueVersion}).`
          : 'Computed again from the entries, the figures differ: the certificate keeps its own.'}
      </p>
    </section>
  );
}
