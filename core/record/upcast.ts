import type { Fact } from './fact';

/** Turns the body of one schema version into that of the next. */
type UpcastStep = (body: unknown) => unknown;

/** For each kind of fact, the steps from version 1 to 2, 2 to 3 and so on. */
export type UpcastTable = Readonly<Record<string, readonly UpcastStep[]>>;

/** The shapes that bodies had before, by kind. */
const UPCASTS: UpcastTable = {
  'lot.registered': [toLotWithAmount],
  'bottle.prepared': [toBottleWithParents],
};

/** Lots were solids of which nobody counted how much there was. */
function toLotWithAmount(body: unknown): unknown {
  return { ...(body as object), dissolved: null, amountReceived: null, store: '', openedOn: null };
}

/** Bottles were titrants, written down with the one lot that they were made from. */
function toBottleWithParents(body: unknown): unknown {
  const { lotId, ...rest } = body as { readonly lotId: string };
  return {
    ...rest,
    purpose: 'titrant',
    parents: [{ kind: 'lot', id: lotId }],
    preparationId: null,
    made: null,
    plausibleMolarity: null,
    dilutionFactor: null,
    useBy: null,
  };
}

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
