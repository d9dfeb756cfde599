import { expect, test } from 'vitest';
import { CATALOGUE, findSolvent, findSubstance } from '#core/chemistry';
import { methodOf, references } from '../test-support/runs';
import { hazardsAtHand, substancesOf, waysOut } from './index';

/** What a run leaves behind, by id. */
function idsOf(run: Parameters<typeof substancesOf>[0]): readonly string[] {
  return substancesOf(run).map(({ id }) => id);
}

test('what stands on the bench is named with its strength, each with its own hazards', () => {
  const things = hazardsAtHand(references());
  expect(things.map(({ name }) => name)).toEqual([
    'NaOH, 0.1 mol/L',
    'KHP, as received',
    'phenolphthalein, as made up',
  ]);
  expect(things.map(({ hazards }) => hazards.pictograms)).toEqual([[], [], ['flame']]);
  expect(idsOf(references())).toEqual(['sodium-hydroxide', 'potassium-hydrogen-phthalate']);
});

test('what the medium brings along is at hand too, and leaves with the waste', () => {
  const dichromate = references({ method: methodOf('dichromate-by-iron-ii') });
  const things = hazardsAtHand(dichromate);
  const acid = things.find(({ name }) => name === 'H2SO4, about 2.7 mol/L');
  expect(acid?.hazards.signal).toBe('Danger');
  expect(things.map(({ name }) => name)).toContain('H3PO4, about 2.2 mol/L');
  expect(idsOf(dichromate)).toContain('phosphoric-acid');
  const inEthanol = hazardsAtHand(references({ method: methodOf('naoh-by-benzoic-acid') }));
  expect(inEthanol.find(({ name }) => name === 'ethanol, 95 %')?.hazards.pictograms).toContain(
    'flame',
  );
});

test('whatever a medium holds is in the catalogue', () => {
  for (const { id, mediumHolds = [] } of CATALOGUE.methods) {
    for (const reagent of mediumHolds) {
      const found = findSubstance(reagent.id) ?? findSolvent(reagent.id);
      expect(found, `${id}: ${reagent.id}`).toBeDefined();
    }
  }
});

test.each([
  [
    'container',
    'potassium-dichromate',
    'K2Cr2O7: to the container for chromium waste, never down the sink.',
  ],
  [
    'sink',
    'potassium-dichromate',
    'K2Cr2O7: to the container for chromium waste, never down the sink.',
  ],
  ['container', 'silver-nitrate', 'AgNO3: to the container for silver waste.'],
  [
    'sink',
    'hydrochloric-acid',
    'HCl: down the sink with much water, where the local code allows it.',
  ],
  ['sink', 'perchloric-acid', 'HClO4: to the container for organic solvents, never down the sink.'],
  [
    'container',
    'sodium-chloride',
    'NaCl: down the sink with much water, where the local code allows it.',
  ],
] as const)('waste by the rule %s: %s', (waste, id, way) => {
  const substance = findSubstance(id);
  expect(waysOut(substance ? [substance] : [], { waste })).toEqual([way]);
});
