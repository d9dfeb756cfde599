import { Link } from 'react-router';
import type { Method } from '#core/chemistry';
import { CATALOGUE, describeEndPoint } from '#core/chemistry';
import { may } from '#core/rights';
import { Loading } from '../app/Loading';
import { NotAllHere } from '../app/NotAllHere';
import { useRecords } from '../app/records';
import { useSession } from '../app/session';
import { Written } from '../app/Written';
import { Page } from '../ui/Page';
import { ShortName } from '../ui/ShortName';
import { Table } from '../ui/Table';
import { ReactionEquations } from '../ui/typeset';

/** The methods that ship, and those that the laboratory has written. */
export function MethodsPage() {
  const own = useRecords('method');
  if (!own) return <Loading />;
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
                <Reactions key="r" of={method} />,
                <EndPoint key="e" of={method} />,
                <Written key="w" written={written} />,
                <Change key="c" to={`/methods/${id}`} name={`Change ${method.name}`}>
                  Change
                </Change>,
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
              <Reactions key="r" of={method} />,
              <EndPoint key="e" of={method} />,
              <Change
                key="c"
                to={`/methods/new?from=${method.id}`}
                name={`Copy and change ${method.name}`}
              >
                Copy and change
              </Change>,
            ],
          }))}
        />
      </section>
    </Page>
  );
}

function Reactions({ of: { equations } }: { readonly of: Method }) {
  return (
    <span className="text-[15px]">
      <ReactionEquations of={equations} />
    </span>
  );
}

function EndPoint({ of: method }: { readonly of: Method }) {
  const { laboratory } = useSession();
  return (
    <span className="text-[15px]">
      {describeEndPoint(method, laboratory.rules)}
      {method.flaskTemperatureC && `; ${method.flaskTemperatureC.join(' to ')} °C`}
      {method.needsBlank && '; with a blank'}
    </span>
  );
}

interface ChangeProps {
  readonly to: string;
  readonly name: string;
  readonly children: string;
}

/** The way to the form, for those who may write methods. */
function Change({ to, name, children }: ChangeProps) {
  const { person } = useSession();
  return may(person, 'manage') ? (
    <Link
      className="inline-flex min-h-12 items-center whitespace-nowrap text-violet underline lg:min-h-10"
      to={to}
      aria-label={name}
    >
      {children}
    </Link>
  ) : null;
}
