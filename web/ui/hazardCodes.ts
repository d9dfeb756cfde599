import type { HazardCode } from '#core/chemistry';
import { HAZARD_STATEMENTS } from '#core/chemistry';

/** Statements as somebody types them, `H314, H290`: those that are known, and the rest. */
export function hazardCodesIn(typed: string): {
  readonly codes: readonly HazardCode[];
  readonly unknown: readonly string[];
} {
  const words = typed.split(/[\s,;]+/).filter((word) => word !== '');
  const isCode = (word: string): word is HazardCode => word in HAZARD_STATEMENTS;
  return {
    codes: [...new Set(words.filter(isCode))],
    unknown: words.filter((word) => !isCode(word)),
  };
}
