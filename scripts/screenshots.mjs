// npm run screenshots: one picture of each main view from the running demo (npm start), into docs/screenshots.
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { ROOT } from './lib/place.mjs';

const base = `http://127.0.0.1:${process.env['PORT'] ?? '4680'}`;
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

/** @param {string} name */
async function picture(name) {
  // The stream of events never ends, so the network is never idle.
  await page.waitForTimeout(1_500);
  await page.mouse.move(0, 0);
  await page.screenshot({ path: join(ROOT, 'docs', 'screenshots', `${name}.png`) });
  console.log(name);
}

await page.goto(base);
await page.getByRole('button', { name: /Mirela/ }).click();
await page.getByRole('heading', { name: 'Shelf' }).waitFor();
await picture('shelf');
await page.getByRole('link', { name: /bottle 0416/ }).click();
await picture('bottle');
await page.getByRole('link', { name: 'Print a label' }).click();
await picture('label');
await page.goto(`${base}/prepare`);
/** @param {string} label @param {string} item */
async function choose(label, item) {
  await page.getByRole('button', { name: new RegExp(`${label}$`) }).click();
  await page.getByRole('option', { name: item }).click();
}
await page.getByLabel('What for').selectOption('standard');
await page.getByLabel('Substance').selectOption('oxalic-acid-dihydrate');
await page.getByLabel('Molarity').fill('0.05');
await page.getByLabel('Volume').fill('250');
await picture('prepare');
await page.getByRole('region', { name: 'On the way' }).getByRole('link').first().click();
await page.getByRole('button', { name: /Weigh$/ }).click();
await picture('guided');
await page.goto(`${base}/prepare/day`);
await picture('day');
await page.goto(`${base}/lots`);
await page.getByRole('link', { name: 'SC-1501' }).click();
await picture('lot');
await page.goto(`${base}/titrate/set-up`);
await choose('Bottle', '0419, NH3 0.1 mol/L');
await picture('set-up');
await page.goto(base);
await page.getByRole('link', { name: 'Go on titrating' }).click();
// Typed, not kept: the demo stays as it is, and the burette shows where the end would come.
await page.getByRole('textbox', { name: /initial reading/ }).fill('0.14');
await picture('bench');
/** The bench where fingers type. */
const HANDHELD = /** @type {const} */ ([
  ['bench-tablet', { width: 768, height: 1024 }],
  ['bench-phone', { width: 390, height: 844 }],
]);
for (const [name, size] of HANDHELD) {
  await page.setViewportSize(size);
  await picture(name);
}
await page.setViewportSize({ width: 1280, height: 800 });
await page.keyboard.press('Escape');
await page.goto(`${base}/rules`);
await picture('rules');
await page.goto(`${base}/methods/new?from=naoh-by-khp`);
await picture('method');
await page.goto(`${base}/catalogue`);
await page.getByRole('table', { name: 'Own entries' }).waitFor();
await picture('catalogue');
// A hot titration of its own, left on the bench.
await page.goto(`${base}/titrate/set-up`);
await choose('Bottle', '0414, KMnO4 0.02 mol/L');
await page.getByRole('button', { name: 'To the bench' }).click();
/** @type {readonly (readonly [RegExp, string])[]} */
const masses = [
  [/net mass, flask 1/, '0.2101'],
  [/net mass, flask 2/, '0.2088'],
  [/net mass, flask 3/, '0.2115'],
  [/net mass, flask 4/, '0.2092'],
];
/** @type {readonly (readonly [RegExp, string])[]} */
const readings = [
  [/initial reading, flask 1/, '0.10'],
  [/final reading, flask 1/, '31.12'],
  [/initial reading, flask 2/, '0.20'],
];
/** @param {readonly (readonly [RegExp, string])[]} entries */
async function enter(entries) {
  for (const [name, figure] of entries) {
    await page.getByRole('textbox', { name }).fill(figure);
    await page.keyboard.press('Enter');
  }
}
await enter(masses);
for (const flask of ['5', '6']) {
  await page.getByText(`Make a blank as flask ${flask}`).first().waitFor();
  await page.getByRole('button', { name: 'The blank is ready' }).click();
}
await enter(readings);
await page.getByRole('textbox', { name: /final reading, flask 2/ }).waitFor();
await page.keyboard.press('h');
await page.getByRole('textbox', { name: /temperature, flask 2/ }).fill('78');
await page.keyboard.press('Enter');
await page.getByText(/min until 60/).waitFor();
await picture('hot');
await page.goto(`${page.url()}/sheet`);
await picture('sheet');
await page.goto(`${base}/judge`);
await page.getByRole('link', { name: 'certificate 0416-1' }).click();
await page.getByRole('heading', { name: 'Certified' }).waitFor();
await picture('judge');
await page.getByRole('link', { name: 'The whole certificate' }).click();
await page.getByText('The file is as it was issued.').waitFor();
await picture('certificate');
await page.goto(`${base}/verification`);
await page.getByRole('button', { name: 'Run the verification' }).click();
await page.getByText('cases within tolerance').waitFor({ timeout: 120_000 });
await picture('verification');
await browser.close();
