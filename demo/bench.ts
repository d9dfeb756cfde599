import type { PlainDate } from '#core/grammar';
import type { Chance } from '#core/measurement';
import type { RunState } from '#core/titration/run';
import type { NewFact } from '#contract';

/** What a simulated analyst needs of the world. */
export interface Bench {
  readonly chance: Chance;
  /** The molarity that the titrant really has, mol/L. */
  readonly trueMolarity: number;
  /** Enters a fact of the run; some minutes pass. */
  readonly enter: (fact: NewFact, basedOn?: number) => Promise<void>;
  readonly certify: (run: RunState, validUntil: PlainDate, reason: string | null) => Promise<void>;
  /** Withdraws the certificate that the run has issued. */
  readonly withdraw: (run: RunState, number: string, reason: string) => Promise<void>;
  /** The run as the server has it. */
  readonly look: () => Promise<RunState>;
  readonly today: () => PlainDate;
}
