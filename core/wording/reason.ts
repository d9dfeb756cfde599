/** A reason as somebody typed it, as the end of a sentence. */
export function endOfSentence(reason: string): string {
  return /[.!?…]$/.test(reason) ? reason : `${reason}.`;
}
