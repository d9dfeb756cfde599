import { useState } from 'react';
import type { VerifiedCase } from '#verification';
import { version } from '../../package.json';
import { useSession } from '../app/session';
import { ComputationStatus } from '../compute/ComputationStatus';
import { useComputation } from '../compute/useComputation';
import { Button } from '../ui/Button';
import { Facts } from '../ui/Facts';
import { Page } from '../ui/Page';
import { capitalized, instantText } from '../ui/typeset';

type Cases = readonly VerifiedCase[];

/** The verification pack, run in this browser by the core that computes everywhere else, as a report to be filed. */
export function VerificationPage() {
  const { state, start, cancel } = useComputation<Cases>();
  const [begunAt, setBegunAt] = useState<string | null>(null);
  const run = (): void => {
    setBegunAt(new Date().toISOString());
    start((worker, onProgress) => worker.verify(onProgress));
  };
  return (
    <Page
      title="Verification"
      tabTitle="Verification"
      lead="Worked examples and reference tables, computed here and compared with their sources."
      actions={
        state.kind === 'done' && (
          <Button
            className="print:hidden"
            look="primary"
            onClick={() => {
              window.print();
            }}
          >
            Print the report
          </Button>
        )
      }
    >
      <ComputationStatus label="Cases computed" state={state} onCancel={cancel} />
      {state.kind === 'done' && begunAt && <Report cases={state.value} begunAt={begunAt} />}
      {state.kind !== 'running' && (
        <Button
          className="print:hidden"
          look={state.kind === 'done' ? 'plain' : 'primary'}
          onClick={run}
        >
          {state.kind === 'done' ? 'Run it again' : 'Run the verification'}
        </Button>
      )}
    </Page>
  );
}

/** The run as a report: what it was run with, how it came out, every figure, and a line to sign on. */
function Report({ cases, begunAt }: { readonly cases: Cases; readonly begunAt: string }) {
  const { laboratory, person } = useSession();
  const failed = cases.filter(({ isWithin }) => !isWithin);
  const count = (status: VerifiedCase['status']): number =>
    cases.filter((one) => one.status === status).length;
  const points = [...new Set(cases.map(({ point }) => point))];
  const facts = [
    ['Laboratory', laboratory.name],
    ['Run by', person.name],
    ['Date', `${instantText(begunAt, laboratory.timeZone)}, ${begunAt.slice(0, 4)}`],
    ['Program', `Vine Measure ${version}`],
    ['Browser', navigator.userAgent],
  ] as const;
  return (
    <div className="mb-6">
      <p className={`text-[34px] leading-tight font-bold ${failed.length > 0 ? 'text-blush' : ''}`}>
        <span className="font-mono">{cases.length - failed.length}</span> of{' '}
        <span className="font-mono">{cases.length}</span> cases within tolerance
      </p>
      <p className="max-w-3xl text-ink-soft">
        {count('published')} cases agree with what is published. The other {count('recomputed')} are
        marked <i>recomputed</i>: they were written down from the source that is named or worked by
        hand, and no printed copy was at hand to compare them with.
      </p>
      <div className="my-4 max-w-3xl border-y border-rule py-3">
        <Facts rows={facts} />
      </div>
      {points.map((point) => (
        <PointTable key={point} point={point} cases={cases.filter((one) => one.point === point)} />
      ))}
      <div className="mt-12 hidden grid-cols-3 gap-10 print:grid">
        {['Checked by', 'Date', 'Signature'].map((what) => (
          <p key={what} className="border-t border-ink pt-1 text-sm">
            {what}
          </p>
        ))}
      </div>
    </div>
  );
}

function PointTable({ point, cases }: { readonly point: string; readonly cases: Cases }) {
  const within = cases.filter(({ isWithin }) => isWithin).length;
  return (
    <section className="mb-6">
      <h2 className="border-b-2 border-ink pb-1 text-lg font-bold">
        {capitalized(point)}{' '}
        <span className="font-normal text-ink-soft">
          {within} of {cases.length}
        </span>
      </h2>
      <table className="w-full table-fixed text-left text-[15px] print:text-[11px]">
        <thead>
          <tr className="text-sm text-ink-soft">
            {[
              ['Case and source', 'w-[31%]'],
              ['Figure', 'w-[18%]'],
              ['Expected', 'w-[11%]'],
              ['Computed', 'w-[12%]'],
              ['Deviation', 'w-[13%]'],
              ['Verdict', 'w-[15%]'],
            ].map(([head, width]) => (
              <th
                key={head}
                scope="col"
                className={`py-1.5 pr-3 font-semibold print:py-0.5 ${width ?? ''}`}
              >
                {head}
              </th>
            ))}
          </tr>
        </thead>
        {cases.map((one) => (
          <CaseRows key={one.id} verified={one} />
        ))}
      </table>
    </section>
  );
}

