import type { Id, PlainDate } from '../../grammar';
import type { EquipmentState } from '../../metrology';
import type { BottleState } from '../../reagent';

/** How a document says what it only has by number, and what it takes from around the run. */
export interface DocumentContext {
  /** Who issues it, a line each. */
  readonly issuer: readonly string[];
  /** What it was measured with, at the versions that the run rests on. */
  readonly equipment: readonly EquipmentState[];
  /** The head of the audit log before the issue; null where nobody kept it. */
  readonly auditHead: { readonly sequence: number; readonly hash: string } | null;
  readonly nameOf: (personId: Id) => string;
  readonly dateText: (date: PlainDate) => string;
  readonly instantText: (instant: string) => string;
}

/** The same for a certificate. */
export interface CertificateContext extends DocumentContext {
  /** The bottle as it was before this certificate. */
  readonly bottle: BottleState;
}
