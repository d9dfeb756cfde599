import ical from 'ical-generator';
import type { ReactNode } from 'react';
import { useState } from 'react';
import type { Job, PaceSettings, Placed, PreparationState } from '#core/preparation';
import { scheduleBackwards, tasksOf } from '#core/preparation';
import { Loading } from '../app/Loading';
import { useRecords } from '../app/records';
import { useSession } from '../app/session';
import type { Stock } from '../app/stock';
import { useStock } from '../app/stock';
import { useNow } from '../app/useNow';
import { DateTimeField } from '../ui/DateField';
import { Button, ButtonLink } from '../ui/Button';
import { CellLink } from '../ui/Table';
import { SelectField } from '../ui/fields';
import { saveFile } from '../ui/files';
import { Page } from '../ui/Page';
import { Sentence } from '../ui/ShortName';
import { localText, localTimeAt } from '../ui/typeset';
import { limitsOf } from './dayLimits';
import { PlanTitle } from './PlanTitle';
import { Timeline } from './Timeline';
import { planTitle } from './wording';

/** The time of day by which work without a time of its own is to be done. */
const DAY_ENDS = '15:00';

/** The work of several preparations on one timeline, laid backwards from when each is needed. */
export function DayPage() {
  const preparations = useRecords('preparation');
  const stock = useStock();
  return preparations && stock ? (
    <Day open={preparations.filter(({ status }) => status === 'open')} stock={stock} />
  ) : (
    <Loading />
  );
}

interface DayProps {
  readonly open: readonly PreparationState[];
  readonly stock: Stock;
}

function Day({ open, stock }: DayProps) {
  const { laboratory, today } = useSession();
  const now = localTimeAt(useNow(60_000), laboratory.timeZone);
  const [people, setPeople] = useState('1');
  const [changed, setChanged] = useState<ReadonlyMap<string, string>>(new Map());
  const dueOf = ({ id, plan }: PreparationState): string =>
    changed.get(id) ?? plan.neededBy ?? `${today}T${DAY_ENDS}`;
  const limits = limitsOf(laboratory.settings, stock.equipment, Number(people));
  const jobs = open.map((preparation) =>
    jobOf(preparation, dueOf(preparation), laboratory.settings),
  );
  const placed = scheduleBackwards(jobs, limits);
  const titleOf = (jobId: string): ReactNode => {
    const plan = open.find(({ id }) => id === jobId)?.plan;
    return plan && <PlanTitle plan={plan} />;
  };
  return (
    <Page
      title="The day’s work"
      tabTitle="The day’s work"
      lead="Planned backwards from when each solution is needed; waits run beside other work."
      actions={<Ways placed={placed} />}
    >
      {open.length === 0 ? (
        <NothingBegun />
      ) : (
        <>
          <Late of={placed.find(({ begins }) => begins < now)} />
          <Timeline placed={placed} titleOf={titleOf} now={now} />
          <div className="mt-6 grid grid-cols-1 gap-10 xl:grid-cols-[minmax(0,1fr)_260px]">
            <WorkTable placed={placed} titleOf={titleOf} />
            <div className="flex flex-col gap-4">
              {open.map((preparation) => (
                <DueField
                  key={preparation.id}
                  preparation={preparation}
                  due={dueOf(preparation)}
                  onDue={(due) => {
                    setChanged(new Map([...changed, [preparation.id, due]]));
                  }}
                />
              ))}
              <SelectField
                label="People at work"
                value={people}
                options={['1', '2', '3', '4'].map((count) => [count, count])}
                onText={setPeople}
              />
              <p className="text-sm text-ink-soft">
                Hands work from {limits.workday[0] / 60} to {limits.workday[1] / 60} h; hot plates:{' '}
                {limits.hotPlates}, ovens: {limits.ovens}.
              </p>
            </div>
          </div>
        </>
      )}
    </Page>
  );
}

function Ways({ placed }: { readonly placed: readonly Placed[] }) {
  const { laboratory } = useSession();
  return (
    <>
      <ButtonLink to="/prepare">Plan another</ButtonLink>
      <Button
        look="primary"
        disabled={placed.length === 0}
        onClick={() => {
          saveFile(calendarOf(placed, laboratory.name), 'work.ics');
        }}
      >
        Calendar file
      </Button>
    </>
  );
}

