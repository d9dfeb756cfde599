import { DEFAULT_SETTINGS } from '../laboratory';
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

test('a laboratory that is slower at the balance and quicker at the burette plans by its own minutes', () => {
  const pace = { ...DEFAULT_SETTINGS, weighMinutes: 25, seriesMinutes: 60 };
  const usual = durationsOf(tasksOf(stepsOf(KHP_PLAN), true, DEFAULT_SETTINGS)).hands;
  expect(durationsOf(tasksOf(stepsOf(KHP_PLAN), true, pace)).hands).toBe(usual + 15 - 30);
});

test('a dried standard needed by 15:00 is put into the oven in the morning of the same day', () => {
  const tasks = tasksOf(stepsOf(KHP_PLAN), false, DEFAULT_SETTINGS);
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

test.each<[string, Partial<Limits>, Task['waitsOn'], readonly string[]]>([
  ['one oven dries one after the other', {}, 'oven', ['12:55', '13:55']],
  ['two ovens and one person: five minutes apart', { ovens: 2 }, 'oven', ['13:50', '13:55']],
  ['two ovens and two people: together', { ovens: 2, people: 2 }, 'oven', ['13:55', '13:55']],
  [
    'one hot plate boils one after the other',
    { ovens: 2, people: 2 },
    'hot-plate',
    ['12:55', '13:55'],
  ],
  [
    'what waits on nothing is begun by two people together',
    { people: 2 },
    null,
    ['13:55', '13:55'],
  ],
])('as late as may be: %s', (_what, limits, on, begins) => {
  const job = (id: string): Job => ({
    ...{ id, name: id, tasks: [task('dry', 5, 60, on)], due: '2026-03-05T15:00' },
  });
  const placed = scheduleBackwards([job('a'), job('b')], { ...LIMITS, ...limits });
  expect(placed.map((one) => one.begins.slice(11))).toEqual(begins);
});

test('hands work from the first to the last minute of the day, on full five minutes', () => {
  const begins = (handsMinutes: number, due: string) =>
    scheduleBackwards(
      [{ id: 'a', name: 'a', tasks: [task('weigh', handsMinutes)], due }],
      LIMITS,
    )[0]?.begins;
  expect(begins(30, '2026-03-05T07:30')).toBe('2026-03-05T07:00');
  expect(begins(30, '2026-03-05T07:29')).toBe('2026-03-04T16:30');
  expect(begins(30, '2026-03-05T20:00')).toBe('2026-03-05T16:30');
  expect(begins(28, '2026-03-05T15:00')).toBe('2026-03-05T14:30');
  expect(begins(600, '2026-03-05T17:00')).toBe('2026-03-05T07:00');
});

test('of two jobs the one that is due last is placed first, and a titrant is titrated at its end', () => {
  const job = (id: string, due: string): Job => ({ id, name: id, due, tasks: [task('weigh', 60)] });
  const placed = scheduleBackwards(
    [job('early', '2026-03-05T12:00'), job('late', '2026-03-05T12:30')],
    LIMITS,
  );
  expect(placed.map(({ jobId, begins }) => [jobId, begins.slice(11)])).toEqual([
    ['early', '10:30'],
    ['late', '11:30'],
  ]);
  const tasks = tasksOf(stepsOf(KHP_PLAN), true, DEFAULT_SETTINGS);
  expect(tasks.at(-1)).toMatchObject({ id: 'titrate', waitMinutes: 0, waitsOn: null });
  expect(
    tasks.filter(({ waitsOn }) => waitsOn !== null).map(({ id, waitsOn }) => [id, waitsOn]),
  ).toEqual([['dry', 'oven']]);
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
