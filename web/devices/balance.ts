import type { DecimalText } from '#core/measurement';

/** What the display of a balance shows at an instant. */
export interface BalanceReading {
  /** As displayed, every digit; null while the balance is overloaded. */
  readonly massG: DecimalText | null;
  /** The balance's own mark that the figure stands still. */
  readonly isStable: boolean;
}

/**
 * A balance that a page reads from. The page asks nothing of how it is connected; `docs/devices.md` says how to add one.
 */
export interface BalanceDriver {
  /** What the record says a figure was taken from. */
  readonly name: string;
  /** Calls back at once and at every change until the returned function is called. */
  readonly subscribe: (listener: (reading: BalanceReading) => void) => () => void;
  readonly tare: () => void;
}
