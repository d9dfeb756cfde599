// What an analyst waits for at the bench, measured in the browser itself.
/* global window, requestAnimationFrame */
import { signInToDemo, VIEWPORT, withBrowser } from './benchBrowser.mjs';

/** Keys pressed for the median. */
const KEYS = 60;

/**
 * How long a key press takes until its reaction has been drawn, and how long the bench takes to be usable, on an open run.
 * @param {string} base @param {string} runId
 * @returns {Promise<{ keyMs: number[], coldMs: number }>}
 */
export function measureTyping(base, runId) {
  return withBrowser(async (browser) => {
    const context = await browser.newContext({ viewport: VIEWPORT });
    const first = await context.newPage();
    await signInToDemo(first, base);
    const { cookies } = await context.storageState();
    await context.close();

    // A browser that has never seen the program, and is signed in.
    const cold = await browser.newContext({ viewport: VIEWPORT });
    await cold.addCookies(cookies);
    const page = await cold.newPage();
    const began = performance.now();
    await page.goto(`${base}/runs/${runId}`);
    const field = page.getByRole('form', { name: 'Next entry' }).getByRole('textbox').first();
    await field.waitFor();
    const coldMs = performance.now() - began;

    await page.evaluate(() => {
      /** @type {number[]} */
      const times = [];
      Object.assign(window, { keyTimes: times });
      window.addEventListener(
        'keydown',
        () => {
          const pressed = performance.now();
          // Drawn is what the frame after this one begins with.
          requestAnimationFrame(() =>
            setTimeout(() => {
              times.push(performance.now() - pressed);
            }),
          );
        },
        true,
      );
    });
    await field.focus();
    for (let turn = 0; turn < KEYS; turn += 1) {
      await page.keyboard.press(turn % 2 === 0 ? '4' : 'Backspace');
      await page.waitForTimeout(60);
    }
    const keyMs = await page.evaluate(
      () => /** @type {{ keyTimes: number[] }} */ (/** @type {unknown} */ (window)).keyTimes,
    );
    return { keyMs, coldMs };
  });
}
