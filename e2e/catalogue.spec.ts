import { expect } from '@playwright/test';
import { expectAccessible, expectNoScrolling, signInToDemo, signOut, test } from './laboratory';

test('a substance and a recipe of one’s own: written with the checks of those that ship, then planned and followed', async ({
  page,
}) => {
  await signInToDemo(page, 'Tobin');
  await page.getByRole('link', { name: 'Catalogue' }).click();
  await expect(page.getByRole('table', { name: 'Own entries' })).toContainText('KC4H5O6');
  await expect(page.getByRole('link', { name: 'A substance of your own' })).toBeHidden();
  await page.getByLabel('Find').fill('oxalic');
  await expect(page.getByRole('table', { name: 'Entries that ship' }).getByRole('row')).toHaveCount(
    3,
  );
  await expectAccessible(page);
  await signOut(page);

  await page.getByRole('button', { name: /Mirela/ }).click();
  await page.getByRole('link', { name: 'Catalogue' }).click();
  await page.getByRole('link', { name: 'A substance of your own' }).click();
  await page.getByLabel('Name', { exact: true }).fill('tartaric acid');
  await page.getByLabel('Short name').fill('tartrate');
  const formula = page.getByLabel('Formula, as it is weighed');
  await formula.fill('NaC4H5O6(');
  await expect(page.getByText('A bracket ( is not closed')).toBeVisible();
  await formula.fill('C4H6O6·H2O');
  // The hydrate beside what is free of water.
  await expect(page.getByText(/tartaric acid, C4H6O6, 150\.086 g\/mol: 1 H₂O less/)).toBeVisible();
  await formula.fill('NaC4H5O6·H2O');
  await expect(page.getByText('M = 190.083 g/mol')).toBeVisible();
  await page.getByRole('button', { name: 'Add a line' }).click();
  await page.getByLabel('Statements').fill('H319, H999');
  await page.getByLabel('Where these figures come from').fill('file 14');
  await page.getByLabel('Why it is written').fill('tried as a standard');
  const write = page.getByRole('button', { name: 'Write this substance' });
  await write.click();
  await expect(page.getByText('No such hazard statement.')).toBeVisible();
  await page.getByLabel('Statements').fill('H319');
  await write.click();
  await expect(page.getByText('The catalogue has tartaric acid already').first()).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('Name', { exact: true }).fill('sodium hydrogen tartrate monohydrate');
  await write.click();
  await expect(page.getByRole('table', { name: 'Own entries' })).toContainText(
    'tried as a standard',
  );

  await page.getByLabel('Recipes').check();
  await page.getByRole('link', { name: 'A recipe of your own' }).click();
  await page.getByLabel('Name', { exact: true }).fill('tartrate, quickly');
  await page
    .getByLabel('Makes a solution of')
    .selectOption({ label: 'sodium hydrogen tartrate monohydrate' });
  await page.getByLabel('How exactly').selectOption('exact');
  // The usual steps of an exact solution stand there: one of them is put in words of one's own.
  await page.getByLabel('What to do').first().fill('Weigh it on the boat with the blue rim.');
  await page
    .getByRole('button', { name: /^Leave out step/ })
    .last()
    .click();
  await page.getByLabel('Where it comes from').fill('file 14');
  await page.getByLabel('Why it is written').fill('as we do it');
  const writeRecipe = page.getByRole('button', { name: 'Write this recipe' });
  await writeRecipe.click();
  await expect(page.getByText('a step is missing, “label”').first()).toBeVisible();
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByLabel('Work').last().selectOption('label');
  await page.getByLabel('What to do').last().fill('Label it in red.');
  await writeRecipe.click();
  await expect(page.getByRole('table', { name: 'Own entries' })).toContainText('tartrate, quickly');

  await page.getByRole('link', { name: 'Lots', exact: true }).click();
  await page.getByRole('button', { name: 'Add a lot' }).click();
  await page
    .getByLabel('Substance and form')
    .selectOption({ label: 'sodium hydrogen tartrate monohydrate' });
  await page.getByLabel('Lot number').fill('NT-1');
  await page.getByLabel('Supplier').fill('the cellar');
  await page.getByLabel('Purity', { exact: true }).fill('99.9');
  await page.getByLabel('Purity, plus or minus').fill('0.1');
  await page.getByRole('button', { name: 'Add the lot' }).click();
  await page.getByRole('link', { name: 'NT-1' }).click();
  await expect(page.getByText('190.0')).toBeVisible();
  await expect(page.getByText('H319')).toBeVisible();

  await page.goto('/prepare');
  await page.getByLabel('What for').selectOption('standard');
  await page
    .getByLabel('Substance', { exact: true })
    .selectOption({ label: 'sodium hydrogen tartrate monohydrate' });
  await page.getByLabel('Molarity').fill('0.1');
  const way = page.getByRole('article').first();
  await expect(way).toContainText('Its steps: tartrate, quickly.');
  await expect(way).toContainText('4.7568 g');
  await way.getByRole('button', { name: 'Prepare it' }).click();
  await expect(page.getByText('Weigh it on the boat with the blue rim.')).toBeVisible();
  await expectAccessible(page);
  await expectNoScrolling(page);
});

test('normality by house rule: asked for in a plan, and on the label', async ({ page }) => {
  await signInToDemo(page, 'Mirela');
  await page.goto('/prepare');
  await expect(page.getByLabel('Or its normality')).toBeHidden();
  await page.getByRole('link', { name: 'House rules' }).click();
  await page.getByLabel('The normality is given').selectOption({ label: 'beside the molarity' });
  await page.getByLabel('Why they change').fill('our buyers ask for it');
  await page.getByRole('button', { name: 'Set these rules' }).click();
  await expect(page.getByRole('button', { name: 'Set these rules' })).toBeDisabled();
  await page.goto('/prepare');
  await page.getByLabel('Substance', { exact: true }).selectOption('potassium-permanganate');
  await page.getByLabel('Or its normality').fill('0,25');
  await expect(page.getByLabel('Molarity')).toHaveValue('0.05');
  await expect(page.getByRole('article').first()).toContainText(
    '0.05000 mol/L = 0.25000 eq/L (5 to the mole)',
  );
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Shelf' }).click();
  await page.getByRole('main').getByRole('link', { name: /0417/ }).click();
  await page.getByRole('link', { name: 'Print a label' }).click();
  await expect(page.getByText(/eq\/L \(1 to the mole\)/)).toBeVisible();
});
