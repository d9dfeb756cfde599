import { rowsOf, sectionOf } from '../../document';
import type { Id } from '../../grammar';
import { endOfSentence } from '../../wording';
import type { Certificate, RunState } from '../run';
import type { DocumentContext } from './context';

const SIGNED_AS = { performed: 'Performed', checked: 'Checked', authorized: 'Authorized' } as const;

/** What every document that is issued says of those who signed it. */
interface Signed extends Pick<
  Certificate,
  'signatures' | 'isIndependent' | 'analystIds' | 'deviations' | 'reason'
> {
  /** Who issued it where nobody signed, as on certificates of before. */
  readonly signedOnceById: Id;
}

export function signaturesSection(
  { signatures, signedOnceById, isIndependent, analystIds, deviations, reason }: Signed,
  { nameOf, instantText }: DocumentContext,
) {
  return sectionOf('Signatures', [
    rowsOf([
      ['Weighed and read by', analystIds.map(nameOf).join(', ')],
      [
        'Certified by',
        signatures.length === 0 && `${nameOf(signedOnceById)}; signed once, under the earlier rule`,
      ],
    ]),
    {
      kind: 'table',
      heads: ['Signed as', 'Name', 'At'],
      rows: signatures.map(({ means, by, at }) => [SIGNED_AS[means], nameOf(by), instantText(at)]),
    },
    rowsOf([
      ['Independence', isIndependent === false && 'Not independently checked.'],
      ['Remark', reason && endOfSentence(reason)],
    ]),
    {
      kind: 'sentences',
      sentences: deviations.map((sentence) => `Not by the house rules: ${sentence}`),
    },
  ]);
}

/** By what it is found and computed again. */
export function recordSection(
  run: RunState,
  { coreVersion, catalogueVersion }: Pick<Certificate, 'coreVersion' | 'catalogueVersion'>,
  { auditHead }: DocumentContext,
) {
  return sectionOf('Record', [
    rowsOf([
      ['Run', run.id],
      ['Begun all the same', run.setUp.reason && endOfSentence(run.setUp.reason)],
      ['Computed by', `core ${coreVersion}, catalogue ${catalogueVersion}`],
      [
        'Audit log before the issue',
        auditHead && `entry ${String(auditHead.sequence)}, ${auditHead.hash}`,
      ],
    ]),
  ]);
}
