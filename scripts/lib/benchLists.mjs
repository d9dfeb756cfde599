// What an analyst waits for at the pages that list things, measured in the browser itself.
/* global indexedDB */
import { signInToDemo, VIEWPORT, withBrowser } from './benchBrowser.mjs';

/** Loads of each page for the median. */
const LOADS = 5;

/** Each page and what is there when it can be used. */
const PAGES = /** @type {const} */ ([
  { name: 'Shelf', path: '/', ready: 'main li a[href^="/bottles/"]' },
  { name: 'Judge', path: '/judge', ready: 'main table a[href$="/judge"]' },
  { name: 'set-up', path: '/titrate/set-up', ready: 'main h2:text-is("The plan")' },
  { name: 'Prepare', path: '/prepare', ready: 'main form select' },
]);

/**
 * How long each page takes from its address to being usable, in a browser that knows the program but none of the data, and the
 * largest answer that came on the way.
 * @param {string} base
 * @returns {Promise<{ medianMs: Record<string, number>, largestBytes: number }>}
 */
export async function measureLists(base) {
  let largestBytes = 0;
  /** @type {Record<string, number>} */
  const medianMs = {};
  await withBrowser(async (browser) => {
    const page = await browser.newPage({ viewport: VIEWPORT });
    page.on('response', (response) => {
      if (!response.url().includes('/api/') || response.url().includes('/events')) return;
      response.body().then(
        (body) => (largestBytes = Math.max(largestBytes, body.length)),
        () => undefined,
      );
    });
    await signInToDemo(page, base);
    for (const { name, path, ready } of PAGES) {
      const times = [];
      for (let turn = 0; turn < LOADS; turn += 1) {
        await forgetReads(page, base);
        const began = performance.now();
        await page.goto(`${base}${path}`);
        await page.locator(ready).first().waitFor();
        times.push(performance.now() - began);
      }
      medianMs[name] = times.toSorted((a, b) => a - b)[Math.floor(LOADS / 2)] ?? 0;
    }
  });
  return { medianMs, largestBytes };
}

/** What the pages have read before is kept on the device: gone, everything is asked again. @param {import('@playwright/test').Page} page @param {string} base */
async function forgetReads(page, base) {
  await page.goto(`${base}/mark.svg`);
  await page.evaluate(
    () =>
      new Promise((resolve) => {
        const gone = indexedDB.deleteDatabase('vine-measure-reads');
        gone.onsuccess = gone.onerror = gone.onblocked = resolve;
      }),
  );
}
