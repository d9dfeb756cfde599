import { useState } from 'react';
import type { Colour } from '#core/chemistry';
import { roundHalfEven } from '#core/measurement';
import type { NextStep } from '#core/titration/guidance';
import type { EndPointGrade, Flask, RunState } from '#core/titration/run';
import { forecastFlask } from '#core/titration/figures';
import { flaskOf, isBlank } from '#core/titration/run';
import { arrangementOf, fillVerb } from '#core/titration/setUp';
import { stepText } from '#core/wording';
import { Button, ButtonLink } from '../ui/Button';
import { Sentence } from '../ui/ShortName';
import type { WeighingMode } from '../ui/WeighingModeChoice';
import type { Entering } from './EntryPanel';
import { EntryPanel, isEntryAction } from './EntryPanel';
import { flaskJustEnded, GradeRow, gradeWays } from './Grade';
import { HotFlask } from './HotFlask';
import { Persistence } from './Persistence';
import type { Way } from './useKeys';
import { useKeys } from './useKeys';

/** What the analyst has chosen to do instead of what comes next by default. */
export type Detour =
  | { readonly kind: 'fill' | 'blank' | 'refill' | 'temperature' }
  | { readonly kind: 'titrate'; readonly flask: number };

interface ActionProps {
  readonly run: RunState;
  readonly step: NextStep;
  readonly isTakingTemperature: boolean;
  readonly mode: WeighingMode;
  readonly onMode: (mode: WeighingMode) => void;
  readonly onPreview: (readingMl: number | null) => void;
  readonly onDetour: (detour: Detour | null) => void;
  readonly onSettle: (flask: number) => void;
  readonly onBurette: () => void;
  readonly onElectrode: () => void;
  readonly onGrade: (flask: Flask, grade: EndPointGrade) => void;
  readonly onTakeBack: (flask: Flask) => void;
  readonly onResume: () => void;
  /** Keys of the page, wherever one is. */
  readonly pageWays: readonly Way[];
}

/** What to do next, and where to write it down. */
export function Action(props: ActionProps) {
  const { run, step, mode, onMode, onPreview, onDetour } = props;
  const { persistenceS } = run.setUp.rules;
  const flask = flaskOf(run, step.flask);
  // The colour of one flask says nothing of another.
  const [colouredFlask, setColouredFlask] = useState<number | null>(null);
  const isColoured = step.action === 'read-final' && colouredFlask === step.flask;
  const ended = flaskJustEnded(run);
  const grading = ended
    ? gradeWays(
        ended,
        (grade) => {
          props.onGrade(ended, grade);
        },
        () => {
          props.onTakeBack(ended);
        },
      )
    : [];
  useKeys([...grading, ...props.pageWays]);
  const entering = enteringOf(props);
  const timing: readonly Way[] =
    step.action === 'read-final'
      ? [
          persistenceWay(isColoured, persistenceS, (isThere) => {
            setColouredFlask(isThere ? step.flask : null);
          }),
        ]
      : [];
  const ways = entering ? [...waysFrom(props, flask), ...timing] : [];
  const isUnderBurette = step.action === 'read-final' || step.action === 'read-stop';
  return (
    <div className="grid min-h-[158px] grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-2 py-3 xl:grid-cols-[minmax(0,1fr)_minmax(0,484px)]">
      <div>
        <p role="status" className="text-[26px] leading-[1.25] font-semibold">
          <Sentence text={stepText(step.says)} />
        </p>
        {isColoured && <Persistence seconds={persistenceS} />}
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
          ways={ways}
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
      {ended && <GradeRow flask={ended} ways={grading} />}
    </div>
  );
}

/** What is entered next; null when something has to be chosen instead. */
function enteringOf({ step, isTakingTemperature }: ActionProps): Entering | null {
  const { action, flask, canCarryOver } = step;
  if (flask === null || !isEntryAction(action)) return null;
  return isTakingTemperature
    ? { action: 'take-temperature', flask, canCarryOver: false }
    : { action, flask, canCarryOver };
}

