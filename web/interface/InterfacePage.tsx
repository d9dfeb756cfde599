import { useQuery } from '@tanstack/react-query';
import { descriptionAnswer } from '#contract';
import { ask } from '../app/api';
import { Loading } from '../app/Loading';
import { Page } from '../ui/Page';

/** The part of OpenAPI 3.1 that the server's description uses. */
interface Description {
  readonly info: { readonly version: string; readonly description: string };
  readonly servers: readonly { readonly url: string }[];
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
}

interface Operation {
  readonly summary: string;
  readonly security: readonly object[];
  readonly parameters: readonly {
    readonly name: string;
    readonly in: string;
    readonly description: string;
  }[];
  readonly requestBody?: {
    readonly content: { readonly 'application/json': { readonly schema: object } };
  };
  readonly responses: Readonly<
    Record<
      string,
      {
        readonly description: string;
        readonly content?: Readonly<Record<string, { readonly schema?: object }>>;
      }
    >
  >;
}

/** What a program can ask the server, made from the server's own description. */
export function InterfacePage() {
  const { data } = useQuery({
    queryKey: ['openapi'],
    queryFn: async () =>
      (await ask(descriptionAnswer, 'GET', '/openapi.json')) as unknown as Description,
    throwOnError: true,
  });
  if (!data) return <Loading />;
  const base = data.servers[0]?.url ?? '';
  return (
    <main>
      <Page
        title="For other programs"
        tabTitle="For other programs"
        lead={`What can be asked of this server, version ${data.info.version}. ${data.info.description}`}
        actions={
          <a
            className="inline-flex min-h-12 items-center font-semibold text-violet underline underline-offset-4"
            href="/api/openapi.json"
          >
            The description as OpenAPI 3.1
          </a>
        }
      >
        <div className="flex flex-col gap-4">
          {Object.entries(data.paths).flatMap(([path, operations]) =>
            Object.entries(operations).map(([method, operation]) => (
              <OperationView
                key={`${method} ${path}`}
                address={`${method.toUpperCase()} ${base}${path}`}
                operation={operation}
              />
            )),
          )}
        </div>
      </Page>
    </main>
  );
}

interface OperationViewProps {
  readonly address: string;
  readonly operation: Operation;
}

function OperationView({ address, operation }: OperationViewProps) {
  const schema = operation.requestBody?.content['application/json'].schema;
  const answer = Object.entries(operation.responses)
    .filter(([status]) => status < '400')
    .flatMap(([, { content = {} }]) => Object.values(content))
    .find((described) => described.schema)?.schema;
  return (
    <section className="border-t-2 border-rule pt-3">
      <h2 className="font-mono text-lg font-semibold wrap-anywhere">{address}</h2>
      <p>
        {operation.summary}{' '}
        <span className="text-ink-soft">
          {operation.security.length > 0 ? 'Signed in only.' : 'Open to everybody.'}
        </span>
      </p>
      <div className="mt-2 grid grid-cols-1 gap-x-10 md:grid-cols-2">
        <dl className="min-w-0 text-[15px]">
          {operation.parameters.map((parameter) => (
            <Line key={parameter.name} term={`${parameter.name} (${parameter.in})`}>
              {parameter.description}
            </Line>
          ))}
          {Object.entries(operation.responses)
            .filter(([status]) => status < '400')
            .map(([status, { description }]) => (
              <Line key={status} term={status}>
                {description}
              </Line>
            ))}
          <Line term="refused">{problemsOf(operation)}</Line>
        </dl>
        <div>
          {schema && <Schema title="What is sent" schema={schema} />}
          {answer && <Schema title="What comes back" schema={answer} />}
        </div>
      </div>
    </section>
  );
}

function Schema({ title, schema }: { readonly title: string; readonly schema: object }) {
  return (
    <details className="min-w-0 text-[15px]">
      <summary className="min-h-12 font-semibold text-violet lg:min-h-10">{title}</summary>
      <pre className="max-h-96 overflow-auto rounded border border-rule bg-sheet p-3 font-mono text-[13px]">
        {JSON.stringify(schema, null, 2)}
      </pre>
    </details>
  );
}

/** The ways in which it can fail, on one line. */
function problemsOf({ responses }: Operation): string {
  return Object.entries(responses)
    .filter(([status]) => status >= '400')
    .map(([status, { description }]) => `${status} ${description}`)
    .join(' · ');
}

function Line({ term, children }: { readonly term: string; readonly children: string }) {
  return (
    <div className="flex gap-3 border-b border-rule py-1">
      <dt className="w-28 shrink-0 font-mono wrap-anywhere">{term}</dt>
      <dd>{children}</dd>
    </div>
  );
}
