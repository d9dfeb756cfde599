import { useEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { figureText, parseDecimal, roundHalfEven } from '#core/measurement';
import type { ElectrodeReading, Flask, RunState } from '#core/titration/run';
import { curveEndsOf, electrodeQuantityOf, forecastFlask } from '#core/titration/figures';
import { flaskOf } from '#core/titration/run';
import { impossible } from '#core/record';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { QuantityField } from '../ui/fields';
import { Findings } from '../ui/Findings';
import { reasonProblem } from '../ui/fieldMessages';
import { Form } from '../ui/Form';
import { FormError } from '../ui/FormError';
import { useQuestioned } from '../ui/useQuestioned';
import { useTyped } from '../ui/useTyped';
import { CurveView } from './CurveView';
import { useEnter, useEntering } from './useRun';

interface CurveDialogProps {
  readonly run: RunState;
  readonly flask: number;
  readonly onClose: () => void;
}

/** Follows a titration with an electrode: point by point, each kept at once, with the curve and its end points. */
export function CurveDialog({ run, flask: number, onClose }: CurveDialogProps) {
  const flask = flaskOf(run, number);
  if (!flask) return null;
  const expected = flask.final ? undefined : forecastFlask(run, flask, null).onBurette?.expected;
  return (
    <Dialog
      title={`Electrode in flask ${String(number)}`}
      description={
        <p>
          {expected !== undefined && (
            <>
              The end is expected near{' '}
              <b className="font-mono">{figureText(roundHalfEven(expected, 1))}</b>.{' '}
            </>
          )}
          Far apart at first, every 0.1 mL near the end, three points beyond it; each when the
          display stands still. The electrode’s bulb is thin glass: away from the stirrer, and
          rinsed, not wiped.
        </p>
      }
      isWide
      onClose={onClose}
    >
      <div className="grid grid-cols-1 gap-x-8 gap-y-4 md:grid-cols-[330px_minmax(0,1fr)]">
        <div className="flex flex-col gap-3">
          {!flask.final && <PointForm run={run} flask={flask} />}
          <Points run={run} flask={flask} />
        </div>
        <CurveView run={run} flask={flask} />
      </div>
      <EndHere run={run} flask={flask} onClose={onClose} />
    </Dialog>
  );
}

/** Takes one reading of burette and electrode after the other. */
function PointForm({ run, flask }: { readonly run: RunState; readonly flask: Flask }) {
  const quantity = electrodeQuantityOf(run.references.method);
  const { typed, change, field } = useTyped({
    reading: '',
    value: '',
    inFlask: flask.electrode.at(-1)?.flaskVolumeMl ?? '',
  });
  const { shown, setFindings, submit } = useQuestioned(useEnter(run));
  const hasEnd = curveEndsOf(run, flask).counts !== null;
  const first = useRef<HTMLInputElement>(null);
  const second = useRef<HTMLInputElement>(null);

  const keepPoint = async (): Promise<void> => {
    if (parseDecimal(typed.reading) !== null && typed.value === '') {
      second.current?.focus();
      return;
    }
    const point = pointOf(typed);
    if (!point) {
      setFindings([impossible('not-a-number', 'entry', { examples: ['23.40', '8.31'] })]);
      return;
    }
    const place = { flask: flask.number, refill: flask.refills.length };
    const body = { ...place, ...point, quantity };
    if (!(await submit({ kind: 'run.electrode-read', body }))) return;
    // Empty before it has the focus again: what is typed at once is the next point.
    flushSync(() => {
      change({ reading: '', value: '' });
    });
    first.current?.focus();
  };
  const ofValue = quantity === 'mV' ? { label: quantity, unit: 'mV' } : { label: quantity };
  return (
    <Form aria-label="Next point" className="grid grid-cols-2 gap-3" onSubmit={keepPoint}>
      <QuantityField ref={first} label="Burette" unit="mL" {...field('reading')} />
      <QuantityField ref={second} {...ofValue} {...field('value')} />
      <Button type="submit" look={hasEnd ? 'plain' : 'primary'} className="col-span-full">
        Keep the point
      </Button>
      <div className="col-span-full">
        <Findings {...shown} />
      </div>
      {quantity === 'pH' && (
        <div className="col-span-full">
          <QuantityField
            label="In the flask at the start"
            hint="With its water; about will do. Gran’s line and pKa′ need it."
            unit="mL"
            {...field('inFlask')}
          />
        </div>
      )}
    </Form>
  );
}

/** The figures of a point as typed; null where one is no number. */
function pointOf(typed: {
  readonly reading: string;
  readonly value: string;
  readonly inFlask: string;
}) {
  const readingMl = parseDecimal(typed.reading);
  const value = parseDecimal(typed.value);
  const flaskVolumeMl = parseDecimal(typed.inFlask);
  const isVolumeWrong = typed.inFlask.trim() !== '' && flaskVolumeMl === null;
  return readingMl === null || value === null || isVolumeWrong
    ? null
    : { readingMl, value, flaskVolumeMl };
}

/** The points so far, the last one first. */
function Points({ run, flask }: { readonly run: RunState; readonly flask: Flask }) {
  const [striking, setStriking] = useState<string | null>(null);
  if (flask.electrode.length === 0) return null;
  return (
    <ol
      reversed
      aria-label="Points"
      className="max-h-[230px] divide-y divide-rule overflow-y-auto border-y border-rule"
    >
      {flask.electrode.toReversed().map((read) => (
        <li key={read.factId}>
          <div className="flex items-center gap-3">
            <span
              className={`font-mono ${read.struck ? 'text-ink-soft line-through' : 'font-semibold'}`}
            >
              {figureText(read.readingMl)} mL
            </span>
            <span className={`font-mono ${read.struck ? 'text-ink-soft line-through' : ''}`}>
              {read.quantity} {figureText(read.value)}
            </span>
            {!read.struck && run.status === 'open' && (
              <button
                type="button"
                className="ml-auto min-h-12 px-2 text-[15px] text-violet underline underline-offset-4"
                onClick={() => {
                  setStriking(striking === read.factId ? null : read.factId);
                }}
              >
                Strike out<span className="sr-only"> {figureText(read.readingMl)} mL</span>
              </button>
            )}
          </div>
          {read.struck && <p className="text-sm text-ink-soft">{read.struck.reason}</p>}
          {striking === read.factId && <StrikeForm run={run} read={read} />}
        </li>
      ))}
    </ol>
  );
}

function StrikeForm({ run, read }: { readonly run: RunState; readonly read: ElectrodeReading }) {
  const striking = useEntering(run);
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    field.current?.focus();
  }, []);
  return (
    <Form
      className="flex items-center gap-2 pb-1"
      onSubmit={() => {
        const problem = reasonProblem(reason);
        setError(problem);
        if (problem !== undefined) return;
        const body = { strikes: read.factId, reason };
        striking.mutate([{ kind: 'run.electrode-reading-struck', body }]);
      }}
    >
      <input
        ref={field}
        aria-label="Why it does not count"
        aria-invalid={error !== undefined}
        placeholder="why?"
        value={reason}
        maxLength={200}
        onChange={(event) => {
          setReason(event.target.value);
        }}
        className="min-h-12 w-full rounded border border-rule-strong bg-sheet px-3 aria-invalid:border-blush"
      />
      <Button type="submit" className="px-3 whitespace-nowrap">
        Strike out
      </Button>
      <FormError message={striking.error?.message} />
    </Form>
  );
}

/** Ends the titration at its last point, where the burette stands. */
function EndHere({
  run,
  flask,
  onClose,
}: {
  readonly run: RunState;
  readonly flask: Flask;
  readonly onClose: () => void;
}) {
  const { shown, why, submit } = useQuestioned(useEnter(run));
  const last = flask.electrode.findLast(({ struck }) => !struck);
  const hasEnd = curveEndsOf(run, flask).counts !== null;
  const end = async (readingMl: string): Promise<void> => {
    const place = { flask: flask.number, moment: 'final', carriedFrom: null } as const;
    const body = { ...place, readingMl, reason: why };
    if (await submit({ kind: 'run.burette-read', body })) onClose();
  };
  return (
    <div className="mt-4">
      <Findings {...shown} />
      <div className="mt-2 flex flex-wrap gap-3">
        {last && !flask.final && (
          <Button look={hasEnd ? 'primary' : 'plain'} onClick={() => void end(last.readingMl)}>
            End here: the burette stands at {figureText(last.readingMl)} mL
          </Button>
        )}
        <Button onClick={onClose}>Back to the bench</Button>
      </div>
    </div>
  );
}
