import { calculate, unknownKeys } from '../record';
import { recordJsonSchema } from '../recordFile';
import { readJson } from './readJson';

/** Exit code for a record that cannot be computed. */
const BAD_INPUT = 2;

function refuse(line: string): void {
  console.error(line.replaceAll('\n', ' '));
  process.exitCode = BAD_INPUT;
}

const [argument, ...others] = process.argv.slice(2);
if (argument === '--schema') {
  console.log(JSON.stringify(recordJsonSchema(), null, 2));
} else if (argument === undefined || others.length > 0) {
  refuse('Usage: npm run calc -- FILE.json (a record; its format is in docs/record-format.md)');
} else {
  compute(argument);
}

function compute(file: string): void {
  let record: unknown;
  try {
    record = readJson(file);
  } catch (error) {
    refuse(error instanceof Error ? error.message : String(error));
    return;
  }
  const [unknown] = unknownKeys(record);
  if (unknown !== undefined) {
    refuse(`${file}: ${unknown}: This task knows no such key.`);
    return;
  }
  const outcome = calculate(record);
  if (outcome.kind === 'refused') {
    refuse(`${file}: ${outcome.field}: ${outcome.sentence} (${outcome.problem})`);
    return;
  }
  console.log(JSON.stringify(outcome.results, null, 2));
}
