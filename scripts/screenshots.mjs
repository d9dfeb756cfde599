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
await page.goto(`${base}/catalogue`);
await page.getByRole('table', { name: 'Own entries' }).waitFor();
await picture('catalogue');
// A batch of two wines of its own, left on the bench.
await page.goto(`${base}/titrate/samples?analysis=titratable-acidity`);
await page.getByLabel(/^W-311/).check();
await choose('Portions with', 'Pipette V10');
await picture('samples');
await page
  .getByLabel('Why it goes on all the same')
  .fill('The control shows what another end does.');
await page.getByRole('button', { name: 'To the bench' }).click();
/** @param {string} name @param {string} figure */
async function enter(name, figure) {
  await page.getByRole('textbox', { name }).fill(figure);
  await page.keyboard.press('Enter');
}
const finals = ['8.02', '8.04', '8.24', '8.21'];
for (const [i, finalMl] of finals.entries()) {
  const flask = i + 1;
  if (i % 2 === 0) {
    for (const one of [flask, flask + 1]) await enter(`volume, flask ${String(one)}`, '10');
  }
  await enter(`initial reading, flask ${String(flask)}`, '0.00');
  await enter(`final reading, flask ${String(flask)}`, finalMl);
}
await page.getByRole('link', { name: 'See the contents' }).click();
await page.getByRole('heading', { name: /^Samples/ }).waitFor();
await picture('contents');
/** @param {string} code */
async function openSample(code) {
  await page.goto(`${base}/samples`);
  await page.getByRole('link', { name: code, exact: true }).click();
  await page.getByRole('heading', { level: 1, name: `Sample ${code}` }).waitFor();
}
await openSample('QC-W');
await page
  .getByRole('heading', { name: 'Reported' })
  .evaluate((heading) => heading.scrollIntoView({ block: 'start' }));
await picture('control');
await openSample('W-312');
await page.getByRole('link', { name: 'W-312-R1' }).click();
await page.getByText('It holds').waitFor();
await picture('report');
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
