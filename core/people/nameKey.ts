/**
 * By what two names are the same: letters in either case, any kind and number of blanks, and signs that cannot be seen
 * make no difference. Who looks alike must not be somebody else.
 */
export function nameKey(name: string): string {
  return name
    .normalize('NFKC')
    .replaceAll(/\s+/gu, ' ')
    .replaceAll(/[\p{Cf}\p{Cc}\u115f\u1160\u3164\uffa0]/gu, '')
    .trim()
    .toLowerCase();
}
