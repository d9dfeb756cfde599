import type { Id } from '#core/grammar';
import { workedOn } from '#core/titration/guidance';
import { judgeRun } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { flaskUnderBurette, sampleIdOf, seriesOf, seriesWith } from '#core/titration/run';
import { isAnalysis, sampleOf } from '#core/titration/setUp';
import { foundText, foundUnit } from './found';

/** The series that the bench shows: that of the flask under the burette, else the one that was chosen, else the one that comes next. */
export function seriesAtHand(run: RunState, chosenId: Id | undefined): RunState {
  const busy = flaskUnderBurette(run);
  if (busy) return seriesWith(run, busy);
  const chosen = chosenId && seriesOf(run).find((one) => sampleIdOf(one) === chosenId);
  return chosen ?? workedOn(run);
}

/** The samples of a batch beside each other, each with what it has come to. */
export function SampleStrip({
  run,
  series,
  onChoose,
}: {
  readonly run: RunState;
  /** The one at hand. */
  readonly series: RunState;
  readonly onChoose: (sampleId: Id) => void;
}) {
  const all = seriesOf(run);
  if (all.length < 2) return null;
  const isBusy = flaskUnderBurette(run) !== null;
  return (
    <nav
      aria-label="Samples of the batch"
      data-cut="scrolls sideways"
      className="flex shrink-0 gap-1.5 overflow-x-auto border-b border-rule py-1.5"
    >
      {all.map((one) => (
        <SampleTab
          key={sampleIdOf(one)}
          series={one}
          isShown={one === series}
          isDisabled={isBusy && one !== series}
          onChoose={onChoose}
        />
      ))}
    </nav>
  );
}

function SampleTab({
  series,
  isShown,
  isDisabled,
  onChoose,
}: {
  readonly series: RunState;
  readonly isShown: boolean;
  readonly isDisabled: boolean;
  readonly onChoose: (sampleId: Id) => void;
}) {
  const { references } = series;
  if (!isAnalysis(references)) return null;
  const { id, sample } = sampleOf(references).state;
  const { averaged, isConcordant } = judgeRun(series);
  return (
    <button
      type="button"
      aria-current={isShown ? 'true' : undefined}
      disabled={isDisabled}
      onClick={() => {
        onChoose(id);
      }}
      className={`min-h-12 shrink-0 rounded-md border px-3 text-left leading-tight disabled:opacity-50 lg:min-h-11 ${isShown ? 'border-violet bg-sheet font-bold' : 'border-rule'}`}
    >
      <span className="font-mono">{sample.code}</span>
      <span className={`block text-sm font-normal ${isConcordant ? 'text-leaf' : 'text-ink-soft'}`}>
        {averaged ? `${foundText(series, averaged.mean)} ${foundUnit(series)}` : 'to be titrated'}
      </span>
    </button>
  );
}
