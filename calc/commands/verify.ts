import type { VerifiedCase } from '../verification/verify';
import { PACK, verifyCase } from '../verification/verify';

/** Runs the verification pack; `--json` prints the report as JSON instead of a table. */
const args = process.argv.slice(2);
const asJson = args.includes('--json');

if (args.some((argument) => argument !== '--json')) {
  console.error('Usage: npm run verify [-- --json]');
  process.exitCode = 2;
} else {
  report(PACK.map(verifyCase));
}

function report(cases: readonly VerifiedCase[]): void {
  const failed = cases.filter(({ isWithin }) => !isWithin);
  if (asJson) {
    console.log(
      JSON.stringify(
        { cases, passed: cases.length - failed.length, failed: failed.length },
        null,
        2,
      ),
    );
  } else {
    printTable(cases);
  }
  if (failed.length > 0) process.exitCode = 1;
}

function printTable(cases: readonly VerifiedCase[]): void {
  for (const point of new Set(cases.map((one) => one.point))) {
    console.log(`\n${point.toUpperCase()}`);
    for (const one of cases.filter((other) => other.point === point)) {
      console.log(`\n${one.isWithin ? '✓' : '✗'} ${one.title}`);
      console.log(`  ${one.source} (${one.status})`);
      for (const { path, expected, got, isWithin } of one.places) {
        const deviation =
          typeof expected === 'number' && typeof got === 'number'
            ? `, deviation ${(got - expected).toExponential(1)}`
            : '';
        const verdict = isWithin ? 'within' : 'OUTSIDE';
        console.log(
          `  ${path}: expected ${JSON.stringify(expected)}, computed ${JSON.stringify(got)}${deviation}, ${verdict}`,
        );
      }
    }
  }
  const count = (status: VerifiedCase['status']): string =>
    String(cases.filter((one) => one.status === status).length);
  const passed = cases.filter(({ isWithin }) => isWithin).length;
  console.log(
    `\n${String(passed)} of ${String(cases.length)} cases within tolerance (${count('published')} published, ${count('recomputed')} recomputed)`,
  );
}
