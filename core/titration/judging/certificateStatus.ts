import type { PlainDate } from '../../grammar';
import type { BottleState } from '../../reagent';
import type { IssuedCertificate, RunState } from '../run';

/** What became of a certificate. */
export type CertificateStatus =
  | { readonly kind: 'holds' | 'ran-out' }
  /** Number of the later certificate of the bottle, whichever run it is of. */
  | { readonly kind: 'followed'; readonly by: string }
  | {
      readonly kind: 'withdrawn';
      readonly why: NonNullable<IssuedCertificate['withdrawn']>;
      /** The certificate of the same run that takes its place; null while there is none. */
      readonly replacedBy: string | null;
    };

/** What became of a certificate of a run by a day; null when the run never had one of that number. */
export function certificateStatus(
  { certificates }: Pick<RunState, 'certificates'>,
  number: string,
  { certified }: Pick<BottleState, 'certified'>,
  today: PlainDate,
): CertificateStatus | null {
  const at = certificates.findIndex(({ certificate }) => certificate.number === number);
  const issued = certificates[at];
  if (!issued) return null;
  const { certificate, withdrawn } = issued;
  if (withdrawn) {
    const replacedBy = certificates[at + 1]?.certificate.number ?? null;
    return { kind: 'withdrawn', why: withdrawn, replacedBy };
  }
  const onBottle = certified.findIndex(({ certificateNumber }) => certificateNumber === number);
  const later = onBottle < 0 ? undefined : certified[onBottle + 1];
  if (later) return { kind: 'followed', by: later.certificateNumber };
  return { kind: certificate.validUntil < today ? 'ran-out' : 'holds' };
}
