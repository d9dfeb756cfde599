import { spawn } from 'node:child_process';

/**
 * @typedef {object} Outcome
 * @property {number} code exit code, 1 when it was ended by a signal or could not start
 * @property {string} output standard output and error, in order of arrival
 */

/** Programs under way. @type {Set<import('node:child_process').ChildProcess>} */
const under = new Set();

/** Ends the programs that are still under way. */
export function killPrograms() {
  for (const child of under) child.kill('SIGKILL');
}

/**
 * Runs a program to its end and keeps what it prints.
 * @param {string} program
 * @param {readonly string[]} args
 * @param {import('node:child_process').SpawnOptions & { echo?: boolean, onProgress?: (text: string) => void, input?: string }} [options]
 *   `echo` shows the output as it comes, `onProgress` is told the lines that say how far it is (they begin with `· `),
 *   `input` is what the program reads
 * @returns {Promise<Outcome>}
 */
export function run(program, args, options = {}) {
  const { echo = false, onProgress, input, ...rest } = options;
  return new Promise((resolve) => {
    const stdin = input === undefined ? 'ignore' : 'pipe';
    const child = spawn(program, args, { stdio: [stdin, 'pipe', 'pipe'], ...rest });
    under.add(child);
    child.once('close', () => under.delete(child));
    child.stdin?.on('error', () => undefined);
    child.stdin?.end(input);
    let output = '';
    /** @param {Buffer} chunk */
    const keep = (chunk) => {
      output += chunk.toString();
      if (echo) process.stdout.write(chunk);
      for (const [, text = ''] of chunk.toString().matchAll(/^· (.*)$/gm)) onProgress?.(text);
    };
    child.stdout?.on('data', keep);
    child.stderr?.on('data', keep);
    child.on('error', (error) => resolve({ code: 1, output: output + error.message }));
    child.on('close', (code) => resolve({ code: code ?? 1, output }));
  });
}

/** The last lines of a long output. @param {string} output @param {number} [lines] */
export function tail(output, lines = 15) {
  return output.trimEnd().split('\n').slice(-lines).join('\n');
}
