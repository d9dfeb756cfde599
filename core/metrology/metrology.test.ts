import { describe, expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import { combineComponents, decimalText } from '#core/measurement';
import { balance, burette } from '../test-support/runs';
import { stored, idOf } from '../test-support/stored';
import type { Balance, EquipmentState } from './index';
import { temperatureDeviation } from './temperature';
import {
  buretteReading,
  volumeTolerance,
  endPointWithin,
  EQUIPMENT_RECORD,
  isCalibrationOverdue,
  weighingLinearity,
  weighingRepeatability,
} from './index';

const piston = { ...burette, construction: 'piston', divisionMl: '0.01' } as const;

describe('standard uncertainties of the instruments', () => {
  test.each([
    ['repeatability of two weighings', weighingRepeatability(balance), Math.SQRT2 * 0.0001],
    [
      'linearity, once for each weighing',
      weighingLinearity(balance),
      (Math.SQRT2 * 0.0002) / Math.sqrt(3),
    ],
    ['a tolerance of 0.05 mL, triangular', volumeTolerance(burette), 0.05 / Math.sqrt(6)],
    ['a meniscus between tenths, triangular', buretteReading(burette), 0.02 / Math.sqrt(6)],
    [
      'the last step of a display, rectangular',
      buretteReading(stored(piston)),
      0.005 / Math.sqrt(3),
    ],
    ['half a drop either way, rectangular', endPointWithin(0.025), 0.025 / Math.sqrt(3)],
    ['20 °C within 3 K (95 %)', temperatureDeviation(20, 3), 3 / 1.959964],
    ['25 °C, not corrected', temperatureDeviation(25, 3), Math.hypot(3 / 1.959964, 5)],
    ['15 °C, not corrected', temperatureDeviation(15, 0), 5],
  ])('%s', (_, components, expected) => {
    expect(combineComponents(components)).toBeCloseTo(expected, 6);
  });

  test('a tolerance is spread as its maker or certificate says', () => {
    const spread = (toleranceDistribution: typeof burette.toleranceDistribution) =>
      combineComponents(volumeTolerance({ ...burette, toleranceDistribution }));
    expect(spread('rectangular')).toBeCloseTo(0.05 / Math.sqrt(3), 9);
    expect(spread('normal')).toBeCloseTo(0.05 / 1.959964, 6);
  });

  test('a balance whose repeatability is below its display is as good as its display', () => {
    const coarse: Balance = {
      ...balance,
      repeatabilityG: decimalText('0'),
      readabilityG: decimalText('0.01'),
    };
    expect(combineComponents(weighingRepeatability(coarse))).toBeCloseTo(
      (Math.SQRT2 * 0.005) / Math.sqrt(3),
      9,
    );
  });
});

test('a calibration is overdue from the day after its due date', () => {
  const due = { ...balance, calibrationDue: '2026-03-02' };
  expect(isCalibrationOverdue(stored(due), plainDate('2026-03-02'))).toBe(false);
  expect(isCalibrationOverdue(stored(due), plainDate('2026-03-03'))).toBe(true);
  expect(isCalibrationOverdue({ ...due, calibrationDue: null }, plainDate('2099-01-01'))).toBe(
    false,
  );
});

test('equipment is what its first fact says', () => {
  expect(EQUIPMENT_RECORD.fold([])).toBeNull();
  const state: EquipmentState | null = EQUIPMENT_RECORD.fold([
    {
      id: idOf('f1'),
      recordId: idOf('e1'),
      recordKind: 'equipment',
      kind: 'equipment.registered',
      schemaVersion: 1,
      body: balance,
      authorId: idOf('ines'),
      deviceId: null,
      clockOffsetMs: null,
      deviceTime: '2026-03-02T08:00:00.000Z',
      basedOn: null,
      sequence: 1,
      recordedAt: '2026-03-02T08:00:01.000Z',
    },
  ]);
  expect(state).toMatchObject({ id: 'e1', version: 1, equipment: { name: 'B1' } });
  expect(state?.registered).toEqual({ factId: 'f1', by: 'ines', at: '2026-03-02T08:00:01.000Z' });
});
