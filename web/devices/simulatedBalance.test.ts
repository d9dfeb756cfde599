import { expect, test } from 'vitest';
import { balance } from '../../core/test-support/runs';
import { SimulatedBalance } from './simulatedBalance';

function standIn(): SimulatedBalance {
  let last = 0;
  // Evenly spread and always the same: steps of the golden section.
  return new SimulatedBalance(balance, () => (last = (last + 0.618034) % 1));
}

function wait(of: SimulatedBalance, ms: number): void {
  for (let passed = 0; passed < ms; passed += 100) of.advance(100);
}

test('it is unstable while it settles and while the doors are open, and stands still afterwards', () => {
  const of = standIn();
  of.load(5.1066);
  of.advance(100);
  expect(of.reading.isStable).toBe(false);
  wait(of, 10_000);
  expect(of.areDoorsOpen).toBe(true);
  expect(of.reading.isStable).toBe(false);
  of.moveDoors(false);
  wait(of, 6_000);
  expect(of.reading).toMatchObject({
    isStable: true,
    massG: expect.stringMatching(/^5\.10\d\d$/) as string,
  });
  expect(Number(of.reading.massG)).toBeCloseTo(5.1066, 3);
});

test('tared, it shows what is added; taken off, less; more than it carries, nothing', () => {
  const of = standIn();
  of.load(12.4);
  of.moveDoors(false);
  wait(of, 6_000);
  of.tare();
  wait(of, 3_000);
  expect(Number(of.reading.massG)).toBeCloseTo(0, 3);
  of.load(0.5);
  of.load(-0.1);
  of.moveDoors(false);
  wait(of, 6_000);
  expect(Number(of.reading.massG)).toBeCloseTo(0.4, 3);
  of.load(500);
  wait(of, 1_000);
  expect(of.reading).toEqual({ massG: null, isStable: false });
});

test('whoever listens is told at once and at every change, until they leave', () => {
  const of = standIn();
  const heard: (string | null)[] = [];
  const leave = of.subscribe(({ massG }) => heard.push(massG));
  of.load(1);
  of.advance(100);
  leave();
  of.advance(100);
  expect(heard).toHaveLength(2);
});
