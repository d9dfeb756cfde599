import { connectAsApplication } from '../database/connection';
import { requireEnvironment } from '../environment';
import type { Services } from '../services';

/** Runs a command; a failure is told in a line, without the inside of the program, and sets the exit code. */
export async function runCommand(main: () => Promise<void>): Promise<void> {
  try {
    await main();
  } catch (error) {
    console.error(failureText(error));
    process.exitCode = 1;
  }
}

/** What a failure says; one to reach a database has a code and, of several tries, no words. */
export function failureText(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  const code = (error as NodeJS.ErrnoException).code;
  return error.message !== '' ? error.message : (code ?? error.name);
}

/** Gives a command the application's database, and closes it afterwards. */
export async function withServices(work: (services: Services) => Promise<void>): Promise<void> {
  const db = connectAsApplication(requireEnvironment('DATABASE_URL'));
  try {
    await work({ db, now: () => new Date() });
  } finally {
    await db.destroy();
  }
}
