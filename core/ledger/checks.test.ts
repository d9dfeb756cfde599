import { describe, expect, test } from 'vitest';
import type { Plain } from '#core/grammar';
import type { EquipmentState } from '#core/metrology';
import type { BottleState, LotState } from '#core/reagent';
import type { Fact } from '#core/record';
import { aroundWith } from '../test-support/around';
import { factOf } from '../test-support/facts';
import { EQUIPMENT, lotOf, standardBottle } from '../test-support/preparations';
import { stored } from '../test-support/stored';
import { concordantSeries, khpLot } from '../test-support/runs';
import type { AroundFact, FactBodies, FactKind } from './index';
import { applyToRecord, checkFact, sentenceOf } from './index';

/** A fact of the record that is checked, entered by somebody who may everything. */
function fact<K extends FactKind>(kind: K, body: Plain<FactBodies[K]>): Fact {
  return factOf(kind, 'r', body);
}

function equipment(id: string): EquipmentState {
  const found = EQUIPMENT.find((one) => one.id === id);
  if (!found) throw new Error(`there is no ${id}`);
  return found;
}

const balance = equipment('balance');
const flask = equipment('F100');
const lot: LotState = lotOf('potassium-hydrogen-phthalate');
const bottle: BottleState = standardBottle();
const caustic = lotOf('sodium-hydroxide');
const PERSON = { person: [{ id: 'ines' }] } as unknown as Parameters<typeof aroundWith>[0];
const around = aroundWith({ ...PERSON, lot: [caustic], bottle: [bottle] });

function against(
  given: Fact,
  state: Parameters<typeof checkFact>[1],
  changes: Partial<AroundFact> = {},
): string[] {
  return checkFact(given, state, { ...around, ...changes }).map(
    ({ code, field }) => `${code} at ${field}`,
  );
}

describe('a lot', () => {
  test.each<[string, Partial<Plain<LotState['lot']>>, string[]]>([
    ['as it should be', {}, []],
    ['of no substance', { substanceId: 'stardust' }, ['not-in-catalogue at substanceId']],
    ['received today', { receivedOn: '2026-03-02' }, []],
    ['received tomorrow', { receivedOn: '2026-03-03' }, ['date-to-come at receivedOn']],
    ['good until the day it came', { useBy: '2026-01-10' }, []],
    ['good until the day before', { useBy: '2026-01-09' }, ['use-by-first at useBy']],
    ['opened the day it came', { openedOn: '2026-01-10' }, []],
    ['opened the day before', { openedOn: '2026-01-09' }, ['opened-first at openedOn']],
    ['as pure as the least solid', { purity: '0.02' }, []],
    [
      'written as a fraction of a per cent',
      { purity: '0.009998', purityHalfWidth: '0.000005' },
      ['purity-as-fraction at purity'],
    ],
    ['known to half of itself', { purity: '0.9', purityHalfWidth: '0.45' }, []],
    [
      'known worse',
      { purity: '0.9', purityHalfWidth: '0.4501' },
      ['purity-too-vague at purityHalfWidth'],
    ],
  ])('%s', (_, changes, expected) => {
    const body = { ...khpLot().lot, ...changes };
    expect(against(fact('lot.registered', body), null)).toEqual(expected);
  });

  test.each<[string, string, string[]]>([
    ['2026-01-10', 'the day it came', []],
    ['2026-01-09', 'the day before', ['opened-first at openedOn']],
    ['2026-03-03', 'tomorrow', ['date-to-come at openedOn']],
  ])('opened on %s, %s', (openedOn, _, expected) => {
    expect(against(fact('lot.opened', { openedOn }), lot)).toEqual(expected);
  });

  test('lies in the oven once, and is taken out of it only then', () => {
    const put = fact('lot.put-to-dry', { temperatureC: '120' });
    const takenOut = fact('lot.taken-out', {});
    const inside = applyToRecord('lot', lot, put);
    expect([against(put, lot), against(put, inside)]).toEqual([[], ['in-already at temperatureC']]);
    expect([against(takenOut, lot), against(takenOut, inside)]).toEqual([['not-in at lot'], []]);
  });
});

function points(deviation: string) {
  const point = { nominal: '100', deviation, expandedUncertainty: '0.02' };
  return { kind: 'points' as const, points: [point] };
}

