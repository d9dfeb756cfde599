import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';
import { enter, expectAccessible, signInToDemo, test, titrate } from './laboratory';

/** A new run on the reserve bottle with its first flask weighed. */
async function beginRun(page: Page): Promise<void> {
  await signInToDemo(page, 'Jasna');
  await page.goto('/titrate/set-up');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await enter(page, /net mass, flask 1/, '0.4800');
  await expect(page.getByRole('region', { name: 'Flask 1' })).toBeVisible();
}

test('what cannot be is refused beside its cause, what is unlikely asks for a reason', async ({
  page,
}) => {
  await beginRun(page);
  const alert = page.getByRole('form', { name: 'Next entry' }).getByRole('alert');
  const mass = /net mass, flask 2/;
  for (const [figure, message] of [
    ['letters', 'Write a plain number'],
    ['-0.4800', 'cannot be negative'],
    ['0', 'must be more than 0 g'],
    ['900.0000', 'carries at most 220 g'],
    ['40.0000', 'Is the decimal point in its place?'],
    ['0.48', 'The balance shows 4 decimals'],
  ] as const) {
    await enter(page, mass, figure);
    await expect(alert).toContainText(message);
  }
  await expect(page.getByRole('region', { name: 'Flask 2' })).toBeHidden();
  await page.getByLabel('If it stands, why?').fill('the display was stuck');
  await page.getByRole('button', { name: /^Keep/ }).click();
  await expect(page.getByRole('region', { name: 'Flask 2' })).toBeVisible();

  await page
    .getByRole('region', { name: 'Flask 1' })
    .getByRole('button', { name: /^Titrate/ })
    .click();
  await enter(page, /initial reading/, '51.00');
  await expect(alert).toContainText('reads from 0 to 50 mL');
  await expectAccessible(page);
  await enter(page, /initial reading/, '0.20');
  await enter(page, /final reading/, '0.10');
  await expect(alert).toContainText('reads downwards');
  await enter(page, /final reading/, '33.70');
  await expect(alert).toContainText('23.70 was meant');
  // The question takes room, but hides no figure.
  await expect(page.getByTestId('molarity-1')).toBeInViewport({ ratio: 1 });
  await enter(page, /final reading/, '23.70');
  await expect(page.getByTestId('molarity-1')).toHaveText(/^0\.100\d\d$/);
});

test('a correction keeps the old figure with who, when and why; a void flask keeps its reason', async ({
  page,
}) => {
  await beginRun(page);
  await page.getByRole('button', { name: 'Correct the mass in flask 1, 0.4800' }).click();
  await expectAccessible(page);
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('It should be').fill('0.4808');
  await dialog.getByRole('button', { name: 'Correct it' }).click();
  await expect(dialog.getByRole('alert')).toContainText('Say why');
  await dialog.getByLabel('Why').fill('misread the last digit');
  await dialog.getByRole('button', { name: 'Correct it' }).click();
  const flask = page.getByRole('region', { name: 'Flask 1' });
  await expect(flask.locator('s')).toHaveText('0.4800');
  await page.getByRole('button', { name: 'Correct the mass in flask 1, 0.4808' }).click();
  await expect(dialog).toContainText(/0\.4800 given up by Jasna Orlik, .*: misread the last digit/);
  await page.keyboard.press('Escape');

  await flask.getByRole('button', { name: /^Void/ }).click();
  await dialog.getByLabel('For what').selectOption('Something happened to the flask');
  await dialog.getByLabel('Why').fill('knocked over');
  await dialog.getByRole('button', { name: 'Void it' }).click();
  await expect(flask).toContainText('knocked over');
  await expect(page.getByText('all entries kept')).toBeVisible();
  await page.reload();
  await expect(flask).toContainText('knocked over');
  await expect(flask.locator('s')).toHaveText('0.4800');
});

test('a reading typed while the server is away is kept on the device and sent when it is back', async ({
  page,
  context,
}) => {
  await beginRun(page);
  await titrate(page, 1);
  await context.setOffline(true);
  await enter(page, /initial reading/, '0.31');
  await expect(page.getByText('1 kept here, to be sent')).toBeVisible();
  await enter(page, /final reading/, '23.80');
  await expect(page.getByText('2 kept here, to be sent')).toBeVisible();
  await expect(page.getByTestId('molarity-1')).toHaveText(/^0\.100\d\d$/);
  // The page is lost with its server still away; another one finds what was written down.
  await context.route('**/api/facts', (route) => route.abort());
  await context.setOffline(false);
  await page.reload();
  await expect(page.getByText('2 kept here, to be sent')).toBeVisible();
  await expect(page.getByTestId('molarity-1')).toHaveText(/^0\.100\d\d$/);
  await context.unroute('**/api/facts');
  await expect(page.getByText('all entries kept')).toBeVisible({ timeout: 20_000 });
  await page.reload();
  await expect(page.getByTestId('molarity-1')).toHaveText(/^0\.100\d\d$/);
});

test('a decision on what somebody else has changed is refused and says so', async ({
  page,
  browser,
}) => {
  await beginRun(page);
  const other = await browser.newPage();
  await signInToDemo(other, 'Mirela');
  await other.goto(page.url());
  await expect(other.getByRole('region', { name: 'Flask 1' })).toBeVisible();
  // Away from the network, so that it does not see what comes.
  await other.context().setOffline(true);
  await enter(page, /net mass, flask 2/, '0.4811');
  await expect(page.getByText('all entries kept')).toBeVisible();

  await other.getByRole('button', { name: /^Void/ }).click();
  await other.getByLabel('For what').selectOption('Another reason');
  await other.getByRole('dialog').getByLabel('Why').fill('wrong flask');
  await other.getByRole('dialog').getByRole('button', { name: 'Void it' }).click();
  await other.context().setOffline(false);
  await expect(
    other.getByText(/Not accepted: flask 1 void\. Somebody has added to this record/),
  ).toBeVisible();
  await other.getByRole('button', { name: 'I have read it' }).click();
  await other.reload();
  await expect(other.getByRole('region', { name: 'Flask 2' })).toBeVisible();
  await expect(other.getByRole('region', { name: 'Flask 1' })).not.toContainText('wrong flask');
  await other.close();
});
