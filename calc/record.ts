import * as v from 'valibot';
import { Unanswerable } from '#core/problem';
import { CHEMISTRY_TASKS } from './tasks/chemistry';
import { CURVE_TASKS } from './tasks/curves';
import { DETERMINATION_TASKS } from './tasks/determinations';
import { JUDGEMENT_TASKS } from './tasks/judgement';
import { METROLOGY_TASKS } from './tasks/metrology';
import { PREPARATION_TASKS } from './tasks/preparation';
import { STATISTICS_TASKS } from './tasks/statistics';
import type { Json, Task } from './tasks/task';
import { UNCERTAINTY_TASKS } from './tasks/uncertainty';

/** Every kind of record. */
export const TASKS: readonly Task[] = [
  ...CHEMISTRY_TASKS,
  ...PREPARATION_TASKS,
  ...DETERMINATION_TASKS,
  ...JUDGEMENT_TASKS,
  ...UNCERTAINTY_TASKS,
  ...STATISTICS_TASKS,
  ...CURVE_TASKS,
  ...METROLOGY_TASKS,
];

const TASK_BY_NAME = new Map(TASKS.map((task) => [task.name, task]));

/** What became of a record: its results, or why there are none. */
export type Outcome =
  | { readonly kind: 'results'; readonly results: Json }
  | {
      readonly kind: 'refused';
      /** `invalid` for what does not fit the format, else the kind of problem that core names. */
      readonly problem: string;
      /** Path of the field at fault, in the record's own words. */
      readonly field: string;
      readonly sentence: string;
    };

/** Computes a record of the open format. Unknown keys are left aside; `unknownKeys` tells them. */
export function calculate(record: unknown): Outcome {
  const name = isObject(record) ? record.task : undefined;
  const task = typeof name === 'string' ? TASK_BY_NAME.get(name) : undefined;
  if (!task) {
    const known = [...TASK_BY_NAME.keys()].join(', ');
    return refused('invalid', 'task', `It names what to compute, one of: ${known}.`);
  }
  try {
    return { kind: 'results', results: task.compute(record) };
  } catch (error) {
    if (error instanceof Unanswerable) {
      return refused(error.kind, fieldInRecord(error.field, record), error.message);
    }
    if (error instanceof v.ValiError) {
      const [issue] = error.issues as [v.BaseIssue<unknown>];
      const sentence =
        issue.received === 'undefined' ? 'It is needed here and missing.' : `${issue.message}.`;
      return refused('invalid', v.getDotPath(issue) ?? 'record', sentence);
    }
    throw error;
  }
}

/** Keys of a record, at its first level, that its task does not know: most often a slip of the pen. */
export function unknownKeys(record: unknown): readonly string[] {
  const task = isObject(record) ? TASK_BY_NAME.get(String(record.task)) : undefined;
  if (!task || !isObject(record)) return [];
  const known = new Set([...Object.keys(task.schema.entries), 'format', 'version']);
  return Object.keys(record).filter((key) => !known.has(key));
}

function refused(problem: string, field: string, sentence: string): Outcome {
  return { kind: 'refused', problem, field, sentence };
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** The record's key for an input that core names: `volumeMl` is found as `volume_mL`, or `temperatureC` in `temperatures_degC`. */
function fieldInRecord(field: string, record: unknown): string {
  if (field.includes('_')) return field;
  const plain = (key: string): string => key.replaceAll('_', '').toLowerCase();
  const stem = plain(field.replace(/(Ml|C)$/, ''));
  const keys = allKeys(record);
  return (
    keys.find((key) => plain(key) === plain(field)) ??
    keys.find((key) => plain(key).includes(plain(field))) ??
    keys.find((key) => plain(key).startsWith(stem)) ??
    field.replace(/Ml$/, '_mL').replace(/(?<!_m)[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)
  );
}

function allKeys(value: unknown): readonly string[] {
  if (Array.isArray(value)) return value.flatMap(allKeys);
  return isObject(value)
    ? Object.entries(value).flatMap(([key, inner]) => [key, ...allKeys(inner)])
    : [];
}
