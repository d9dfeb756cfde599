import type { BrowserContext, Page } from '@playwright/test';
import { expect } from '@playwright/test';
import { startAppServer } from '../scripts/lib/app.mjs';
import { freePort } from '../scripts/lib/cluster.mjs';
import { ROOT } from '../scripts/lib/place.mjs';
import { enter, expectAccessible, signInToDemo, startRun, test, titrate } from './laboratory';

/** Begins a run and leaves its first flask under the burette, at 0.10 mL. */
async function beginTitration(page: Page): Promise<string> {
  const bench = await startRun(page);
  await enter(page, /net mass, flask 1/, '0.4802');
  await titrate(page, 1);
  await enter(page, /initial reading, flask 1/, '0.10');
  await expect(page.getByRole('textbox', { name: /final reading, flask 1/ })).toBeVisible();
  return bench;
}

test('what is entered in one browser shows in the others, eight tabs over one connection', async ({
  page,
  browser,
}) => {
  await signInToDemo(page, 'Tobin');
  const bench = await startRun(page);
  const context = await browser.newContext();
  let streams = 0;
  context.on('request', (request) => {
    if (request.url().includes('/api/events')) streams += 1;
  });
  const tabs = [await context.newPage()];
  await signInToDemo(tabs[0] ?? page, 'Jasna');
  for (let tab = 1; tab < 8; tab += 1) tabs.push(await context.newPage());
  for (const tab of tabs) {
    await tab.goto(bench);
    await expect(tab.getByText(/Weigh about/)).toBeVisible();
  }
  await enter(page, /net mass, flask 1/, '0.4802');
  for (const tab of tabs) {
    await expect(tab.getByRole('region', { name: 'Flask 1' })).toContainText('0.4802');
  }
  // The first page began a stream of its own before it went to the bench.
  expect(streams).toBe(2);

  // The tab that listens for all is closed; another takes over and nothing is missed.
  await tabs[0]?.close();
  await enter(page, /net mass, flask 2/, '0.4795');
  for (const tab of tabs.slice(1)) {
    await expect(tab.getByRole('region', { name: 'Flask 2' })).toContainText('0.4795');
  }
  expect(streams).toBe(3);
  await context.close();
});

test('two readings of one place, one made away from the network, are both kept and one is settled on', async ({
  page,
  browser,
}) => {
  await signInToDemo(page, 'Tobin');
  const bench = await beginTitration(page);
  const tablet = await browser.newContext();
  const away = await tablet.newPage();
  await signInToDemo(away, 'Jasna');
  await away.goto(bench);
  await expect(away.getByRole('textbox', { name: /final reading, flask 1/ })).toBeVisible();
  await tablet.setOffline(true);
  await enter(away, /final reading, flask 1/, '23.65');
  await expect(away.getByText(/1 kept here, to be sent/)).toBeVisible();
  await enter(page, /final reading, flask 1/, '23.60');
  await expect(page.getByText(/Weigh about/)).toBeVisible();
  await tablet.setOffline(false);

  for (const screen of [page, away]) {
    await expect(screen.getByText(/Two different entries for the final reading/)).toBeVisible();
    await expect(screen.getByRole('region', { name: 'Flask 1' })).toContainText('two values');
  }
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Compare and settle' }).click();
  const dialog = page.getByRole('dialog');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Let it stand' }).click();
  await expect(dialog.getByText('Choose the entry that stands.')).toBeVisible();
  await dialog.getByLabel(/23\.65 mL/).check();
  await dialog.getByLabel('Why').fill('read again together');
  await dialog.getByRole('button', { name: 'Let it stand' }).click();
  for (const screen of [page, away]) {
    await expect(screen.getByText(/Weigh about/)).toBeVisible();
    await expect(screen.getByRole('region', { name: 'Flask 1' })).toContainText('23.65');
  }
  await tablet.close();
});

