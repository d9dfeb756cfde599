/** How much there was of a record when somebody looked: g of a solid, mL of a solution. */
export interface Counted {
  readonly amount: number;
  /** ISO 8601; null for what it began with: whatever was taken counts. */
  readonly at: string | null;
}

/** What was taken from a record: g of a solid, mL of a solution. */
export interface Taken {
  readonly id: string;
  readonly amount: number;
  /** ISO 8601: when whatever took it was begun. */
  readonly at: string;
}
