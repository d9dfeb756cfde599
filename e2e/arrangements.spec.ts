import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';
import {
  choose,
  enter,
  expectAccessible,
  inAir,
  signInToDemo,
  statedAt,
  test,
  titrate,
} from './laboratory';

/** One titration of the demo's bottles, and the molarity that it gives by hand. */
interface Arrangement {
  readonly name: string;
  readonly bottle: string;
  readonly how: string;
  /** Grams weighed; null where the pipette measures. */
  readonly massG: string | null;
  readonly temperatureC?: string;
  readonly initialMl: string;
  readonly finalMl: string;
  /** mol/L, from the molarities of the standard solution and of an excess as the set-up page states them. */
  readonly byHand: (standardMolPerL: number, excessMolPerL: number) => number;
}

const ARRANGEMENTS: readonly Arrangement[] = [
  {
    name: 'hydroxide by phthalate, weighed',
    bottle: '0418, NaOH 0.1 mol/L',
    how: 'hydroxide by potassium hydrogen phthalate, weighed',
    massG: '0.4802',
    initialMl: '0.10',
    finalMl: '23.60',
    // 0.4802 g, lifted by the air, x 0.9998 / 204.222 g/mol / 23.50 mL
    byHand: () => (1000 * 0.4802 * inAir(1.636) * 0.9998) / 204.222 / 23.5,
  },
  {
    name: 'hydroxide by aliquots of oxalic acid, two to one',
    bottle: '0418, NaOH 0.1 mol/L',
    how: 'hydroxide by oxalic acid dihydrate, aliquots of its solution',
    massG: null,
    initialMl: '0.05',
    finalMl: '19.95',
    byHand: (standard) => (2 * standard * 20) / 19.9,
  },
  {
    name: 'hydrochloric acid by sodium carbonate, weighed, two to one',
    bottle: '0415, HCl 0.100 mol/L',
    how: 'hydrochloric acid by sodium carbonate, weighed',
    massG: '0.1250',
    initialMl: '0.00',
    finalMl: '23.40',
    byHand: () => (2 * 1000 * 0.125 * inAir(2.54) * 0.9996) / 105.988 / 23.4,
  },
  {
    name: 'sodium carbonate in the burette, hydrochloric acid in the flask',
    bottle: '0415, HCl 0.100 mol/L',
    how: 'hydrochloric acid in the flask, sodium carbonate in the burette',
    massG: null,
    initialMl: '0.10',
    finalMl: '25.40',
    byHand: (standard) => (2 * standard * 25.3) / 25,
  },
  {
    name: 'hydrochloric acid by standardized hydroxide',
    bottle: '0415, HCl 0.100 mol/L',
    how: 'hydrochloric acid by standardized sodium hydroxide',
    massG: null,
    initialMl: '0.10',
    finalMl: '25.30',
    byHand: (standard) => (standard * 25) / 25.2,
  },
  {
    name: 'permanganate by oxalate, hot, two to five',
    bottle: '0414, KMnO4 0.02 mol/L',
    how: 'permanganate by sodium oxalate, hot',
    massG: '0.2101',
    temperatureC: '78',
    initialMl: '0.10',
    finalMl: '31.20',
    byHand: () => (0.4 * 1000 * 0.2101 * inAir(2.34) * 0.9995) / 133.998 / 31.1,
  },
  {
    name: 'permanganate by iron(II), one to five',
    bottle: '0414, KMnO4 0.02 mol/L',
    how: 'permanganate by ammonium iron(II) sulfate',
    massG: null,
    initialMl: '0.00',
    finalMl: '24.70',
    byHand: (standard) => (0.2 * standard * 25) / 24.7,
  },
  {
    name: 'dichromate by iron(II), one to six',
    bottle: '0411, K2Cr2O7 0.0167 mol/L',
    how: 'dichromate by ammonium iron(II) sulfate',
    massG: null,
    initialMl: '0.20',
    finalMl: '20.10',
    byHand: (standard) => (standard * 20) / 6 / 19.9,
  },
  {
    name: 'thiosulfate by iodate, six to one',
    bottle: '0412, Na2S2O3 0.1 mol/L',
    how: 'thiosulfate by potassium iodate, weighed',
    massG: '0.0850',
    initialMl: '0.10',
    finalMl: '24.10',
    byHand: () => (6 * 1000 * 0.085 * inAir(3.9) * 0.9994) / 213.999 / 24,
  },
  {
    name: 'ammonia, an excess of acid titrated back',
    bottle: '0419, NH3 0.1 mol/L',
    how: 'ammonia, excess of acid titrated back',
    massG: null,
    initialMl: '0.10',
    finalMl: '25.60',
    byHand: (standard, excess) => (excess * 50 - standard * 25.5) / 25,
  },
];

