import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';
import { signInToDemo, test } from './laboratory';

/** Phone, tablet upright and lying, laboratory computer, desk. */
const WIDTHS = [
  [390, 844],
  [768, 1024],
  [1024, 768],
  [1280, 800],
  [1920, 1080],
] as const;

/** Every kind of page that needs no record of its own. */
const PAGES = [
  '/',
  '/prepare',
  '/prepare/day',
  '/prepare/write-down',
  '/titrate',
  '/titrate/set-up',
  '/judge',
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
  '/people',
  '/account',
  '/verification',
  '/interface',
] as const;

/** What does not fit: sideways scrolling, text that is cut off, controls that overlap. Marked parts scroll on purpose. */
async function misfits(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const found: string[] = [];
    const root = document.documentElement;
    if (root.scrollWidth > window.innerWidth) {
      const wide = [...document.querySelectorAll('main *, header *')].filter(
        (one) => one.getBoundingClientRect().right > window.innerWidth + 1,
      );
      const worst = wide.slice(0, 3).map((one) => one.className || one.tagName);
      found.push(`scrolls sideways to ${String(root.scrollWidth)}: ${worst.join(' | ')}`);
    }
    const isMarked = (one: Element): boolean => one.closest('[data-cut]') !== null;
    const isShown = (one: Element): boolean => {
      const { width, height } = one.getBoundingClientRect();
      // What is for screen readers only is a dot of one pixel.
      return width > 1 && height > 1 && one.checkVisibility({ visibilityProperty: true });
    };
    for (const one of document.querySelectorAll('body *')) {
      const hasText = [...one.childNodes].some(
        (child) => child.nodeType === Node.TEXT_NODE && child.textContent?.trim() !== '',
      );
      const { overflowX } = getComputedStyle(one);
      if (!hasText || overflowX === 'visible' || isMarked(one) || !isShown(one)) continue;
      if (one.scrollWidth > one.clientWidth + 1) found.push(`cut off: ${one.textContent}`);
    }
    const stays = (one: Element): Element | null => {
      for (let at: Element | null = one; at; at = at.parentElement) {
        if (['sticky', 'fixed'].includes(getComputedStyle(at).position)) return at;
      }
      return null;
    };
    const controls = [
      ...document.querySelectorAll('a[href], button, input, select, textarea, summary'),
    ].filter(
      // What is there for a browser's own filling-in alone is hidden from everybody.
      (one) => isShown(one) && !isMarked(one) && one.closest('[aria-hidden="true"]') === null,
    );
    /** What is seen of a control inside of what scrolls around it. */
    const boxOf = (one: Element) => {
      const { left, right, top, bottom } = one.getBoundingClientRect();
      const box = { left, right, top, bottom };
      for (let at = one.parentElement; at; at = at.parentElement) {
        if (getComputedStyle(at).overflowY === 'visible') continue;
        const around = at.getBoundingClientRect();
        box.top = Math.max(box.top, around.top);
        box.bottom = Math.min(box.bottom, around.bottom);
      }
      return box;
    };
    // Where fingers do the work; a link in the middle of a sentence is as high as its line.
    for (const one of window.innerWidth < 1024 ? controls : []) {
      const isInSentence = one.tagName === 'A' && getComputedStyle(one).display === 'inline';
      // The whole line of a box to be ticked can be hit.
      const isTicked = one.matches('[type=checkbox], [type=radio]');
      const height = Math.round(one.getBoundingClientRect().height);
      if (height < 48 && !isInSentence && !isTicked) {
        found.push(`only ${String(height)} px high: ${one.textContent.trim() || one.tagName}`);
      }
    }
    const boxes = controls.map((one) => [one, boxOf(one)] as const);
    for (const [i, [one, a]] of boxes.entries()) {
      for (const [other, b] of boxes.slice(i + 1)) {
        if (one.contains(other) || other.contains(one)) continue;
        // What scrolls is covered by what stays.
        if (stays(one) !== stays(other)) continue;
        const across = Math.min(a.right, b.right) - Math.max(a.left, b.left);
        const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
        if (across > 2 && down > 2) {
          const names = [one, other].map((each) => each.textContent.trim() || each.tagName);
          found.push(`overlap: ${names.join(' / ')}`);
        }
      }
    }
    return found;
  });
}

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
  const idOf = async (kind: string, query = ''): Promise<string> => {
    const answer = await page.request.get(`/api/records/${kind}?${query}`);
    const { records } = (await answer.json()) as { records: { id: string }[] };
    return records[0]?.id ?? '';
  };
  const open = await idOf('run', 'standing=open');
  const certified = await idOf('run', 'standing=certified');
  const bottle = await idOf('bottle', 'standing=certified');
  const preparing = await idOf('preparation', 'standing=open');
  return [
    ...[`/runs/${open}`, `/runs/${open}/judge`, `/runs/${open}/sheet`],
    ...[`/runs/${certified}`, `/runs/${certified}/judge`],
    ...[`/bottles/${bottle}`, `/bottles/${bottle}/label`, `/preparations/${preparing}`],
    ...[`/lots/${await idOf('lot')}`, `/equipment/${await idOf('equipment')}`],
  ];
}

test.describe.configure({ mode: 'parallel' });

for (const [width, height] of WIDTHS) {
  test(`every kind of page fits at ${String(width)} x ${String(height)}`, async ({ page }) => {
    test.setTimeout(240_000);
    await page.setViewportSize({ width, height });
    await signInToDemo(page, 'Mirela');
    const found: string[] = [];
    for (const path of [...PAGES, ...(await recordPages(page))]) {
      await page.goto(path);
      await expect(page.locator('main h1').first()).toBeVisible();
      await expect(page.getByText('One moment …')).toHaveCount(0);
      const here = [...(await misfits(page)), ...(await misfitsOfDialogs(page))];
      found.push(...here.map((misfit) => `${path}: ${misfit}`));
    }
    expect(found).toEqual([]);
  });
}

/** What an on-screen keyboard leaves of a phone and of a tablet, upright and lying; the page is told to shrink to it. */
const BESIDE_KEYBOARD = [
  [390, 500],
  [768, 640],
  [1024, 420],
] as const;

for (const [width, height] of BESIDE_KEYBOARD) {
  test(`the entry of the bench is seen beside the keyboard at ${String(width)} x ${String(height)}`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height });
    await signInToDemo(page, 'Mirela');
    await page.getByRole('link', { name: 'Go on titrating' }).first().click();
    const entry = page.getByRole('form', { name: 'Next entry' });
    const field = entry.getByRole('textbox');
    await expect(field).toBeFocused();
    for (const seen of [page.getByText(/^Refill: flask 3/), field, entry.getByText('Keep')]) {
      await expect(seen).toBeInViewport({ ratio: 1 });
    }
  });
}
