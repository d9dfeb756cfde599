import type { RecordHead } from './definition';
import type { Fact, Provenance } from './fact';
import { provenance } from './fact';

/** What a record said before it was put right, and why it was. */
export interface Correction<What> extends Provenance {
  readonly was: What;
  readonly reason: string;
  /** The version of the record that the correction made. */
  readonly version: number;
}

/** The corrections of a record with one more. */
export function corrected<What>(
  { version, corrections }: RecordHead & { readonly corrections: readonly Correction<What>[] },
  fact: Fact<string, { readonly reason: string }>,
  was: What,
): readonly Correction<What>[] {
  const { reason } = fact.body;
  return [...corrections, { ...provenance(fact), was, reason, version: version + 1 }];
}
