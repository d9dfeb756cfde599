import { RESULT_UNITS } from '#core/chemistry';
import { plainDateAt } from '#core/grammar';
import { controlPoints } from '#core/ledger';
import { decimalText, figureText } from '#core/measurement';
import type { ControlLimits, ControlPoint, SampleRequest, SampleState } from '#core/sample';
import { BASELINE_POINTS, controlText, standingOfControl } from '#core/sample';
import { controlVerdict, meanOf, RANGE_LIMIT_D4 } from '#core/statistics';
import { useAddToRecord } from '../app/entering';
import { useListOn } from '../app/lists';
import { useSession } from '../app/session';
import { Asking } from '../ui/Asking';
import type { Charted, ChartLine } from '../ui/ControlChart';
import { ControlChart } from '../ui/ControlChart';
import { TextAreaField, TextField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { dateText } from '../ui/typeset';
import { useTyped } from '../ui/useTyped';
import { CONTROL_LOOKS } from './controlLooks';
import { analysisName } from './wording';

interface ControlChartsProps {
  readonly state: SampleState;
  /** Whether anything may be added. */
  readonly isOpen: boolean;
}

/** The charts of a control: its results by each analysis, and the ranges of its duplicates. */
export function ControlCharts({ state, isOpen }: ControlChartsProps) {
  const runs = useListOn('run', state.id)?.records;
  if (!runs) return null;
  return state.sample.requests.map((request) => (
    <Charts
      key={request.analysisId}
      state={state}
      isOpen={isOpen}
      request={request}
      points={controlPoints(state, request.analysisId, runs)}
    />
  ));
}

interface ChartsProps extends ControlChartsProps {
  readonly request: SampleRequest;
  readonly points: readonly ControlPoint[];
}

function Charts({ state, isOpen, request, points }: ChartsProps) {
  const name = analysisName(request.analysisId, state.sample.own);
  const { symbol } = RESULT_UNITS[request.unit].unit;
  const standing = standingOfControl(points);
  return (
    <section className="mt-8" aria-label={`Control chart, ${name}`}>
      <h2 className="mb-1 text-lg font-bold">Control chart: {name}</h2>
      {standing ? (
        <>
          <p className={`mb-3 border-l-4 px-3 py-1.5 ${CONTROL_LOOKS[standing.verdict]}`}>
            {controlText({ code: state.sample.code, unit: symbol, standing })}.
          </p>
          <div className="flex flex-col gap-x-10 gap-y-4 xl:flex-row [&>figure]:min-w-0 [&>figure]:flex-1">
            <Contents points={points} unit={symbol} limits={standing.limits} />
            <Ranges points={points} unit={symbol} />
          </div>
          <p className="mt-1 text-sm text-ink-soft">
            Green: the mean of the points that were reported or taken over before the last one;
            dashed: 2 <i>s</i>; red: 3 <i>s</i>. One beyond 3 <i>s</i> stops the report until
            somebody decides; two of three beyond 2 <i>s</i> warn. Grey points were taken over.
          </p>
        </>
      ) : (
        <p className="text-ink-soft">
          No points yet. Limits take {BASELINE_POINTS}: titrate it with each batch, or take over
          those of a chart on paper.
        </p>
      )}
      {isOpen && (
        <div className="mt-3">
          <Asking button="Take over earlier points…" className="text-[15px]">
            {(close) => <TakeOverDialog state={state} request={request} onClose={close} />}
          </Asking>
        </div>
      )}
    </section>
  );
}

/** When a point was, in a few letters. */
function labelOf({ at }: ControlPoint, timeZone: string): string {
  return dateText(at.length > 10 ? plainDateAt(at, timeZone) : at).replace(/ \d{4}$/, '');
}

function Contents({
  points,
  unit,
  limits,
}: {
  readonly points: readonly ControlPoint[];
  readonly unit: string;
  readonly limits: ControlLimits | null;
}) {
  const { laboratory } = useSession();
  const values = points.map(({ value }) => value);
  const charted = points.map((point, i): Charted => {
    const verdict = limits ? controlVerdict(values.slice(0, i + 1), limits) : 'in-control';
    const look = point.runId === null ? 'before' : 'good';
    return {
      value: point.value,
      label: labelOf(point, laboratory.timeZone),
      look: verdict === 'in-control' ? look : verdict,
    };
  });
  return (
    <ControlChart name="Content" unit={unit} points={charted} lines={limits ? lines(limits) : []} />
  );
}

function lines({ centre, sigma }: ControlLimits): readonly ChartLine[] {
  return [
    { at: centre, kind: 'centre' },
    ...[-2, 2].map((times) => ({ at: centre + times * sigma, kind: 'warning' as const })),
    ...[-3, 3].map((times) => ({ at: centre + times * sigma, kind: 'action' as const })),
  ];
}

/** The ranges of duplicates, with their mean and upper limit. */
function Ranges({
  points,
  unit,
}: {
  readonly points: readonly ControlPoint[];
  readonly unit: string;
}) {
  const { laboratory } = useSession();
  const measured = points.flatMap((point) =>
    point.range === null ? [] : [{ point, range: point.range }],
  );
  if (measured.length < 2) return null;
  const mean = meanOf(measured.map(({ range }) => range));
  const limit = RANGE_LIMIT_D4 * mean;
  return (
    <ControlChart
      name="Range of duplicates"
      unit={unit}
      points={measured.map(({ point, range }) => ({
        value: range,
        label: labelOf(point, laboratory.timeZone),
        look: range > limit ? 'out' : 'good',
      }))}
      lines={[
        { at: mean, kind: 'centre' },
        { at: limit, kind: 'action' },
      ]}
    />
  );
}

/** Takes over the points of a chart on paper: a day and a value in each line. */
function TakeOverDialog({
  state,
  request: { analysisId, unit },
  onClose,
}: {
  readonly state: SampleState;
  readonly request: SampleRequest;
  readonly onClose: () => void;
}) {
  const { typed, field } = useTyped({ points: '', source: '' });
  const add = useAddToRecord();
  const points = pointsIn(typed.points);
  return (
    <FormDialog
      title="Take over earlier points"
      description={`Of this control, by ${analysisName(analysisId, state.sample.own)}, in ${unit}. They set limits as those do that were titrated here.`}
      submit={`Take over ${String(points?.length ?? 0)} points`}
      isDisabled={points === null || typed.source.trim() === '' || add.isPending}
      error={add.error?.message}
      onSubmit={() => {
        if (points === null) return;
        const body = { analysisId, unit, points, source: typed.source.trim() };
        add.mutate(
          {
            recordId: state.id,
            basedOn: state.version,
            fact: { kind: 'sample.points-taken-over', body },
          },
          { onSuccess: onClose },
        );
      }}
      onClose={onClose}
    >
      <TextAreaField
        label="Points"
        hint={`A line for each: day and value, such as 2026-05-04 ${figureText(decimalText('6.05'))}.`}
        {...field('points')}
      />
      <TextField label="Where they stood" hint="Chart on paper, file, name." {...field('source')} />
    </FormDialog>
  );
}

/** Days and values, one in a line; null where a line is neither empty nor such. */
function pointsIn(text: string): { readonly on: string; readonly value: string }[] | null {
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  const points = lines.flatMap((line) => {
    const [, on = '', value = ''] =
      /^\s*(\d{4}-\d\d-\d\d)[\s;]+(\d+(?:[.,]\d+)?)\s*$/.exec(line) ?? [];
    return on === '' ? [] : [{ on, value: value.replace(',', '.') }];
  });
  return points.length === lines.length && points.length > 0 ? points : null;
}
