import * as v from 'valibot';
import type { Id, PlainDate } from '#core/grammar';
import { isPlainDate } from '#core/grammar';
import type { DecimalText } from '#core/measurement';
import { parseDecimal } from '#core/measurement';

/** A schema whose output is exactly a type of core, checked by the compiler. */
export type SchemaOf<T> = v.GenericSchema<unknown, T>;

/** Text that PostgreSQL can store and a label can show: no control characters, no half surrogates. */
function storable(text: string): boolean {
  return !/[\p{Cc}\p{Cs}]/u.test(text.replaceAll('\n', ''));
}

function text(most: number, message: string) {
  return v.pipe(
    v.string(message),
    v.maxLength(most, `At most ${String(most)} characters.`),
    v.check(storable, 'Characters that cannot be written down are not allowed.'),
  );
}

/** What is said of a field with nothing in it; a form that knows its name says which. */
export const NOT_FILLED_IN = 'This must be filled in.';

/** A line that must be filled in. */
export const line = v.pipe(
  text(120, 'Write a short text.'),
  v.trim(),
  v.minLength(1, NOT_FILLED_IN),
);

/** A longer remark that may be empty. */
export const remark = v.pipe(text(2000, 'Write a text.'), v.trim());

/** Whether a text has at least three different letters: "xxx", "..." and "123" give no reason. */
function saysSomething(text: string): boolean {
  return new Set(text.toLowerCase().match(/\p{L}/gu) ?? []).size >= 3;
}

/** A reason: a remark that must say something. */
export const reason = v.pipe(
  text(2000, 'Write a reason.'),
  v.trim(),
  v.check(saysSomething, 'Say why, in a few words.'),
);

/** The schema of a stored grammar: here, once, what it has checked becomes such a text. */
function storedAs<Text extends string>(schema: v.GenericSchema<string>) {
  return schema as v.GenericSchema<string, Text>;
}

/** A number as typed, decimal point only: what the browser sends after reading a comma. */
export const decimal = storedAs<DecimalText>(
  v.pipe(
    v.string('Write a number.'),
    v.minLength(1, NOT_FILLED_IN),
    v.check((typed) => parseDecimal(typed) === typed, 'Write a plain number, such as 7.10.'),
  ),
);

/** A number of 0 or more. */
export const nonNegativeDecimal = v.pipe(
  decimal,
  v.check((typed) => Number(typed) >= 0, 'It cannot be negative.'),
);

/** A number above 0. */
export const positiveDecimal = v.pipe(
  decimal,
  v.check((typed) => Number(typed) > 0, 'It must be more than 0.'),
);

/** A number from 0 up to a limit that comes from nature or from the instrument's kind. */
export function decimalUpTo(most: number, message: string) {
  return v.pipe(
    positiveDecimal,
    v.check((typed) => Number(typed) <= most, message),
  );
}

/** A whole number within bounds. */
export function count(least: number, most: number) {
  return v.pipe(
    v.number('Write a whole number.'),
    v.integer('Write a whole number.'),
    v.minValue(least, `At least ${String(least)}.`),
    v.maxValue(most, `At most ${String(most)}.`),
  );
}

export const plainDate = storedAs<PlainDate>(
  v.pipe(
    v.string('Give a date.'),
    v.minLength(1, NOT_FILLED_IN),
    v.check(isPlainDate, 'Give a date as year-month-day.'),
  ),
);

/** A UUID as PostgreSQL gives it back: in lower case. What it would spell otherwise is refused, not rewritten. */
export const id = storedAs<Id>(
  v.pipe(
    v.string('An id is missing.'),
    v.uuid('This is not an id.'),
    v.check((text) => text === text.toLowerCase(), 'An id is written in lower case.'),
  ),
);

/** Greatest value of PostgreSQL's `integer`. */
const LARGEST_INTEGER = 2_147_483_647;

/** A whole number that a column of PostgreSQL's `integer` holds. */
export function storedInteger(least: number) {
  return v.pipe(
    v.number('Write a whole number.'),
    v.integer('Write a whole number.'),
    v.minValue(least, `At least ${String(least)}.`),
    v.maxValue(LARGEST_INTEGER, `At most ${String(LARGEST_INTEGER)}.`),
  );
}

/** Whether a text is what its own time is written as: a real day, no 24:00, in years that PostgreSQL and a date hold. */
function isInstant(text: string): boolean {
  const time = new Date(text);
  return !Number.isNaN(time.getTime()) && time.toISOString() === text && text > '1900';
}

export const instant = v.pipe(
  v.string('A time is missing.'),
  v.check(isInstant, 'Give the time in UTC with milliseconds, such as 2026-03-02T08:00:00.000Z.'),
);

/** A date and a time of day in the laboratory, without a zone. */
export const localMinute = v.pipe(
  v.string('Give a date and a time.'),
  v.check((text) => isInstant(`${text}:00.000Z`), 'Give a date and a time.'),
);

export const distribution = v.picklist(['rectangular', 'triangular', 'normal', 'arcsine']);

/** A record as it was at a version. */
export const recordVersion = v.strictObject({ id, version: storedInteger(1) });
