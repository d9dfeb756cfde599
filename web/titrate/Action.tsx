import { useState } from 'react';
import type { NextStep } from '#core/titration/guidance';
import type { RunState } from '#core/titration/run';
import { isAnalysis } from '#core/titration/setUp';
import { flaskOf, openConflicts } from '#core/titration/run';
import { stepText } from '#core/wording';
import { Button, ButtonLink } from '../ui/Button';
import { FormError } from '../ui/FormError';
import { Sentence } from '../ui/ShortName';
import type { WeighingMode } from '../ui/WeighingModeChoice';
import type { Detour } from './atTheBench';
import { EndPointHint } from './EndPointHint';
import type { Entering } from './entries';
import { isEntryAction } from './entries';
import { EntryPanel } from './EntryPanel';
import { flaskJustEnded, GradeRow, gradeWays } from './Grade';
import { HotFlask } from './HotFlask';
import { Persistence } from './Persistence';
import type { Question } from './Questions';
import type { Way } from './useKeys';
import { useKeys } from './useKeys';
import { useEntering } from './useRun';
import { anotherOf, persistenceWay, waysFrom } from './ways';

interface ActionProps {
  readonly run: RunState;
  readonly step: NextStep;
  readonly isTakingTemperature: boolean;
  readonly mode: WeighingMode;
  readonly onMode: (mode: WeighingMode) => void;
  readonly onPreview: (readingMl: number | null) => void;
  readonly onDetour: (detour: Detour | null) => void;
  readonly ask: (question: Question) => void;
  /** Keys of the page, wherever one is. */
  readonly pageWays: readonly Way[];
}

/** What is read of a titration that goes on. */
const UNDER_BURETTE: ReadonlySet<NextStep['action']> = new Set([
  'read-first-end',
  'read-stop',
  'read-final',
]);

/** What to do next, and where to write it down. */
export function Action(props: ActionProps) {
  const { run, step, mode, onMode, onPreview, onDetour } = props;
  const flask = flaskOf(run, step.flask);
  const persistence = usePersistence(run, step);
  const ended = useGrading(props);
  const entering = enteringOf(props);
  const isUnderBurette = UNDER_BURETTE.has(step.action);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-2 py-3 xl:min-h-[158px] xl:grid-cols-[minmax(0,1fr)_minmax(0,484px)]">
      <div>
        <p role="status" className="text-[22px] leading-[1.25] font-semibold md:text-[26px]">
          <Sentence text={stepText(step.says)} />
        </p>
        {persistence.isColoured && <Persistence seconds={run.setUp.rules.persistenceS} />}
      </div>
      {entering ? (
        <EntryPanel
          key={`${entering.action}-${String(entering.flask)}-${String(run.version)}`}
          run={run}
          step={entering}
          mode={mode}
          onMode={onMode}
          onPreview={onPreview}
          onKept={() => {
            onDetour(null);
          }}
          ways={[...waysFrom(props), ...persistence.ways]}
        />
      ) : (
        <Choices {...props} />
      )}
      {isUnderBurette && flask && (
        <div className="col-span-full">
          <EndPointHint run={run} flask={flask} />
          <HotFlask run={run} flask={flask} />
        </div>
      )}
      {ended && <GradeRow {...ended} />}
    </div>
  );
}

/** Whether the colour of the flask under the burette is being watched, and the key for it. */
function usePersistence(run: RunState, { action, flask }: NextStep) {
  // The colour of one flask says nothing of another.
  const [colouredFlask, setColouredFlask] = useState<number | null>(null);
  const isEnding = action === 'read-final';
  const isColoured = isEnding && colouredFlask === flask;
  const way = persistenceWay(isColoured, run.setUp.rules.persistenceS, (isThere) => {
    setColouredFlask(isThere ? flask : null);
  });
  return { isColoured, ways: isEnding ? [way] : [] };
}

/** The flask that has just been ended with the keys that grade it, heard beside those of the page; null when there is none. */
function useGrading({ run, ask, pageWays }: ActionProps) {
  const entering = useEntering(run);
  const flask = flaskJustEnded(run);
  const ways = flask
    ? gradeWays(
        flask,
        (grade) => {
          const body = { flask: flask.number, grade };
          entering.mutate([{ kind: 'run.end-point-graded', body }]);
        },
        () => {
          ask({ kind: 'take-back', flask: flask.number });
        },
      )
    : [];
  useKeys([...ways, ...pageWays]);
  return flask && { flask, ways, error: entering.error?.message };
}

/** What is entered next; null when something has to be chosen instead. */
function enteringOf({ step, isTakingTemperature }: ActionProps): Entering | null {
  const { action, flask, canCarryOver } = step;
  if (flask === null || !isEntryAction(action)) return null;
  return isTakingTemperature
    ? { action: 'take-temperature', flask, canCarryOver: false }
    : { action, flask, canCarryOver };
}

/** What to choose where nothing is entered. */
function Choices({ run, step, onDetour, ask }: ActionProps) {
  const entering = useEntering(run);
  const conflict = openConflicts(run).find(({ flask }) => flask === step.flask);
  return (
    <div className="flex flex-wrap items-start justify-end gap-3">
      <FormError message={entering.error?.message} />
      {step.action === 'resume' && (
        <Button
          look="primary"
          onClick={() => {
            entering.mutate([{ kind: 'run.resumed', body: { remark: '' } }]);
          }}
        >
          Go on with it
        </Button>
      )}
      {run.status === 'open' && step.action !== 'resume' && (
        <Button
          onClick={() => {
            onDetour({ kind: 'fill' });
          }}
        >
          {anotherOf(run)}
        </Button>
      )}
      {step.action === 'settle' && conflict && (
        <Button
          look="primary"
          onClick={() => {
            ask({ kind: 'settle', conflict });
          }}
        >
          Compare and settle
        </Button>
      )}
      {(step.action === 'certify' || step.action === 'stop' || step.action === 'closed') && (
        <ButtonLink look="primary" to={`/runs/${run.id}/judge`}>
          {run.status !== 'open'
            ? 'See the result'
            : isAnalysis(run.references)
              ? 'See the contents'
              : 'Judge and certify'}
        </ButtonLink>
      )}
    </div>
  );
}