/** What the browser has kept of what the pages have read, as JSON. */
function readsKept(page: Page): Promise<string> {
  return page.evaluate(
    () =>
      new Promise<string>((resolve) => {
        const opening = indexedDB.open('vine-measure-reads');
        opening.onsuccess = () => {
          const asking = opening.result.transaction('reads').objectStore('reads').get('all');
          asking.onsuccess = () => {
            opening.result.close();
            resolve(JSON.stringify(asking.result ?? null));
          };
        };
      }),
  );
}

/** Moves the clock of a browser's pages by some hours. */
async function shiftClock(context: BrowserContext, hours: number): Promise<void> {
  await context.addInitScript((shiftMs) => {
    const RealDate = Date;
    const now = (): number => RealDate.now() + shiftMs;
    globalThis.Date = new Proxy(RealDate, {
      construct: (target, [given]: [number?]) => new target(given ?? now()),
      get: (target, key): unknown => (key === 'now' ? now : Reflect.get(target, key)),
    });
  }, hours * 3_600_000);
}

test('without the server the bench opens again and goes on; with it the entries follow, at their true time', async ({
  browser,
  laboratory,
}) => {
  // It stops and starts a server of its own, and waits for the outbox to try again.
  test.setTimeout(150_000);
  const port = String(await freePort());
  const baseURL = `http://127.0.0.1:${port}`;
  const env = { DATABASE_URL: laboratory.databaseUrl, PORT: port, LOG_LEVEL: 'silent' };
  let server = await startAppServer(ROOT, env);
  const context = await browser.newContext({ baseURL });
  await shiftClock(context, -5);
  const page = await context.newPage();
  await page.goto('/');
  await page.getByRole('button', { name: /Tobin/ }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Shelf' })).toBeVisible();
  // What the browser needs to open without the server is in its cache.
  await expect
    .poll(() =>
      page.evaluate(async () => {
        const cache = await caches.open('vine-measure');
        const files = (await (await fetch('/files.json')).json()) as string[];
        return (
          navigator.serviceWorker.controller !== null &&
          (await cache.keys()).length === files.length
        );
      }),
    )
    .toBe(true);
  const bench = await startRun(page);
  // A mass that no other run has: lists tell what each run has taken.
  await enter(page, /net mass, flask 1/, '0.4786');
  await expect.poll(() => readsKept(page)).toContain('"massG":"0.4786"');
  await expect(page.getByText('all entries kept')).toBeVisible();

  await server.stop();
  await page.goto(bench);
  await expect(page.getByText(/server away, go on/)).toBeVisible();
  await titrate(page, 1);
  await enter(page, /initial reading, flask 1/, '0.10');
  await enter(page, /final reading, flask 1/, '23.60');
  await expect(page.getByText(/2 kept here, to be sent/)).toBeVisible();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Flask 1' })).toContainText('23.50');
  // What was never read on this device cannot be shown; the way back is.
  await page.goto('/runs/00000000-0000-7000-8000-000000000000');
  await expect(page.getByRole('heading', { name: 'This page cannot be shown' })).toBeVisible();
  await expect(page.getByText('The server cannot be reached')).toBeVisible();
  await page.goto(bench);

  server = await startAppServer(ROOT, env);
  await expect(page.getByText('all entries kept')).toBeVisible({ timeout: 60_000 });
  const answer = await page.request.get(bench.replace('/runs/', '/api/runs/'));
  const { facts } = (await answer.json()) as {
    facts: {
      body: { readingMl?: string };
      deviceTime: string;
      recordedAt: string;
      clockOffsetMs: number;
    }[];
  };
  expect(facts.map((fact) => fact.body.readingMl)).toEqual([undefined, undefined, '0.10', '23.60']);
  for (const { deviceTime, recordedAt, clockOffsetMs } of facts) {
    // Both times are kept: the device's, five hours behind, and the server's.
    expect(Math.round(clockOffsetMs / 3_600_000)).toBe(5);
    const entered = Date.parse(deviceTime) + clockOffsetMs;
    expect(entered).toBeLessThanOrEqual(Date.parse(recordedAt) + 1_000);
    expect(entered).toBeGreaterThan(Date.parse(recordedAt) - 120_000);
  }
  await context.close();
  await server.stop();
});
