import type { PersonState } from '#core/people';
import { isHere } from '#core/people';
import { laboratoryNow } from '../ledger/around';
import type { Services } from '../services';

/** Whether somebody may sign in and read now. Only an auditor's last day takes a look at the laboratory's calendar. */
export async function isHereNow(services: Services, person: PersonState): Promise<boolean> {
  if (person.left !== null || person.auditsUntil === null) return person.left === null;
  const { today } = await laboratoryNow(services.db, services);
  return isHere(person, today);
}
