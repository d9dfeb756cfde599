import { describe, expect, test } from 'vitest';
import { findMethod } from '#core/chemistry';
import { PlainDetermination } from '#core/determination';
import { byWeighedStandard, excessOf, inFlask } from '../test-support/determinations';
import type { Incident, RunNumbers } from './index';
import { assessIncident, featuresOf, INCIDENTS, incidentsFor } from './index';

const WEIGHED: RunNumbers = {
  titreMl: 25,
  titrantMolarityMolPerL: 0.1,
  portion: { massG: 0.51 },
  buretteCapacityMl: 50,
  dropMl: 0.05,
  readingUncertaintyMl: 0.01,
  waterMl: 50,
  volumetricFlaskMl: null,
};
const ALIQUOT: RunNumbers = { ...WEIGHED, portion: { aliquotMl: 25 }, volumetricFlaskMl: 250 };

const STANDARDIZATION = new PlainDetermination(byWeighedStandard(204.22));
const ASSAY = new PlainDetermination(inFlask(0.1));

describe('does it matter?', () => {
  test.each([
    ['bubble-in-tip', { volumeMl: 0.25 }, WEIGHED, 'correct', 'too-low', [1, 1]],
    ['bubble-in-tip', {}, WEIGHED, 'void', 'too-low', [0.2, 1.2]],
    ['burette-rinsed-with-water-only', { volumeMl: 0.5 }, WEIGHED, 'void', 'too-low', [1, 1]],
    ['flask-wet-with-water', {}, WEIGHED, 'carry-on', 'none', [0, 0]],
    ['pipette-blown-out', { volumeMl: 0.05 }, ALIQUOT, 'correct', 'too-low', [0.2, 0.2]],
    ['solid-left-behind', { massG: 0.0051 }, WEIGHED, 'correct', 'too-high', [1.01, 1.01]],
    ['standard-not-dried', {}, WEIGHED, 'void', 'too-high', [0.1, 2]],
    ['filled-past-mark', { volumeMl: 2.5 }, ALIQUOT, 'discard-solution', 'too-high', [1, 1]],
    ['carbon-dioxide-in-water', {}, WEIGHED, 'correct', 'too-low', [0.03, 0.28]],
    ['brown-turbidity', {}, WEIGHED, 'void', 'too-low', [0.5, 40]],
    ['past-last-mark', {}, WEIGHED, 'void', 'unknown', null],
    ['tap-water', { alkalinityMmolPerL: 2 }, WEIGHED, 'note', 'either', [4, 4]],
  ] as const)('%s %j', (id, details, numbers, verdict, direction, bias) => {
    const found = assessIncident(id, STANDARDIZATION, numbers, details);
    expect(found).toMatchObject({ verdict, direction });
    if (bias === null) expect(found.biasPercent).toBeNull();
    else {
      expect(found.biasPercent?.[0]).toBeCloseTo(bias[0], 2);
      expect(found.biasPercent?.[1]).toBeCloseTo(bias[1], 2);
    }
  });

  test('an unknown is biased the other way', () => {
    expect(assessIncident('bubble-in-tip', ASSAY, WEIGHED).direction).toBe('too-high');
    expect(assessIncident('funnel-left', ASSAY, WEIGHED).direction).toBe('too-low');
  });

  test('a corrected titre gives the true result: the bias is what the figures say', () => {
    const molarity = (massG: number, titreMl: number): number => massG / titreMl;
    const { biasPercent } = assessIncident('bubble-in-tip', STANDARDIZATION, WEIGHED, {
      volumeMl: 0.2,
    });
    const bias = molarity(0.51, 25) / molarity(0.51, 24.8) - 1;
    expect(biasPercent?.[0]).toBeCloseTo(-100 * bias, 10);
  });

  test('only what can happen in a run is offered', () => {
    const khp = findMethod('naoh-by-khp');
    const oxalate = findMethod('permanganate-by-sodium-oxalate');
    if (!khp || !oxalate) throw new Error('the catalogue lacks a method');
    const idsOf = (features: ReturnType<typeof featuresOf>): readonly string[] =>
      incidentsFor(features).map(({ id }) => id);
    const weighed = idsOf(featuresOf(khp, 'weighed'));
    expect(weighed).toContain('carbon-dioxide-in-water');
    expect(weighed).not.toContain('pipette-blown-out');
    expect(weighed).not.toContain('oxalate-boiled');
    const hot = idsOf(featuresOf(oxalate, 'weighed'));
    expect(hot).toEqual(expect.arrayContaining(['brown-turbidity', 'cooled-below-window']));
    expect(hot).not.toContain('indicator-forgotten');
  });

  test('every incident answers, with a sentence and an action', () => {
    for (const { id } of INCIDENTS) {
      for (const numbers of [WEIGHED, ALIQUOT]) {
        const { reason, action, biasPercent } = assessIncident(id, STANDARDIZATION, numbers);
        expect(reason).toMatch(/\.$/);
        expect(action).toMatch(/\.$/);
        for (const percent of biasPercent ?? []) expect(percent).toBeGreaterThanOrEqual(0);
      }
    }
  });
});

describe('the direction of a bias', () => {
  const DETERMINATIONS = {
    standardization: STANDARDIZATION,
    'standard in the burette': ASSAY,
    'back-titration': new PlainDetermination(inFlask(0.1, { excess: excessOf(0.2, 25) })),
  };
  type Purpose = keyof typeof DETERMINATIONS;

  /** What a run finds over what is true, when a share of its titre, its portion or its standard is not as recorded. */
  function foundOverTrue(purpose: Purpose, { concerns, shift }: Incident, share: number): number {
    const [strength, portion, excess, molarity] = [0.1, 25, 5, 0.1];
    const change = 1 + (shift === 'high' ? share : -share);
    const realStrength = strength * (concerns === 'standard' ? change : 1);
    const realPortion = portion * (concerns === 'portion' ? change : 1);
    const read = (titre: number): number => titre * (concerns === 'titration' ? change : 1);
    switch (purpose) {
      case 'standardization':
        return (strength * portion) / read((realStrength * realPortion) / molarity) / molarity;
      case 'standard in the burette':
        return (strength * read((molarity * realPortion) / realStrength)) / portion / molarity;
      case 'back-titration': {
        const left = read((excess - molarity * realPortion) / realStrength);
        return (excess - strength * left) / portion / molarity;
      }
    }
  }

  test('follows from the equation of the run, for every incident that has one', () => {
    const directed = INCIDENTS.filter(({ shift }) => shift === 'high' || shift === 'low');
    expect(directed.length).toBeGreaterThan(20);
    for (const incident of directed) {
      for (const purpose of Object.keys(DETERMINATIONS) as Purpose[]) {
        const { direction } = assessIncident(incident.id, DETERMINATIONS[purpose], ALIQUOT);
        const expected = foundOverTrue(purpose, incident, 0.01) > 1 ? 'too-high' : 'too-low';
        expect(`${incident.id} ${purpose} ${direction}`).toBe(
          `${incident.id} ${purpose} ${expected}`,
        );
      }
    }
  });
});
