import type { Browser, Page } from '@playwright/test';
import { expect } from '@playwright/test';
import { choose, enter, signInToDemo, test, typeDate } from './laboratory';

/** A device of somebody's on which the program is kept. */
async function deviceOf(browser: Browser, name: string): Promise<Page> {
  const page = await (await browser.newContext()).newPage();
  await signInToDemo(page, name);
  const missing = (): Promise<number> =>
    page.evaluate(async () => {
      const files = (await (await fetch('/files.json')).json()) as unknown[];
      return files.length - (await (await caches.open('vine-measure')).keys()).length;
    });
  await expect.poll(missing, { timeout: 20_000 }).toBe(0);
  return page;
}

async function go(page: Page, name: string): Promise<void> {
  await page.getByRole('navigation').getByRole('link', { name, exact: true }).click();
}

/** Writes a titrant down under a code, from the lot that is offered or another one. */
async function writeDown(page: Page, code: string | null, lot?: RegExp): Promise<string> {
  await go(page, 'Prepare');
  await page.getByRole('link', { name: /Write down/ }).click();
  const field = page.getByLabel('Bottle code');
  if (code !== null) await field.fill(code);
  if (lot) await choose(page, 'Made from lot', lot);
  const written = await field.inputValue();
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Shelf' })).toBeVisible();
  return written;
}

test('a lot, a bottle made from it and a run on it are written down without the server, and arrive when it is back', async ({
  page: other,
  browser,
}) => {
  const page = await deviceOf(browser, 'Mirela');
  await page.context().setOffline(true);

  await go(page, 'Lots');
  await page.getByRole('button', { name: /lot/ }).first().click();
  const form = page.getByRole('form', { name: 'A new lot' });
  await form.getByLabel('Substance and form').selectOption({ label: 'sodium hydroxide' });
  await form.getByLabel('Lot number').fill('AWAY-7');
  await form.getByLabel('Supplier').fill('Cellar supply');
  await form.getByLabel('Purity', { exact: true }).fill('98');
  await form.getByLabel('Purity, plus or minus').fill('1');
  // What cannot be is said at once, by this device.
  await typeDate(form.getByRole('group', { name: 'Received on' }), '2099-01-01');
  await form.getByRole('button', { name: 'Add the lot' }).click();
  await expect(form.getByText('The year 2099 is mistyped.').first()).toBeVisible();
  await typeDate(form.getByRole('group', { name: 'Received on' }), '2026-01-05');
  await form.getByRole('button', { name: 'Add the lot' }).click();
  await expect(page.getByRole('main').getByText('AWAY-7')).toBeVisible();

  const code = await writeDown(page, null, /AWAY-7/);
  expect(code).toMatch(/^\d{4}-[A-Z]$/);
  await expect(page.getByRole('main').getByText(code).first()).toBeVisible();
  await go(page, 'Titrate');
  await page.getByRole('link', { name: 'Standardize a bottle' }).click();
  await choose(page, 'Bottle', code);
  await page.getByRole('button', { name: 'To the bench' }).click();
  await enter(page, /net mass, flask 1/, '0.4802');
  await expect(page.getByText(/4 kept here, to be sent/)).toBeVisible();

  await page.context().setOffline(false);
  await expect(page.getByText('all entries kept')).toBeVisible();
  await signInToDemo(other, 'Jasna');
  await expect(other.getByRole('main').getByText(code).first()).toBeVisible();
  await other.goto(new URL(page.url()).pathname);
  await expect(other.getByRole('region', { name: 'Flask 1' })).toContainText('0.4802');
  await page.context().close();
});

test('two devices give one code away from the server: the later one gives its bottle another, and nothing else is held up', async ({
  browser,
}) => {
  const [first, second] = [await deviceOf(browser, 'Tobin'), await deviceOf(browser, 'Jasna')];
  for (const page of [first, second]) {
    await page.context().setOffline(true);
    await writeDown(page, 'TWICE');
  }
  await first.context().setOffline(false);
  await expect(first.getByText('all entries kept')).toBeVisible();
  await second.context().setOffline(false);
  await expect(second.getByRole('alert')).toContainText('Another bottle is TWICE too.');
  await second.getByRole('button', { name: 'Give it a new code…' }).click();
  const asked = second.getByRole('dialog', { name: 'Two bottles TWICE' });
  await asked.getByLabel('New code').fill('once');
  await asked.getByRole('button', { name: 'Use this code' }).click();
  await expect(second.getByText('all entries kept')).toBeVisible();
  await expect(first.getByRole('main').getByText('ONCE').first()).toBeVisible();
  await Promise.all([first.context().close(), second.context().close()]);
});
