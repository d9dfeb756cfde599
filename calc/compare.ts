import type { Json } from './tasks/task';

/** How far a number may be off: |got - expected| <= max(absolute, relative x |expected|). */
interface Limit {
  readonly absolute?: number;
  readonly relative?: number;
}

/** The limit of a case, and others for some of its fields. */
export interface Tolerance extends Limit {
  /** By the last key, or the last keys joined with dots, of a path in what is expected. */
  readonly fields?: Readonly<Record<string, Limit>>;
}

/** A place where a result is compared with what was expected. */
export interface ComparedPlace {
  readonly path: string;
  readonly expected: Json;
  readonly got: Json;
  readonly limit: Limit;
  readonly isWithin: boolean;
  /** Deviation as a part of what is allowed; null for what is not a number, or must be equal. */
  readonly part: number | null;
}

/** Texts for people, which are not compared. */
const NOT_COMPARED = new Set(['detail', 'field', 'error_also_accepted']);

/** Compares everything that is expected with what was got; what was got beside it does not count. */
export function compare(expected: Json, got: Json, tolerance: Tolerance): readonly ComparedPlace[] {
  const places: ComparedPlace[] = [];
  const visit = (want: Json, have: Json, path: readonly string[], limit: Limit): void => {
    const here = limitAt(path, tolerance) ?? limit;
    const list = Array.isArray(have) ? (have as readonly Json[]) : [];
    if (Array.isArray(want) && list.length === want.length) {
      (want as readonly Json[]).forEach((item, i) => {
        visit(item, list[i] ?? null, path, here);
      });
    } else if (isObject(want)) {
      const object = isObject(have) ? have : {};
      for (const [key, inner] of Object.entries(want)) {
        if (NOT_COMPARED.has(key)) continue;
        const also = key === 'error' && accepts(want, object.error ?? null);
        visit(
          also ? (object.error ?? null) : (inner ?? null),
          object[key] ?? null,
          [...path, key],
          here,
        );
      }
    } else {
      places.push({
        path: path.join('.'),
        expected: want,
        got: have,
        limit: here,
        ...judge(want, have, here),
      });
    }
  };
  visit(expected, got, [], tolerance);
  return places;
}

function judge(want: Json, have: Json, limit: Limit): Pick<ComparedPlace, 'isWithin' | 'part'> {
  if (typeof want !== 'number' || typeof have !== 'number') {
    return { isWithin: want === have, part: null };
  }
  const allowed = Math.max(limit.absolute ?? 0, (limit.relative ?? 0) * Math.abs(want));
  const deviation = Math.abs(have - want);
  return { isWithin: deviation <= allowed, part: allowed > 0 ? deviation / allowed : null };
}

/** What was got, cut down to the keys that are expected. */
export function inShapeOf(expected: Json, got: Json): Json {
  if (Array.isArray(expected) && Array.isArray(got)) {
    return (got as Json[]).map((item, i) => inShapeOf((expected as Json[])[i] ?? null, item));
  }
  if (isObject(expected) && isObject(got)) {
    const keys = Object.keys(expected).filter((key) => key in got && key !== 'error_also_accepted');
    // A result where an error was expected, or the reverse, is shown as it is.
    if (keys.length === 0) return got;
    return Object.fromEntries(
      keys.map((key) => [key, inShapeOf(expected[key] ?? null, got[key] ?? null)]),
    );
  }
  return got;
}

function accepts(expected: Readonly<Record<string, Json | undefined>>, error: Json): boolean {
  const also = expected.error_also_accepted;
  return error === expected.error || (Array.isArray(also) && also.includes(error));
}

/** The limit named for a path, by the longest name that its last keys make; none inherits that of the level above. */
function limitAt(path: readonly string[], { fields = {} }: Tolerance): Limit | null {
  const named = path
    .map((_, from) => path.slice(from).join('.'))
    .find((name) => Object.hasOwn(fields, name));
  return named === undefined ? null : (fields[named] ?? null);
}

function isObject(value: Json): value is Readonly<Record<string, Json | undefined>> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
