import { figureText, roundHalfEven } from '#core/measurement';
import type { NextStep } from '#core/titration/guidance';
import type { RunState } from '#core/titration/run';
import { forecastNextEnd } from '#core/titration/figures';
import { flaskOf } from '#core/titration/run';

/** The figures that are needed with both hands at the burette, to be read from two metres. */
export function LargeFigures({
  run,
  step,
  levelMl,
}: {
  readonly run: RunState;
  readonly step: NextStep;
  readonly levelMl: number | null;
}) {
  const flask = flaskOf(run, step.flask);
  const capacityMl = Number(run.references.burette.capacityMl);
  const next = flask && forecastNextEnd(run, flask, levelMl);
  const onBurette = next?.onBurette ?? null;
  return (
    <div
      className="grid min-h-0 flex-1 grid-cols-1 content-center gap-x-8 gap-y-6 border-t border-rule md:grid-cols-2"
      aria-label="Large figures"
    >
      <Large name="run freely to" value={onBurette && roundHalfEven(onBurette.runFreelyTo, 1)} />
      <Large
        name={next?.isFirst ? 'expect the first end at' : 'expect the end at'}
        value={onBurette && roundHalfEven(onBurette.expected, 2)}
        isMain
      />
      <Large name="level" value={levelMl === null ? null : roundHalfEven(levelMl, 2)} />
      <Large
        name={onBurette && !onBurette.holds ? 'refill before' : 'burette holds until'}
        value={String(capacityMl)}
        isWarning={onBurette !== null && !onBurette.holds}
      />
    </div>
  );
}

interface LargeProps {
  readonly name: string;
  readonly value: string | null;
  readonly isMain?: boolean;
  readonly isWarning?: boolean;
}

function Large({ name, value, isMain = false, isWarning = false }: LargeProps) {
  return (
    <p className={`@container min-w-0 ${isWarning ? 'text-blush' : isMain ? 'text-violet' : ''}`}>
      <span className="block text-[26px] leading-tight text-ink-soft">{name}</span>
      <span className="block font-mono text-[min(128px,27cqw)] leading-none font-bold">
        {value === null ? '–' : figureText(value)}
      </span>
    </p>
  );
}
