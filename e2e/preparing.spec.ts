import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';
import { expectAccessible, expectNoScrolling, signInToDemo, test, typeDate } from './laboratory';

/** Plans a solution of oxalic acid, a standard, and begins it. */
async function beginOxalic(page: Page): Promise<string> {
  await page.goto('/prepare');
  await page.getByLabel('What for').selectOption('standard');
  await page.getByLabel('Substance').selectOption('oxalic-acid-dihydrate');
  await page.getByLabel('Molarity').fill('0.05');
  await page.getByLabel('Volume').fill('250');
  await page.getByRole('article').first().getByRole('button', { name: 'Prepare it' }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'Weigh', exact: true })).toBeVisible();
  return page.url();
}

/** The stand-in takes its time to settle, as a balance does. */
const SETTLED = { timeout: 20_000 };

async function keep(page: Page, label: RegExp, figure: string): Promise<void> {
  await page.getByLabel(label).fill(figure);
  await page.keyboard.press('Enter');
}

test('from plan to labelled bottle: weighed on the balance, dissolved, to the mark, mixed, with its molarity', async ({
  page,
}) => {
  await signInToDemo(page, 'Tobin');
  await beginOxalic(page);
  await expectAccessible(page);
  await expectNoScrolling(page);
  const balance = page.getByRole('region', { name: 'Balance' });
  const press = (name: string) => balance.getByRole('button', { name, exact: true }).click();
  await press('Boat on');
  await press('Take reading');
  await expect(balance.getByRole('alert')).toContainText('Shut the doors first');
  await press('Shut the doors');
  await expect(balance).toContainText('stands still', SETTLED);
  await press('Tare');
  await expect(page.getByTestId('balance')).toContainText(/^-?0\.000\d g$/, SETTLED);
  for (let i = 0; i < 4; i += 1) await press('A spoonful');
  await press('Shut the doors');
  await expect(balance).toContainText('stands still', SETTLED);
  await press('Take reading');
  const massG = Number(await page.getByLabel(/net mass/).inputValue());
  expect(Math.abs(massG / 1.577 - 1)).toBeLessThan(0.2);

  // A figure typed in its place, a power of ten away, is asked about and not kept.
  await keep(page, /net mass/, '15.7701');
  await expect(page.getByRole('alert')).toContainText('1.5770 g was meant');
  await keep(page, /net mass/, '1.5770');
  await expect(page.getByText(/^0\.0(5|49)\d+/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  await page.getByRole('button', { name: /To the mark/ }).click();
  await page.getByRole('button', { name: 'At the mark' }).click();
  await expect(page.getByRole('alert')).toContainText('Dissolved?');
  await page.getByRole('button', { name: /^to do Dissolve/ }).click();
  await page.getByRole('button', { name: 'Yes, dissolved' }).click();
  await keep(page, /temperature/, '21.4');
  await page.getByRole('button', { name: 'At the mark' }).click();
  await page.getByRole('button', { name: 'Yes, mixed' }).click();
  await expect(page.getByRole('heading', { name: 'Bottle it' })).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('Bottle code').fill('0398');
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await expect(page.getByText('Another bottle carries this code')).toBeVisible();
  await page.getByLabel('Bottle code').fill('S100');
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await page.getByRole('link', { name: 'Print its label' }).click();
  await expect(page.getByRole('article')).toContainText(/0\.0(500|499)\d+ ± 0\.0000\d+ mol\/L/);
  await expect(page.getByRole('article')).toContainText('from lot OX-0912');
  await expectAccessible(page);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Make the PDF' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('label-S100.pdf');
  await expect(page.getByText('Labels made: 1')).toBeVisible();
  await page.getByRole('link', { name: 'Shelf' }).click();
  await expect(page.getByRole('link', { name: /bottle S100.*standard/ })).toBeVisible();
});

test('one begins, another goes on; an over-filled flask is discarded, and why', async ({
  page,
  browser,
}) => {
  await signInToDemo(page, 'Tobin');
  const address = await beginOxalic(page);
  await keep(page, /net mass/, '1.5802');
  await expect(page.getByRole('heading', { level: 2, name: 'Transfer and rinse' })).toBeVisible();

  const other = await (await browser.newContext()).newPage();
  await signInToDemo(other, 'Jasna');
  await other.goto(address);
  await other.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'Dissolve' })).toBeVisible();
  await other.getByRole('button', { name: 'Something went wrong…' }).click();
  await other.getByLabel('Filled past the mark').check();
  await expect(other.getByRole('status')).toContainText('Discard it. It is too dilute');
  await expectAccessible(other);
  await other.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByRole('heading', { name: 'Discard it and begin again' })).toBeVisible();
  await other.context().close();
  await page.getByRole('button', { name: 'Discard it…' }).click();
  await page.getByLabel('Why').fill('over-filled');
  await page.getByRole('dialog').getByRole('button', { name: 'Discard it' }).click();
  await expect(page.getByRole('heading', { name: 'Discarded' })).toBeVisible();
});

