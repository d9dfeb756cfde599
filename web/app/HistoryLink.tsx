import { ButtonLink } from '../ui/Button';

/** To everything that was entered into a record. */
export function HistoryLink({ of }: { readonly of: string }) {
  return (
    <ButtonLink look="link" className="ml-3" to={`/history?recordId=${of}`}>
      Its history
    </ButtonLink>
  );
}
