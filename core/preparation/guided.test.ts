import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { CATALOGUE, findSubstance } from '#core/chemistry';
import { plainDate } from '#core/grammar';
import { decimalText } from '#core/measurement';
import type { EquipmentState } from '#core/metrology';
import type { AroundFact } from '../ledger';
import { checkFact } from '../ledger';
import { aroundWith } from '../test-support/around';
import {
  EQUIPMENT,
  KHP_PLAN,
  lotOf,
  planOf,
  PreparationScript,
  recordsWith,
  standardBottle,
} from '../test-support/preparations';
import type { Pin, PreparationFact, PreparationPlan, PreparationState } from './index';
import type { BottleState } from '../reagent';
import { idOf, stored } from '../test-support/stored';
import {
  bottleOf,
  checkBottling,
  checkPreparationStart,
  nextWork,
  pinsFor,
  PREPARATION_RECORD,
  recordsOf,
  resultOf,
  stepsOf,
  takenFor,
  whyByProcedure,
} from './index';

const KHP = lotOf('potassium-hydrogen-phthalate');
const RECORDS = recordsWith([KHP]);
const DECISION = {
  code: 'S2',
  container: 'clear-glass',
  useBy: '2026-04-02',
  preparedBy: 'ines',
  preparedOn: '2026-03-02',
} as const;

function codes(plan: PreparationPlan, records = RECORDS, left = new Map<string, number>()) {
  return checkPreparationStart(plan, records, (id) => left.get(id), plainDate('2026-03-02')).map(
    ({ code }) => code,
  );
}

