import { expect, test } from 'vitest';
import type { Fact } from './fact';
import { DEFAULT_HOUSE_RULES } from '#core/laboratory';
import { currentSchemaVersion, upcast } from '#core/ledger';
import type { CertifiedMolarity } from '#core/reagent';
import { takeFromRun } from '#core/reagent';
import { enteredAt, isTimeDoubtful } from './fact';
import { idOf } from '../test-support/stored';
import { upcastBy } from './upcast';

const fact: Fact = {
  id: idOf('f'),
  recordId: idOf('r'),
  recordKind: 'run',
  kind: 'run.sample',
  schemaVersion: 1,
  body: { reading: '7.10' },
  authorId: idOf('p'),
  deviceId: null,
  clockOffsetMs: null,
  deviceTime: '2026-01-01T08:00:00.000Z',
  basedOn: null,
  sequence: 1,
  recordedAt: '2026-01-01T08:00:00.000Z',
};
const steps = [
  (body: unknown) => ({ readingMl: (body as { reading: string }).reading }),
  (body: unknown) => ({ ...(body as object), edge: 'bottom' }),
];

test('an old fact passes through every later shape, a newer one is refused', () => {
  expect(upcastBy(fact, steps)).toMatchObject({
    schemaVersion: 3,
    body: { readingMl: '7.10', edge: 'bottom' },
  });
  expect(upcastBy({ ...fact, schemaVersion: 2, body: { readingMl: '7.10' } }, steps).body).toEqual({
    readingMl: '7.10',
    edge: 'bottom',
  });
  expect(() => upcastBy({ ...fact, schemaVersion: 4 }, steps)).toThrow(/newer program/);
});

test('the time of entry is the device clock set right, never after the record; unmeasured, it is the record', () => {
  const at = (changes: Partial<Fact>): string =>
    enteredAt({ ...fact, recordedAt: '2026-01-01T12:00:00.000Z', ...changes });
  expect(at({})).toBe('2026-01-01T12:00:00.000Z');
  // Made away from the network, on a clock that is two hours behind.
  const behind = { deviceTime: '2026-01-01T08:00:00.000Z', clockOffsetMs: 7_200_000 };
  expect(at(behind)).toBe('2026-01-01T10:00:00.000Z');
  expect(at({ ...behind, clockOffsetMs: 86_400_000 })).toBe('2026-01-01T12:00:00.000Z');
  expect(at({ ...behind, recordedAt: null })).toBe('2026-01-01T10:00:00.000Z');
  expect(at({ recordedAt: null })).toBe(fact.deviceTime);
});

test('a clock is believed 30 days back and a day ahead, with what it was off; else the record counts', () => {
  const DAY = 24 * 3_600_000;
  const recordedAt = '2026-03-02T12:00:00.000Z';
  const off = (ms: number, clockOffsetMs = 0) => ({
    deviceTime: new Date(Date.parse(recordedAt) + ms - clockOffsetMs).toISOString(),
    clockOffsetMs,
    recordedAt,
  });
  for (const [ms, isDoubtful] of [
    [-30 * DAY, false],
    [-30 * DAY - 1, true],
    [DAY, false],
    [DAY + 1, true],
  ] as const) {
    for (const offset of [0, 90 * DAY, -90 * DAY]) {
      const fact = off(ms, offset);
      expect(isTimeDoubtful(fact), `${String(ms)} ${String(offset)}`).toBe(isDoubtful);
      if (isDoubtful) expect(enteredAt(fact)).toBe(recordedAt);
    }
  }
  expect(isTimeDoubtful({ ...off(-90 * DAY), recordedAt: null })).toBe(false);
  // A device that never measured its clock may be found out all the same.
  expect(isTimeDoubtful({ ...off(-90 * DAY), clockOffsetMs: null })).toBe(true);
});

test('a bottle of before there were parents keeps its lot as the one it was made from', () => {
  const old = { ...fact, kind: 'bottle.prepared', body: { code: '0417', lotId: 'n' } };
  expect(upcast(old)).toMatchObject({
    schemaVersion: currentSchemaVersion('bottle.prepared'),
    body: { code: '0417', purpose: 'titrant', parents: [{ kind: 'lot', id: 'n' }], made: null },
  });
  expect(upcast({ ...fact, kind: 'lot.registered', body: { lotNumber: 'K' } }).body).toEqual({
    lotNumber: 'K',
    dissolved: null,
    amountReceived: null,
    store: '',
    openedOn: null,
  });
});