/** One case: its name and source once, a line for each figure. */
function CaseRows({
  verified: { title, source, status, places },
}: {
  readonly verified: VerifiedCase;
}) {
  return (
    <tbody className="break-inside-avoid border-t border-rule">
      {places.map((place, i) => (
        <tr key={i} className="align-top">
          {i === 0 && (
            <th
              scope="rowgroup"
              rowSpan={places.length}
              className="py-1.5 pr-4 text-left font-normal print:py-0.5"
            >
              <span className="block font-semibold">{title}</span>
              <span className="block text-sm text-ink-soft print:text-[10px]">
                {source}. <i>{capitalized(status)}.</i>
              </span>
            </th>
          )}
          <td className="py-1.5 pr-3 break-words print:py-0.5">{figureName(place.path)}</td>
          <td className="py-1.5 pr-3 font-mono break-words print:py-0.5">
            {shown(place.expected)}
          </td>
          <td className="py-1.5 pr-3 font-mono break-words print:py-0.5">{shown(place.got)}</td>
          <td className="py-1.5 pr-3 font-mono whitespace-nowrap print:py-0.5">
            {deviation(place.expected, place.got)}
          </td>
          <td
            className={`py-1.5 print:py-0.5 ${place.isWithin ? 'text-leaf' : 'font-bold text-blush'}`}
          >
            {verdict(place)}
          </td>
        </tr>
      ))}
    </tbody>
  );
}

type Place = VerifiedCase['places'][number];
type Figure = Place['expected'];

/** Units at the end of a key, as they are written after a quantity. */
const KEY_UNITS = [
  ['_g_per_mol', 'g/mol'],
  ['_mol_per_L', 'mol/L'],
  ['_kg_per_m3', 'kg/m³'],
  ['_mL_per_g', 'mL/g'],
  ['_percent', '%'],
  ['_mL', 'mL'],
  ['_mol', 'mol'],
  ['_V', 'V'],
  ['_g', 'g'],
] as const;

/** `standard_uncertainty_g_per_mol` as `standard uncertainty / (g/mol)`. */
function figureName(path: string): string {
  const [ending, unit] = KEY_UNITS.find(([one]) => path.endsWith(one)) ?? ['', ''];
  const name = path
    .slice(0, path.length - ending.length)
    .replaceAll('_', ' ')
    .replaceAll('.', ', ');
  if (unit === '') return name;
  return `${name} / ${unit.includes('/') ? `(${unit})` : unit}`;
}

function shown(figure: Figure): string {
  if (typeof figure !== 'number') {
    return typeof figure === 'string' ? figure : JSON.stringify(figure);
  }
  return Number.isInteger(figure) ? String(figure) : String(Number(figure.toPrecision(7)));
}

/** Two figures, the small ones in powers of ten. */
function short(value: number): string {
  const rounded = Number(value.toPrecision(2));
  if (rounded === 0 || Math.abs(rounded) >= 1e-5) return String(rounded).replace('-', '−');
  const [digits = '', exponent = ''] = rounded.toExponential().split('e');
  const raised = Array.from(exponent, (char) =>
    char === '-' ? '⁻' : ('⁰¹²³⁴⁵⁶⁷⁸⁹'[Number(char)] ?? ''),
  );
  return `${digits} × 10${raised.join('')}`.replace(/^-/, '−');
}

function deviation(expected: Figure, got: Figure): string {
  return typeof expected === 'number' && typeof got === 'number' ? short(got - expected) : '–';
}

/** `within ± 0.0038`, or `equal` for what allows no deviation. */
function verdict({ expected, limit, isWithin }: Place): string {
  const allowed =
    typeof expected === 'number'
      ? Math.max(limit.absolute ?? 0, (limit.relative ?? 0) * Math.abs(expected))
      : 0;
  if (allowed === 0) return isWithin ? 'equal' : 'not equal';
  return `${isWithin ? 'within' : 'outside'} ± ${short(allowed)}`;
}
