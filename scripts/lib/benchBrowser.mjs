// The browser in which `npm run bench` measures what an analyst waits for.
import { chromium } from '@playwright/test';
import { CHROMIUM_ARGS } from './torture.mjs';

export const VIEWPORT = { width: 1280, height: 800 };

/** Works in a browser, which is closed afterwards. @template T @param {(browser: import('@playwright/test').Browser) => Promise<T>} work */
export async function withBrowser(work) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: CHROMIUM_ARGS,
  });
  try {
    return await work(browser);
  } finally {
    await browser.close();
  }
}

/** Signs in as one of the demo's people and waits for the shelf. @param {import('@playwright/test').Page} page @param {string} base */
export async function signInToDemo(page, base) {
  await page.goto(base);
  await page.getByRole('button', { name: /Mirela/ }).click();
  await page.getByRole('heading', { level: 1, name: 'Shelf' }).waitFor();
}