describe('the steps', () => {
  test('of a weighed standard: dried, cooled, weighed, dissolved before the mark, mixed after it', () => {
    const works = stepsOf(KHP_PLAN).map(({ id }) => id);
    expect(works).toEqual(
      ['dry', 'cool', 'weigh', 'transfer', 'dissolve', 'to-room-temperature'].concat([
        'to-mark',
        'mix',
        'bottle',
        'label',
      ]),
    );
    expect(stepsOf(KHP_PLAN)[0]).toMatchObject({
      waitMinutes: 120,
      text: expect.stringContaining('110 to 120 °C') as string,
    });
    expect(stepsOf(KHP_PLAN)[2]?.measures).toMatchObject({ kind: 'mass', targetG: 5.1066 });
  });

  test('of a dilution in two stages: pipetted, filled and mixed twice, bottled once', () => {
    const stage = { pipetteId: 'V10', flaskId: 'F100' };
    const from = { kind: 'bottle', bottleId: 'bottle-standard' } as const;
    const source = {
      kind: 'dilute',
      from,
      stages: [stage, { ...stage, flaskId: 'F250' }],
    } as const;
    const steps = stepsOf(planOf(source, { soluteId: 'sodium-chloride' }));
    expect(steps.map(({ id }) => id).filter((id) => /^(mix|measure|bottle)/.test(id))).toEqual([
      'measure',
      'mix',
      'measure-2',
      'mix-2',
      'bottle',
    ]);
    expect(steps.find(({ id }) => id === 'to-mark-2')?.vesselId).toBe('F250');
  });

  test('of a titrant in a flask, where the house rule wants it: to the mark, and nominal all the same', () => {
    const pellets = lotOf('sodium-hydroxide', { purity: '0.98', purityHalfWidth: '0.01' });
    const { balanceId } = KHP_PLAN.source as { readonly balanceId: string };
    const plan = planOf(
      { kind: 'weigh', lotId: pellets.id, massG: '1.02', balanceId, flaskId: 'F250' },
      { purpose: 'titrant', soluteId: 'sodium-hydroxide', volumeMl: '250' },
    );
    expect(stepsOf(plan).map(({ id }) => id)).toEqual(
      ['boil', 'cool', 'weigh', 'dissolve', 'transfer', 'to-room-temperature'].concat([
        'to-mark',
        'mix',
        'bottle',
        'label',
      ]),
    );
    const mishap = { step: 'to-mark', mishapId: 'over-filled', remark: '' };
    const { state } = new PreparationScript(plan).weigh('1.0200').add('preparation.mishap', mishap);
    expect(checkBottling(state, true)[0]?.code).toBe('not-finished');
    const result = resultOf(state, recordsWith([pellets]));
    if (result?.kind !== 'nominal') throw new Error('not nominal');
    expect(result.why).toMatch(/is not a primary standard$/);
    // 1 % of purity, not the 5 % of a beaker.
    expect(Number(result.range[1]) - Number(result.range[0])).toBeLessThan(0.003);
  });

  test('water for a base is boiled, drawn fresh or taken as it is, as the house rule says', () => {
    const pellets = lotOf('sodium-hydroxide');
    const { balanceId } = KHP_PLAN.source as { readonly balanceId: string };
    const source = { lotId: pellets.id, massG: '4.08', balanceId, flaskId: null };
    const worksBy = (carbonDioxide: PreparationPlan['carbonDioxide']): readonly string[] =>
      stepsOf(
        planOf({ kind: 'weigh', ...source }, { soluteId: 'sodium-hydroxide', carbonDioxide }),
      ).map(({ work }) => work);
    const rest = ['weigh', 'dissolve', 'to-room-temperature', 'bottle', 'label'];
    expect(worksBy('boiled')).toEqual(['boil', 'cool', ...rest]);
    expect(worksBy('fresh')).toEqual(['draw', ...rest]);
    expect(worksBy('nothing')).toEqual(rest);
  });

  describe('that are right for the solvent and the chemistry', () => {
    const { balanceId } = KHP_PLAN.source as { readonly balanceId: string };
    const weighedOut = (
      soluteId: string,
      changes: Partial<PreparationPlan>,
      flaskId: string | null,
    ) =>
      planOf(
        { kind: 'weigh', lotId: 'n', massG: '1.2345', balanceId, flaskId },
        { soluteId, ...changes },
      );
    const litre = { volumeMl: decimalText('1000') };
    const poured = planOf(
      { kind: 'concentrate', lotId: 'n', takeMl: '8.6', cylinderId: null, flaskId: null },
      { soluteId: 'perchloric-acid', ...litre },
    );

    test.each([
      [
        'calcium-carbonate',
        'dry cool weigh add heat cool transfer',
        /1\.7 mL of 6 mol\/L hydrochloric/,
      ],
      ['zinc', 'weigh add dissolve transfer', /3\.4 mL of 6 mol\/L hydrochloric/],
      [
        'ammonium-iron-ii-sulfate-hexahydrate',
        'weigh transfer dissolve add',
        /20 mL of 1 mol\/L sulf/,
      ],
    ])('%s, an exact standard: %s, and to the mark', (soluteId, works, added) => {
      const steps = stepsOf(weighedOut(soluteId, { targetMolarity: decimalText('0.01') }, 'F250'));
      const toTheMark = 'to-room-temperature to-mark mix bottle label'.split(' ');
      expect(steps.map(({ work }) => work)).toEqual([...works.split(' '), ...toTheMark]);
      expect(steps.find(({ work }) => work === 'add')?.text).toMatch(added);
    });

    test.each([
      [
        'iodine',
        'add weigh dissolve mix bottle label',
        /^Put iodide .* Add 40 g of potassium iodide\.$/,
      ],
      [
        'ammonium-cerium-iv-sulfate-dihydrate',
        'weigh add dissolve to-room-temperature mix filter bottle label',
        /Add 56 mL of 96 % sulfuric acid\.$/,
      ],
      [
        'sodium-thiosulfate-pentahydrate',
        'heat cool weigh dissolve add mix bottle label',
        /Add 0\.10 g of sodium carbonate\.$/,
      ],
      [
        'disodium-edta-dihydrate',
        'weigh dissolve add to-room-temperature mix bottle label',
        /magnesium chloride/,
      ],
      [
        'iron-ii-sulfate-heptahydrate',
        'weigh add dissolve mix bottle label',
        /Add 80 mL of 1 mol\/L sulf/,
      ],
    ])('%s, made up roughly: %s', (soluteId, works, added) => {
      const targetMolarity = decimalText(soluteId === 'iodine' ? '0.05' : '0.1');
      const plan = weighedOut(soluteId, { ...litre, targetMolarity }, null);
      const steps = stepsOf(plan);
      expect(steps.map(({ work }) => work)).toEqual(works.split(' '));
      expect(steps.find(({ work }) => work === 'add')?.text).toMatch(added);
      expect(whyByProcedure(plan)).toBeNull();
    });

    test('perchloric acid goes into acetic acid; anhydride only into what is diluted and cold, then a day', () => {
      const steps = stepsOf(poured);
      expect(steps.map(({ work }) => work)).toEqual(
        'add measure to-room-temperature add mix stand procedure bottle label'.split(' '),
      );
      const [first, measured, , anhydride] = steps;
      expect(first?.text).toMatch(/glacial acetic acid into a dry flask/);
      expect(measured?.caution).toMatch(/into the glacial acetic acid, never the reverse/);
      expect(anhydride?.text).toMatch(/at or below 25 °C\. Add 22 mL of acetic anhydride\.$/);
      expect(steps.find(({ work }) => work === 'stand')?.waitMinutes).toBe(24 * 60);
      expect(steps.some(({ text }) => text.includes('with water'))).toBe(false);
    });

    test('hydroxides follow the carbon dioxide rule, silver goes into brown glass, permanganate stands or boils', () => {
      for (const soluteId of ['potassium-hydroxide', 'lithium-hydroxide-monohydrate']) {
        const of = (carbonDioxide: PreparationPlan['carbonDioxide']) =>
          stepsOf(weighedOut(soluteId, { ...litre, carbonDioxide }, null))[0]?.work;
        expect([of('boiled'), of('fresh'), of('nothing')]).toEqual(['boil', 'draw', 'weigh']);
      }
      const silver = stepsOf(weighedOut('silver-nitrate', litre, null));
      expect(silver.find(({ work }) => work === 'bottle')?.text).toMatch(/brown bottle/);
      const permanganate = (recipeId: string | null) =>
        stepsOf(weighedOut('potassium-permanganate', { ...litre, recipeId }, null));
      expect(permanganate(null).map(({ work, waitMinutes }) => [work, waitMinutes])).toContainEqual(
        ['stand', 720],
      );
      const boiled = permanganate('potassium-permanganate-boiled');
      expect(boiled.map(({ work, waitMinutes }) => [work, waitMinutes])).toContainEqual([
        'heat',
        60,
      ]);
      expect(boiled.find(({ work }) => work === 'filter')?.text).toMatch(/age counts from now/);
    });

    test('what goes in beside it grows with the volume, and where it binds the solute with its molarity', () => {
      const textOf = (volumeMl: string, targetMolarity: string): string => {
        const amounts = {
          volumeMl: decimalText(volumeMl),
          targetMolarity: decimalText(targetMolarity),
        };
        return stepsOf(weighedOut('iodine', amounts, null))[0]?.text ?? '';
      };
      expect(textOf('500', '0.05')).toMatch(/Add 20 g of/);
      expect(textOf('500', '0.1')).toMatch(/Add 40 g of/);
      // A weaker one takes no less, or the iodine would escape.
      expect(textOf('500', '0.01')).toMatch(/Add 20 g of/);
    });

    test('starch is boiled; other indicators are dissolved', () => {
      const worksOf = (soluteId: string) =>
        stepsOf(planOf({ kind: 'indicator' }, { purpose: 'auxiliary', soluteId })).map(
          ({ work }) => work,
        );
      expect(worksOf('starch')).toEqual(['weigh', 'heat', 'cool', 'bottle', 'label']);
      expect(worksOf('methyl-orange')).toEqual(['dissolve', 'bottle', 'label']);
    });

    test('a preparation keeps to the recipes that it was begun with', () => {
      const first = { recipeEdition: 1 };
      expect(stepsOf({ ...poured, ...first }).map(({ work }) => work)).toEqual([
        ...['measure', 'procedure', 'bottle', 'label'],
      ]);
      expect(whyByProcedure({ ...poured, ...first })).toMatch(/glacial acetic acid/);
      const silver = weighedOut('silver-nitrate', { ...litre, ...first }, null);
      expect(stepsOf(silver).find(({ work }) => work === 'bottle')?.text).not.toMatch(/brown/);
      expect(
        stepsOf(planOf({ kind: 'indicator' }, { soluteId: 'starch', ...first }))[0]?.work,
      ).toBe('dissolve');
    });

    test('where there is no recipe, it is made by the procedure of the laboratory', () => {
      const plan = weighedOut('benzoic-acid', {}, null);
      expect(whyByProcedure(plan)).toMatch(
        /needs ethanol.*Follow your laboratory’s written procedure/,
      );
      expect(stepsOf(plan).map(({ work }) => work)).toEqual([
        'weigh',
        'procedure',
        'bottle',
        'label',
      ]);
    });

    test('no more than dissolves: 0.4 mol/L of permanganate, not 0.41', () => {
      const lot = lotOf('potassium-permanganate');
      const of = (targetMolarity: string) =>
        codes(
          planOf(
            { kind: 'weigh', lotId: lot.id, massG: '63.2', balanceId, flaskId: null },
            {
              ...{ purpose: 'titrant', soluteId: 'potassium-permanganate', volumeMl: '1000' },
              targetMolarity: decimalText(targetMolarity),
            },
          ),
          recordsWith([lot]),
        );
      expect(of('0.4')).not.toContain('does-not-dissolve');
      expect(of('0.41')).toContain('does-not-dissolve');
    });
  });

  test('every recipe says what its solution needs beside water, and ends in a labelled bottle', () => {
    for (const recipe of CATALOGUE.preparations) {
      const { additions, soluteId, solventId, steps } = recipe;
      const substance = findSubstance(soluteId);
      expect(solventId).toBe(substance?.solution.solventId);
      expect(substance?.needs === null || additions.length > 0, recipe.id).toBe(true);
      expect(steps.at(-1)?.work).toBe('label');
      // What is added is told by the step that adds it.
      expect(additions.length === 0 || steps.some(({ work }) => work === 'add')).toBe(true);
    }
  });

  test('acid goes in before the mark where iron(II) needs it', () => {
    const soluteId = 'ammonium-iron-ii-sulfate-hexahydrate';
    const works = stepsOf({ ...KHP_PLAN, soluteId }).map(({ work }) => work);
    expect(works).not.toContain('dry');
    expect(works.indexOf('add')).toBeLessThan(works.indexOf('to-mark'));
    const half = stepsOf({ ...KHP_PLAN, soluteId, volumeMl: decimalText('125') });
    expect(half.find(({ work }) => work === 'add')?.text).toMatch(
      /10 mL of 1 mol\/L sulfuric acid/,
    );
  });
});