/** Sets a run up by the page and goes to its bench; gives the molarities of the standard solution and of an excess. */
async function setUp(
  page: Page,
  bottle: string,
  how: string,
): Promise<{ readonly standard: number; readonly excess: number }> {
  await page.goto('/titrate/set-up');
  await choose(page, 'Bottle', bottle);
  await choose(page, 'How', how);
  await page.getByLabel('The first titration is rough').uncheck();
  const standard = await statedAt(page, 'Standard');
  const excess = await statedAt(page, 'In excess');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await expect(page.getByRole('form', { name: 'Next entry' })).toBeVisible();
  return { standard, excess };
}

for (const given of ARRANGEMENTS) {
  test(`${given.name}: the molarity is that of the hand calculation`, async ({ page }) => {
    await signInToDemo(page, 'Mirela');
    const { standard, excess } = await setUp(page, given.bottle, given.how);
    if (given.massG === null) {
      await expect(page.getByRole('status').filter({ hasText: /^Pipette/ })).toBeVisible();
      await page.keyboard.press('Enter');
    } else {
      await enter(page, /net mass, flask 1/, given.massG);
    }
    await titrate(page, 1);
    await enter(page, /initial reading, flask 1/, given.initialMl);
    await expect(page.getByRole('textbox', { name: /final reading, flask 1/ })).toBeFocused();
    if (given.temperatureC !== undefined) {
      await page.keyboard.press('h');
      await enter(page, /temperature, flask 1/, '55');
      await expect(page.getByText(/Below 60 °C the reaction is slow/)).toBeVisible();
      await enter(page, /temperature, flask 1/, given.temperatureC);
      await expect(page.getByText(/min until 60 °C/)).toBeVisible();
    }
    await enter(page, /final reading, flask 1/, given.finalMl);
    const byHand = given.byHand(standard, excess);
    const shown = page.getByTestId('molarity-1');
    if (given.massG === null) {
      // The page states the standard as it is rounded; the bench computes with what it was before.
      await expect(shown).toHaveText(/0\.\d{5}/);
      expect(Math.abs(Number(await shown.innerText()) - byHand)).toBeLessThan(0.000015);
    } else {
      await expect(shown).toHaveText(byHand.toFixed(5));
    }
  });
}

test('two blanks are asked for, made and subtracted; a burette too small is refilled in the middle', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  await setUp(page, '0418, NaOH 0.1 mol/L', 'hydroxide by benzoic acid in ethanol');
  for (const flask of [1, 2, 3]) {
    await enter(page, new RegExp(`net mass, flask ${String(flask)}`), '0.3000');
    await expect(page.getByRole('region', { name: `Flask ${String(flask)}` })).toBeVisible();
  }
  for (const flask of [4, 5]) {
    await expect(page.getByText(`Make a blank as flask ${String(flask)}`)).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: `Flask ${String(flask)}` })).toContainText(
      'blank',
    );
  }
  await enter(page, /initial reading, flask 1/, '30.00');
  await expect(page.getByText(/beyond the last mark at 50 mL/)).toBeVisible();
  await page.getByLabel('If it stands, why?').fill('the rest of it is wanted');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/stop before the last mark at 50, read, and refill/)).toBeVisible();
  await enter(page, /reading before the refill, flask 1/, '49.60');
  await enter(page, /reading after the refill, flask 1/, '0.10');
  await enter(page, /final reading, flask 1/, '5.20');
  const flask = page.getByRole('region', { name: 'Flask 1' });
  // 19.60 mL of the first filling and 5.10 mL of the second
  await expect(flask).toContainText('24.70');
  await expect(page.getByRole('button', { name: /just there/ })).toBeVisible();
  await page
    .getByRole('region', { name: 'Flask 4' })
    .getByRole('button', { name: /Titrate/ })
    .click();
  await page.keyboard.press('c');
  await enter(page, /final reading, flask 4/, '5.30');
  await expect(page.getByTestId('molarity-4')).toHaveText('subtracted');
  // 0.3000 g, lifted by the air, x 0.9997 / 122.123 g/mol / (24.70 - 0.10) mL
  const byHand = (1000 * 0.3 * inAir(1.27) * 0.9997) / 122.123 / 24.6;
  await expect(page.getByTestId('molarity-1')).toHaveText(byHand.toFixed(5));
});

