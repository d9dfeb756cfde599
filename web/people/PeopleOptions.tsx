import { useRecords } from '../app/records';
import { useSession } from '../app/session';

/** Whom a field may name: who works here, and whoever it names already; not the one who is left out. */
export function PeopleOptions({
  named,
  except,
}: {
  readonly named?: string;
  readonly except?: string;
}) {
  const { person } = useSession();
  const people = useRecords('person') ?? [person];
  return people
    .filter(({ id, left }) => id !== except && (left === null || id === named))
    .map(({ id, name }) => (
      <option key={id} value={id}>
        {name}
      </option>
    ));
}