function NothingBegun() {
  return (
    <section>
      <p className="mb-5 text-lg">Nothing is being prepared.</p>
      <ButtonLink to="/prepare" look="primary">
        Plan a solution
      </ButtonLink>
    </section>
  );
}

/** The first piece of work that should have begun. */
function Late({ of: late }: { readonly of: Placed | undefined }) {
  return (
    late && (
      <p role="alert" className="mb-4 border-l-4 border-straw bg-straw-wash px-4 py-2">
        <b>It will not be ready in time.</b> “{late.task.title}” for{' '}
        <Sentence text={late.jobName} /> should have begun {localText(late.begins)}. Give it more
        time, or more hands.
      </p>
    )
  );
}

interface DueFieldProps {
  readonly preparation: PreparationState;
  readonly due: string;
  readonly onDue: (due: string) => void;
}

function DueField({ preparation: { plan }, due, onDue }: DueFieldProps) {
  return (
    <DateTimeField
      label={<PlanTitle plan={plan} />}
      hint={plan.purpose === 'titrant' ? 'certified by' : 'needed by'}
      value={due}
      onText={(text) => {
        if (text !== '') onDue(text);
      }}
    />
  );
}

interface WorkTableProps {
  readonly placed: readonly Placed[];
  readonly titleOf: (jobId: string) => ReactNode;
}

/** What is done when, day by day. */
function WorkTable({ placed, titleOf }: WorkTableProps) {
  return (
    <table className="w-full text-left max-md:block">
      <caption className="sr-only">What is done when</caption>
      <thead className="max-md:hidden">
        <tr className="border-b border-rule-strong text-sm text-ink-soft">
          {['Begin', 'Until', 'For', 'What'].map((head) => (
            <th key={head} scope="col" className="py-1 pr-4">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      {byDay(placed).map(([day, ofDay]) => (
        <tbody key={day} className="divide-y divide-rule max-md:block">
          <tr>
            <th scope="rowgroup" colSpan={4} className="pt-3 pb-1">
              {localText(`${day}T00:00`).split(',')[0]}
            </th>
          </tr>
          {ofDay.map(({ jobId, task, begins, ends }) => (
            <tr
              key={`${jobId} ${task.id}`}
              className="max-md:grid max-md:grid-cols-[auto_auto_minmax(0,1fr)]"
            >
              <td className="py-3 pr-4 font-mono lg:py-1.5">{begins.slice(11)}</td>
              <td className="py-3 pr-4 font-mono lg:py-1.5">{ends.slice(11)}</td>
              <td className="py-3 pr-4 md:whitespace-nowrap lg:py-1.5">
                <CellLink to={`/preparations/${jobId}`}>{titleOf(jobId)}</CellLink>
              </td>
              <td className="py-3 max-md:col-span-full max-md:pt-0 lg:py-1.5">{task.title}</td>
            </tr>
          ))}
        </tbody>
      ))}
    </table>
  );
}

/** The work of each day, in order. */
function byDay(placed: readonly Placed[]): readonly (readonly [string, readonly Placed[]])[] {
  const days = new Map<string, Placed[]>();
  for (const one of placed) {
    const day = one.begins.slice(0, 10);
    days.set(day, [...(days.get(day) ?? []), one]);
  }
  return [...days];
}

/** What is left to do of a preparation. A wait that has begun is over when it is over. */
function jobOf(preparation: PreparationState, due: string, pace: PaceSettings): Job {
  const { id, plan, steps } = preparation;
  const undone = steps.filter(({ done }) => !done);
  return {
    id,
    name: planTitle(plan),
    tasks: tasksOf(undone, plan.purpose === 'titrant', pace),
    due,
  };
}

/** The work as an iCalendar file (RFC 5545), in local times: the laboratory's clock. */
function calendarOf(placed: readonly Placed[], laboratory: string): Blob {
  const calendar = ical({ name: `${laboratory}, preparations` });
  for (const { jobId, jobName, task, begins, handsEnd, ends } of placed) {
    const waits = ends > handsEnd ? `, then wait until ${ends.slice(11)}` : '';
    calendar.createEvent({
      id: `${jobId}-${task.id}@vine-measure`,
      start: new Date(`${begins}:00`),
      end: new Date(`${handsEnd}:00`),
      floating: true,
      summary: `${jobName}: ${task.title}${waits}`,
    });
  }
  return new Blob([calendar.toString()], { type: 'text/calendar' });
}