test('an electrode follows the titration: every point is kept, the end lies where the curve has it', async ({
  page,
}) => {
  await signInToDemo(page, 'Mirela');
  const [{ bottle, how }] = ARRANGEMENTS as [Arrangement];
  await setUp(page, bottle, how);
  await enter(page, /net mass, flask 1/, '0.4802');
  await titrate(page, 1);
  await enter(page, /initial reading, flask 1/, '0.10');
  await expect(page.getByRole('textbox', { name: /final reading, flask 1/ })).toBeFocused();
  await page.keyboard.press('e');
  const dialog = page.getByRole('dialog', { name: 'Electrode in flask 1' });
  const point = async (readingMl: string, pH: string): Promise<void> => {
    await page.keyboard.type(readingMl);
    await page.keyboard.press('Enter');
    await expect(dialog.getByRole('textbox', { name: 'pH' })).toBeFocused();
    await page.keyboard.type(pH);
    await page.keyboard.press('Enter');
    await expect(dialog.getByRole('list', { name: 'Points' })).toContainText(`${readingMl} mL`);
    await expect(dialog.getByRole('textbox', { name: 'Burette' })).toBeFocused();
  };
  await expect(dialog.getByRole('textbox', { name: 'Burette' })).toBeFocused();
  for (const [readingMl, pH] of [
    ['0.10', '4.02'],
    ['10.10', '5.05'],
    ['20.10', '6.10'],
    ['23.10', '6.72'],
    ['23.30', '6.95'],
    ['23.40', '7.20'],
    ['23.50', '7.70'],
    ['23.60', '9.03'],
  ] as const) {
    await point(readingMl, pH);
  }
  await expect(dialog).toContainText('steepest at the edge of the data');
  // Typed with its digits exchanged: struck out, with the reason, and read again.
  await dialog.getByRole('button', { name: 'Strike out 23.60 mL' }).click();
  await page.keyboard.type('9.30, digits exchanged');
  await page.keyboard.press('Enter');
  await expect(dialog).toContainText('9.30, digits exchanged');
  await dialog.getByRole('textbox', { name: 'Burette' }).focus();
  for (const [readingMl, pH] of [
    ['23.60', '9.30'],
    ['23.70', '10.10'],
    ['23.80', '10.40'],
    ['24.30', '10.90'],
    ['24.80', '11.10'],
  ] as const) {
    await point(readingMl, pH);
  }
  // Slopes 5, 16 and 8 pH/mL about 23.35, 23.45 and 23.55 mL: the second derivative falls from 110 to -80 in 0.10 mL.
  const endMl = 23.4 + (0.1 * 110) / 190;
  await expect(dialog).toContainText(`zero of the second derivativecounts${endMl.toFixed(3)}`);
  await expect(dialog).toContainText('middle of the steepest step23.450');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: /End here/ }).click();
  await expect(page.getByRole('region', { name: 'Flask 1' })).toContainText(
    `end by its curve: ${endMl.toFixed(2)} mL`,
  );
  await expect(page.getByRole('textbox', { name: /net mass, flask 2/ })).toBeFocused();
  const byHand = (1000 * 0.4802 * inAir(1.636) * 0.9998) / 204.222 / endMl;
  await expect(page.getByTestId('molarity-1')).toHaveText(byHand.toFixed(5));
  await page.goto(`${page.url()}/judge`);
  await expect(page.getByRole('heading', { name: 'Curves' })).toBeVisible();
  await expect(page.getByRole('main')).toContainText('9.30, digits exchanged');
});
