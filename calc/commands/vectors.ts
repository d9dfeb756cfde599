import type { CheckedCase } from '../vectorFile';
import { checkCase, readVectorFile } from '../vectorFile';
import { readJson } from './readJson';

/** Runs files of cases through the core; `--json` prints what was got, one line a case. */
const args = process.argv.slice(2);
const asJson = args.includes('--json');
const files = args.filter((argument) => argument !== '--json');

if (files.length === 0) {
  console.error('Usage: npm run vectors -- FILE… [--json]');
  process.exitCode = 2;
}
const passed = files.map(runFile).every(Boolean);
if (!passed && process.exitCode === undefined) process.exitCode = 1;

function runFile(file: string): boolean {
  let content;
  try {
    content = readVectorFile(readJson(file));
  } catch (error) {
    console.error(`${file}: ${error instanceof Error ? error.message : String(error)}`);
    process.exitCode = 2;
    return false;
  }
  const checked = content.cases.map(checkCase);
  if (asJson) {
    for (const { id, got } of checked) console.log(JSON.stringify({ id, got }));
    return checked.every(isPassed);
  }
  const failed = checked.filter((one) => !isPassed(one));
  console.log(
    `${content.topic}: ${String(checked.length - failed.length)} passed, ${String(failed.length)} failed`,
  );
  for (const { id, places } of failed) {
    for (const { path, expected, got, limit } of places.filter(({ isWithin }) => !isWithin)) {
      console.log(
        `  ${id} ${path}: expected ${JSON.stringify(expected)}, got ${JSON.stringify(got)}, tolerance ${JSON.stringify(limit)}`,
      );
    }
  }
  return failed.length === 0;
}

function isPassed(one: CheckedCase): boolean {
  return one.places.every(({ isWithin }) => isWithin);
}
