import { expect } from '@playwright/test';
import { expectAccessible, signInToDemo, test, typeDate } from './laboratory';

test('the planner offers the ways of the shelf, says what the percentage means, and how to halve U', async ({
  page,
}) => {
  await signInToDemo(page, 'Jasna');
  await page.goto('/prepare');
  const ways = page.getByRole('region', { name: 'Ways to it' }).getByRole('article');
  await expect(ways.first()).toContainText('4.1 g');
  const concentrate = ways.filter({ hasText: 'From the concentrate' });
  await expect(concentrate).toContainText('5.2 mL');
  await expect(concentrate).toContainText('% by mass; grams in 100 mL would be 12.5 mol/L');
  await expectAccessible(page);
  await page.getByLabel('Enough for').selectOption('8');
  await expect(page.getByLabel('Volume')).toHaveValue('1100');
  await typeDate(page.getByRole('group', { name: 'Certified by' }), '2020-01-01T15:00');
  await expect(ways.first()).toContainText('Too late for then');

  await page.getByLabel('What for').selectOption('standard');
  await page.getByLabel('Substance').selectOption('oxalic-acid-dihydrate');
  await page.getByLabel('Molarity').fill('0,05');
  await page.getByLabel('Volume').fill('90');
  await page.getByLabel('U at most').fill('0.1');
  await expect(ways.first()).toContainText('more than the 0.1 % asked for');
  await expect(ways.first()).toContainText(/Aliquots of 25 mL will take about 25.0 mL of 0.1/);
  await ways.first().getByRole('button', { name: 'What would halve U?' }).click();
  await expect(ways.first()).toContainText(/halved by|brings it to/i);
  await page.getByLabel('Molarity').fill('0');
  await expect(page.getByText('Write a molarity and a volume above 0.')).toBeVisible();

  await page.getByLabel('What for').selectOption('sample');
  await page.getByLabel('Substance').selectOption('hydrochloric-acid');
  await page.getByLabel('Sample').fill('tank cleaner');
  await page.getByLabel('Molarity').fill('0.1');
  await expect(ways.first()).toContainText('Dilute: tank cleaner');
});

test('new glassware takes its tolerance from its class, and plans choose from it', async ({
  page,
}) => {
  await signInToDemo(page, 'Jasna');
  await page.goto('/equipment');
  await page.getByRole('button', { name: 'Add equipment…' }).click();
  await page.getByRole('menuitem', { name: 'A flask, a pipette, a cylinder' }).click();
  const form = page.getByRole('form', { name: 'New glassware' });
  await form.getByLabel('Name').fill('Flask F20');
  await form.getByLabel('Volume').fill('2000');
  await form.getByLabel('Class printed on it').selectOption('ISO 1042, class B');
  await expect(form.getByLabel('Tolerance, plus or minus')).toHaveValue('1.2');
  await expectAccessible(page);
  await form.getByLabel('Tolerance, plus or minus').fill('900');
  await form.getByRole('button', { name: 'Add the glassware' }).click();
  await expect(form.getByRole('alert').first()).toContainText('small part of the volume');
  await form.getByLabel('Class printed on it').selectOption('ISO 1042, class A');
  await form.getByRole('button', { name: 'Add the glassware' }).click();
  await expect(page.getByRole('cell', { name: 'Flask F20' })).toBeVisible();
  await page.goto('/prepare');
  await page.getByLabel('What for').selectOption('standard');
  await page.getByLabel('Substance').selectOption('potassium-hydrogen-phthalate');
  await page.getByLabel('Volume').fill('1500');
  await expect(page.getByRole('article').first()).toContainText('with Flask F20');
});
