import { v7 as uuidv7 } from 'uuid';
import type { Id } from '#core/grammar';

/** A new id; ids made later come later. `msecs` sets another time than now, for what is played. */
export function newId(msecs?: number): Id {
  return uuidv7(msecs === undefined ? undefined : { msecs }) as Id;
}
