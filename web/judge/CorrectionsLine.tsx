import { decimalPlaces, roundHalfEven } from '#core/measurement';
import type { Result } from '#core/titration/judging';
import { correctionsText } from '#core/wording';

/** Under a result, what it is as measured, and by how much it was corrected or would be. */
export function CorrectionsLine({ result }: { readonly result: Result }) {
  const { corrections, rounded } = result;
  const asMeasured = roundHalfEven(corrections.asMeasured, decimalPlaces(rounded.value));
  const text = correctionsText({ ...corrections, asMeasured });
  return text && <p className="text-ink-soft">{text}</p>;
}
