// How long each page takes to open in a browser that has never seen it, and to answer what is done on it. For `npm run bench`.
/* global window, document */
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import express from 'express';
import expressStaticGzip from 'express-static-gzip';
import { build } from 'vite';
import { compression } from 'vite-plugin-compression2';
import { signInToDemo, VIEWPORT, withBrowser } from './benchBrowser.mjs';
import { ROOT } from './place.mjs';

/** Pages that need no record of their own. */
const PAGES = [
  ...['/', '/prepare', '/prepare/day', '/prepare/write-down', '/titrate', '/titrate/set-up'],
  ...['/judge', '/lots', '/equipment', '/methods', '/catalogue', '/rules', '/settings'],
  ...['/people', '/account', '/verification', '/interface'],
];

/** Times that each page is opened; the middle one counts. */
const OPENED = 3;

/** So many times slower than this machine, as a tablet beside a bench is. */
const SLOWED = 4;

/** Keys of a figure, which every field takes. */
const TYPED = '12';

/** @typedef {import('@playwright/test').Browser} Browser */
/** @typedef {import('@playwright/test').Page} Page */
/** @typedef {Awaited<ReturnType<import('@playwright/test').BrowserContext['storageState']>>['cookies']} Cookies */

/**
 * Serves a page of the same stack with nothing on it, compressed and kept as ours is.
 * @template T @param {(base: string) => Promise<T>} work
 */
async function withEmptyPage(work) {
  const folder = mkdtempSync(join(tmpdir(), 'vine-empty-'));
  await build({
    configFile: false,
    logLevel: 'silent',
    root: join(ROOT, 'scripts', 'lib', 'emptyPage'),
    build: { outDir: folder, emptyOutDir: true },
    plugins: [compression({ algorithms: ['brotliCompress', 'gzip'] })],
  });
  const app = express();
  app.get('/api/session', (_request, response) => {
    response.json({ kind: 'signed-out' });
  });
  app.use(expressStaticGzip(folder, { enableBrotli: true, orderPreference: ['br', 'gz'] }));
  const server = createServer(app).listen(0, '127.0.0.1');
  await once(server, 'listening');
  const address = server.address();
  try {
    return await work(
      `http://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`,
    );
  } finally {
    server.close();
    server.closeAllConnections();
    rmSync(folder, { recursive: true, force: true });
  }
}

/**
 * Until the heading of a page and all that it waited for are there, in a browser that has never seen the program, ms.
 * @param {Browser} browser @param {string} url @param {Cookies} cookies
 */
async function openCold(browser, url, cookies) {
  const context = await browser.newContext({ viewport: VIEWPORT, serviceWorkers: 'block' });
  await context.addCookies(cookies);
  const page = await context.newPage();
  const began = performance.now();
  await page.goto(url, { waitUntil: 'commit' });
  await page.waitForFunction(
    () =>
      document.querySelector('main h1') !== null &&
      !document.body.textContent.includes('One moment'),
    undefined,
    { polling: 'raf' },
  );
  const ms = performance.now() - began;
  await context.close();
  return ms;
}

/**
 * What the browser observes of the events of a page, ms from each to the frame that shows its answer: the longest. The way through the
 * program, its fields and what opens something are used.
 * @param {Page} page @param {string} url
 */
async function longestAnswer(page, url) {
  await page.goto(url);
  await page.locator('main h1').first().waitFor();
  await page.getByText('One moment').waitFor({ state: 'hidden' });
  await page.evaluate(() => {
    /** @type {number[]} */
    const times = [];
    Object.assign(window, { eventTimes: times });
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) times.push(duration);
    }).observe(
      // TypeScript does not know the threshold yet.
      /** @type {PerformanceObserverInit} */ ({ type: 'event', durationThreshold: 16 }),
    );
  });
  for (const field of (await page.locator('main input:visible:enabled').all()).slice(0, 3)) {
    if (!/^(text|search|number)?$/.test((await field.getAttribute('type')) ?? '')) continue;
    await field.focus();
    await page.keyboard.type(TYPED, { delay: 60 });
  }
  const openers = page.locator('main button:visible:enabled').filter({ hasText: '…' });
  for (const opener of (await openers.all()).slice(0, 2)) {
    await opener.click();
    await page.keyboard.press('Escape');
  }
  // What is still open on top of the page keeps the search away.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('0417', { delay: 60 });
  await page.keyboard.press('Escape');
  // An entry is told after the frame that it waited for.
  await page.waitForTimeout(500);
  const times = await page.evaluate(
    () => /** @type {{ eventTimes: number[] }} */ (/** @type {unknown} */ (window)).eventTimes,
  );
  return Math.max(0, ...times);
}

/**
 * Cold loads against an empty page, each measured right after one of that, and the longest answers with a slower processor.
 * @param {string} base @param {readonly string[]} more addresses of records
 * @param {(measured: { page: string, coldMs: number, emptyMs: number, answerMs: number }) => void} onMeasured
 * @returns {Promise<void>}
 */
export function measurePages(base, more, onMeasured) {
  return withEmptyPage((emptyBase) =>
    withBrowser(async (browser) => {
      const context = await browser.newContext({ viewport: VIEWPORT });
      const page = await context.newPage();
      await signInToDemo(page, base);
      const { cookies } = await context.storageState();
      const slow = await context.newCDPSession(page);
      for (const path of [...PAGES, ...more]) {
        const cold = [];
        const empty = [];
        for (let turn = 0; turn < OPENED; turn += 1) {
          empty.push(await openCold(browser, emptyBase, cookies));
          cold.push(await openCold(browser, `${base}${path}`, cookies));
        }
        await slow.send('Emulation.setCPUThrottlingRate', { rate: SLOWED });
        const answerMs = await longestAnswer(page, `${base}${path}`);
        await slow.send('Emulation.setCPUThrottlingRate', { rate: 1 });
        onMeasured({ page: path, coldMs: middle(cold), emptyMs: middle(empty), answerMs });
      }
    }),
  );
}

/** @param {readonly number[]} values */
function middle(values) {
  return values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
}
