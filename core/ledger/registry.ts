import { ENTRY_RECORD, METHOD_RECORD } from '../chemistry';
import { LABORATORY_RECORD } from '../laboratory';
import { EQUIPMENT_RECORD } from '../metrology';
import type { AroundPerson } from '../people';
import { PERSON_RECORD } from '../people';
import { PREPARATION_RECORD } from '../preparation';
import type { AroundBottle } from '../reagent';
import { BOTTLE_RECORD, LOT_RECORD } from '../reagent';
import type { Around, Fact, FactDefinition, Finding, Reference } from '../record';
import { checkMay, impossible, upcastBy } from '../record';
import type { Author } from '../rights';
import type { AroundSample } from '../sample';
import { SAMPLE_RECORD } from '../sample';
import type { AroundRun } from '../titration/record';
import { RUN_RECORD } from '../titration/record';

/** The kinds of records whose state follows from their own facts. */
export const PLAIN_RECORDS = {
  laboratory: LABORATORY_RECORD,
  person: PERSON_RECORD,
  method: METHOD_RECORD,
  entry: ENTRY_RECORD,
  lot: LOT_RECORD,
  equipment: EQUIPMENT_RECORD,
  bottle: BOTTLE_RECORD,
  preparation: PREPARATION_RECORD,
  sample: SAMPLE_RECORD,
} as const;

/** Every kind of record: the one list from which everything else follows. */
const RECORDS = { ...PLAIN_RECORDS, run: RUN_RECORD } as const;

export type RecordKind = keyof typeof RECORDS;
export type PlainRecordKind = keyof typeof PLAIN_RECORDS;

/** The states of the records that stand on their own; a run needs the records that it rests on. */
export type PlainStates = {
  readonly [K in PlainRecordKind]: NonNullable<ReturnType<(typeof PLAIN_RECORDS)[K]['fold']>>;
};

type DefinitionsOf<K extends RecordKind> = (typeof RECORDS)[K]['facts'];

/** The body of what a definition defines. */
type BodyOf<D> = D extends { sentence(body: infer Body): string } ? Body : never;

type BodiesOf<K extends RecordKind> = {
  readonly [F in keyof DefinitionsOf<K> & string]: BodyOf<DefinitionsOf<K>[F]>;
};

type UnionToIntersection<U> = (U extends unknown ? (one: U) => void : never) extends (
  all: infer All,
) => void
  ? All
  : never;

/** The bodies of all facts, by kind. */
export type FactBodies = UnionToIntersection<{ [K in RecordKind]: BodiesOf<K> }[RecordKind]>;
export type FactKind = keyof FactBodies;

type ServersOwn<D> = D extends { readonly needsServer: true } ? true : false;

/** The kinds of fact that a client may send; the others the server makes alone. */
export type ClientFactKind = {
  [K in RecordKind]: {
    [F in keyof DefinitionsOf<K> & string]: ServersOwn<DefinitionsOf<K>[F]> extends true
      ? never
      : F;
  }[keyof DefinitionsOf<K> & string];
}[RecordKind];

/** A kind of record as what works on all of them sees it. */
interface AnyRecordDefinition {
  readonly first: string;
  closed?(state: unknown): readonly Finding[];
  readonly facts: Readonly<Record<string, FactDefinition>>;
}

const DEFINITIONS: Readonly<Record<RecordKind, AnyRecordDefinition>> = RECORDS;

/** A kind of fact with the kind of its record. */
interface Known {
  readonly recordKind: RecordKind;
  readonly definition: FactDefinition;
}

export const RECORD_KINDS = Object.keys(RECORDS) as readonly RecordKind[];

const KNOWN = new Map<string, Known>(
  RECORD_KINDS.flatMap((recordKind) =>
    Object.entries(DEFINITIONS[recordKind].facts).map(
      ([kind, definition]) => [kind, { recordKind, definition }] as const,
    ),
  ),
);

/** The kinds of all facts. */
export const FACT_KINDS = [...KNOWN.keys()] as readonly FactKind[];

/** Whether a kind of record stands on its own. */
function isPlainKind(kind: string): kind is PlainRecordKind {
  return Object.hasOwn(PLAIN_RECORDS, kind);
}

/** Whether a text names a kind of record. */
export function isRecordKind(text: string): text is RecordKind {
  return Object.hasOwn(RECORDS, text);
}

function known(kind: string): Known {
  const found = KNOWN.get(kind);
  if (!found) throw new RangeError(`there is no fact of the kind ${kind}`);
  return found;
}

/** Whether this program knows a kind of fact in the shape in which it comes; another version of the program may have written it. */
export function isReadable({ kind, schemaVersion }: Pick<Fact, 'kind' | 'schemaVersion'>): boolean {
  return KNOWN.has(kind) && schemaVersion === currentSchemaVersion(kind);
}

/** The kind of record that a kind of fact belongs to. @throws RangeError for a kind that is not defined */
export function recordKindOf(kind: string): RecordKind {
  return known(kind).recordKind;
}

/** Whether a kind of fact begins its record. */
export function beginsRecord(kind: string): boolean {
  return DEFINITIONS[recordKindOf(kind)].first === kind;
}