/** The other ways on from a step, each with its key. */
function waysFrom(props: ActionProps, flask: Flask | undefined): readonly Way[] {
  const { run, step, isTakingTemperature, onDetour, onBurette, onElectrode } = props;
  const to = (detour: Detour | null) => () => {
    onDetour(detour);
  };
  if (isTakingTemperature) return [{ key: 'h', name: 'Not now', go: to(null) }];
  const { flaskTemperatureC } = run.references.method;
  const heat: readonly Way[] =
    flaskTemperatureC && flask
      ? [{ key: 'h', name: 'How hot?', go: to({ kind: 'temperature' }) }]
      : [];
  const waiting = run.flasks.find((item) => !item.initial && !item.voided);
  const another: Way = {
    key: 'w',
    name: `${fillVerb(arrangementOf(run.references))} another`,
    go: to({ kind: 'fill' }),
  };
  switch (step.action) {
    case 'weigh':
    case 'pipette':
    case 'blank':
      return [
        ...(waiting
          ? [
              {
                key: 't',
                name: `Titrate flask ${String(waiting.number)}`,
                go: to({ kind: 'titrate', flask: waiting.number }),
              },
            ]
          : []),
        ...(step.action === 'blank'
          ? [another]
          : [{ key: 'n', name: 'Make a blank', go: to({ kind: 'blank' }) }]),
      ];
    case 'read-initial':
      return [
        ...(run.buretteChecked.length === 0
          ? [{ key: 'b', name: 'Check burette', go: onBurette }]
          : []),
        ...heat,
        another,
      ];
    case 'read-final':
      return [
        { key: 'r', name: 'Refill', go: to({ kind: 'refill' }) },
        { key: 'e', name: 'Electrode', go: onElectrode },
        ...heat,
      ];
    case 'read-stop':
      return [{ key: 'r', name: 'No refill', go: to(null) }, ...heat];
    case 'read-restart':
    case 'settle':
    case 'certify':
    case 'stop':
    case 'closed':
    case 'resume':
      return heat;
  }
}

function persistenceWay(
  isColoured: boolean,
  seconds: number,
  onColour: (isThere: boolean) => void,
): Way {
  return !isColoured
    ? {
        key: 'p',
        name: `Does it last ${String(seconds)} s?`,
        go: () => {
          onColour(true);
        },
      }
    : {
        key: 'f',
        name: 'It faded',
        go: () => {
          onColour(false);
        },
      };
}

/** What to choose where nothing is entered. */
function Choices({ run, step, onDetour, onSettle, onResume }: ActionProps) {
  const { flask } = step;
  const another = `${fillVerb(arrangementOf(run.references))} another`;
  return (
    <div className="flex items-start justify-end gap-3">
      {step.action === 'resume' && (
        <Button look="primary" onClick={onResume}>
          Go on with it
        </Button>
      )}
      {run.status === 'open' && step.action !== 'resume' && (
        <Button
          onClick={() => {
            onDetour({ kind: 'fill' });
          }}
        >
          {another}
        </Button>
      )}
      {step.action === 'settle' && flask !== null && (
        <Button
          look="primary"
          onClick={() => {
            onSettle(flask);
          }}
        >
          Compare and settle
        </Button>
      )}
      {(step.action === 'certify' || step.action === 'stop' || step.action === 'closed') && (
        <ButtonLink look="primary" to={`/runs/${run.id}/judge`}>
          {run.status === 'open' ? 'Judge and certify' : 'See the result'}
        </ButtonLink>
      )}
    </div>
  );
}

/** The colours to look for, and what a drop is worth. */
function EndPointHint({ run, flask }: { readonly run: RunState; readonly flask: Flask }) {
  const { colours } = run.references.method;
  const { dropPercent } = forecastFlask(run, flask, null);
  const before = flask.provisional.at(-1);
  const shade = run.flasks
    .flatMap(({ number, photographs }) => photographs.map((file) => ({ flask: number, file })))
    .at(-1);
  return (
    <p className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[15px] text-ink-soft">
      <Swatch word="now" colour={colours.before} />
      <Swatch word="wanted" colour={colours.endPoint} />
      <Swatch word="overshot" colour={colours.overshot} />
      {shade && (
        <a href={`/api/files/${shade.file.fileId}`} className="flex items-center gap-1.5">
          <img
            src={`/api/files/${shade.file.fileId}`}
            alt={`flask ${String(shade.flask)}, photographed as the shade to match`}
            className="size-12 rounded border border-rule-strong object-cover"
          />
          to match
        </a>
      )}
      {!isBlank(flask) && <span>one drop: {roundHalfEven(dropPercent, 2)} %</span>}
      <span>burette holds until {run.references.burette.capacityMl}</span>
      {before && (
        <span className="font-semibold text-ink">
          written before a drop: <span className="font-mono">{before.value}</span>
        </span>
      )}
    </p>
  );
}

function Swatch({ word, colour }: { readonly word: string; readonly colour: Colour }) {
  return (
    <span className="flex items-center gap-1.5">
      <span
        aria-hidden="true"
        className="inline-block size-5 rounded-full border border-rule-strong"
        style={{ background: colour.css }}
      />
      {word}: {colour.word}
    </span>
  );
}
