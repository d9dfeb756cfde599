import type { Finding } from '../../record';
import { impossible } from '../../record';
import type { Flask } from '../run';

/** A correction or decision that names no entry of the run. */
export function unknownEntry(field: string): Finding {
  return impossible('unknown-entry', field, 'There is no such entry in this run to correct.');
}

/** An entry for a flask that nothing was put into. */
export function unknownFlask(number: number): Finding {
  const message = `Flask ${String(number)} is empty: measure something into it first.`;
  return impossible('unknown-flask', 'flask', message);
}

/** A reading of a titration that is not going on. */
export function notUnderBurette({ number }: Flask): Finding {
  const message = `Flask ${String(number)} is not being titrated at this moment.`;
  return impossible('not-titrating', 'flask', message);
}
