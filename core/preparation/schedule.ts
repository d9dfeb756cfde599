import type { Settings } from '../laboratory';
import type { Step } from './work';

/** How long each piece of work takes in a laboratory. */
export type PaceSettings = Pick<
  Settings,
  'weighMinutes' | 'dissolveMinutes' | 'filterMinutes' | 'procedureMinutes' | 'seriesMinutes'
>;

/**
 * How long a piece of work keeps somebody's hands busy, minutes, for planning a day: an estimate that serves everywhere, or the name of
 * what the laboratory has set.
 */
const HANDS: Readonly<Record<Step['work'], number | keyof PaceSettings>> = {
  dry: 5,
  cool: 1,
  boil: 5,
  draw: 3,
  weigh: 'weighMinutes',
  measure: 5,
  transfer: 5,
  dissolve: 'dissolveMinutes',
  add: 5,
  heat: 5,
  'to-room-temperature': 1,
  'to-mark': 5,
  mix: 3,
  stand: 1,
  filter: 'filterMinutes',
  procedure: 'procedureMinutes',
  bottle: 5,
  label: 2,
};

function handsMinutes(work: Step['work'], pace: PaceSettings): number {
  const hands = HANDS[work];
  return typeof hands === 'number' ? hands : pace[hands];
}

/** What a wait occupies. */
type Resource = 'hot-plate' | 'oven';

/** A piece of work: hands first, then a wait that needs nobody. */
export interface Task {
  readonly id: string;
  readonly title: string;
  readonly handsMinutes: number;
  readonly waitMinutes: number;
  readonly waitsOn: Resource | null;
}

/** What is left to do of one preparation, and by when. */
export interface Job {
  readonly id: string;
  readonly name: string;
  readonly tasks: readonly Task[];
  /** Local date and time in the laboratory, `2026-11-26T15:00`. */
  readonly due: string;
}

/** What limits a day. */
export interface Limits {
  readonly people: number;
  readonly hotPlates: number;
  readonly ovens: number;
  /** Hands work from this minute of the day to that. Waits may run through the night. */
  readonly workday: readonly [fromMinute: number, toMinute: number];
}

/** A task in its place. Local date and time. */
export interface Placed {
  readonly jobId: string;
  readonly jobName: string;
  readonly task: Task;
  readonly begins: string;
  /** When hands are free again and the wait begins. */
  readonly handsEnd: string;
  readonly ends: string;
}

/** The tasks of steps, in their order; a titrant is standardized when it is made. */
export function tasksOf(
  steps: readonly Step[],
  isToBeStandardized: boolean,
  pace: PaceSettings,
): readonly Task[] {
  const tasks = steps.map(({ id, work, text, waitMinutes }): Task => {
    const waitsOn =
      work === 'dry' ? 'oven' : work === 'boil' || work === 'heat' ? 'hot-plate' : null;
    return {
      id,
      title: text,
      handsMinutes: handsMinutes(work, pace),
      waitMinutes: waitMinutes ?? 0,
      waitsOn,
    };
  });
  return isToBeStandardized
    ? [
        ...tasks,
        {
          id: 'titrate',
          title: 'Titrate, judge, certify.',
          handsMinutes: pace.seriesMinutes,
          waitMinutes: 0,
          waitsOn: null,
        },
      ]
    : tasks;
}

/** Minutes that tasks take one after another: in all, and of hands. */
export function durationsOf(tasks: readonly Task[]): {
  readonly hands: number;
  readonly total: number;
} {
  const hands = tasks.reduce((sum, task) => sum + task.handsMinutes, 0);
  return { hands, total: tasks.reduce((sum, task) => sum + task.waitMinutes, hands) };
}

const MINUTE_MS = 60_000;
const DAY_MINUTES = 24 * 60;

/** Tasks begin at the full five minutes. */
const GRID_MINUTES = 5;

/** How far back a place is looked for. */
const FARTHEST_DAYS = 60;

/** Minutes of a local date and time on a scale without zones. */
function minutesOf(local: string): number {
  return Date.parse(`${local}:00Z`) / MINUTE_MS;
}

function localOf(minutes: number): string {
  return new Date(minutes * MINUTE_MS).toISOString().slice(0, 16);
}

interface Occupied {
  readonly from: number;
  readonly to: number;
}

/** Whether one more may run in an interval beside what is there. */
function hasRoom(occupied: readonly Occupied[], from: number, to: number, most: number): boolean {
  if (to <= from) return true;
  const inside = occupied.filter((one) => one.from < to && from < one.to);
  const instants = [from, ...inside.map((one) => Math.max(one.from, from))];
  return instants.every(
    (at) => inside.filter((one) => one.from <= at && at < one.to).length < most,
  );
}

/**
 * Places tasks backwards from when each job is due, as late as people, hot plates, ovens and working hours allow; the job that
 * is due last is placed first. In the order of beginning. Waits are at least as long as they must be.
 */
export function scheduleBackwards(jobs: readonly Job[], limits: Limits): readonly Placed[] {
  const hands: Occupied[] = [];
  const waits: Readonly<Record<Resource, Occupied[]>> = { 'hot-plate': [], oven: [] };
  const most: Readonly<Record<Resource, number>> = {
    'hot-plate': limits.hotPlates,
    oven: limits.ovens,
  };
  const [dayFrom, dayTo] = limits.workday;
  const isWorkable = (from: number, to: number): boolean => {
    const minute = ((from % DAY_MINUTES) + DAY_MINUTES) % DAY_MINUTES;
    return minute >= dayFrom && minute + (to - from) <= dayTo;
  };
  const placed: Placed[] = [];
  for (const job of jobs.toSorted((a, b) => b.due.localeCompare(a.due))) {
    let end = minutesOf(job.due);
    for (const task of job.tasks.toReversed()) {
      const { handsMinutes, waitMinutes, waitsOn } = task;
      let begin = end - handsMinutes - waitMinutes;
      begin -= ((begin % GRID_MINUTES) + GRID_MINUTES) % GRID_MINUTES;
      const earliest = begin - FARTHEST_DAYS * DAY_MINUTES;
      while (begin > earliest) {
        const free = begin + handsMinutes;
        const isFree =
          isWorkable(begin, free) &&
          hasRoom(hands, begin, free, limits.people) &&
          (waitsOn === null || hasRoom(waits[waitsOn], free, free + waitMinutes, most[waitsOn]));
        if (isFree) break;
        begin -= GRID_MINUTES;
      }
      const free = begin + handsMinutes;
      hands.push({ from: begin, to: free });
      if (waitsOn !== null) waits[waitsOn].push({ from: free, to: free + waitMinutes });
      placed.push({
        jobId: job.id,
        jobName: job.name,
        task,
        begins: localOf(begin),
        handsEnd: localOf(free),
        ends: localOf(free + waitMinutes),
      });
      end = begin;
    }
  }
  return placed.toSorted((a, b) => a.begins.localeCompare(b.begins));
}
