import { useState } from 'react';
import { useParams } from 'react-router';
import type { Id } from '#core/grammar';
import { judgeRun } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { flaskOf, openConflicts } from '#core/titration/run';
import { buretteLiquid } from '#core/titration/setUp';
import { Loading } from '../app/Loading';
import { Button } from '../ui/Button';
import type { WeighingMode } from '../ui/WeighingModeChoice';
import { Action } from './Action';
import type { Detour } from './atTheBench';
import { burettePosition, flaskAtHand, takeDetour } from './atTheBench';
import { BatchParts } from './BatchParts';
import { BenchHeader } from './BenchHeader';
import { BenchMenu } from './BenchMenu';
import { BuretteDrawing } from './BuretteDrawing';
import type { FlaskActions } from './FlaskColumn';
import { Flasks } from './Flasks';
import { LargeFigures } from './LargeFigures';
import type { Question } from './Questions';
import { Questions } from './Questions';
import { SampleStrip, seriesAtHand } from './SampleStrip';
import { SoFar } from './SoFar';
import type { Way } from './useKeys';
import { useRun } from './useRun';
import { useWakeLock } from './useWakeLock';
import { Warnings } from './Warnings';

/** The screen beside the burette. */
export function BenchPage() {
  const { runId = '' } = useParams();
  const loaded = useRun(runId);
  return loaded ? <Bench key={runId} run={loaded.run} /> : <Loading />;
}

function Bench({ run: whole }: { readonly run: RunState }) {
  useWakeLock();
  const [chosenId, setChosenId] = useState<Id>();
  const run = seriesAtHand(whole, chosenId);
  const bench = useBench(run);
  const { step, judgement, onBurette, isLarge, ask, askAboutIncident, toggleLarge } = bench;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] md:grid-cols-[220px_minmax(0,1fr)] xl:h-screen xl:min-h-[760px] xl:grid-cols-[268px_minmax(0,1fr)]">
      <div className="border-rule bg-board max-md:order-2 max-md:border-t md:border-r">
        <div className="h-[480px] md:sticky md:top-0 md:h-screen md:max-h-[860px]">
          <BuretteDrawing
            burette={run.references.burette}
            liquid={buretteLiquid(run.references, run.setUp.rules)}
            {...onBurette}
          />
        </div>
      </div>
      <div className="flex min-h-0 min-w-0 flex-col px-4 pt-2 pb-3 md:px-6">
        <BenchHeader run={run}>
          {run.flasks.length > 0 && (
            <Button
              className="text-[15px] whitespace-nowrap max-lg:hidden"
              onClick={askAboutIncident}
            >
              Does it matter?
            </Button>
          )}
          <BenchMenu
            run={run}
            isLarge={isLarge}
            onLarge={toggleLarge}
            onAsk={(kind) => {
              ask({ kind });
            }}
            onIncident={run.flasks.length > 0 ? askAboutIncident : null}
          />
        </BenchHeader>
        <BatchParts run={whole} page="" />
        <SampleStrip run={whole} series={run} onChoose={setChosenId} />
        <Warnings run={run} />
        <Action run={run} step={step} {...bench.action} />
        {isLarge ? (
          <LargeFigures run={run} step={step} levelMl={onBurette.levelMl} />
        ) : (
          <>
            <Flasks
              run={run}
              judgement={judgement}
              current={step.flask}
              actions={bench.flaskActions}
            />
            <SoFar run={run} judgement={judgement} />
          </>
        )}
      </div>
      <Questions
        run={run}
        judgement={judgement}
        question={bench.question}
        onClose={() => {
          ask(null);
        }}
      />
    </div>
  );
}

/** What the bench shows of a run: the step at hand, what is typed, what is asked. */
function useBench(run: RunState) {
  const [detour, onDetour] = useState<Detour | null>(null);
  const [question, ask] = useState<Question | null>(null);
  const [mode, onMode] = useState<WeighingMode>(run.setUp.rules.weighing);
  const [previewMl, onPreview] = useState<number | null>(null);
  const [isLarge, setLarge] = useState(false);
  const judgement = judgeRun(run);
  const step = takeDetour(run, judgement, detour);
  const askAboutIncident = (): void => {
    ask({ kind: 'incident', flask: flaskAtHand(run, step) });
  };
  const toggleLarge = (): void => {
    setLarge(!isLarge);
  };
  const pageWays: readonly Way[] = [
    ...(run.flasks.length > 0 ? [{ key: 'i', name: 'Does it matter?', go: askAboutIncident }] : []),
    { key: 'l', name: 'Large figures', go: toggleLarge },
    {
      key: '?',
      name: 'Keys',
      go: () => {
        ask({ kind: 'keys' });
      },
    },
  ];
  const isTakingTemperature = detour?.kind === 'temperature';
  return {
    step,
    judgement,
    question,
    ask,
    askAboutIncident,
    isLarge,
    toggleLarge,
    onBurette: burettePosition(run, step, previewMl),
    action: { isTakingTemperature, mode, onMode, onPreview, onDetour, ask, pageWays },
    flaskActions: flaskActionsOf(run, onDetour, ask),
  };
}

function flaskActionsOf(
  run: RunState,
  onDetour: (detour: Detour) => void,
  ask: (question: Question) => void,
): FlaskActions {
  return {
    onTitrate: (flask) => {
      onDetour({ kind: 'titrate', flask });
    },
    onVoid: (flask) => {
      ask({ kind: 'void', flask });
    },
    onSettle: (flask) => {
      const conflict = openConflicts(run).find((item) => item.flask === flask);
      if (conflict) ask({ kind: 'settle', conflict });
    },
    onCorrectPortion: (flask) => {
      const entry = flaskOf(run, flask)?.portion;
      if (entry) ask({ kind: 'correct', correction: { what: 'portion', flask, entry } });
    },
    onCorrectReading: (flask, place, entry) => {
      ask({ kind: 'correct', correction: { what: 'reading', flask, place, entry } });
    },
  };
}
