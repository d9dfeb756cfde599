import type { Id } from '../grammar';
import type { Fact, FactOf } from './fact';
import type { Finding } from './finding';
import type { Listing } from './listing';
import type { Counted, Taken } from './stock';
import type { StoredFile } from './storedFile';

/**
 * An *observation* writes down what was seen or done and cannot be seen again: it is checked against what its author could see,
 * and never refused because somebody else was quicker. A *decision* names the version of the record that it rests on, and is
 * refused when that has moved on.
 */
type Nature = 'observation' | 'decision';

/** Turns the body of one schema version into that of the next. */
export type UpcastStep = (body: unknown) => unknown;

/** A record at the version that was in force. */
export interface RecordVersion {
  readonly id: Id;
  readonly version: number;
}

/** Another record that a fact names, and where it does. */
export interface Reference {
  readonly field: string;
  readonly kind: string;
  readonly id: Id;
  /** Null where the record is named as it is at the time. */
  readonly version: number | null;
}

/**
 * All there is to know of a kind of fact; the schema of its body is in the contract. What takes a body is a method, so that a
 * table of many kinds can be asked for one.
 */
export interface FactDefinition<
  K extends string = string,
  Body = unknown,
  State = unknown,
  Around = unknown,
  Change = unknown,
  Draft = State,
> {
  readonly nature: Nature;
  /** Begins a record, and may come again in it. */
  readonly repeats?: true;
  /** Made by the server alone, at a request of its own: it never waits on a device. */
  readonly needsServer?: true;
  /** Its check says itself whose it is; else it takes somebody who enters, where such facts are entered at all. */
  readonly saysWho?: true;
  /** Made with the password of whoever made it: a signature. */
  readonly isSigned?: true;
  /** Comes to a record that is closed too. */
  readonly comesAlways?: true;
  /** What its check asks for that costs a look of its own: what is left, whether something rests on it, who has a name. */
  readonly asks?: 'stock' | 'use' | 'name';
  /** From each earlier shape of the body to the next, the oldest first. */
  readonly earlier?: readonly UpcastStep[];
  /** The other records that it names. */
  refersTo?(body: Body): readonly Reference[];
  /** Ids of facts of the same record that it names: without them it makes no sense. */
  names?(body: Body): readonly (string | null)[];
  /** The file that it attaches. */
  file?(body: Body): StoredFile;
  /** What speaks against it, given the record so far (null before its first fact) and what is around it. */
  check(fact: Fact<K, Body>, state: State, around: Around): readonly Finding[];
  /** Whether a later fact of the same record makes sense only together with this one. */
  supports?(body: Body, later: object): boolean;
  /** What it changes. */
  apply(state: Draft, fact: Fact<K, Body>): Change;
  /** In a few words, for histories and for what waits to be sent: so that it can be written down again. */
  sentence(body: Body): string;
}

/** Whether a kind of fact is among those that the server alone makes, for the compiler to tell. */
export type Whose<K, ServersOwn> = K extends ServersOwn
  ? { readonly needsServer: true }
  : { readonly needsServer?: never };

/** What the state of every record says of itself. */
export interface RecordHead {
  readonly id: Id;
  /** How many facts it has. */
  readonly version: number;
  /** Their ids, so that one which is still on its way counts once. */
  readonly factIds: readonly Id[];
}

/** The state of a record without what every record says of itself. */
type Content<State extends RecordHead> = Omit<State, keyof RecordHead>;

/** A kind of record whose state follows from one fact after the other. */
export interface RecordDefinition<
  Kind extends string = string,
  Bodies = Readonly<Record<string, unknown>>,
  State extends RecordHead = RecordHead,
  Around = unknown,
  ServersOwn = never,
> {
  readonly kind: Kind;
  /** The kind of its first fact. */
  readonly first: keyof Bodies & string;
  /** What speaks against whatever comes: it is closed. */
  closed?(state: State): readonly Finding[];
  /** What an observation changes that comes all the same; absent where it changes nothing. */
  late?(state: State, fact: Fact): Partial<Content<State>>;
  /** What the first fact makes. */
  begin(fact: FactOf<Bodies>): Content<State> | null;
  /** What lists order, filter and search it by. */
  listed(state: State): Listing;
  /** How much there was of it when it was last counted; null when nobody counts. Absent for what is not used up. */
  counted?(state: State): Counted | null;
  /** What it has taken from other records so far. */
  taken?(state: State, around: Around): readonly Taken[];
  readonly facts: {
    readonly [K in keyof Bodies & string]: FactDefinition<
      K,
      Bodies[K],
      State,
      Around,
      Partial<Content<State>>
    > &
      Whose<K, ServersOwn>;
  };
}

/** A definition as what works on all of them sees it. */
interface AnyDefinition {
  readonly first: string;
  begin(fact: Fact): object | null;
  closed?(state: RecordHead): readonly Finding[];
  late?(state: RecordHead, fact: Fact): object;
  readonly facts: Readonly<
    Record<string, FactDefinition<string, unknown, RecordHead, unknown, object>>
  >;
}

/** The record after one more fact; see `Defined`. */
function applied(record: AnyDefinition, before: RecordHead | null, fact: Fact): RecordHead | null {
  if (before?.factIds.includes(fact.id)) return before;
  if (!before) {
    const content = fact.kind === record.first ? record.begin(fact) : null;
    return content && { ...content, id: fact.recordId, version: 1, factIds: [fact.id] };
  }
  const definition = record.facts[fact.kind];
  const isLate = definition?.nature === 'observation' && (record.closed?.(before).length ?? 0) > 0;
  const change = isLate ? record.late?.(before, fact) : definition?.apply(before, fact);
  return {
    ...before,
    ...change,
    version: before.version + 1,
    factIds: [...before.factIds, fact.id],
  };
}

/** A definition with what follows from it. */
export interface Defined<Bodies, State extends RecordHead> {
  /** Folds the facts of one record; null before its first. */
  fold(facts: readonly FactOf<Bodies>[]): State | null;
  /**
   * The record after one more fact. A fact that is in it already changes nothing, so that a device may lay what it still has to
   * send over what it has read; so does one that comes before the first.
   */
  apply(before: State | null, fact: FactOf<Bodies>): State | null;
}

/** Defines a kind of record; `ServersOwn` are the kinds of its facts that the server alone makes. */
export function defineRecord<
  Kind extends string,
  Bodies,
  State extends RecordHead,
  Around,
  ServersOwn extends keyof Bodies = never,
>(
  definition: RecordDefinition<Kind, Bodies, State, Around, ServersOwn>,
): RecordDefinition<Kind, Bodies, State, Around, ServersOwn> & Defined<Bodies, State> {
  // Of any record: what its definition makes of its own facts is its own state.
  const apply = (before: State | null, fact: FactOf<Bodies>): State | null =>
    applied(definition, before, fact) as State | null;
  return {
    ...definition,
    apply,
    fold: (facts) => facts.reduce<State | null>(apply, null),
  };
}