describe('what came of it', () => {
  test('c = m P / (M V) from the mass really weighed; the budget names flask, purity, mass', () => {
    const { state } = new PreparationScript(KHP_PLAN).weigh('5.1103').warmTo('21.5');
    const result = resultOf(state, RECORDS);
    if (result?.kind !== 'made') throw new Error('not made');
    const byHand = (1000 * 5.1103 * 0.9998) / (204.2223 * 250);
    expect(result.evaluation.value).toBeCloseTo(byHand, 8);
    const relative = result.evaluation.expandedUncertainty / result.evaluation.value;
    expect(relative).toBeGreaterThan(0.0006);
    expect(relative).toBeLessThan(0.0012);
    const effects = result.evaluation.budget.map(({ input }) => input.effect);
    expect(new Set(effects)).toEqual(
      new Set(['Mass', 'Purity', 'Molar mass', 'Flask', 'Temperature']),
    );
    const bottle = bottleOf(state, result, RECORDS, stored(DECISION));
    expect(bottle).toMatchObject({
      purpose: 'standard',
      volumeMl: '250',
      nominalMolarity: '0.1',
      made: { molarity: result.rounded.value },
      parents: [{ kind: 'lot', id: KHP.id }],
    });
  });

  test('a concentrate by cylinder is nominal, with the range in which it plausibly lies', () => {
    const dissolved = { meaning: 'by-mass', densityGPerMl: '1.19' } as const;
    const acid = lotOf('hydrochloric-acid', { purity: '0.37', purityHalfWidth: '0.01', dissolved });
    const source = {
      kind: 'concentrate',
      lotId: acid.id,
      takeMl: '8.28',
      cylinderId: null,
      flaskId: null,
    } as const;
    const plan = planOf(source, {
      ...{ purpose: 'titrant', soluteId: 'hydrochloric-acid', volumeMl: '1000' },
    });
    const { state } = new PreparationScript(plan).measure('8.3');
    const result = resultOf(state, recordsWith([acid]));
    if (result?.kind !== 'nominal') throw new Error('not nominal');
    expect(Number(result.molarity)).toBeCloseTo((8.3 * 0.37 * 1.19) / 36.46, 3);
    const [low, high] = result.range.map(Number);
    expect(low).toBeLessThan(0.096);
    expect(high).toBeGreaterThan(0.104);
    expect(bottleOf(state, result, RECORDS, stored(DECISION))).toMatchObject({
      made: null,
      plausibleMolarity: result.range,
    });
  });

  test('a concentrate whose label states mol/L is taken at its word, with its own limits', () => {
    const dissolved = { meaning: 'by-molarity', molarity: '6.00' } as const;
    const limits = { purity: '1', purityHalfWidth: '0.01', dissolved };
    const base = lotOf('sodium-hydroxide', limits);
    const source = {
      kind: 'concentrate',
      ...{ lotId: base.id, takeMl: '16.7', cylinderId: null, flaskId: null },
    } as const;
    const plan = planOf(source, {
      ...{ purpose: 'titrant', soluteId: 'sodium-hydroxide', volumeMl: '1000' },
    });
    const { state } = new PreparationScript(plan).measure('16.7');
    const result = resultOf(state, recordsWith([base]));
    if (result?.kind !== 'nominal') throw new Error('not nominal');
    expect(Number(result.molarity)).toBeCloseTo((16.7 * 6) / 1000, 3);
    expect(codes(plan, recordsWith([base]))).toEqual([]);
    const strong = { ...plan, targetMolarity: decimalText('6.01') };
    expect(codes(strong, recordsWith([base]))).toContain('cannot-concentrate');
  });

  test('a dilution inherits what its parent is: standard from standard, nominal from nominal', () => {
    const stages = [{ pipetteId: 'V50', flaskId: 'F250' }];
    const bottles = [standardBottle(), standardBottle({ id: 'nominal', made: null })];
    const of = (bottleId: string) => {
      const source = { kind: 'dilute', from: { kind: 'bottle', bottleId }, stages } as const;
      const plan = planOf(source, { soluteId: 'sodium-chloride', targetMolarity: '0.4' });
      return resultOf(new PreparationScript(plan).state, recordsWith([], bottles));
    };
    const made = of('bottle-standard');
    if (made?.kind !== 'made') throw new Error('not made');
    expect(made.evaluation.value).toBeCloseTo((2.0012 * 50) / 250, 10);
    expect(of('nominal')).toMatchObject({ kind: 'nominal', molarity: '0.400' });
  });

  test('a calibrated flask counts with its own volume', () => {
    const calibration = {
      ...{ factId: 'c', by: 'ines', at: '2026-02-01T08:00:00.000Z' },
      ...{ calibratedOn: '2026-02-01', due: '2027-02-01', certificate: 'C 7' },
      found: {
        kind: 'points',
        points: [{ nominal: '250', deviation: '-0.25', expandedUncertainty: '0.05' }],
      },
    } as const;
    const equipment = EQUIPMENT.map((one) =>
      one.id === 'F250' ? { ...one, calibrations: [calibration] } : one,
    );
    const { state } = new PreparationScript(KHP_PLAN).weigh('5.1103');
    const [asMarked, calibrated] = [RECORDS, { ...RECORDS, equipment }].map((records) => {
      const result = resultOf(state, stored(records));
      return result?.kind === 'made' ? result.evaluation.value : 0;
    });
    expect((calibrated ?? 0) / (asMarked ?? 1)).toBeCloseTo(250 / 249.75, 9);
  });

  test('a weak solution strengthened with a stock: amounts add up, both are charged', () => {
    const strong = standardBottle({ id: 'strong', made: null, nominalMolarity: '6' });
    const weak = standardBottle({ id: 'weak', made: null, nominalMolarity: '0.09' });
    const source = {
      kind: 'add-volumes',
      bottleId: 'strong',
      takeMl: '1.7',
      weakerBottleId: 'weak',
      fillMl: '998',
      cylinderId: null,
    } as const;
    const plan = planOf(source, { soluteId: 'sodium-chloride', purpose: 'titrant' });
    const records = recordsWith([], [strong, weak]);
    expect(codes(plan, records)).toEqual([]);
    expect(codes({ ...plan, targetMolarity: decimalText('0.05') }, records)).toEqual([
      'not-weaker',
    ]);
    const { state } = new PreparationScript(plan).measure('1.7');
    expect(resultOf(state, records)).toMatchObject({ kind: 'nominal', molarity: '0.100' });
    expect(takenFor(state, []).map(({ parent, amount }) => [parent.id, amount])).toEqual([
      ['strong', 1.7],
      ['weak', 998],
    ]);
  });

  test('a vessel that is used twice is off twice, in the same direction', () => {
    const bottles = [standardBottle()];
    const from = { kind: 'bottle', bottleId: bottles[0]?.id ?? '' } as const;
    const namedRecords = (stages: readonly { pipetteId: string; flaskId: string }[]) => {
      const source = { kind: 'dilute', from, stages } as const;
      const plan = planOf(source, { soluteId: 'sodium-chloride' });
      const result = resultOf(new PreparationScript(plan).state, recordsWith([], bottles));
      if (result?.kind !== 'made') throw new Error('not made');
      const { budget, value } = result.evaluation;
      return budget
        .filter(({ input }) => input.effect !== 'Parent solution')
        .map(({ input, contribution }) => [input.id, Math.abs(contribution) / value] as const);
    };
    const stage = { pipetteId: 'V10', flaskId: 'F100' };
    const once = new Map(namedRecords([stage]));
    const twice = namedRecords([stage, stage]);
    expect(twice.map(([id]) => id).toSorted()).toEqual([...once.keys()].toSorted());
    for (const [id, relative] of twice) {
      expect(relative, id).toBeCloseTo(2 * (once.get(id) ?? Number.NaN), 12);
    }
  });

  test('a sample is diluted by a factor that its bottle carries', () => {
    const source = {
      kind: 'dilute',
      from: { kind: 'sample', name: 'cleaner, tank 3', molarity: '1' },
      stages: [{ pipetteId: 'V10', flaskId: 'F250' }],
    } as const;
    const plan = planOf(source, { soluteId: 'hydrochloric-acid', purpose: 'auxiliary' });
    const { state } = new PreparationScript(plan);
    const result = resultOf(state, RECORDS);
    if (!result) throw new Error('no result');
    expect(bottleOf(state, result, RECORDS, stored(DECISION))).toMatchObject({
      dilutionFactor: '25.0000',
      note: 'cleaner, tank 3',
      made: null,
    });
  });

  test('whatever is weighed into whatever flask, c V M is m P', () => {
    const mass = fc.integer({ min: 40_000, max: 60_000 });
    fc.assert(
      fc.property(mass, fc.constantFrom('F100', 'F250'), (tenthsOfMg, flaskId) => {
        const massG = (tenthsOfMg / 10_000).toFixed(4);
        const source = { ...KHP_PLAN.source, flaskId } as PreparationPlan['source'];
        const { state } = new PreparationScript({ ...KHP_PLAN, source }).weigh(massG);
        const result = resultOf(state, RECORDS);
        if (result?.kind !== 'made') throw new Error('not made');
        const volumeMl = Number(flaskId.slice(1));
        expect((result.evaluation.value * volumeMl * 204.2223) / 1000).toBeCloseTo(
          Number(massG) * 0.9998,
          6,
        );
        const taken = takenFor(state, []);
        expect(taken).toEqual([{ parent: { kind: 'lot', id: KHP.id }, amount: Number(massG) }]);
      }),
    );
  });
});