describe('equipment', () => {
  test.each<[string, object, string[]]>([
    ['a balance', {}, []],
    [
      'one that shows steps of its maximum load',
      { readabilityG: '220' },
      ['beyond-max-load at readabilityG'],
    ],
    [
      'one that strays by a hundredth of it',
      { linearityG: '2.2' },
      ['beyond-max-load at linearityG'],
    ],
    ['one that strays by less', { linearityG: '2.19' }, []],
    ['one due years ago', { calibrationDue: '1990-01-01' }, ['year-mistyped at calibrationDue']],
  ])('%s', (_, changes, expected) => {
    const body = { ...balance.equipment, ...changes };
    expect(against(fact('equipment.registered', body), null)).toEqual(expected);
  });

  test.each<[string, string[]]>([
    ['9.99', []],
    ['10', ['tolerance-too-wide at toleranceMl']],
  ])('a flask of 100 mL within %s mL', (toleranceMl, expected) => {
    const body = { ...flask.equipment, toleranceMl } as EquipmentState['equipment'];
    expect(against(fact('equipment.registered', body), null)).toEqual(expected);
  });

  test.each<[string, Partial<Plain<FactBodies['equipment.calibrated']>>, string[]]>([
    ['today', {}, []],
    ['tomorrow', { calibratedOn: '2026-03-03' }, ['date-to-come at calibratedOn']],
    ['due the same day', { due: '2026-03-02' }, []],
    ['due before it was made', { due: '2026-03-01' }, ['due-first at due']],
    ['off by a tenth', { found: points('10') }, []],
    ['off by more', { found: points('10.1') }, ['far-off at found']],
  ])('calibrated: %s', (_, changes, expected) => {
    const made = {
      calibratedOn: '2026-03-02',
      due: null,
      certificate: 'K 7',
      found: points('0.1'),
    };
    expect(against(fact('equipment.calibrated', { ...made, ...changes }), flask)).toEqual(expected);
  });

  test('only what holds a volume is calibrated with water', () => {
    const volumes = [{ nominalMl: '100', weighingsG: ['99.7', '99.7'] }];
    const found = { kind: 'weighings', temperatureC: '20', volumes } as const;
    const made = { calibratedOn: '2026-03-02', due: null, certificate: 'own', found };
    const given = fact('equipment.calibrated', made);
    expect(against(given, balance)).toEqual(['holds-no-volume at found']);
    expect(against(given, flask)).toEqual([]);
  });
});

describe('a bottle that is written down', () => {
  const written = stored<FactBodies['bottle.prepared']>({
    ...bottle,
    ...{ purpose: 'titrant', substanceId: 'sodium-hydroxide', made: null, preparationId: null },
    ...{ parents: [{ kind: 'lot', id: caustic.id }], preparedOn: '2026-03-02', useBy: null },
  });
  const certified = {
    purpose: 'standard',
    made: {
      ...{ molarity: '0.1', expandedUncertainty: '0.0002' },
      ...{ coverageFactor: '2', unrounded: null },
    },
  };
  const bought = stored<LotState['lot']>({
    ...caustic.lot,
    purity: '1',
    dissolved: { meaning: 'by-molarity', molarity: '0.1' },
  });
  const outOfUse = { ...caustic, withdrawn: { ...caustic.registered, reason: 'wet' } };
  test.each<[string, object, Partial<AroundFact>, string[]]>([
    ['from its lot', {}, {}, []],
    ['from no lot', { parents: [{ kind: 'lot', id: 'x' }] }, {}, ['unknown-reference at parents']],
    ['by nobody', { preparedBy: 'nobody' }, {}, ['unknown-reference at preparedBy']],
    ['from another substance', { substanceId: 'sodium-chloride' }, {}, ['wrong-lot at parents']],
    ['tomorrow', { preparedOn: '2026-03-03' }, {}, ['date-to-come at preparedOn']],
    ['under a code that is given', {}, { bottleCoded: () => 'x' }, ['code-taken at code']],
    [
      'a standard that was bought, with its certificate',
      certified,
      aroundWith({ ...PERSON, lot: [{ ...caustic, lot: bought }] }),
      [],
    ],
    ['a certified solution from a lot of pellets', certified, {}, ['not-dissolved at parents']],
    [
      'a standard without a certified molarity',
      { purpose: 'standard' },
      {},
      ['not-certified at made'],
    ],
    [
      'a titrant with a molarity that nobody found',
      { made: certified.made },
      aroundWith({ ...PERSON, lot: [{ ...caustic, lot: bought }] }),
      ['not-certified at made'],
    ],
    [
      'from a lot that is out of use',
      {},
      aroundWith({ ...PERSON, lot: [outOfUse] }),
      ['out-of-use at parents'],
    ],
  ])('%s', (_, changes, otherwise, expected) => {
    const given = fact('bottle.prepared', { ...written, ...changes });
    expect(against(given, null, otherwise)).toEqual(expected);
  });
});

