import { describe, expect, test } from 'vitest';
import type { Plain } from '#core/grammar';
import { plainDate } from '#core/grammar';
import type { EquipmentState } from '#core/metrology';
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
import { idOf, stored } from '../test-support/stored';
import type { BottleState } from '../reagent';
import type { PreparationPlan, Quantity } from './index';
import { checkBottling, checkPreparationStart, PREPARATION_INCIDENTS, missingFor } from './index';

const KHP = lotOf('potassium-hydrogen-phthalate');
type Weighed = Extract<PreparationPlan['source'], { kind: 'weigh' }>;
const { balanceId } = KHP_PLAN.source as Weighed;
const OUT_OF_USE = { factId: 'f', by: 'ines', at: '2026-03-01T08:00:00.000Z', reason: 'cloudy' };
const MADE = { expandedUncertainty: '0.0024', coverageFactor: '2.00', unrounded: null };
const DISSOLVED = { meaning: 'by-mass', densityGPerMl: '1.19' } as const;

/** Pellets weighed into a beaker: approximate, since the molarity is found by titration. */
const PELLETS = planOf(
  { kind: 'weigh', lotId: 'lot-sodium-hydroxide', massG: '4.0800', balanceId, flaskId: null },
  { purpose: 'titrant', soluteId: 'sodium-hydroxide', carbonDioxide: 'nothing' },
);
const ACID = planOf(
  {
    kind: 'concentrate',
    lotId: 'lot-hydrochloric-acid',
    takeMl: '80',
    cylinderId: 'Z100',
    flaskId: null,
  },
  { purpose: 'titrant', soluteId: 'hydrochloric-acid', targetMolarity: '1', volumeMl: '1000' },
);

/** 10 mL of a bottle of sodium chloride to 100 mL, with other vessels. */
const diluted = (vessels: { readonly pipetteId?: string; readonly flaskId?: string } = {}) =>
  planOf(
    {
      ...{ kind: 'dilute', from: { kind: 'bottle', bottleId: 'bottle-standard' } },
      stages: [{ pipetteId: 'V10', flaskId: 'F100', ...vessels }],
    },
    { soluteId: 'sodium-chloride' },
  );

describe('what is measured in a step', () => {
  const codes = (
    plan: PreparationPlan,
    step: string,
    quantity: Plain<Quantity>,
  ): readonly string[] => {
    const made = new PreparationScript(plan);
    const rest = { replaces: [], takenFrom: null, pins: [], reason: null };
    const fact = made.propose('preparation.measured', { step, quantity, ...rest });
    return checkFact(fact, made.state, aroundWith({ equipment: EQUIPMENT }))
      .map(({ code }) => code)
      .filter((code) => code !== 'out-of-order');
  };
  const mass = (massG: string) => ({ kind: 'mass', weighing: { mode: 'tared', massG } }) as const;

  test.each([
    ['4.5959', ['mass-off-plan']],
    ['4.5960', []],
    ['5.6172', []],
    ['5.6173', ['mass-off-plan']],
  ])('%s g of a standard of which 5.1066 g were planned: a tenth off at most', (massG, found) => {
    expect(codes(KHP_PLAN, 'weigh', mass(massG))).toEqual(found);
  });

  test.each([
    ['3.2639', ['mass-off-plan']],
    ['3.2641', []],
    ['4.8959', []],
    ['4.8961', ['mass-off-plan']],
  ])('%s g of a titrant of which 4.08 g were planned: a fifth off at most', (massG, found) => {
    expect(codes(PELLETS, 'weigh', mass(massG))).toEqual(found);
  });

  test.each([
    ['0', ['no-volume']],
    ['0.5', ['volume-off-plan']],
    ['63.9', ['volume-off-plan']],
    ['64', []],
    ['96', []],
    ['96.1', ['volume-off-plan']],
  ])(
    '%s mL of a concentrate of which 80 mL were planned: a fifth off at most',
    (volumeMl, found) => {
      expect(codes(ACID, 'measure', { kind: 'volume', volumeMl })).toEqual(found);
    },
  );

  test.each([
    ['4.9', ['no-room-temperature']],
    ['5', ['off-20']],
    ['14.9', ['off-20']],
    ['15', []],
    ['25', []],
    ['25.1', ['off-20']],
    ['40', ['off-20']],
    ['40.1', ['no-room-temperature']],
  ])(
    'a flask is filled at %s °C: within 5 K of 20 °C, and no laboratory is beyond 5 to 40 °C',
    (temperatureC, found) => {
      const quantity = { kind: 'temperature', temperatureC } as const;
      expect(codes(KHP_PLAN, 'to-room-temperature', quantity)).toEqual(found);
    },
  );

  test('one quantity is not taken for another', () => {
    expect(codes(KHP_PLAN, 'weigh', { kind: 'volume', volumeMl: '5.1' })).toEqual([
      'not-measured-here',
    ]);
    expect(codes(KHP_PLAN, 'dissolve', mass('5.1066'))).toEqual(['not-measured-here']);
  });
});

