import { describe, expect, test } from 'vitest';
import { equivalentsOfTitrant } from '#core/chemistry';
import type { HouseRules } from '#core/laboratory';
import { DEFAULT_HOUSE_RULES } from '#core/laboratory';
import type { RunReferences } from './index';
import { concordantSeries, khpLot, methodOf, references, RunScript } from '../test-support/runs';
import {
  adviceAgainst,
  certificationFindings,
  issueCertificate,
  judgeRun,
  outOfUse,
  outOfUseFindings,
} from './index';

const decision = {
  number: '0417-1',
  certifiedById: 'mirela',
  certifiedOn: '2026-03-02',
  validUntil: '2026-03-20',
  reason: null,
};

/** Three titrations whose mean is near 0.1000 mol/L; `spreadMl` sets the last apart. */
function series(
  changes: Partial<HouseRules>,
  given: RunReferences = references(),
  spreadMl = 0,
): RunScript {
  const rules = { ...DEFAULT_HOUSE_RULES, firstIsRough: false, ...changes };
  return new RunScript(given, { rules })
    .titrate(1, '0.4800', '0.00', '23.50')
    .titrate(2, '0.4800', '0.00', '23.52')
    .titrate(3, '0.4800', '0.00', (23.51 + spreadMl).toFixed(2));
}

function codesOf({ state }: RunScript): readonly string[] {
  return certificationFindings(state, judgeRun(state), decision).map(({ code }) => code);
}

describe('what tests a result', () => {
  const apart = (changes: Partial<HouseRules>, given?: RunReferences) =>
    codesOf(series(changes, given, 0.6));
  const known = (molarity: string): RunReferences => {
    const { bottle, ...rest } = references();
    const made = { molarity, expandedUncertainty: '0.0002', coverageFactor: '2.00' };
    return { ...rest, bottle: { ...bottle, made } };
  };

  test('agreement by default; by the label only how far it is from that', () => {
    expect(apart({})).toEqual(['not-concordant']);
    expect(apart({ testedBy: 'label' })).toEqual([]);
    expect(apart({ testedBy: 'label', farFromNominalAskPercent: '0.5' })).toEqual(['off-accepted']);
  });

  test('by the value accepted before, where there is one', () => {
    const rule = { testedBy: 'accepted-value', farFromNominalAskPercent: '1' } as const;
    expect(apart(rule)).toEqual(['no-accepted-value']);
    expect(apart(rule, known('0.0995'))).toEqual([]);
    expect(apart(rule, known('0.0970'))).toEqual(['off-accepted']);
  });
});

test('a tolerance is distributed as the house takes it: rectangular is wider by the root of two', () => {
  const tolerance = (changes: Partial<HouseRules>): number =>
    judgeRun(series(changes).state).result?.evaluation.budget.find(
      ({ input }) => input.effect === 'Burette tolerance',
    )?.contribution ?? 0;
  const asRegistered = Math.abs(tolerance({}));
  expect(Math.abs(tolerance({ toleranceAs: 'triangular' }))).toBeCloseTo(asRegistered, 12);
  expect(Math.abs(tolerance({ toleranceAs: 'rectangular' })) / asRegistered).toBeCloseTo(
    Math.SQRT2,
    9,
  );
});

describe('normality', () => {
  test.each([
    ['naoh-by-khp', 1],
    ['naoh-by-oxalic-acid', 1],
    ['hydrochloric-acid-by-sodium-carbonate', 1],
    ['sulfuric-acid-by-sodium-carbonate', 2],
    ['permanganate-by-sodium-oxalate', 5],
    ['permanganate-by-iron-ii', 5],
    ['dichromate-by-iron-ii', 6],
    ['iron-ii-by-dichromate', 1],
    ['thiosulfate-by-iodate', 1],
    ['iodine-by-thiosulfate', 2],
    ['cerium-iv-by-sodium-oxalate', 1],
    ['ammonia-by-excess-of-acid', 1],
  ])('%s: %d equivalents in a mole', (methodId, equivalents) => {
    expect(equivalentsOfTitrant(methodOf(methodId))).toBe(equivalents);
  });

  test('is on the certificate where the house rule states it, to as many decimals', () => {
    const certificate = (changes: Partial<HouseRules>) => {
      const { state } = series(changes);
      return issueCertificate(state, judgeRun(state), decision);
    };
    expect(certificate({}).normality).toBeNull();
    const { normality, molarity } = certificate({ statesNormality: true });
    expect(normality).toEqual({ value: molarity, equivalentsPerMole: 1 });
  });
});

test('dichromate is advised to be weighed, unless the house standardizes it', () => {
  const { bottle } = references();
  const given = (substanceId: string, methodId: string) => ({
    bottle: { ...bottle, substanceId },
    method: methodOf(methodId),
  });
  const dichromate = given('potassium-dichromate', 'dichromate-by-iron-ii');
  expect(adviceAgainst(dichromate, DEFAULT_HOUSE_RULES)).toMatch(
    /dichromate is itself the standard/,
  );
  const titrated = { ...DEFAULT_HOUSE_RULES, primaryTitrants: 'titrated' } as const;
  expect(adviceAgainst(dichromate, titrated)).toBeNull();
  const hydroxide = given('sodium-hydroxide', 'naoh-by-khp');
  const iron = given('ammonium-iron-ii-sulfate-hexahydrate', 'iron-ii-by-dichromate');
  for (const other of [hydroxide, iron]) {
    expect(adviceAgainst(other, DEFAULT_HOUSE_RULES)).toBeNull();
  }
});

test('what goes out of use while a run is made is named, and asks for a reason; the rest of the shelf does not', () => {
  const { setUp } = concordantSeries().state;
  const withdrawn = { reason: 'recalled', by: 'ines', at: '2026-03-02T09:00:00.000Z', factId: 'w' };
  const lot = { ...khpLot(), withdrawn };
  const other = { ...lot, id: 'lot-other' };
  const now = { bottles: [], lots: [other, lot], equipment: [] };
  expect(outOfUse(setUp, now)).toEqual(['Lot K-22 is out of use: recalled']);
  expect(outOfUseFindings(setUp, now)).toMatchObject([
    { code: 'out-of-use', severity: 'unlikely' },
  ]);
  expect(outOfUse(setUp, { ...now, lots: [other, khpLot()] })).toEqual([]);
});
