import type { Forecast } from '#core/titration/figures';
import type { NextStep } from '#core/titration/guidance';
import type { Judgement } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { forecastNextEnd } from '#core/titration/figures';
import {
  blankStep,
  nextStep,
  portionStep,
  refillStep,
  titrateStep,
} from '#core/titration/guidance';
import { flaskOf, flaskUnderBurette, pauseOf } from '#core/titration/run';

/** What the analyst has chosen to do instead of what comes next by default. */
export type Detour =
  | { readonly kind: 'fill' | 'blank' | 'refill' | 'temperature' }
  | { readonly kind: 'titrate'; readonly flask: number };

/** The flask that a question is probably about: the one that comes next, else the last one. */
export function flaskAtHand(run: RunState, step: NextStep): number {
  const isThere = run.flasks.some(({ number }) => number === step.flask);
  return isThere && step.flask !== null ? step.flask : (run.flasks.at(-1)?.number ?? 1);
}

/** The analyst's own choice where there is one, else what core says comes next. */
export function takeDetour(run: RunState, judgement: Judgement, detour: Detour | null): NextStep {
  if (run.status !== 'open' || pauseOf(run)) return nextStep(run, judgement);
  const busy = flaskUnderBurette(run);
  switch (detour?.kind) {
    case 'fill':
      return portionStep(run, judgement, false);
    case 'blank':
      return blankStep(run);
    case 'refill':
      return busy ? refillStep(busy) : nextStep(run, judgement);
    case 'titrate': {
      const flask = flaskOf(run, detour.flask);
      return flask && !flask.initial && !busy ? titrateStep(run, flask) : nextStep(run, judgement);
    }
    case 'temperature':
    case undefined:
      return nextStep(run, judgement);
  }
}

interface Position {
  readonly levelMl: number | null;
  readonly startedMl: number | null;
  readonly forecast: Forecast['onBurette'];
  /** Whether that is the first of two ends. */
  readonly isFirstEnd: boolean;
}

/** What the burette shows: the level as typed or read, and the forecast of the flask at hand. */
export function burettePosition(run: RunState, step: NextStep, previewMl: number | null): Position {
  const capacityMl = Number(run.references.burette.capacityMl);
  const isOnScale = previewMl !== null && previewMl >= 0 && previewMl <= capacityMl;
  const readMl = run.level === null ? null : Number(run.level.readingMl);
  const levelMl = isOnScale ? previewMl : readMl;
  const flask = flaskOf(run, step.flask);
  if (!flask || !step.action.startsWith('read-')) {
    return { levelMl, startedMl: null, forecast: null, isFirstEnd: false };
  }
  const from = flask.refills.at(-1)?.restart ?? flask.initial;
  const { isFirst, onBurette } = forecastNextEnd(run, flask, levelMl);
  // A burette that has to be refilled first shows no end point below its last mark.
  const forecast = onBurette && onBurette.expected <= capacityMl ? onBurette : null;
  return { levelMl, startedMl: from ? Number(from.value) : null, forecast, isFirstEnd: isFirst };
}
