import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';
import { choose, enter, signInToDemo, statedAt, test } from './laboratory';

/** A sample that is received, titrated with a titrant of the demo, and comes to a figure by hand. */
interface Case {
  readonly name: string;
  readonly code: string;
  readonly analysis: string;
  readonly unit?: string;
  readonly as?: string;
  readonly expected: string;
  readonly receive?: (page: Page) => Promise<void>;
  /** Absent for the balance that is suggested. */
  readonly instrument?: RegExp;
  /** Net masses in g, each from a boat before and after; null where the pipette measures. */
  readonly masses?: readonly string[];
  readonly temperatureC?: string;
  /** Why it goes on all the same. */
  readonly reason?: string;
  /** Whether each flask holds one whole unit of it. */
  readonly areWhole?: true;
  /** Readings at the first of two ends. */
  readonly firsts?: readonly string[];
  readonly finals: readonly string[];
  /** From the molarity of the titrant and of an excess, mol/L. */
  readonly byHand: (titrantMolPerL: number, excessMolPerL: number) => number;
  /** U in per cent of the content, between what it is by hand with and without what the certificate and the titration share. */
  readonly expandedPercent: readonly [low: number, high: number];
  readonly judged?: (page: Page, titrantMolPerL: number) => Promise<void>;
}

const mean = (...figures: readonly number[]): number =>
  figures.reduce((total, one) => total + one, 0) / figures.length;

const IRON_RELATIVE = [
  0.05 / Math.sqrt(6) / 20.12,
  0.03 / Math.sqrt(6) / 20,
  0.025 / Math.sqrt(3) / 20.12,
  0.00003 / 2 / 0.01668,
  0.021 / Math.sqrt(2) / 20.12,
];