describe('what is asked and what is refused', () => {
  const script = () => new PreparationScript(KHP_PLAN);
  const against = (made: PreparationScript, fact: PreparationFact) =>
    checkFact(fact, made.state, aroundWith({ equipment: EQUIPMENT })).map(({ code, values }) => [
      code,
      values,
    ]);
  const mass = (made: PreparationScript, massG: string) =>
    made.propose('preparation.measured', {
      step: 'weigh',
      quantity: { kind: 'mass', weighing: { mode: 'tared', massG } },
      replaces: [],
      takenFrom: null,
      pins: [],
      reason: null,
    });

  test('a mass a power of ten away names the one that was meant; digits of the balance are asked for', () => {
    const made = script().done('dry').done('cool');
    expect(against(made, mass(made, '51.0661'))).toEqual([
      [
        'mass-off-plan',
        expect.objectContaining({
          targetG: 5.1066,
          slip: expect.objectContaining({ kind: 'decimal-point', meant: 5.1066 }) as unknown,
        }),
      ],
    ]);
    expect(against(made, mass(made, '5.11'))).toEqual([
      ['decimals', { instrument: 'balance', decimals: 4 }],
    ]);
    expect(against(made, mass(made, '5.1100'))).toEqual([]);
    expect(against(script(), mass(script(), '5.1100'))).toEqual([
      ['out-of-order', { text: expect.stringMatching(/^Dry it/) as unknown }],
    ]);
  });

  test('filling to the mark before it is dissolved is asked about; unknown steps are refused', () => {
    const made = script().weigh('5.1100').done('dry').done('cool').done('transfer');
    const to = (step: string) =>
      made.propose('preparation.step-done', { step, isLeftOut: false, pins: [], reason: null });
    expect(against(made, to('to-mark'))).toEqual([
      ['out-of-order', { text: expect.stringMatching(/issolve/) as unknown }],
    ]);
    expect(against(made, to('fly'))).toEqual([['unknown-step', {}]]);
    const leftOut = made.propose('preparation.step-done', {
      step: 'weigh',
      isLeftOut: true,
      pins: [],
      reason: 'in a hurry',
    });
    expect(against(script(), leftOut)).toEqual([['figure-needed', {}]]);
  });

  test('a wait that is cut short is asked about', () => {
    const made = script().add('preparation.step-begun', { step: 'dry' });
    const dry = { step: 'dry', isLeftOut: false, pins: [], reason: null };
    const after = (minutes: number) =>
      made.propose(
        'preparation.step-done',
        dry,
        new Date(Date.parse('2026-03-02T08:00:00Z') + minutes * 60_000).toISOString(),
      );
    expect(against(made, after(90))).toEqual([
      ['too-early', { waitMinutes: 120, leftMinutes: 30 }],
    ]);
    expect(against(made, after(120))).toEqual([]);
  });

  test('a wait that nobody began is asked about; what needs no waiting is not', () => {
    const made = script();
    const done = (step: string) =>
      made.propose('preparation.step-done', { step, isLeftOut: false, pins: [], reason: null });
    expect(against(made, done('dry'))).toEqual([['wait-not-begun', { waitMinutes: 120 }]]);
    expect(against(made, done('transfer'))[0]?.[0]).toBe('out-of-order');
  });

  test('an over-filled flask is discarded, and why; a beaker is not', () => {
    const mishap = { step: 'to-mark', mishapId: 'over-filled', remark: '' };
    const spoilt = script().weigh('5.1100').add('preparation.mishap', mishap);
    expect(checkBottling(spoilt.state, true)[0]).toMatchObject({
      code: 'spoilt',
      values: { incident: 'filled past the mark' },
    });
    const source = { ...KHP_PLAN.source, flaskId: null } as PreparationPlan['source'];
    const rough = new PreparationScript({ ...KHP_PLAN, source })
      .weigh('5.1100')
      .add('preparation.mishap', mishap);
    expect(checkBottling(rough.state, true).map(({ code }) => code)).toEqual(['not-finished']);
  });

  test('two masses entered without knowing of each other are both kept, and block until one stands', () => {
    const made = script().weigh('5.1100').weigh('5.1130');
    expect(made.state.steps.find(({ id }) => id === 'weigh')?.entries).toHaveLength(2);
    expect(resultOf(made.state, RECORDS)).toBeNull();
    expect(checkBottling(made.state, false).map(({ code }) => code)).toEqual([
      'entries-contradict',
    ]);
    made.weigh('5.1130', ['p2', 'p3']);
    expect(resultOf(made.state, RECORDS)?.kind).toBe('made');
    const weighed = made.state.steps.find(({ id }) => id === 'weigh');
    expect(weighed?.replaced.map(({ factId }) => factId)).toEqual(['p2', 'p3']);
  });

  test('before it is begun: a balance too coarse, too little, expired, out of use, another form', () => {
    expect(codes(KHP_PLAN)).toEqual([]);
    const source = KHP_PLAN.source as Extract<PreparationPlan['source'], { kind: 'weigh' }>;
    const coarse = { ...KHP_PLAN, source: { ...source, massG: '0.2042', balanceId: 'coarse' } };
    expect(codes(stored(coarse))).toEqual(['balance-too-coarse']);
    expect(codes(KHP_PLAN, RECORDS, new Map([[KHP.id, 5]]))).toEqual(['not-enough']);
    const expired = lotOf('potassium-hydrogen-phthalate', { useBy: '2026-02-01' });
    expect(codes(KHP_PLAN, recordsWith([expired]))).toEqual(['lot-expired']);
    const reason = 'label torn';
    const withdrawn = { factId: 'f', by: 'ines', at: '2026-03-01T08:00:00.000Z', reason };
    expect(codes(KHP_PLAN, recordsWith([{ ...KHP, withdrawn: stored(withdrawn) }]))).toEqual([
      'out-of-use',
    ]);
    const other = { ...lotOf('oxalic-acid-dihydrate'), id: KHP.id };
    expect(codes(KHP_PLAN, recordsWith([other]))).toEqual(['lot-of-another']);
  });

  test('a balance past its calibration needs a reason; one out of use is not', () => {
    const changed = (change: (one: EquipmentState) => EquipmentState) => ({
      ...RECORDS,
      equipment: EQUIPMENT.map((one) => (one.id === 'balance' ? change(one) : one)),
    });
    const overdue = changed((one) => ({
      ...one,
      equipment: { ...one.equipment, calibrationDue: plainDate('2026-01-01') },
    }));
    expect(codes(KHP_PLAN, overdue)).toEqual(['calibration-overdue']);
    const at = '2026-03-01T08:00:00.000Z';
    const withdrawn = { factId: 'f', by: 'ines', at, reason: 'dropped' };
    expect(
      codes(
        KHP_PLAN,
        changed((one) => ({ ...one, withdrawn: stored(withdrawn) })),
      ),
    ).toEqual(['out-of-use']);
  });

  test('a molarity above what the concentrate or the bottle has cannot be made from it', () => {
    const dissolved = { meaning: 'by-mass', densityGPerMl: '1.19' } as const;
    const acid = lotOf('hydrochloric-acid', { purity: '0.37', dissolved });
    const vessels = { cylinderId: null, flaskId: null };
    const source = { kind: 'concentrate', lotId: acid.id, takeMl: '90', ...vessels } as const;
    const plan = planOf(source, { soluteId: 'hydrochloric-acid', targetMolarity: '13' });
    expect(codes(plan, recordsWith([acid]))).toEqual(['cannot-concentrate']);
    expect(codes({ ...plan, targetMolarity: decimalText('1') }, recordsWith([acid]))).toEqual([]);
  });
});

