import { PREPARATION_FINDINGS } from './preparationFindings';
import { RECORD_FINDINGS } from './recordFindings';
import { SAMPLE_FINDINGS } from './sampleFindings';
import { SHELF_FINDINGS } from './shelfFindings';
import { TITRATION_FINDINGS } from './titrationFindings';

/** Every finding by its code, and the sentence that its values make: what is wrong and what to do. */
const FINDINGS = {
  ...RECORD_FINDINGS,
  ...SHELF_FINDINGS,
  ...SAMPLE_FINDINGS,
  ...PREPARATION_FINDINGS,
  ...TITRATION_FINDINGS,
};

export type FindingCode = keyof typeof FINDINGS;

/** What a finding says beside its code: nothing, or one object. */
export type FindingValues<Code extends FindingCode> = Parameters<(typeof FINDINGS)[Code]>;

/** A finding as a sentence. */
export function findingText({
  code,
  values,
}: {
  readonly code: FindingCode;
  readonly values: object;
}): string {
  // A finding is made with the values of its code, and only so.
  return (FINDINGS[code] as (values: object) => string)(values);
}