const CASES: readonly Case[] = [
  {
    name: 'tablets from the boat against their claim',
    code: 'T-901',
    analysis: 'acetylsalicylic acid in tablets',
    expected: '500',
    receive: async (page) => {
      await page.getByLabel('It is counted, such as tablets').check();
      await page.getByLabel('Mean mass of one').fill('0.6000');
      await page.getByLabel('Plus or minus').fill('0.0010');
      await page.getByLabel('Held against').selectOption('the claim of a label');
      await page.getByLabel('Claim', { exact: true }).fill('500');
      await page.getByLabel('A window is allowed').check();
      await page.getByLabel('From', { exact: true }).fill('95');
      await page.getByLabel('To', { exact: true }).fill('105');
    },
    masses: ['0.5000', '0.5000'],
    finals: ['23.00', '23.04'],
    byHand: (c) => (c * 23.02 * 180.158 * 0.6) / 0.5,
    expandedPercent: [0.2, 1],
    judged: async (page) => {
      await expect(page.getByText(/% of the claim/).first()).toBeVisible();
    },
  },
  {
    name: 'whole tablets, one in each flask',
    code: 'T-911',
    analysis: 'acetylsalicylic acid in tablets',
    expected: '500',
    areWhole: true,
    masses: ['0.6021', '0.6610', '0.5979'],
    finals: ['27.60', '27.30', '27.55'],
    byHand: (c) => c * mean(27.6, 27.3, 27.55) * 180.158,
    // s = 0.161 mL of 27.48, 0.58 %: 4.30 s / root 3, with little of titrant and burette.
    expandedPercent: [1.3, 1.7],
    judged: async (page) => {
      await expect(page.getByText(/^3 units, /)).toContainText(/s = 3\.0 mg \(0\.58 %\)/);
    },
  },
  {
    name: 'lye at two ends: all of it, hydroxide against its limit, carbonate',
    code: 'L-912',
    analysis: 'lye: hydroxide and carbonate, two ends',
    expected: '1.4',
    receive: async (page) => {
      await page.getByLabel('Which part').selectOption('hydroxide');
      await page.getByLabel('Held against', { exact: true }).selectOption('limits');
      await page.getByLabel('At least').fill('1.0');
      await page.getByLabel('At most').fill('1.4');
    },
    instrument: /Pipette V10/,
    reason: 'methyl orange, as the lye is known for years',
    firsts: ['36.00', '36.04'],
    finals: ['38.00', '38.04'],
    byHand: (c) => (c * 38.02 * 39.997) / 10 / 10,
    expandedPercent: [0.2, 0.6],
    judged: async (page, c) => {
      // 2 x 36.02 - 38.02 = 34.02 mL for the hydroxide, 38.02 - 36.02 = 2.00 mL for the carbonate.
      const of = async (part: string): Promise<number> => {
        const said = page
          .locator('dt', { hasText: new RegExp(`^${part}$`) })
          .locator('xpath=../dd');
        return Number(/^([\d.]+) ±/.exec(await said.innerText())?.[1]);
      };
      expect(await of('hydroxide')).toBeCloseTo((c * 34.02 * 39.997) / 100, 2);
      expect(await of('carbonate')).toBeCloseTo((c * 2 * 105.988) / 100, 2);
      await expect(page.getByText(/(Passes|Fails): .*\(hydroxide\)/).first()).toBeVisible();
    },
  },
  {
    name: 'an unknown solid acid: its equivalent mass',
    code: 'U-902',
    analysis: 'unknown solid acid',
    expected: '75',
    masses: ['0.2000', '0.2000', '0.2000', '0.2000'],
    finals: ['26.50', '26.60', '26.64', '26.62'],
    byHand: (c) => (1000 * 0.2) / (c * mean(26.6, 26.64, 26.62)),
    expandedPercent: [0.1, 0.6],
    judged: async (page) => {
      await expect(page.getByText(/times its protons/)).toContainText('with 2');
    },
  },
  {
    name: 'oxalic acid by permanganate, hot',
    code: 'O-903',
    analysis: 'oxalic acid by permanganate',
    unit: 'mol/L',
    as: 'oxalic acid',
    expected: '0.05',
    instrument: /Pipette V25/,
    temperatureC: '75',
    finals: ['25.10', '25.14'],
    byHand: (c) => (2.5 * c * mean(25.1, 25.14)) / 25,
    expandedPercent: [0.1, 0.6],
  },
  {
    name: 'iron by dichromate, in equivalents of a litre',
    code: 'F-904',
    analysis: 'iron by dichromate',
    unit: 'eq/L',
    expected: '0.1',
    instrument: /Pipette V20/,
    finals: ['20.10', '20.14'],
    // Six electrons: the normality of the titrant is six times its molarity.
    byHand: (c) => (6 * c * mean(20.1, 20.14)) / 20,
    // Burette 0.05 and pipette 0.03 mL, triangular; half a drop; the titrant as bought; two titrations of 0.021 mL each. Twice 0.18 %.
    expandedPercent: [
      0.95 * 200 * Math.hypot(...IRON_RELATIVE),
      1.05 * 200 * Math.hypot(...IRON_RELATIVE),
    ],
  },
  {
    name: 'chalk, an excess of acid titrated back',
    code: 'K-905',
    analysis: 'carbonate, excess of acid titrated back',
    expected: '95',
    masses: ['0.2000', '0.2000'],
    finals: ['12.40', '12.44'],
    byHand: (c, excess) => ((excess * 50 - c * 12.42) * 100.086 * 100) / (2 * 1000 * 0.2),
    expandedPercent: [0.1, 0.8],
  },
];

async function receive(page: Page, given: Case): Promise<void> {
  await page.goto('/samples');
  await page.getByRole('button', { name: 'Receive a sample' }).click();
  await page.getByLabel('Code').fill(given.code);
  await page.getByLabel('What it is').fill(given.name);
  await page.getByRole('button', { name: 'Add an analysis' }).click();
  await page.getByLabel('Analysis').selectOption(given.analysis);
  if (given.unit) await page.getByLabel('Unit', { exact: true }).selectOption(given.unit);
  if (given.as) await page.getByLabel('As', { exact: true }).selectOption(given.as);
  await page.getByLabel('Expected').fill(given.expected);
  await given.receive?.(page);
  await page.getByRole('button', { name: 'Receive it' }).click();
  await page.getByRole('link', { name: given.code }).click();
  await page.getByRole('link', { name: 'Titrate it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Titrate samples' })).toBeFocused();
}

