/**
 * Frozen: what the entries of the third digest go over. A fact says in it what it said in the first. What an account says of a
 * person are facts of theirs; its row says who there is, and since when.
 */

/** A row of `people`. */
export interface PersonRow {
  readonly id: string;
  readonly created_at: Date;
}

/** What an account says in the third digest. */
export function accountOf({ id, created_at: createdAt }: PersonRow) {
  return { id, createdAt: createdAt.toISOString() };
}
