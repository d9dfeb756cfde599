import { setTimeout as sleep } from 'node:timers/promises';

/** So often within a minute a server is started again before it is given up, unless another number is given. */
const STARTS_AT_MOST = 5;
const MINUTE_MS = 60_000;

/** Between two tries, so that a server which cannot start does not keep the machine busy. */
const PAUSE_MS = 500;

/**
 * A server that has been started.
 * @typedef {object} Started
 * @property {Promise<unknown>} ended settles when it ends, for whatever reason
 * @property {() => Promise<void>} stop
 */

/**
 * Starts a server, and starts it again when it ends by itself, at most so often within a minute.
 *
 * @template {Started} S
 * @param {() => Promise<S>} start
 * @param {{ onAgain: () => void, onGivenUp: (why: unknown) => void, now?: () => number, atMost?: number }} told `onGivenUp`
 *   gets what the last try failed with; null when it ran and ended once too often
 * @returns {Promise<{ first: S, stop: () => Promise<void> }>} rejects when the first start fails
 */
export async function keepRunning(
  start,
  { onAgain, onGivenUp, now = Date.now, atMost = STARTS_AT_MOST },
) {
  const first = await start();
  /** @type {S | null} */
  let running = first;
  let isStopping = false;
  /** When it was started again. @type {number[]} */
  let again = [];

  /** @returns {boolean} whether it may be tried once more */
  const mayTry = () => {
    again = again.filter((at) => at > now() - MINUTE_MS);
    return again.length < atMost;
  };

  const keeping = (async () => {
    /** @type {unknown} */
    let why = null;
    for (;;) {
      await running?.ended;
      running = null;
      if (isStopping) return;
      if (!mayTry()) {
        onGivenUp(why);
        return;
      }
      again.push(now());
      onAgain();
      if (again.length > 1) await sleep(PAUSE_MS);
      if (isStopping) return;
      why = null;
      running = await start().catch((error) => {
        why = error;
        return null;
      });
      // Told to stop while it started.
      if (isStopping) await running?.stop();
    }
  })();

  return {
    first,
    stop: async () => {
      isStopping = true;
      await running?.stop();
      await keeping;
    },
  };
}
