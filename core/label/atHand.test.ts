import { expect, test } from 'vitest';
import { references } from '../test-support/runs';
import { hazardsAtHand, substancesOf, waysOut } from './index';

test('what stands on the bench is named with its strength, each with its own hazards', () => {
  const things = hazardsAtHand(references());
  expect(things.map(({ name }) => name)).toEqual([
    'NaOH, 0.1 mol/L',
    'KHP, as received',
    'phenolphthalein, as made up',
  ]);
  expect(things.map(({ hazards }) => hazards.pictograms)).toEqual([[], [], ['flame']]);
  expect(substancesOf(references())).toEqual(['sodium-hydroxide', 'potassium-hydrogen-phthalate']);
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
  expect(waysOut([id, id], { waste })).toEqual([way]);
});
