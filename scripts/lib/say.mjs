/** @type {(line: string) => void} */
let tell = console.log;

/** One line about a step that takes a while. @param {string} text */
export function say(text) {
  tell(`· ${text}`);
}

/** Keeps standard output for what a command is asked for. */
export function sayOnStandardError() {
  tell = console.error;
}

/** A failure that the user can act on: what happened and what to do. */
export class StepError extends Error {
  /**
   * @param {string} step what was being done
   * @param {string} why what went wrong
   * @param {string} remedy what to do
   */
  constructor(step, why, remedy) {
    super(`${step}: ${why}`);
    this.remedy = remedy;
  }
}

/** Runs a command's main function; a failure is told in plain words. @param {() => Promise<void>} main */
export async function runCommand(main) {
  try {
    await main();
  } catch (error) {
    const told = asStepError(error);
    if (told) {
      console.error(`\n✗ ${told.message}\n  What to do: ${told.remedy}\n`);
    } else {
      console.error(error);
    }
    process.exitCode = 1;
  }
}

/** What a program or the system says when there is no room left. */
const FULL_DISK = /ENOSPC|EDQUOT|No space left on device|Disk quota exceeded|Check free disk space/;

/** The failure in words that the user can act on; null for one that nobody foresaw. @param {unknown} error */
function asStepError(error) {
  const text = error instanceof Error ? error.message : '';
  if (FULL_DISK.test(text)) {
    return new StepError(
      'The disk is full',
      text,
      'make room on the disk that holds the data and the checkout, then start again; everything acknowledged is kept.',
    );
  }
  if (error instanceof StepError) return error;
  const { code, path } = /** @type {NodeJS.ErrnoException} */ (error ?? {});
  if (code === 'EACCES' || code === 'EPERM' || code === 'EROFS') {
    return new StepError(
      'Writing',
      `this account may not write ${path ?? 'there'} (${code}).`,
      'start under the account that owns the folder, or choose another with DATA_DIR=…',
    );
  }
  return null;
}