test.each([
  ['lot', lot],
  ['equipment', flask],
  ['bottle', bottle],
] as const)('%s: taken out of use once, and back once', (kind, state) => {
  const out = fact(`${kind}.withdrawn`, { reason: 'doubtful' });
  const back = fact(`${kind}.returned`, { reason: 'it was not' });
  const gone = { ...state, withdrawn: { factId: 'f', by: 'ines', at: '', reason: 'x' } };
  expect([against(out, state), against(back, state)]).toEqual([[], ['in-use-already at reason']]);
  expect([against(out, gone), against(back, gone)]).toEqual([['out-of-use-already at reason'], []]);
});

describe('what was mistyped', () => {
  const reason = 'a digit too many';

  test('is put right with a reason; what it was stays to be read', () => {
    const given = fact('lot.corrected', { lot: { ...lot.lot, purity: '0.9990' }, reason });
    expect(against(given, lot)).toEqual([]);
    expect(applyToRecord('lot', lot, given)).toMatchObject({
      version: 2,
      lot: { purity: '0.9990' },
      corrections: [{ was: { purity: '0.9998' }, reason, version: 2 }],
    });
    expect(sentenceOf(given)).toBe('corrected: a digit too many.');
  });

  const pipette = { ...flask.equipment, kind: 'one-mark-pipette' } as EquipmentState['equipment'];
  test.each<[string, Fact, LotState | EquipmentState, string]>([
    [
      'another substance',
      fact('lot.corrected', { lot: caustic.lot, reason }),
      lot,
      'rested-on at substanceId',
    ],
    [
      'another sort of vessel',
      fact('equipment.corrected', { equipment: pipette, reason }),
      flask,
      'rested-on at type',
    ],
  ])('cannot become %s once something rests on it', (_, given, state, expected) => {
    expect(against(given, state)).toEqual([]);
    expect(against(given, state, { isUsed: () => true })).toEqual([expected]);
  });

  test('a figure that was computed cannot be typed over, a code can', () => {
    const made = { ...bottle, preparationId: 'p' };
    const { code, nominalMolarity, volumeMl, preparedOn, preparedBy, useBy, container, note } =
      bottle;
    const kept = { code, nominalMolarity, volumeMl, preparedOn, preparedBy, useBy };
    const correct = (changes: object) =>
      fact('bottle.corrected', { ...kept, container, note, reason, ...changes });
    expect(against(correct({ code: 'S9' }), made)).toEqual([]);
    const otherFigure = correct({ nominalMolarity: '1.9' });
    expect(against(otherFigure, made)).toEqual(['computed at nominalMolarity']);
    expect(against(otherFigure, bottle)).toEqual([]);
  });

  test('an open run may go on with it; it adopts nothing else, nor what it has', () => {
    const run = concordantSeries();
    const adopted = (id: string, version: number) =>
      ({ kind: 'lot', id, version, reason }) as const;
    const known = aroundWith({ lot: [{ ...khpLot(), version: 2 }] });
    const found = (id: string, version: number): string[] =>
      checkFact(run.propose('run.record-adopted', adopted(id, version)), run.state, known).map(
        ({ code }) => code,
      );
    expect(found('lot-khp', 2)).toEqual([]);
    expect(found('lot-khp', 7)).toEqual(['unknown-reference']);
    const { setUp } = run.add('run.record-adopted', adopted('lot-khp', 2)).state;
    expect(setUp).toMatchObject({ standard: { lot: { id: 'lot-khp', version: 2 } } });
    expect(found('lot-khp', 2)).toEqual(['no-newer']);
  });
});