async function fill(page: Page, { masses, finals, areWhole }: Case): Promise<void> {
  if (!masses) {
    for (const flask of finals.keys()) {
      await page.getByRole('form', { name: 'Next entry' }).press('Enter');
      await expect(page.getByRole('region', { name: `Flask ${String(flask + 1)}` })).toBeVisible();
    }
    return;
  }
  await page.getByLabel('by difference').check();
  let boatG = 12;
  for (const [i, massG] of masses.entries()) {
    const flask = String(i + 1);
    const before = page.getByRole('textbox', { name: `before, flask ${flask}` });
    // More than are planned: the next step is to titrate.
    if (i >= 2 && areWhole) await page.keyboard.press('w');
    await before.fill(boatG.toFixed(4));
    boatG -= Number(massG);
    await page.getByRole('textbox', { name: `after, flask ${flask}` }).fill(boatG.toFixed(4));
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: `Flask ${flask}` })).toContainText(massG);
  }
}

for (const given of CASES) {
  test(`${given.name}: content and U are those of the hand calculation`, async ({ page }) => {
    await signInToDemo(page, 'Jasna');
    await receive(page, given);
    if (given.instrument) await choose(page, 'Portions (on|with)', given.instrument);
    if (given.areWhole) {
      await expect(page.getByLabel('One whole unit in each flask')).toBeChecked();
    }
    const titrant = await statedAt(page, 'Titrant');
    const excess = await statedAt(page, 'In excess');
    if (given.reason) await page.getByLabel('Why it goes on all the same').fill(given.reason);
    await page.getByRole('button', { name: 'To the bench' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText(given.code);
    await fill(page, given);
    for (const [i, finalMl] of given.finals.entries()) {
      const flask = String(i + 1);
      await enter(page, new RegExp(`initial reading, flask ${flask}`), '0.00');
      if (given.temperatureC) {
        const final = page.getByRole('textbox', {
          name: new RegExp(`final reading, flask ${flask}`),
        });
        await expect(final).toBeFocused();
        await page.keyboard.press('h');
        await enter(page, new RegExp(`temperature, flask ${flask}`), given.temperatureC);
      }
      const first = given.firsts?.[i];
      if (first) await enter(page, new RegExp(`first end, flask ${flask}`), first);
      await enter(page, new RegExp(`final reading, flask ${flask}`), finalMl);
      await expect(page.getByRole('region', { name: `Flask ${flask}` })).toContainText(finalMl);
    }
    await page.goto(`${page.url()}/judge`);
    const titrations = page.getByRole('table', { name: 'Titrations' });
    for (const finalMl of given.finals) await expect(titrations).toContainText(finalMl);
    const text = await page
      .getByText(/^\S+ = [\d.]+ ?±/)
      .first()
      .innerText();
    const [, value, uncertainty] =
      /= (\d+\.?\d*)\s*±\s*(\d+\.?\d*)/.exec(text.replace(/\s+/g, ' ')) ?? [];
    const byHand = given.byHand(titrant, excess);
    expect(Math.abs(Number(value) / byHand - 1), `${text}, by hand ${String(byHand)}`).toBeLessThan(
      0.002,
    );
    const percent = (100 * Number(uncertainty)) / Number(value);
    const [low, high] = given.expandedPercent;
    expect(percent, text).toBeGreaterThan(low);
    expect(percent, text).toBeLessThan(high);
    await given.judged?.(page, titrant);
  });
}

/** pH of so many mmol of a weak acid in a flask, once so much strong base has run in: the charges balance. */
function weakAcid(mmol: number, inFlaskMl: number, pKa: number, baseMolPerL: number) {
  return (volumeMl: number): number => {
    const all = inFlaskMl + volumeMl;
    const excess = (pH: number): number =>
      (baseMolPerL * volumeMl) / all +
      10 ** -pH -
      10 ** (pH - 14) -
      mmol / all / (1 + 10 ** (pKa - pH));
    let [low, high] = [0, 14];
    for (let turn = 0; turn < 60; turn += 1) {
      const middle = (low + high) / 2;
      // More base than the charges take: the pH is higher.
      if (excess(middle) > 0) low = middle;
      else high = middle;
    }
    return low;
  };
}

test('an unknown acid by electrode: its molarity from the curve, its pKa from half way, its temperature stated', async ({
  page,
}) => {
  await signInToDemo(page, 'Jasna');
  await receive(page, {
    ...{ name: 'an acid by electrode', code: 'E-906', analysis: 'acid in a solution' },
    ...{ unit: 'mol/L', as: 'acetic acid', expected: '0.1', finals: [] },
    ...{ byHand: () => Number.NaN, expandedPercent: [0, 0] },
  });
  await choose(page, 'Portions (on|with)', /Pipette V25/);
  const titrant = await statedAt(page, 'Titrant');
  await page.getByRole('button', { name: 'To the bench' }).click();
  await page.getByRole('form', { name: 'Next entry' }).press('Enter');
  await expect(page.getByRole('region', { name: 'Flask 1' })).toBeVisible();
  await page.keyboard.press('t');
  await enter(page, /initial reading, flask 1/, '0.00');
  await expect(page.getByRole('textbox', { name: /final reading, flask 1/ })).toBeFocused();
  await page.keyboard.press('e');
  const dialog = page.getByRole('dialog', { name: 'Electrode in flask 1' });
  // 25 mL of 0.1 mol/L with 50 mL of water.
  const pH = weakAcid(2.5, 75, 4.76, titrant);
  const endMl = 2.5 / titrant;
  await dialog.getByLabel('In the flask at the start').fill('75');
  await dialog.getByRole('textbox', { name: 'Burette' }).focus();
  const near = [-0.35, -0.25, -0.15, -0.05, 0.05, 0.15, 0.25, 0.35].map((d) => endMl + d);
  for (const volumeMl of [0, 6, 12, 13, 18, 22, ...near, 26, 27]) {
    const readingMl = volumeMl.toFixed(2);
    await page.keyboard.type(readingMl);
    await page.keyboard.press('Enter');
    await expect(dialog.getByRole('textbox', { name: 'pH' })).toBeFocused();
    await page.keyboard.type(pH(Number(readingMl)).toFixed(2));
    await page.keyboard.press('Enter');
    await expect(dialog.getByRole('textbox', { name: 'Burette' })).toBeFocused();
    await expect(dialog.getByRole('textbox', { name: 'Burette' })).toHaveValue('');
  }
  const said = await dialog.innerText();
  const found = Number(/second derivative\s*counts\s*([\d.]+)/.exec(said)?.[1]);
  expect(Math.abs(found - endMl), said).toBeLessThan(0.06);
  const pKa = Number(/about (\d\.\d\d), ± 0.05/.exec(said.replace(/\s+/g, ' '))?.[1]);
  expect(Math.abs(pKa - 4.76), said).toBeLessThan(0.02);
  await expect(dialog).toContainText('at 20 °C and an ionic strength of about 0.01 mol/L');
  await dialog.getByRole('button', { name: /End here/ }).click();
  await expect(page.getByRole('region', { name: 'Flask 1' })).toContainText('end by its curve');
  await page.goto(`${page.url()}/judge`);
  await expect(page.getByRole('table', { name: 'Titrations' })).toContainText('counts');
  const text = await page
    .getByText(/^\S+ = [\d.]+ ?±/)
    .first()
    .innerText();
  const content = Number(/= (\d+\.\d+)/.exec(text.replace(/\s+/g, ' '))?.[1]);
  expect(Math.abs(content / ((titrant * found) / 25) - 1), text).toBeLessThan(0.001);
});
