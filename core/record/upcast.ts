import type { Fact } from './fact';

/** Turns the body of one schema version into that of the next. */
type UpcastStep = (body: unknown) => unknown;

/** For each kind of fact, the steps from version 1 to 2, 2 to 3 and so on. */
export type UpcastTable = Readonly<Record<string, readonly UpcastStep[]>>;

/** No body has changed its shape yet: every kind is at version 1. */
const UPCASTS: UpcastTable = {};

/** The schema version that this program writes for a kind of fact. */
export function currentSchemaVersion(kind: string, table: UpcastTable = UPCASTS): number {
  return (table[kind]?.length ?? 0) + 1;
}

/**
 * The fact in the shape that this program understands. The one place where old shapes are known.
 *
 * @throws RangeError when the fact was written by a newer program.
 */
export function upcast(fact: Fact, table: UpcastTable = UPCASTS): Fact {
  const current = currentSchemaVersion(fact.kind, table);
  if (fact.schemaVersion > current) {
    throw new RangeError(
      `${fact.kind} of schema version ${String(fact.schemaVersion)} was written by a newer program; this one knows ${String(current)}`,
    );
  }
  const steps = (table[fact.kind] ?? []).slice(fact.schemaVersion - 1);
  const body = steps.reduce((older, step) => step(older), fact.body);
  return { ...fact, schemaVersion: current, body };
}
