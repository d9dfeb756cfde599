import fc from 'fast-check';
import { expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import { paperUnitsOf } from '#core/laboratory';
import { decimalText } from '#core/measurement';
import { isAnalysis } from '#core/titration/setUp';
import { analysisScript } from '../test-support/analyses';
import { standardBottle } from '../test-support/preparations';
import { references } from '../test-support/runs';
import type { LabelSheet } from './index';
import {
  fitsOnPage,
  LABEL_SHEETS,
  labelOf,
  labelOfSample,
  molarityOfNormality,
  PICTOGRAM_NAMES,
  pictogramSvg,
  placeOnSheet,
} from './index';

const CONTEXT = {
  maker: 'Ines',
  parents: ['lot NH-1'],
  dateText: (date: string) => date,
  units: paperUnitsOf({ paperUnits: 'litre', statesNormality: false }),
};
const { bottle } = references();
const HYDROXIDE = { substanceId: 'sodium-hydroxide', molarity: '0.1000' };

test('a label says what is known and how well, or in capitals that it is not', () => {
  const nominal = labelOf(
    { ...bottle, plausibleMolarity: [decimalText('0.094'), decimalText('0.106')] },
    CONTEXT,
  );
  expect(nominal).toMatchObject({ molarity: 'nominal 0.1 mol/L', warning: 'not standardized' });
  expect(nominal.lines).toContain('between 0.094 and 0.106 mol/L');
  expect(nominal.lines.at(-1)).toBe('made 2026-03-01 by Ines from lot NH-1, 1000 mL');
  const standard = labelOf(standardBottle(), CONTEXT);
  expect(standard).toMatchObject({
    molarity: '2.0012 ± 0.0024 mol/L (k = 2.00)',
    warning: null,
    lastDay: { says: 'use by', on: '2026-09-01' },
  });
  const decimetres = {
    ...CONTEXT,
    units: paperUnitsOf({ paperUnits: 'decimetre', statesNormality: false }),
  };
  expect(labelOf(standardBottle(), decimetres).molarity).toBe('2.0012 ± 0.0024 mol/dm³ (k = 2.00)');
  const molar = {
    ...CONTEXT,
    units: paperUnitsOf({ paperUnits: 'molar', statesNormality: false }),
  };
  expect(labelOf(bottle, molar).molarity).toBe('nominal 0.1 M');
  const auxiliary = labelOf(
    { ...bottle, purpose: 'auxiliary', nominalMolarity: null, dilutionFactor: decimalText('25') },
    CONTEXT,
  );
  expect(auxiliary).toMatchObject({ molarity: null, warning: 'auxiliary' });
  expect(auxiliary.lines).toContain('sample, diluted 25 times');
  expect(labelOf({ ...bottle, note: 'x'.repeat(500) }, CONTEXT).lines.at(-1)).toHaveLength(80);
});

test('the label of a sample says where it is from, for whom, for what, and to when it is kept', () => {
  const { references: of } = analysisScript(
    ...(['titratable-acidity', HYDROXIDE, { pipetteMl: '10' }] as const),
    { unit: 'g/L', as: 'C4H6O6' },
  ).state;
  const [one] = isAnalysis(of) ? of.samples : [];
  if (!one) throw new Error('a sample is titrated here');
  const { state } = one;
  const sample = {
    ...state.sample,
    ...{ source: 'tank 7', customer: 'cellar', store: 'refrigerator 2' },
    keepUntil: plainDate('2026-04-01'),
  };
  expect(labelOfSample({ ...state, sample }, CONTEXT)).toMatchObject({
    ...{ code: 'W-1', warning: 'sample', molarity: null },
    lines: [
      'tank 7',
      'received 2026-03-02 for cellar',
      'kept: refrigerator 2',
      'titratable acidity of must and wine',
    ],
    lastDay: { says: 'keep to', on: '2026-04-01' },
    hazards: { signal: null, pictograms: [], statements: [] },
  });
});

test('every pictogram has its name and is a drawing in a diamond', () => {
  for (const pictogram of Object.keys(PICTOGRAM_NAMES) as (keyof typeof PICTOGRAM_NAMES)[]) {
    expect(pictogramSvg(pictogram)).toMatch(/^<svg .*fill="#000".*<\/svg>$/);
  }
});

test('the sheets that ship lie on their pages; labels never overlap and never leave the page', () => {
  expect(LABEL_SHEETS.map(fitsOnPage)).not.toContain(false);
  const mm = fc.integer({ min: 0, max: 20 });
  const sheets = fc.record({
    label: fc.tuple(fc.integer({ min: 25, max: 90 }), fc.integer({ min: 15, max: 60 })),
    columns: fc.integer({ min: 1, max: 4 }),
    rows: fc.integer({ min: 1, max: 6 }),
    margin: fc.tuple(mm, mm),
    gap: fc.tuple(mm, mm),
  });
  fc.assert(
    fc.property(sheets, fc.nat(60), ({ label, columns, rows, margin, gap }, index) => {
      const sheet: LabelSheet = {
        ...{ name: 's', pageMm: [210, 297], labelMm: label, columns, rows },
        ...{ marginMm: margin, gapMm: gap },
      };
      fc.pre(fitsOnPage(sheet));
      const [one, next] = [placeOnSheet(sheet, index), placeOnSheet(sheet, index + 1)];
      expect(one.xMm + label[0]).toBeLessThanOrEqual(210);
      expect(one.yMm + label[1]).toBeLessThanOrEqual(297);
      const isApart =
        next.page !== one.page || next.xMm >= one.xMm + label[0] || next.yMm >= one.yMm + label[1];
      expect(isApart).toBe(true);
    }),
  );
});

test.each([
  ['potassium-hydrogen-iodate', '0.0100', ['0.0100 N (1 to the mole)']],
  ['potassium-permanganate', '0.02', ['0.10 N (5 to the mole)']],
  ['potassium-dichromate', '0.016667', ['0.100002 N (6 to the mole)']],
  ['sulfuric-acid', '0.05', ['0.10 N (2 to the mole)']],
  ['sodium-oxalate', '0.05', ['0.10 N (2 to the mole)']],
  ['iodine', '0.05', ['0.10 N (2 to the mole)']],
  ['sodium-thiosulfate-pentahydrate', '0.1', ['0.1 N (1 to the mole)']],
  ['silver-nitrate', '0.1', ['0.1 N (1 to the mole)']],
  ['ethanol-95', '0.1', []],
])('%s %s mol/L has by the house rule these normalities: %j', (substanceId, molarity, lines) => {
  const units = paperUnitsOf({ paperUnits: 'molar', statesNormality: true });
  const solution = { ...bottle, substanceId, nominalMolarity: decimalText(molarity) };
  const said = labelOf(solution, { ...CONTEXT, units }).lines.filter((line) =>
    line.includes(' N '),
  );
  expect(said.toSorted()).toEqual(lines.toSorted());
  const unsaid = labelOf(solution, CONTEXT).lines.filter((line) => line.includes('to the mole'));
  expect(unsaid).toEqual([]);
});

test('a molarity that follows from a normality gives that normality again', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 20_000 }),
      fc.integer({ min: 1, max: 12 }),
      (n, perMole) => {
        const typed = n / 10_000;
        const molarity = molarityOfNormality(typed, perMole);
        expect(Math.abs((Number(molarity) * perMole) / typed - 1)).toBeLessThan(1e-7);
      },
    ),
  );
  expect(molarityOfNormality(0.1, 5)).toBe('0.02');
  expect(molarityOfNormality(0.1, 6)).toBe('0.016666667');
  expect(() => molarityOfNormality(0, 1)).toThrow('above zero');
});
