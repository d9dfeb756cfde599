/**
 * The code for the next bottle: one more than the highest number that is given, four digits.
 *
 * @param letter of the device, where the server cannot be asked what others give
 */
export function nextCode(codes: readonly string[], letter: string | null): string {
  const numbers = codes.map((code) => Number(/^(\d+)(-[A-Z])?$/.exec(code)?.[1] ?? 0));
  const number = String(Math.max(0, ...numbers) + 1).padStart(4, '0');
  return letter === null ? number : `${number}-${letter}`;
}
