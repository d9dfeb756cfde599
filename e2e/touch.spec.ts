import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';
import {
  certify,
  expectAccessible,
  inAir,
  showTo,
  signInToDemo,
  signPerformed,
  test,
} from './laboratory';

test.use({ viewport: { width: 768, height: 1024 }, hasTouch: true });

/** Types with the pad beside the field, and keeps it. */
async function tapIn(page: Page, label: RegExp, figure: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label });
  await expect(field).toBeFocused();
  const pad = page.getByRole('group', { name: 'Number pad' });
  for (const key of figure) await pad.getByRole('button', { name: key, exact: true }).tap();
  await expect(field).toHaveValue(figure);
  await pad.getByRole('button', { name: 'Keep' }).tap();
}

test('a whole run by touch: typed on the pad, turned in the middle of a reading, graded, certified', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  await page.goto('/titrate/set-up');
  await page.getByLabel('The first titration is rough').uncheck();
  await page.getByRole('button', { name: 'To the bench' }).tap();
  for (const flask of [1, 2, 3]) {
    await tapIn(page, new RegExp(`net mass, flask ${String(flask)}`), '0.4800');
  }
  await tapIn(page, /initial reading, flask 1/, '0.10');
  await expectAccessible(page);

  // No keyboard of the system comes over the bench, and a tablet may be turned at any moment.
  const final = page.getByRole('textbox', { name: /final reading, flask 1/ });
  await expect(final).toHaveAttribute('inputmode', 'none');
  const pad = page.getByRole('group', { name: 'Number pad' });
  for (const key of '22.60') await pad.getByRole('button', { name: key, exact: true }).tap();
  for (const turned of [
    { width: 1024, height: 768 },
    { width: 390, height: 844 },
    { width: 768, height: 1024 },
  ]) {
    await page.setViewportSize(turned);
    await expect(final).toHaveValue('22.60');
    await expect(final).toBeFocused();
  }
  // The pad types where the caret is: 22.60 becomes 23.60.
  await final.evaluate((field: HTMLInputElement) => {
    field.setSelectionRange(2, 2);
  });
  await pad.getByRole('button', { name: 'Take back the last figure' }).tap();
  await pad.getByRole('button', { name: '3', exact: true }).tap();
  await expect(final).toHaveValue('23.60');
  await pad.getByRole('button', { name: 'Keep' }).tap();
  await page.getByRole('button', { name: 'just there' }).tap();

  for (const [flask, reading] of [
    [2, '23.61'],
    [3, '23.62'],
  ] as const) {
    await tapIn(page, new RegExp(`initial reading, flask ${String(flask)}`), '0.10');
    await tapIn(page, new RegExp(`final reading, flask ${String(flask)}`), reading);
  }
  // Each flask under its tab.
  await page.getByRole('tab', { name: /^2/ }).tap();
  const byHand = (1000 * 0.48 * inAir(1.636) * 0.9998) / 204.222 / 23.51;
  await expect(page.getByTestId('molarity-2')).toHaveText(byHand.toFixed(5));
  await page.getByRole('button', { name: 'More…' }).tap();
  await page.getByRole('menuitem', { name: 'Does it matter?' }).tap();
  await expect(page.getByRole('dialog')).toContainText('What happened');
  await page.getByRole('button', { name: 'Cancel' }).tap();
  await page.getByRole('link', { name: 'Judge and certify' }).tap();
  await signPerformed(page);
  await showTo(page, 'Jasna');
  await page.getByLabel('Why all the same').fill('known well enough for no rough one');
  await certify(page);
  await expect(page.getByRole('region', { name: 'Certificate' })).toContainText('3 averaged');
});