/** Whether a kind of fact writes down what was seen; else it decides something. */
export function isObservation(kind: string): boolean {
  return known(kind).definition.nature === 'observation';
}

/** What the check of a kind of fact asks for that costs a look of its own. */
export function asksFor(kind: string): FactDefinition['asks'] {
  return known(kind).definition.asks;
}

/** The kinds of fact that attach a file. */
export const FILE_KINDS: readonly string[] = [...KNOWN]
  .filter(([, { definition }]) => definition.file !== undefined)
  .map(([kind]) => kind);

/** Whether a kind of fact is made with the password of its author. */
export function isSigned(kind: string): boolean {
  return KNOWN.get(kind)?.definition.isSigned === true;
}

/** A fact in a few words. */
export function sentenceOf(fact: Pick<Fact, 'kind' | 'schemaVersion' | 'body'>): string {
  if (!isReadable(fact)) return 'an entry of another version of the program.';
  // A reason may have been typed with its stop.
  return known(fact.kind)
    .definition.sentence(fact.body)
    .replace(/([.!?])\.$/, '$1');
}

/** The other records that a fact names. */
export function referencesOf({ kind, body }: Pick<Fact, 'kind' | 'body'>): readonly Reference[] {
  return known(kind).definition.refersTo?.(body) ?? [];
}

/** The schema version that this program writes for a kind of fact. */
export function currentSchemaVersion(kind: string): number {
  return (KNOWN.get(kind)?.definition.earlier?.length ?? 0) + 1;
}

/**
 * The fact in the shape that this program understands.
 *
 * @throws RangeError when the fact was written by a newer program.
 */
export function upcast(fact: Fact): Fact {
  return upcastBy(fact, KNOWN.get(fact.kind)?.definition.earlier ?? []);
}

/**
 * Whether a fact makes sense only together with an earlier one: while the earlier one is refused, the later one waits. It names
 * it, or something that it is the first fact of; or the earlier one says so.
 */
export function restsOn(
  later: Pick<Fact, 'recordId' | 'kind' | 'schemaVersion' | 'body'>,
  earlier: Pick<Fact, 'id' | 'recordId' | 'kind' | 'schemaVersion' | 'body'>,
): boolean {
  if (!isReadable(later) || !isReadable(earlier)) return later.recordId === earlier.recordId;
  const isFirst = beginsRecord(earlier.kind);
  if (later.recordId !== earlier.recordId) {
    return isFirst && referencesOf(later).some(({ id }) => id === earlier.recordId);
  }
  return (
    isFirst ||
    (known(later.kind).definition.names?.(later.body).includes(earlier.id) ?? false) ||
    (known(earlier.kind).definition.supports?.(earlier.body, later.body as object) ?? false)
  );
}

/** What is around any fact. */
export interface AroundFact extends Around<PlainStates> {
  rulesAt: AroundRun['rulesAt'];
  readonly personNamed: AroundPerson['personNamed'];
  readonly bottleCoded: AroundBottle['bottleCoded'];
  readonly sampleCoded: AroundSample['sampleCoded'];
}

/** What a fact of a record that has begun names and what is not there, or never was at that version; null when all is. */
function missingFor(fact: Fact, around: AroundFact): readonly Finding[] | null {
  const missing = referencesOf(fact).find(({ kind, id, version }) => {
    if (!isPlainKind(kind)) return false;
    return (version === null ? around.now(kind, id) : around.at(kind, { id, version })) === null;
  });
  if (!missing) return null;
  const { field, kind, version } = missing;
  return [impossible('unknown-reference', field, { kind, isAtVersion: version !== null })];
}

/** What is entered at the bench and on the shelf; the other records have their own say of who writes them. */
const ENTERED: ReadonlySet<RecordKind> = new Set([
  'lot',
  'equipment',
  'bottle',
  'preparation',
  'sample',
  'run',
]);

/** What speaks against somebody entering a kind of fact. The server asks for itself before it makes its own. */
export function checkEntering(kind: string, author: Author): readonly Finding[] {
  const { recordKind, definition } = known(kind);
  const isOpen = definition.needsServer === true || definition.saysWho === true;
  return isOpen || !ENTERED.has(recordKind) ? [] : checkMay(author, 'enter');
}

/**
 * What speaks against a fact, given its record so far (null before the first) and what is around it: the same in the browser and
 * on the server.
 */
export function checkFact(
  fact: Fact,
  state: object | null,
  around: AroundFact,
): readonly Finding[] {
  const { recordKind, definition } = known(fact.kind);
  const record = DEFINITIONS[recordKind];
  const shutOut = checkEntering(fact.kind, around.author);
  if (shutOut.length > 0) return shutOut;
  if (!state) {
    return fact.kind === record.first
      ? definition.check(fact, null, around)
      : [impossible('not-found', 'id')];
  }
  if (fact.kind === record.first && definition.repeats !== true) {
    return [impossible('exists-already', 'id')];
  }
  const closed = definition.comesAlways === true ? [] : (record.closed?.(state) ?? []);
  return closed.length > 0
    ? closed
    : (missingFor(fact, around) ?? definition.check(fact, state, around));
}
