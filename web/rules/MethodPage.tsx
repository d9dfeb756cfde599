import { useParams, useSearchParams } from 'react-router';
import { findMethod } from '#core/chemistry';
import { Loading } from '../app/Loading';
import { useRecords } from '../app/records';
import { Page } from '../ui/Page';
import { MethodForm } from './MethodForm';

/** Writing a method of the laboratory's own: a copy of one that ships, or a new version of one's own. */
export function MethodPage() {
  const { methodId } = useParams();
  const [search] = useSearchParams();
  const own = useRecords('method');
  if (!own) return <Loading />;
  const known = own.find(({ id }) => id === methodId);
  const method = known?.method ?? findMethod(search.get('from') ?? '');
  return (
    <Page
      title={known ? `Change “${known.method.name}”` : 'A method of your own'}
      tabTitle="Method"
      lead={
        known
          ? `Version ${String(known.written.length + 1)}. Runs that began with an earlier one keep it.`
          : 'What you change here is yours; the method that ships stays as it is.'
      }
    >
      {method ? (
        <MethodForm method={method} record={known ?? null} />
      ) : (
        <p className="text-lg">There is no such method to begin with.</p>
      )}
    </Page>
  );
}
