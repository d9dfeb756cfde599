/** The code for the next bottle: one more than the highest that is a number, four digits. */
export function nextCode(codes: readonly string[]): string {
  const numbers = codes.filter((code) => /^\d+$/.test(code)).map(Number);
  return String(Math.max(0, ...numbers) + 1).padStart(4, '0');
}
