import type { Finding } from '../../record';
import { impossible } from '../../record';
import type { Flask } from '../run';

/** A correction or decision that names no entry of the run. */
export function unknownEntry(field: string): Finding {
  return impossible('unknown-entry', field);
}

/** An entry for a flask that nothing was put into. */
export function unknownFlask(number: number): Finding {
  return impossible('unknown-flask', 'flask', { flask: number });
}

/** A reading of a titration that is not going on. */
export function notUnderBurette({ number }: Flask): Finding {
  return impossible('not-titrating', 'flask', { flask: number });
}