test('an indicator is made as the catalogue says; the day is laid out and taken along as a calendar', async ({
  page,
}) => {
  await signInToDemo(page, 'Jasna');
  await page.goto('/prepare');
  await page.getByLabel('What for').selectOption('auxiliary');
  await page.getByLabel('Substance').selectOption('phenolphthalein');
  await page.getByLabel('Volume').fill('100');
  await page.getByRole('button', { name: 'Prepare it' }).click();
  await expect(page.getByText('An indicator has no molarity.')).toBeVisible();
  await page.goto('/prepare/day');
  await typeDate(page.getByRole('group', { name: 'phenolphthalein, 100 mL' }), '2030-01-02T15:00');
  await expect(page.getByRole('table')).toContainText('Wed 2 Jan');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Calendar file' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('work.ics');
  await page.getByRole('link', { name: 'phenolphthalein, 100 mL' }).first().click();
  await page.getByRole('button', { name: 'Yes, dissolved' }).click();
  await page.getByLabel('Bottle code').fill('IND-1');
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await page.getByRole('link', { name: 'To the bottle' }).click();
  await expect(page.getByText(/auxiliary/).first()).toBeVisible();
});

test('a lot is dried, counted and put on hold; a program is not taken for its certificate', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  await page.goto('/lots');
  await page.getByRole('link', { name: 'KP-2207' }).click();
  const log = page.getByRole('region', { name: 'Drying log' });
  await log.getByLabel('Oven at').fill('140');
  await log.getByRole('button', { name: 'Put in to dry' }).click();
  await expect(log).toContainText('above its limit of 120 °C');
  await log.getByRole('button', { name: 'Taken out of the oven' }).click();
  await log.getByLabel('Oven at').fill('115');
  await log.getByRole('button', { name: 'Put in to dry' }).click();
  await expect(log).toContainText(
    /It is in the oven: 110 to 120 °C for 2 h.*It may be weighed from/,
  );
  await log.getByRole('button', { name: 'Taken out of the oven' }).click();
  await expect(log).toContainText('taken out too early');

  const file = page.getByLabel('Certificate file');
  const elf = Buffer.concat([Buffer.from([0x7f, 0x45, 0x4c, 0x46, 2, 1, 1]), Buffer.alloc(64)]);
  await file.setInputFiles({ name: 'kp.pdf', mimeType: 'application/pdf', buffer: elf });
  await expect(page.getByRole('alert')).toContainText('kp.pdf is a file of the kind elf');
  const pdf = Buffer.from('%PDF-1.7\n%%EOF\n');
  await file.setInputFiles({ name: 'kp.pdf', mimeType: 'application/pdf', buffer: pdf });
  await expect(page.getByRole('link', { name: 'kp.pdf' })).toBeVisible();

  await page.getByRole('button', { name: 'Count it…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('There is').fill('-3');
  await dialog.getByLabel('Why it is counted').fill('yearly count');
  await dialog.getByRole('button', { name: 'Write it down' }).click();
  await expect(dialog).toContainText('cannot be');
  await dialog.getByLabel('There is').fill('61,2');
  await dialog.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText('61.2 g')).toBeVisible();
  await page.getByRole('button', { name: 'By its safety data sheet…' }).click();
  await dialog.getByLabel('Hazard statements').fill('H319, H999');
  await dialog.getByLabel('Safety data sheet', { exact: true }).fill('sheet 12');
  await dialog.getByRole('button', { name: 'Take them from the sheet' }).click();
  await expect(dialog.getByText(/not a hazard statement.*H999/i)).toBeVisible();
  await dialog.getByLabel('Hazard statements').fill('H319');
  await dialog.getByRole('button', { name: 'Take them from the sheet' }).click();
  await expect(page.getByText('By its safety data sheet: sheet 12.')).toBeVisible();
  await page.getByRole('button', { name: 'Put on hold…' }).click();
  await dialog.getByLabel('Why').fill('the lid was left open');
  await dialog.getByRole('button', { name: 'Put it on hold' }).click();
  await expect(page.getByText(/On hold since/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Release it…' }).click();
  await dialog.getByLabel('Why').fill('dried and compared');
  await dialog.getByRole('button', { name: 'Release it' }).click();
  await expect(page.getByText(/On hold since/)).toBeHidden();
});

test('a flask and a burette are calibrated with water, and their own volumes count from then on', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  await page.goto('/equipment');
  await page.getByRole('link', { name: 'Flask F1', exact: true }).click();
  await page.getByRole('button', { name: 'Calibrate with water' }).click();
  const form = page.getByRole('form', { name: 'A calibration with water' });
  await form.getByLabel('Water at').fill('21,3');
  await form.getByLabel(/Net masses/).fill('99.62');
  await expect(form).toContainText('Weigh it at least twice');
  await form.getByLabel(/Net masses/).fill('99.62 99.66 99.61');
  await expect(form).toContainText('99.941 ± 0.067 mL at 20 °C');
  await expectAccessible(page);
  await form.getByRole('button', { name: 'Keep the calibration' }).click();
  await expect(page.getByRole('table')).toContainText('-0.059');
  await expect(page.getByText('The volume found counts')).toBeVisible();

  await page.goto('/equipment');
  await page.getByRole('link', { name: 'Burette G4', exact: true }).click();
  await page.getByRole('button', { name: 'Calibrate with water' }).click();
  for (const [i, masses] of ['9.970 9.974', '', '', '', '49.82 49.84'].entries()) {
    await form
      .getByRole('group', { name: `Volume ${String(i + 1)}` })
      .getByLabel(/Net masses/)
      .fill(masses);
  }
  await form.getByRole('button', { name: 'Keep the calibration' }).click();
  await expect(page.getByText('The corrections count in every titration')).toBeVisible();
  await expect(page.getByRole('table')).toContainText('49.97-0.030.13');
});
