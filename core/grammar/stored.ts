declare const grammar: unique symbol;

/** A text that has been found to be of a stored grammar: only what checks that makes one. */
export type Stored<Grammar extends string> = string & { readonly [grammar]: Grammar };

/** A UUID in lower case. Where one names a record, the field says of which kind. */
export type Id = Stored<'id'>;

/** The same before it is checked: as a form holds it, or as it comes over the wire. */
export type Plain<T> =
  T extends Stored<string> ? string : T extends object ? { [K in keyof T]: Plain<T[K]> } : T;
