import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';
import { expectAccessible, signInToDemo, signOut, test } from './laboratory';

/** No figure of the page has a point: neither between other text nor in what is read aloud. */
async function expectNoPoints(page: Page): Promise<void> {
  const shown = await page
    .getByRole('main')
    .evaluate((main) => [
      main.textContent,
      ...[...main.querySelectorAll('[aria-label]')].map((one) => one.getAttribute('aria-label')),
    ]);
  expect(shown.flatMap((text) => text?.match(/.{0,20}\d\.\d.{0,20}/g) ?? [])).toEqual([]);
}

test('what a laboratory sets shows where it is used: hours, reminders, timers, temperature, dates, times to keep', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  const shelf = page.getByRole('main');
  await expect(shelf).toContainText('in 3 days');
  await page.getByRole('link', { name: 'Settings' }).click();
  await expectAccessible(page);
  const set = page.getByRole('button', { name: 'Set them' });
  await page.getByLabel('What runs out is said to be due').fill('61');
  await page.getByLabel('Why they change').fill('as we work');
  await set.click();
  await expect(page.getByRole('alert')).toContainText('60');
  await page.getByLabel('What runs out is said to be due').fill('2');
  await page.getByLabel('Hands work from').fill('8');
  await page.getByLabel('A run is set up at a room temperature of').fill('22,5');
  await page.getByLabel('The timer of a flask runs').fill('8');
  await page
    .getByLabel('Figures are written with a decimal')
    .selectOption({ label: 'comma: 23,46' });
  await page.getByLabel('Dates on the screen are written').selectOption({ label: '2026-03-02' });
  await page.getByLabel('Another solution').selectOption({ label: 'sodium hydroxide' });
  await set.click();
  await expect(page.getByRole('alert')).toBeVisible();
  await page.getByLabel('Solutions of sodium hydroxide').fill('10');
  await set.click();
  await expect(set).toBeDisabled();
  await expect(page.getByText('all entries kept')).toBeVisible();

  await page.getByRole('link', { name: 'Shelf' }).click();
  await expect(shelf).toContainText('3 days left');
  await expect(shelf).toContainText(/on \d{4}-\d\d-\d\d/);
  await page.goto('/prepare/day');
  await expect(page.getByText('Hands work from 8 to 17 h')).toBeVisible();
  await page.goto('/titrate/set-up');
  await expect(page.getByLabel('Room temperature')).toHaveValue('22.5');
  await page.goto('/');
  await page.getByRole('link', { name: 'Go on titrating' }).first().click();
  await expect(
    page.getByRole('button', { name: /Start a timer of 8 minutes/ }).first(),
  ).toBeVisible();
  await page.setViewportSize({ width: 768, height: 1024 });
  await page.getByRole('group', { name: 'Number pad' }).getByRole('button', { name: ',' }).click();
  await expect(page.getByRole('textbox', { name: /initial reading/ })).toHaveValue(',');
  await page.setViewportSize({ width: 1280, height: 800 });
  // A comma wherever a figure is shown, until it is typed or leaves the program.
  await expectNoPoints(page);
  await page.getByRole('link', { name: 'Judge', exact: true }).click();
  await page.getByRole('main').getByRole('link').first().click();
  await expect(page.getByRole('main')).toContainText(/0,\d+\s*±\s*0,0\d+/);
  await expectNoPoints(page);
  const certified = await page.request.get('/api/records/bottle?standing=certified');
  const { records } = (await certified.json()) as { records: { id: string }[] };
  await page.goto(`/bottles/${records[0]?.id ?? ''}/label`);
  await expect(page.getByRole('main')).toContainText(/0,\d+ ± 0,0\d+ mol\/L/);
  await expectNoPoints(page);

  await page.goto('/');
  await signOut(page);
  await page.getByRole('button', { name: /Tobin/ }).click();
  await page.getByRole('link', { name: 'Settings' }).click();
  await expect(page.getByText('sodium hydroxide: 10 days')).toBeVisible();
  await expect(set).toBeHidden();
});