test('a molarity that was kept as its label states it says that nothing more is known, and takes what its run computed', () => {
  const stated = { molarity: '0.1000', expandedUncertainty: '0.0013', coverageFactor: '4.30' };
  const made = { ...fact, kind: 'bottle.prepared', schemaVersion: 2, body: { made: stated } };
  expect(upcast(made).body).toEqual({ made: { ...stated, unrounded: null } });
  expect(upcast({ ...made, body: { made: null } }).body).toEqual({ made: null });
  const body = { ...stated, certificateNumber: '0415-2' };
  const certified = upcast({ ...fact, kind: 'bottle.certified', body }).body as CertifiedMolarity;
  expect(certified).toEqual({ ...body, unrounded: null, corrections: null });
  const unrounded = { molarity: 0.100041, standardUncertainty: 0.000302 };
  const figures = {
    effectiveDegreesOfFreedom: 2,
    restsOn: [{ id: 'lot:khp/purity@1', part: 0.9 }],
  };
  const certificate = { number: '0415-2', unrounded, ...figures, corrections: null };
  const known = { ...certified, unrounded: { ...unrounded, ...figures } };
  expect(takeFromRun(certified, certificate)).toEqual(known);
  // Neither another certificate's figures, nor others than those it carries itself.
  expect(takeFromRun(certified, { ...certificate, number: '0415-1' })).toBe(certified);
  expect(takeFromRun(known, { ...certificate, effectiveDegreesOfFreedom: 5 })).toBe(known);
});

test('a run of before there were aliquots keeps its lot as what was weighed, and every rule as the bench had it', () => {
  const rules = {
    concordanceRelativeRangePercent: '0.3',
    agreeAtLeast: 3,
    titrationsAtMost: 6,
    firstIsRough: true,
    readingDecimals: 2,
    rinses: 3,
    rinseMl: '4',
    farFromNominalAskPercent: '5',
    farFromNominalReasonPercent: '10',
    nominalTolerancePercent: '5',
  };
  const old = { methodId: 'naoh-by-khp', lot: 'n', balance: 'b', burette: 'g', rules };
  expect(upcast({ ...fact, kind: 'run.started', body: old })).toMatchObject({
    schemaVersion: currentSchemaVersion('run.started'),
    body: {
      method: { kind: 'catalogue', id: 'naoh-by-khp' },
      standard: { kind: 'lot', lot: 'n', balance: 'b' },
      excess: null,
      burette: 'g',
      rules: { agreeAtLeast: 3, readingResolutionMl: '0.01', overshotCounts: 'within-a-drop' },
    },
  });
  const replicates = [{ flask: 1, massG: '0.4802', verdict: 'rough' }];
  const certificate = {
    number: '0417-1',
    standardLot: 'K-22',
    balance: 'B1',
    rules,
    replicates,
    analystId: 'ines',
  };
  const { body } = upcast({ ...fact, kind: 'run.certified', body: { certificate } });
  expect(body).toMatchObject({
    certificate: {
      standard: 'lot K-22',
      measuredWith: 'B1',
      replicates: [{ flask: 1, portion: '0.4802 g', verdict: 'rough' }],
      analystIds: ['ines'],
      deviations: [],
    },
  });
  const { body: written } = upcast({
    ...fact,
    kind: 'method.written',
    body: { method: { id: 'own' } },
  });
  expect(written).toEqual({ method: { id: 'own', excess: null } });
  const { body: set } = upcast({
    ...fact,
    kind: 'laboratory.rules-set',
    body: { rules: { ...rules, rinses: 5 } },
  });
  expect(set).toMatchObject({ rules: { rinses: 5, paperUnits: 'litre', testedBy: 'concordance' } });
  const source = { kind: 'concentrate', takeMl: '8.28' };
  const { body: plan } = upcast({ ...fact, kind: 'preparation.started', body: { source } });
  expect(plan).toEqual({
    source: { ...source, flaskId: null },
    carbonDioxide: 'boiled',
    recipeEdition: 1,
    corrections: {
      volumeCorrection: 'carried',
      referenceTemperatureC: '20',
      buoyancyCorrection: 'left-out',
    },
    thermometerId: null,
  });
  // Every rule of today is there, so that what was certified can be computed again.
  const { rules: today } = (body as { certificate: { rules: object } }).certificate;
  expect(Object.keys(today).toSorted()).toEqual(Object.keys(DEFAULT_HOUSE_RULES).toSorted());
});
