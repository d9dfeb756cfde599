import AxeBuilder from '@axe-core/playwright';
import type { Locator, Page } from '@playwright/test';
import { test as base, expect } from '@playwright/test';
import { DEMO_PASSWORD } from '../contract/messages';
import type { Beginning, Laboratory } from './servers';
import { serveLaboratory } from './servers';

interface OfATest {
  /** What the laboratory of the file begins with. */
  readonly beginsAs: Beginning;
  readonly laboratory: Laboratory;
  /** Whether the browser may report errors that the page answers. */
  readonly mayReport: boolean;
  /** A page that fails its test when the browser reports an error nobody expected. */
  readonly quiet: undefined;
}

interface OfAWorker {
  readonly laboratoryOf: (file: string, beginsAs: Beginning) => Promise<Laboratory>;
}

/** Each file of journeys has a laboratory of its own, so that none hangs on what another has left behind. */
export const test = base.extend<OfATest, OfAWorker>({
  beginsAs: ['demo', { option: true }],
  mayReport: [false, { option: true }],
  laboratoryOf: [
    // eslint-disable-next-line no-empty-pattern -- the runner reads which fixtures are asked for
    async ({}, use, { workerIndex }) => {
      const served = new Map<string, Laboratory>();
      const stopServing = async (): Promise<void> => {
        for (const laboratory of served.values()) await laboratory.stop();
        served.clear();
      };
      await use(async (file, beginsAs) => {
        const known = served.get(file);
        if (known) return known;
        await stopServing();
        const laboratory = await serveLaboratory(`journeys_${String(workerIndex)}`, beginsAs);
        served.set(file, laboratory);
        return laboratory;
      });
      await stopServing();
    },
    { scope: 'worker' },
  ],
  laboratory: [
    async ({ laboratoryOf, beginsAs }, use, { file }) => {
      await use(await laboratoryOf(file, beginsAs));
    },
    // That of many years takes a while to make.
    { timeout: 300_000 },
  ],
  baseURL: async ({ laboratory }, use) => {
    await use(laboratory.url);
  },
  quiet: [
    async ({ page, mayReport }, use) => {
      // It would fetch the whole program for work without the server; pages of a context of their own do.
      await page.addInitScript(() => {
        Reflect.deleteProperty(Navigator.prototype, 'serviceWorker');
      });
      const errors: string[] = [];
      page.on('pageerror', (error) => errors.push(error.message));
      page.on('console', (message) => {
        // A refused or failed request is part of some journeys; the page must cope with it.
        // So is the browser's own look for a newer service worker while the network is away.
        const isNetwork =
          /Failed to load resource|net::ERR|unknown error occurred when fetching the script/.test(
            message.text(),
          );
        if (message.type() === 'error' && !isNetwork) errors.push(message.text());
      });
      await use(undefined);
      expect(mayReport ? [] : errors).toEqual([]);
    },
    { auto: true },
  ],
});

/** Signs in as one of the demo's people and waits for the shelf. */
export async function signInToDemo(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: new RegExp(name) }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Shelf' })).toBeVisible();
}

/** Signs out and waits until the sign-in page has taken the place of the form that was open. */
export async function signOut(page: Page): Promise<void> {
  // Where there is no room for the spine it is in a menu.
  const more = page.getByRole('button', { name: 'More', exact: true });
  if (await more.isVisible()) {
    await more.click();
    await page.getByRole('menuitem', { name: 'Sign out' }).click();
    await expect(more).toBeHidden();
    return;
  }
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('button', { name: 'Sign out' })).toBeHidden();
}

/** Signs what is shown as performed, with the password. */
export async function signPerformed(page: Page, password: string = DEMO_PASSWORD): Promise<void> {
  await page.getByLabel('Your password').fill(password);
  await page.getByRole('button', { name: 'Sign as performed' }).click();
  await expect(page.getByRole('button', { name: 'Sign as performed' })).toBeHidden();
}

/** Somebody else of the demo looks at the page that is shown. */
export async function showTo(page: Page, name: string): Promise<void> {
  const address = page.url();
  await signOut(page);
  await signInToDemo(page, name);
  await page.goto(address);
}

/** Certifies what is shown, with the password. */
export async function certify(page: Page, password: string = DEMO_PASSWORD): Promise<void> {
  await page.getByLabel('Your password').fill(password);
  await page.getByRole('button', { name: 'Certify the molarity' }).click();
}

/** Chooses a record in a field that searches: opens it and takes the one with these words. */
export async function choose(
  within: Page | Locator,
  label: string,
  item: string | RegExp,
): Promise<void> {
  await within.getByRole('button', { name: new RegExp(`${label}$`) }).click();
  const page = 'page' in within ? within.page() : within;
  await page.getByRole('option', { name: item }).click();
}

/** The molarity that a set-up states of what is chosen, mol/L; not a number where it states none. */
export async function statedAt(page: Page, label: string): Promise<number> {
  const field = page.getByRole('button', { name: new RegExp(`${label}$`) });
  if ((await field.count()) === 0) return Number.NaN;
  return Number(/([\d.]+) ± [\d.]+ mol\/L/.exec(await field.innerText())?.[1]);
}

/** Types a date, `2026-11-27` or with its time `2026-11-27T15:00`, segment by segment. */
export async function typeDate(field: Locator, date: string): Promise<void> {
  const [, year = '', month = '', day = '', time = ''] =
    /^(\d{4})-(\d\d)-(\d\d)T?(.*)$/.exec(date) ?? [];
  await field.getByRole('spinbutton').first().click();
  await field.page().keyboard.type(`${day}${month}${year}${time.replace(':', '')}`);
}

/** axe finds nothing serious or worse on the page as it stands. */
export async function expectAccessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  const serious = violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html).join(' | ')}`);
  expect(serious).toEqual([]);
}

/** The whole page is on the screen, without scrolling either way. */
export async function expectNoScrolling(page: Page): Promise<void> {
  const overflow = await page.evaluate(() => ({
    down: document.documentElement.scrollHeight - window.innerHeight,
    right: document.documentElement.scrollWidth - window.innerWidth,
  }));
  expect(overflow).toEqual({ down: 0, right: 0 });
}

/** Types a figure into the bench's entry field and keeps it. */
export async function enter(page: Page, label: RegExp, figure: string): Promise<void> {
  await page.getByRole('textbox', { name: label }).fill(figure);
  await page.keyboard.press('Enter');
}

/** Sets up a run with what the page suggests; gives the address of its bench. */
export async function startRun(page: Page): Promise<string> {
  await page.goto('/titrate/set-up');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await expect(page.getByRole('textbox', { name: /net mass, flask 1/ })).toBeVisible();
  return page.url();
}

/** Goes on from weighing to the titration of a flask. */
export async function titrate(page: Page, flask: number): Promise<void> {
  const name = `Titrate flask ${String(flask)}`;
  await page.getByRole('form', { name: 'Next entry' }).getByRole('button', { name }).click();
}

/** From what a balance shows to the mass, in air of 1.2 kg/m³ with weights of 8000 kg/m³, for a density in g/cm³. */
export function inAir(densityGPerCm3: number): number {
  return (1 - 1.2 / 8000) / (1 - 1.2 / (1000 * densityGPerCm3));
}
