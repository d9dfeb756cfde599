import { foundText } from './found';
import { Tabs } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import type { Judgement, Replicate } from '#core/titration/judging';
import { flaskColour } from '#core/titration/guidance';
import type { RunState } from '#core/titration/run';
import { flaskUnderBurette } from '#core/titration/run';
import { arrangementOf, fillVerb } from '#core/titration/setUp';
import type { FlaskActions } from './FlaskColumn';
import { useSession } from '../app/session';
import { useMedia } from '../ui/useMedia';
import { FlaskColumn } from './FlaskColumn';
import { VERDICTS } from './wording';

interface FlasksProps {
  readonly run: RunState;
  readonly judgement: Judgement;
  /** The flask that comes next. */
  readonly current: number | null;
  readonly actions: FlaskActions;
}

/** The flasks of a run: beside each other where there is room for that, else the one at hand under a strip of all. */
export function Flasks(props: FlasksProps) {
  const { flaskTimerMinutes } = useSession().laboratory.settings;
  const isDesk = useMedia('(min-width: 80rem)');
  if (props.run.flasks.length === 0) return <NoFlaskYet run={props.run} />;
  return isDesk ? (
    <FlaskColumns {...props} timerMinutes={flaskTimerMinutes} />
  ) : (
    <FlaskTabs {...props} timerMinutes={flaskTimerMinutes} />
  );
}

interface ShownProps extends FlasksProps {
  readonly timerMinutes: number;
}

function FlaskColumns({ run, judgement, current, timerMinutes, actions }: ShownProps) {
  return (
    <div
      data-cut="scrolls sideways"
      className="relative flex min-h-0 flex-1 overflow-x-auto border-y border-rule"
    >
      <div className="flex min-h-0 flex-1 divide-x divide-rule">
        {judgement.replicates.map((replicate) => (
          <FlaskColumn
            key={replicate.flask.number}
            run={run}
            replicate={replicate}
            isCurrent={current === replicate.flask.number}
            mayTitrate={!flaskUnderBurette(run)}
            timerMinutes={timerMinutes}
            actions={actions}
          />
        ))}
      </div>
    </div>
  );
}

/** A strip with a tab for each flask, and the flask that was chosen; without a choice, the one at hand. */
function FlaskTabs({ run, judgement, current, timerMinutes, actions }: ShownProps) {
  // A choice lasts until the work goes on to another flask.
  const [chosen, setChosen] = useState<{ flask: number; at: number | null }>();
  const last = run.flasks.at(-1)?.number ?? 1;
  const shown = chosen?.at === current ? chosen.flask : (current ?? last);
  return (
    <Tabs.Root
      value={String(shown)}
      onValueChange={(flask) => {
        setChosen({ flask: Number(flask), at: current });
      }}
      className="border-y border-rule"
    >
      <Tabs.List
        aria-label="Flasks"
        data-cut="scrolls sideways"
        className="relative flex overflow-x-auto border-b border-rule"
      >
        {judgement.replicates.map((replicate) => (
          <FlaskTab
            key={replicate.flask.number}
            run={run}
            replicate={replicate}
            isCurrent={current === replicate.flask.number}
            isShown={shown === replicate.flask.number}
          />
        ))}
      </Tabs.List>
      {judgement.replicates.map((replicate) => (
        <Tabs.Content
          key={replicate.flask.number}
          value={String(replicate.flask.number)}
          tabIndex={-1}
        >
          <FlaskColumn
            run={run}
            replicate={replicate}
            isCurrent={current === replicate.flask.number}
            isAlone
            mayTitrate={!flaskUnderBurette(run)}
            timerMinutes={timerMinutes}
            actions={actions}
          />
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}

interface FlaskTabProps {
  readonly run: RunState;
  readonly replicate: Replicate;
  readonly isCurrent: boolean;
  readonly isShown: boolean;
}

/** One flask of the strip: its number, how it stands, what it gives. */
function FlaskTab({ run, replicate, isCurrent, isShown }: FlaskTabProps) {
  const { flask, verdict, molarity } = replicate;
  const tab = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    const here = tab.current;
    // The strip moves, not the page.
    if (isShown && here?.parentElement) here.parentElement.scrollLeft = here.offsetLeft - 80;
  }, [isShown]);
  const { word } = VERDICTS[isCurrent && verdict !== 'disputed' ? 'current' : verdict];
  const colour = flaskColour(flask, run.references.method);
  return (
    <Tabs.Trigger
      ref={tab}
      value={String(flask.number)}
      className="flex min-h-14 min-w-[76px] flex-1 flex-col items-center border-b-4 border-transparent px-1.5 pt-1 leading-tight data-[state=active]:border-violet data-[state=active]:bg-sheet"
    >
      <span className="flex items-center gap-1.5">
        <span
          aria-hidden="true"
          className="size-3.5 rounded-full border border-titrant-edge"
          style={{ background: colour.css }}
        />
        <b>{flask.number}</b>
      </span>
      <span className={`text-[15px] whitespace-nowrap ${molarity === null ? '' : 'font-mono'}`}>
        {molarity === null || flask.voided ? word : foundText(run, molarity)}
        <span className="sr-only">, {word}</span>
      </span>
    </Tabs.Trigger>
  );
}

function NoFlaskYet({ run }: { readonly run: RunState }) {
  return (
    <p className="flex flex-1 items-center border-y border-rule px-4 py-6 text-lg text-ink-soft">
      {fillVerb(arrangementOf(run.references))} all flasks first, number them, add to all:{' '}
      {run.references.method.medium}; then titrate one after the other.
    </p>
  );
}
