import { Link } from 'react-router';
import type { Method } from '#core/chemistry';
import { CATALOGUE, describeEndPoint } from '#core/chemistry';
import { may } from '#core/rights';
import { Loading } from '../app/Loading';
import { NotAllHere } from '../app/NotAllHere';
import { usePersonName, useRecords } from '../app/records';
import { useSession } from '../app/session';
import { Page } from '../ui/Page';
import { ShortName } from '../ui/ShortName';
import { Table } from '../ui/Table';
import { instantText, ReactionEquation } from '../ui/typeset';

/** The methods that ship, and those that the laboratory has written. */
export function MethodsPage() {
  const { laboratory, person } = useSession();
  const own = useRecords('method');
  const nameOf = usePersonName();
  if (!own) return <Loading />;
  const row = (method: Method) => [
    <span key="r" className="text-[15px]">
      {method.equations.map((equation) => (
        <span key={equation} className="block">
          <ReactionEquation of={equation} />
        </span>
      ))}
    </span>,
    <span key="e" className="text-[15px]">
      {describeEndPoint(method, laboratory.rules)}
      {method.flaskTemperatureC && `; ${method.flaskTemperatureC.join(' to ')} °C`}
      {method.needsBlank && '; with a blank'}
    </span>,
  ];
  const copy = (id: string, name: string) =>
    may(person, 'manage') ? (
      <Link
        key="c"
        className="inline-flex min-h-12 items-center whitespace-nowrap text-violet underline lg:min-h-10"
        to={`/methods/new?from=${id}`}
        aria-label={`Copy and change ${name}`}
      >
        Copy and change
      </Link>
    ) : null;
  return (
    <Page
      title="Methods"
      tabTitle="Methods"
      lead="How titrants are standardized. Copy one to make it your own; a run keeps the version it used."
    >
      <NotAllHere kind="method" what="methods" />
      {own.length > 0 && (
        <section className="mb-8">
          <h2 className="text-lg font-bold">Of this laboratory</h2>
          <Table
            caption="Own methods"
            heads={['Name', 'Reaction', 'End point', 'Written', '']}
            rows={own.map(({ id, method, written, withdrawn }) => ({
              key: id,
              cells: [
                <b key="n" className={withdrawn ? 'line-through' : ''}>
                  {method.name}
                </b>,
                ...row(method),
                <span key="w" className="text-[15px]">
                  version {written.length}, {nameOf(written.at(-1)?.by ?? '')},{' '}
                  {instantText(written.at(-1)?.at ?? '', laboratory.timeZone)}:{' '}
                  {written.at(-1)?.reason}
                </span>,
                may(person, 'manage') ? (
                  <Link
                    key="e"
                    className="inline-flex min-h-12 items-center text-violet underline lg:min-h-10"
                    to={`/methods/${id}`}
                  >
                    Change <span className="sr-only">{method.name}</span>
                  </Link>
                ) : null,
              ],
            }))}
          />
        </section>
      )}
      <section>
        <h2 className="text-lg font-bold">As they ship</h2>
        <Table
          caption="Methods that ship"
          heads={['Name', 'Standard', 'Reaction', 'End point', '']}
          rows={CATALOGUE.methods.map((method) => ({
            key: method.id,
            cells: [
              <b key="n">{method.name}</b>,
              <ShortName key="s" of={method.standardId} />,
              ...row(method),
              copy(method.id, method.name),
            ],
          }))}
        />
      </section>
    </Page>
  );
}
