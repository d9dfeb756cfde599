import { v7 as uuidv7 } from 'uuid';
import type { Id } from '#core/grammar';

/** A new id; ids made later come later. */
export function newId(): Id {
  return uuidv7() as Id;
}