describe('before a preparation is begun', () => {
  const codes = (
    plan: PreparationPlan,
    records = recordsWith([KHP]),
    left: Readonly<Record<string, number>> = {},
  ) =>
    checkPreparationStart(plan, records, (id) => left[id], plainDate('2026-03-02')).map(
      ({ code }) => code,
    );
  const weighed = (massG: string) => planOf({ ...(KHP_PLAN.source as Weighed), massG }, {});

  test.each([
    ['2026-03-01', ['lot-expired']],
    ['2026-03-02', []],
    [null, []],
  ])('a lot to be used by %s on 2 March', (useBy, found) => {
    expect(codes(KHP_PLAN, recordsWith([{ ...KHP, lot: stored({ ...KHP.lot, useBy }) }]))).toEqual(
      found,
    );
  });

  test.each([
    ['2026-03-01', ['calibration-overdue']],
    ['2026-03-02', []],
  ])('a balance whose calibration is due on %s', (calibrationDue, found) => {
    const due = (one: EquipmentState): EquipmentState =>
      one.id === idOf('balance')
        ? { ...one, equipment: { ...one.equipment, calibrationDue: plainDate(calibrationDue) } }
        : one;
    expect(codes(KHP_PLAN, { ...recordsWith([KHP]), equipment: EQUIPMENT.map(due) })).toEqual(
      found,
    );
  });

  test.each([
    [5.1065, ['not-enough']],
    [5.1066, []],
    [0, ['not-enough']],
  ])('%s g left of a lot of which 5.1066 g are needed', (there, found) => {
    expect(codes(KHP_PLAN, recordsWith([KHP]), { [KHP.id]: there })).toEqual(found);
  });

  test('of a dilution what the first pipette takes is needed, of an addition both parts', () => {
    const records = recordsWith([], [standardBottle()]);
    expect(codes(diluted(), records, { 'bottle-standard': 9.9 })).toEqual(['not-enough']);
    expect(codes(diluted(), records, { 'bottle-standard': 10 })).toEqual([]);
    const weaker = standardBottle({
      id: 'bottle-weak',
      code: 'S2',
      nominalMolarity: '0.5',
      made: null,
    });
    const added = (targetMolarity: string) =>
      planOf(
        {
          ...{ kind: 'add-volumes', bottleId: 'bottle-standard', takeMl: '20', fillMl: '80' },
          ...{ weakerBottleId: 'bottle-weak', cylinderId: null },
        },
        { soluteId: 'sodium-chloride', targetMolarity },
      );
    const both = recordsWith([], [standardBottle(), weaker]);
    expect(codes(added('0.8'), both, { 'bottle-weak': 79 })).toEqual(['not-enough']);
    expect(codes(added('0.8'), both, { 'bottle-weak': 80, 'bottle-standard': 20 })).toEqual([]);
    // The weaker one must be weaker than what is wanted, the stronger one no weaker.
    expect(codes(added('0.5'), both)).toEqual(['not-weaker']);
    expect(codes(added('2.0012'), both)).toEqual([]);
    expect(codes(added('2.0013'), both)).toEqual(['cannot-concentrate']);
  });

  test('a balance may be uncertain by a thousandth of a standard, and by more of a titrant', () => {
    // Empty and filled: repeatability 0.1 mg, linearity 0.2 mg as half-width of a rectangle; 0.216 mg together.
    expect(codes(weighed('0.2160'))).toEqual(['balance-too-coarse']);
    expect(codes(weighed('0.2161'))).toEqual([]);
    const pellets = lotOf('sodium-hydroxide');
    const light = { ...(PELLETS.source as Weighed), massG: stored<Weighed['massG']>('0.0100') };
    expect(codes({ ...PELLETS, source: light }, recordsWith([pellets]))).toEqual([]);
  });

  test.each<[string, Partial<Plain<BottleState>>, readonly string[]]>([
    ['as it should be', {}, []],
    ['of another substance', { substanceId: 'potassium-chloride' }, ['wrong-bottle']],
    ['out of use', { withdrawn: OUT_OF_USE }, ['out-of-use']],
    ['on its last day', { useBy: '2026-03-02' }, []],
    ['a day later', { useBy: '2026-03-01' }, ['bottle-expired']],
    ['as strong as what is wanted', { made: { ...MADE, molarity: '0.1' } }, []],
    ['weaker than that', { made: { ...MADE, molarity: '0.0999' } }, ['cannot-concentrate']],
    ['nominal, and weaker', { made: null, nominalMolarity: '0.05' }, ['cannot-concentrate']],
  ])('a bottle to be diluted to 0.1 mol/L: %s', (_what, changes, found) => {
    expect(codes(diluted(), recordsWith([], [standardBottle(changes)]))).toEqual(found);
  });

  test('all that a plan names is there and of its kind', () => {
    const records = recordsWith([KHP], [standardBottle()]);
    expect(missingFor(KHP_PLAN, records)).toBeNull();
    const named = (plan: PreparationPlan, given = records) => missingFor(plan, given)?.values;
    expect(named(KHP_PLAN, recordsWith([]))).toMatchObject({ kind: 'lot' });
    expect(missingFor(diluted(), records)).toBeNull();
    expect(named(diluted(), recordsWith([]))).toMatchObject({ kind: 'bottle' });
    expect(named(diluted({ pipetteId: 'F100' }))).toEqual({ kind: 'one-mark-pipette' });
    expect(named(diluted({ flaskId: 'V10' }))).toEqual({ kind: 'volumetric-flask' });
    expect(named(diluted({ flaskId: 'gone' }))).toEqual({ kind: 'volumetric-flask' });
    const onFlask = { ...(KHP_PLAN.source as Weighed), balanceId: idOf('F100') };
    expect(named({ ...KHP_PLAN, source: onFlask })).toEqual({ kind: 'balance' });
    const poured = { ...ACID, soluteId: 'hydrochloric-acid' };
    const acid = recordsWith([lotOf('hydrochloric-acid')]);
    expect(missingFor(poured, acid)).toBeNull();
    expect(named(poured, { ...acid, equipment: [] })).toEqual({ kind: 'measuring-cylinder' });
  });

  test('nothing is made of what the catalogue does not know', () => {
    expect(codes({ ...KHP_PLAN, soluteId: 'stardust' })).toEqual(['not-in-catalogue']);
  });

  test('a solution is not weighed as a solid, a solid not poured as a solution', () => {
    const poured = lotOf('potassium-hydrogen-phthalate', { dissolved: DISSOLVED });
    expect(codes(KHP_PLAN, recordsWith([poured]))).toEqual(['not-solid']);
    expect(codes(ACID, recordsWith([lotOf('hydrochloric-acid')]))).toEqual(['not-dissolved']);
    expect(
      codes(
        ACID,
        recordsWith([lotOf('hydrochloric-acid', { purity: '0.37', dissolved: DISSOLVED })]),
      ),
    ).toEqual([]);
  });
});

test.each(PREPARATION_INCIDENTS.map(({ id, spoilsExact }) => [id, spoilsExact] as const))(
  'after “%s” a standard is spoilt: %s; a titrant never is',
  (mishapId, isSpoilt) => {
    const mishap = { step: 'to-mark', mishapId, remark: 'as seen' };
    const found = (plan: PreparationPlan) =>
      checkBottling(new PreparationScript(plan).add('preparation.mishap', mishap).state, true).map(
        ({ code }) => code,
      );
    expect(found(KHP_PLAN)).toEqual([isSpoilt ? 'spoilt' : 'not-finished']);
    expect(found(PELLETS)).toEqual(['not-finished']);
  },
);
