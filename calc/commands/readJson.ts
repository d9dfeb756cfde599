import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';

/** A file as the user named it: relative to where the command was called. */
export function pathOf(file: string): string {
  return resolve(process.env.INIT_CWD ?? process.cwd(), file);
}

/** Reads a file of JSON. @throws Error with one line that says what is wrong with it. */
export function readJson(file: string): unknown {
  let text: string;
  try {
    text = readFileSync(pathOf(file), 'utf8');
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code ?? String(error);
    throw new Error(`${file}: cannot be read (${code}).`, { cause: error });
  }
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new Error(`${file}: is not JSON: ${error instanceof Error ? error.message : ''}`, {
      cause: error,
    });
  }
}
