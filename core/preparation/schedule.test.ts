import fc from 'fast-check';
import { expect, test } from 'vitest';
import { KHP_PLAN } from '../test-support/preparations';
import type { Job, Limits, Placed, Task } from './index';
import { durationsOf, scheduleBackwards, stepsOf, tasksOf } from './index';

const LIMITS: Limits = { people: 1, hotPlates: 1, ovens: 1, workday: [7 * 60, 17 * 60] };

function task(id: string, handsMinutes: number, waitMinutes = 0, on: Task['waitsOn'] = null): Task {
  return { id, title: id, handsMinutes, waitMinutes, waitsOn: on };
}

function minutes(local: string): number {
  return Date.parse(`${local}:00Z`) / 60_000;
}

test('a dried standard needed by 15:00 is put into the oven in the morning of the same day', () => {
  const tasks = tasksOf(stepsOf(KHP_PLAN), false);
  expect(durationsOf(tasks)).toEqual({ hands: 47, total: 217 });
  const job = { id: 'k', name: 'KHP', tasks, due: '2026-03-05T15:00' };
  const placed = scheduleBackwards([job], LIMITS);
  expect(placed[0]?.task.id).toBe('dry');
  expect(placed[0]?.begins).toMatch(/^2026-03-05T1[01]/);
  expect((placed.at(-1)?.ends ?? '') <= job.due).toBe(true);
});

test('what would begin before the working day begins the day before, and waits through the night', () => {
  const job = {
    id: 'p',
    name: 'permanganate',
    tasks: [task('dissolve', 20), task('stand', 1, 12 * 60), task('filter', 15)],
    due: '2026-03-05T08:00',
  };
  const [dissolve, stand, filter] = scheduleBackwards([job], LIMITS);
  expect(filter?.begins).toBe('2026-03-05T07:45');
  expect(stand?.begins.slice(0, 10)).toBe('2026-03-04');
  expect(minutes(stand?.begins ?? '')).toBeLessThanOrEqual(minutes('2026-03-04T17:00'));
  expect(dissolve && stand && dissolve.ends <= stand.begins).toBe(true);
});

/** How many of some intervals lie over an instant at most. */
function mostAtOnce(intervals: readonly (readonly [number, number])[]): number {
  return Math.max(
    0,
    ...intervals.map(([at]) => intervals.filter(([from, to]) => from <= at && at < to).length),
  );
}

test('whatever the jobs: in order, in time, in working hours, within people, hot plates and ovens', () => {
  const tasks = fc.array(
    fc.record({
      handsMinutes: fc.integer({ min: 1, max: 60 }),
      waitMinutes: fc.integer({ min: 0, max: 200 }),
      waitsOn: fc.constantFrom('hot-plate', 'oven', null),
    }),
    { minLength: 1, maxLength: 6 },
  );
  const limits = fc.record({
    people: fc.integer({ min: 1, max: 3 }),
    hotPlates: fc.integer({ min: 1, max: 2 }),
    ovens: fc.integer({ min: 1, max: 2 }),
  });
  const hour = fc.integer({ min: 8, max: 16 });
  fc.assert(
    fc.property(
      fc.array(fc.tuple(tasks, hour), { minLength: 1, maxLength: 4 }),
      limits,
      (given, most) => {
        const jobs = given.map(([list, dueHour], i): Job => ({
          id: String(i),
          name: String(i),
          tasks: list.map((one, at) => ({ ...one, id: String(at), title: '' })),
          due: `2026-03-05T${String(dueHour).padStart(2, '0')}:00`,
        }));
        const placed = scheduleBackwards(jobs, { ...LIMITS, ...most });
        for (const job of jobs) {
          const own = job.tasks.map((one) =>
            placed.find(({ jobId, task: { id } }) => jobId === job.id && id === one.id),
          );
          own.forEach((one, i) => {
            const next = own[i + 1];
            expect(one && one.ends <= (next?.begins ?? job.due)).toBe(true);
          });
        }
        for (const { begins, handsEnd } of placed) {
          const minuteOfDay = minutes(begins) % 1440;
          expect(minuteOfDay).toBeGreaterThanOrEqual(LIMITS.workday[0]);
          expect(minuteOfDay + minutes(handsEnd) - minutes(begins)).toBeLessThanOrEqual(
            LIMITS.workday[1],
          );
        }
        const hands = placed.map((one) => [minutes(one.begins), minutes(one.handsEnd)] as const);
        expect(mostAtOnce(hands)).toBeLessThanOrEqual(most.people);
        const waiting = (on: Task['waitsOn']) =>
          placed
            .filter((one: Placed) => one.task.waitsOn === on && one.ends > one.handsEnd)
            .map((one) => [minutes(one.handsEnd), minutes(one.ends)] as const);
        expect(mostAtOnce(waiting('hot-plate'))).toBeLessThanOrEqual(most.hotPlates);
        expect(mostAtOnce(waiting('oven'))).toBeLessThanOrEqual(most.ovens);
      },
    ),
    { numRuns: 60 },
  );
});
