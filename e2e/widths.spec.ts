import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';
import { signInToDemo, test } from './laboratory';
import { misfits, WIDTHS } from './misfits';

/** Every kind of page that needs no record of its own. */
const PAGES = [
  '/',
  '/prepare',
  '/prepare/day',
  '/prepare/write-down',
  '/titrate',
  '/titrate/set-up',
  '/titrate/samples',
  '/judge',
  '/samples',
  '/lots',
  '/equipment',
  '/methods',
  '/methods/new?from=naoh-by-khp',
  '/catalogue',
  '/catalogue?of=indicator',
  '/catalogue?of=recipe',
  '/catalogue/new?of=substance&from=oxalic-acid-dihydrate',
  '/catalogue/new?of=indicator&from=thymol-blue',
  '/catalogue/new?of=recipe&from=calcium-carbonate-standard',
  '/rules',
  '/settings',
  '/words',
  '/people',
  '/account',
  '/history',
  '/verification',
  '/interface',
] as const;

/** Buttons that open a dialog or a menu: their names end in an ellipsis, or are a reading that can be corrected. */
const OPENS = /…$|^Does it matter\?|^Check burette|^\d+\.\d+$/;

/** What does not fit in the dialogs and menus of the page that is shown, and in forms that open in it. */
async function misfitsOfDialogs(page: Page): Promise<string[]> {
  const found: string[] = [];
  const buttons = page.locator('main button:visible:enabled').filter({ hasText: OPENS });
  const names = await buttons.allInnerTexts();
  for (const [i, name] of names.entries()) {
    // It asks the system for a file.
    if (name.startsWith('Attach')) continue;
    await buttons.nth(i).click();
    const closing = page.getByRole('dialog').or(page.getByRole('menu')).first();
    // Some open a form in the page itself.
    const opened = closing.or(page.locator('main form')).first();
    await expect(opened, `${name} opens`).toBeVisible();
    for (const misfit of await misfits(page)) found.push(`${name}: ${misfit}`);
    if (await closing.isVisible()) {
      await page.keyboard.press('Escape');
      await expect(closing).toBeHidden();
    } else {
      await page.reload();
      await expect(buttons.nth(i)).toBeVisible();
    }
  }
  return found;
}

/** The addresses of one record of each kind that has a page. */
async function recordPages(page: Page): Promise<string[]> {
  const firstOf = async (kind: string, query = '') => {
    const answer = await page.request.get(`/api/records/${kind}?${query}`);
    const { records } = (await answer.json()) as {
      records: { id: string; certificate?: { number: string } | null }[];
    };
    return records[0] ?? { id: '' };
  };
  const idOf = async (kind: string, query = ''): Promise<string> => (await firstOf(kind, query)).id;
  const open = await idOf('run', 'standing=open');
  const certified = await firstOf('run', 'standing=certified');
  const bottle = await idOf('bottle', 'standing=certified');
  const preparing = await idOf('preparation', 'standing=open');
  return [
    ...[`/runs/${open}`, `/runs/${open}/judge`, `/runs/${open}/sheet`],
    ...[`/runs/${certified.id}`, `/runs/${certified.id}/judge`],
    `/runs/${certified.id}/certificates/${certified.certificate?.number ?? ''}`,
    ...[`/bottles/${bottle}`, `/bottles/${bottle}/label`, `/preparations/${preparing}`],
    ...[`/lots/${await idOf('lot')}`, `/equipment/${await idOf('equipment')}`],
  ];
}

/** The pages of one test, with what tells them apart from those of the others. */
const PARTS: readonly (readonly [
  name: string,
  pages: (page: Page) => Promise<readonly string[]>,
])[] = [
  ['the shelf to the bench', () => Promise.resolve(PAGES.slice(0, 7))],
  ['the judge to the methods', () => Promise.resolve(PAGES.slice(7, 11))],
  ['the catalogue to the interface', () => Promise.resolve(PAGES.slice(11))],
  ['each kind of record', recordPages],
];

test.describe.configure({ mode: 'parallel' });

for (const [name, pagesOf] of PARTS) {
  test(`every width: ${name}`, async ({ page }) => {
    test.setTimeout(300_000);
    await signInToDemo(page, 'Mirela');
    const found: string[] = [];
    for (const path of await pagesOf(page)) {
      await page.goto(path);
      for (const [width, height] of WIDTHS) {
        await page.setViewportSize({ width, height });
        await expect(page.locator('main h1').first()).toBeVisible();
        await expect(page.getByText('One moment …')).toHaveCount(0);
        const here = await misfits(page);
        // A dialog is no wider than a tablet held upright, and looks the same on every desk.
        if (width <= 768) here.push(...(await misfitsOfDialogs(page)));
        found.push(...here.map((misfit) => `${path}, ${String(width)}: ${misfit}`));
      }
    }
    expect(found).toEqual([]);
  });
}

/** A small phone, a phone, a tablet upright and lying: where fingers type on the bench's own pad. */
const TOUCHED = [
  [360, 640],
  [390, 844],
  [768, 1024],
  [1024, 768],
] as const;

test('what to do, the field and the whole number pad are seen at once where fingers type', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  await page.getByRole('link', { name: 'Go on titrating' }).first().click();
  const entry = page.getByRole('form', { name: 'Next entry' });
  for (const [width, height] of TOUCHED) {
    await page.setViewportSize({ width, height });
    const field = entry.getByRole('textbox');
    await expect(field).toBeFocused();
    const pad = entry.getByRole('group', { name: 'Number pad' });
    for (const seen of [page.getByText(/^Refill: flask 3/), field, pad]) {
      await expect(seen).toBeInViewport({ ratio: 1 });
    }
  }
});
