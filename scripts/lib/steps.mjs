/** The parts of the program whose types are checked on their own; tests of the pure ones, journeys and scripts are the root's. */
export const TYPESCRIPT_ROOMS = ['core', 'calc', 'contract', 'server', 'demo', 'web', '.'];

/** Does work two at a time: the machine has two cores. @template T @param {readonly T[]} items @param {(item: T) => Promise<void>} work */
export async function twoAtATime(items, work) {
  const waiting = [...items];
  const worker = async () => {
    for (let item = waiting.shift(); item !== undefined; item = waiting.shift()) await work(item);
  };
  await Promise.all([worker(), worker()]);
}
