import { reproduce } from '../reproduce';
import { readJson } from './readJson';

/** Exit codes: a certificate that its entries do not come to, and a file that cannot be computed. */
const DIFFERENT = 1;
const BAD_INPUT = 2;

const [file, ...others] = process.argv.slice(2);
if (file === undefined || others.length > 0) {
  refuse('Usage: npm run reproduce -- FILE.json (a certificate or report as Judge saves it)');
} else {
  try {
    tell(file, readJson(file));
  } catch (error) {
    refuse(error instanceof Error ? error.message : String(error));
  }
}

function tell(name: string, certificate: unknown): void {
  const outcome = reproduce(certificate);
  switch (outcome.kind) {
    case 'identical':
      console.log(`${name}: identical; ${String(outcome.compared)} figures compared.`);
      return;
    case 'different':
      for (const place of outcome.places) console.log(`${name}: ${place}`);
      process.exitCode = DIFFERENT;
      return;
    case 'refused':
      refuse(`${name}: ${outcome.sentence}`);
  }
}

function refuse(line: string): void {
  console.error(line.replaceAll('\n', ' '));
  process.exitCode = BAD_INPUT;
}
