import { BottleTable } from '../app/BottleTable';
import { Loading } from '../app/Loading';
import { useRecordList } from '../app/lists';

/** The bottles that a search finds, whether they are at hand or long gone; the newest first. */
export function BottleList({ search }: { readonly search: string }) {
  const bottles = useRecordList('bottle', { order: 'newest', search });
  if (!bottles) return <Loading />;
  return (
    <section aria-label="Bottles found">
      <BottleTable bottles={bottles} />
    </section>
  );
}
