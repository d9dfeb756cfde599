/** One line about a step that takes a while. @param {string} text */
export function say(text) {
  console.log(`· ${text}`);
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
    if (error instanceof StepError) {
      console.error(`\n✗ ${error.message}\n  What to do: ${error.remedy}\n`);
    } else {
      console.error(error);
    }
    process.exitCode = 1;
  }
}