test('waiting is calculated from when it began, work goes on where it was left, facts told twice count once', () => {
  const begun = new PreparationScript(KHP_PLAN).add(
    'preparation.step-begun',
    { step: 'dry' },
    '2026-03-02T08:40:00.000Z',
  );
  expect(nextWork(begun.state)).toMatchObject({
    id: 'dry',
    waitsUntil: '2026-03-02T10:40:00.000Z',
  });
  expect(nextWork(begun.done('dry').state)?.id).toBe('cool');
  expect(PREPARATION_RECORD.fold([...begun.facts, ...begun.facts])).toEqual(begun.state);
  expect(PREPARATION_RECORD.fold(begun.facts.slice(1))).toBeNull();
  const bottled = begun.add('preparation.bottled', { bottleId: 'b' }).state;
  expect(bottled).toMatchObject({ status: 'bottled', bottleId: 'b', closed: { by: 'ines' } });
  expect(bottled.steps.find(({ work }) => work === 'bottle')?.done).not.toBeNull();
});

describe('what a preparation rests on', () => {
  const source = {
    kind: 'dilute',
    from: { kind: 'bottle', bottleId: 'bottle-standard' },
    stages: [{ pipetteId: 'V10', flaskId: 'F100' }],
  } as const;
  const plan = planOf(source, { soluteId: 'sodium-chloride', targetMolarity: '0.2' });
  const before = standardBottle();
  const again = {
    ...standardBottle({ made: { ...before.made, molarity: '1.9000' } as BottleState['made'] }),
    version: 2,
  };
  const around = aroundWith(
    { bottle: [before], equipment: EQUIPMENT },
    // Since then its molarity is known otherwise.
    {
      now: (kind, id) =>
        kind === 'bottle' ? again : aroundWith({ equipment: EQUIPMENT }).now(kind, id),
    } as Partial<AroundFact>,
  );
  const drawn = (pins: readonly Pin[]) =>
    new PreparationScript(plan).add('preparation.step-done', {
      ...{ step: 'measure', isLeftOut: false, pins, reason: null },
    }).state;
  const molarity = (state: PreparationState): number => {
    const result = resultOf(state, recordsOf(state, around));
    return result?.kind === 'made' ? Number(result.rounded.value) : Number.NaN;
  };

  test('is what it was when it drew from it, whatever became of that since', () => {
    const open = new PreparationScript(plan).state;
    expect(molarity(open)).toBeCloseTo(0.19, 4);
    const pinned = drawn([{ kind: 'bottle', id: idOf('bottle-standard'), version: 1 }]);
    expect(molarity(pinned)).toBeCloseTo(0.2, 3);
    // Nobody wrote it down: the version that it had at that time.
    expect(molarity(drawn([]))).toBeCloseTo(0.2, 3);
  });

  test('is pinned once, by the step that first draws', () => {
    const state = new PreparationScript(plan).state;
    const step = (work: string) => {
      const found = state.steps.find((one) => one.work === work);
      if (!found) throw new Error(`no step ${work}`);
      return found;
    };
    expect(pinsFor(state, step('to-mark'), around.now)).toEqual([]);
    const pins = pinsFor(state, step('measure'), around.now);
    expect(pins).toContainEqual({ kind: 'bottle', id: 'bottle-standard', version: 2 });
    expect(pins).toContainEqual({ kind: 'equipment', id: 'V10', version: 1 });
    expect(pinsFor(drawn(pins), step('measure'), around.now)).toEqual([]);
  });
});
