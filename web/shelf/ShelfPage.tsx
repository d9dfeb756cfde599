import { figureText } from '#core/measurement';
import { stepText } from '#core/wording';
import type { ReactNode } from 'react';
import { useState } from 'react';
import { Link } from 'react-router';
import { Loading } from '../app/Loading';
import { useRuns } from '../app/records';
import { useStock } from '../app/stock';
import { NotAllHere } from '../app/NotAllHere';
import { OnTheWay } from '../prepare/OnTheWay';
import { AskedForCorrections } from '../rules/CorrectionPresets';
import { useSession } from '../app/session';
import { ButtonLink } from '../ui/Button';
import { ListSearch } from '../ui/ListSearch';
import { Page } from '../ui/Page';
import { Sentence } from '../ui/ShortName';
import { StandingMark } from '../ui/Standing';
import { dateText } from '../ui/typeset';
import { BottleDrawing } from './BottleDrawing';
import { BottleList } from './BottleList';
import { FirstDay } from './FirstDay';
import type { ShelfItem } from './shelfItems';
import { shelfItems } from './shelfItems';

/** The bottles at hand, what may be used now, and what is due; every other bottle is found by searching. */
export function ShelfPage() {
  const { today, laboratory } = useSession();
  const stock = useStock();
  const openRuns = useRuns();
  const [search, setSearch] = useState('');
  if (!stock || !openRuns) return <Loading />;
  const items = shelfItems(stock, openRuns, today, laboratory.settings.warningDays);
  return (
    <Page
      title="Shelf"
      tabTitle="Shelf"
      lead={`What is at hand on ${dateText(today)}`}
      actions={
        <>
          <div className="w-full md:w-72">
            <ListSearch label="Find any bottle" by="code, solution" onSearch={setSearch} />
          </div>
          <ButtonLink to="/prepare" look="primary">
            Prepare a solution
          </ButtonLink>
        </>
      }
    >
      <AskedForCorrections />
      {search === '' ? <AtHand items={items} /> : <BottleList search={search} />}
    </Page>
  );
}

function AtHand({ items }: { readonly items: readonly ShelfItem[] }) {
  return (
    <>
      <OnTheWay />
      <FirstDay />
      {items.length > 0 && <Board items={items} />}
      <NotAllHere kind="bottle" what="bottles" />
      {items.length > 0 && <ToDo items={items} />}
    </>
  );
}

/** Bottles that stand side by side at full size; more are drawn smaller. */
const ON_A_BOARD = 7;

/** The bottles on their boards. */
function Board({ items }: { readonly items: readonly ShelfItem[] }) {
  const isFull = items.length > ON_A_BOARD;
  return (
    <ul className="flex flex-wrap gap-y-5">
      {items.map((item) => (
        <li key={item.bottle.id} className={`flex flex-col ${isFull ? 'w-[118px]' : 'w-[152px]'}`}>
          <Link
            to={`/bottles/${item.bottle.id}`}
            className="flex flex-col items-center rounded-md pt-2 pb-2 hover:bg-shade"
          >
            <span
              className={`flex items-end border-b-[6px] border-[#b9a67f] px-1.5 ${isFull ? 'h-[196px]' : 'h-[252px]'}`}
            >
              <span className={isFull ? '[zoom:0.76]' : ''}>
                <BottleDrawing bottle={item.bottle} freshness={item.freshness} fill={item.fill} />
              </span>
            </span>
            <span className="flex w-full flex-col items-center justify-start border-t border-[#8d7b55] px-1 pt-2 text-center text-[15px] leading-snug">
              <StandingMark freshness={item.freshness} className="justify-center" />
              <span className="mt-1 text-[13px] whitespace-nowrap text-ink-soft">
                {Math.round(item.leftMl)} of {figureText(item.bottle.volumeMl)} mL
              </span>
              {item.openRun && (
                <span className="text-sm font-semibold text-violet">on the bench</span>
              )}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

/** The two questions of the morning: what is due, and what may not be used. */
function ToDo({ items }: { readonly items: readonly ShelfItem[] }) {
  const onBench = items.filter((item) => item.openRun);
  const idle = items.filter((item) => !item.openRun);
  const due = idle.filter(({ freshness }) => freshness.kind === 'due-soon');
  const barred = idle.filter(({ freshness }) =>
    ['overdue', 'not-standardized', 'expired', 'withdrawn'].includes(freshness.kind),
  );
  return (
    <div className="mt-7 grid grid-cols-1 gap-8 md:grid-cols-3">
      <Column title="On the bench" none="No run is open.">
        {onBench.map(({ bottle, openRun }) => (
          <Task
            key={bottle.id}
            code={bottle.code}
            what={openRun ? <Sentence text={stepText(openRun.next)} /> : ''}
          >
            <TaskLink to={`/runs/${openRun?.id ?? ''}`}>Go on titrating</TaskLink>
          </Task>
        ))}
      </Column>
      <Column title="Due soon" none="Nothing is due within a week.">
        {due.map(({ bottle, freshness }) => (
          <Task key={bottle.id} code={bottle.code} what={<StandingMark freshness={freshness} />}>
            <TaskLink to={`/titrate/set-up?bottle=${bottle.id}`}>Standardize again</TaskLink>
          </Task>
        ))}
      </Column>
      <Column title="Not to be used" none="Every bottle may be used.">
        {barred.map(({ bottle, freshness }) => (
          <Task key={bottle.id} code={bottle.code} what={<StandingMark freshness={freshness} />}>
            {bottle.purpose === 'titrant' && freshness.kind !== 'withdrawn' ? (
              <TaskLink to={`/titrate/set-up?bottle=${bottle.id}`}>Standardize</TaskLink>
            ) : (
              <TaskLink to={`/bottles/${bottle.id}`}>Look at it</TaskLink>
            )}
          </Task>
        ))}
      </Column>
    </div>
  );
}

function Column({
  title,
  none,
  children,
}: {
  readonly title: string;
  readonly none: string;
  readonly children: readonly ReactNode[];
}) {
  return (
    <section>
      <h2 className="border-b border-rule-strong pb-1 text-lg font-bold">{title}</h2>
      {children.length === 0 ? (
        <p className="pt-3 text-ink-soft">{none}</p>
      ) : (
        <ul className="divide-y divide-rule">{children}</ul>
      )}
    </section>
  );
}

function Task({
  code,
  what,
  children,
}: {
  readonly code: string;
  readonly what: ReactNode;
  readonly children: ReactNode;
}) {
  return (
    <li className="flex items-center gap-3 py-1.5">
      <span className="font-mono font-semibold">{code}</span>
      <span className="min-w-0 flex-1 text-[15px] leading-snug">{what}</span>
      {children}
    </li>
  );
}

function TaskLink({ to, children }: { readonly to: string; readonly children: string }) {
  return (
    <Link
      to={to}
      className="flex min-h-12 shrink-0 items-center font-semibold text-violet underline underline-offset-4 lg:min-h-11"
    >
      {children}
    </Link>
  );
}
