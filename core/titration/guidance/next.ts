import { describeIndicator, isAutocatalytic } from '../../chemistry';
import type { Heating, StepCode, StepSaid, StepValues, WhyAnother } from '../../wording';
import { areWholeUnits, awaitedFirstEnd, forecastFirstEnd, forecastFlask } from '../figures';
import type { Judgement } from '../judging';
import { seriesFault } from '../judging';
import type { Flask, RunState } from '../run';
import { flaskUnderBurette, isBlank, openConflicts, openRefill, pauseOf } from '../run';
import type { Arrangement } from '../setUp';
import { arrangementOf, isAnalysis, sampleOf, standardSubstance } from '../setUp';
import { blanksAsked, plannedTitrations, planRun } from './plan';

/** What the analyst does next. */
export interface NextStep {
  readonly action:
    | 'weigh'
    | 'pipette'
    | 'blank'
    | 'read-initial'
    | 'read-stop'
    | 'read-restart'
    | 'read-first-end'
    | 'read-final'
    | 'settle'
    | 'resume'
    | 'certify'
    | 'stop'
    | 'closed';
  /** The flask it concerns. */
  readonly flask: number | null;
  /** `stepText` makes the sentence, the same on every screen. */
  readonly says: StepSaid;
  /** Whether the last final reading can serve as the next initial one. */
  readonly canCarryOver: boolean;
}

/** Decides what comes next: finish the flask under the burette, settle, fill a flask, titrate, or stop. */
export function nextStep(run: RunState, judgement: Judgement): NextStep {
  if (run.status !== 'open') return step('closed', null, 'closed', { status: run.status });
  const busy = flaskUnderBurette(run);
  if (pauseOf(run)) return step('resume', null, 'paused', { isFlaskUnderBurette: busy !== null });
  if (busy) return underBurette(run, busy);
  const [conflict] = openConflicts(run);
  if (conflict) {
    const { flask, place } = conflict;
    return step('settle', flask, 'settle', { flask, place: place.at });
  }
  const { rules } = run.setUp;
  const live = run.flasks.filter((flask) => !flask.voided);
  const waiting = live.filter((flask) => !flask.initial);
  const filled = live.filter((flask) => !isBlank(flask)).length;
  const planned = plannedTitrations(rules);
  const lacksBlank = live.filter(isBlank).length < blanksAsked(run.references.method);
  const [first] = waiting;
  const { isConcordant, averaged, spread, limit } = judgement;
  const isWhole = areWholeUnits(run);
  // A whole unit that is filled in is one more that tells how they differ.
  const isAwaited = waiting.some((flask) => isWhole || isBlank(flask));
  if (isConcordant && !lacksBlank && !isAwaited) {
    const values = {
      count: averaged?.n ?? 0,
      spread: spread.averaged ?? '',
      ...(isWhole && { isWhole }),
    };
    return step('certify', null, 'may-stop', values);
  }
  if (lacksBlank && filled >= planned) return blankStep(run);
  const made = judgement.accurate?.n ?? 0;
  if (made >= rules.titrationsAtMost && !isConcordant) {
    const fault = seriesFault(judgement);
    return step('stop', null, 'stop', { made, atLeast: rules.agreeAtLeast, limit, fault });
  }
  if (first && (filled >= planned || live.length > waiting.length)) return titrateStep(run, first);
  return portionStep(run, judgement, filled >= planned);
}

function step<Code extends StepCode>(
  action: NextStep['action'],
  flask: number | null,
  code: Code,
  values: StepValues<Code>,
): NextStep {
  return { action, flask, says: { code, values: { ...values } }, canCarryOver: false };
}

/** What to do with the flask that is being titrated. */
function underBurette(run: RunState, flask: Flask): NextStep {
  const { number } = flask;
  if (openRefill(flask) !== null) {
    return step('read-restart', number, 'fill-again', { flask: number });
  }
  const { burette, method } = run.references;
  const awaited = awaitedFirstEnd(method, flask);
  if (awaited) {
    const first = forecastFirstEnd(run, flask)?.onBurette;
    const values = { flask: number, until: awaited.until, expectedMl: first?.expected ?? null };
    return step('read-first-end', number, 'to-first-end', values);
  }
  const { onBurette } = forecastFlask(run, flask, null);
  const expectedMl = onBurette?.expected ?? 0;
  const capacityMl = Number(burette.capacityMl);
  if (expectedMl > capacityMl) {
    const values = { flask: number, capacityMl, expectedMl };
    return step('read-stop', number, 'stop-before-last-mark', values);
  }
  if (!onBurette?.holds) {
    return step('read-final', number, 'watch-last-mark', { flask: number, expectedMl });
  }
  if (isBlank(flask) && !run.references.excess) {
    return step('read-final', number, 'blank-drop-by-drop', { flask: number });
  }
  return step('read-final', number, 'run-freely', {
    runFreelyToMl: onBurette.runFreelyTo,
    expectedMl,
    ...(flask.firstEnd && { add: describeIndicator(method, run.setUp.rules) }),
  });
}

/** The step that stops a titration in the middle, to refill. */
export function refillStep({ number }: Flask): NextStep {
  return step('read-stop', number, 'stop-to-refill', { flask: number });
}

/** The step that begins the titration of a flask. */
export function titrateStep(run: RunState, flask: Flask): NextStep {
  const { number } = flask;
  const levelMl = run.level ? Number(run.level.readingMl) : null;
  const { onBurette, titreMl } = forecastFlask(run, flask, levelMl);
  const titrated = { flask: number, isBlank: isBlank(flask), heating: heatingOf(run) };
  if (levelMl === null) return step('read-initial', number, 'fill-burette', titrated);
  if (!onBurette?.holds) {
    return step('read-initial', number, 'refill-for', { ...titrated, titreMl });
  }
  const canCarryOver = run.setUp.rules.startOfTitration === 'carry-on';
  const goOn = canCarryOver ? 'carry-on' : 'refill';
  const begin = step('read-initial', number, 'titrate-next', { ...titrated, levelMl, goOn });
  return { ...begin, canCarryOver };
}

/** What a hot titration asks before its first reading. */
function heatingOf({ references: { method }, setUp: { rules } }: RunState): Heating {
  if (!method.flaskTemperatureC) return null;
  const [leastC, mostC] = method.flaskTemperatureC;
  if (!isAutocatalytic(method) || rules.oxalateHeating === 'to-75-80') {
    return { how: 'to-the-top', leastC, mostC };
  }
  const isSteamed = rules.oxalateHeating === 'until-steaming';
  return { how: isSteamed ? 'until-steaming' : 'towards-the-end', leastC, mostC };
}

/** The step that fills one more flask; `isExtra` says why the planned ones were not enough. */
export function portionStep(run: RunState, judgement: Judgement, isExtra: boolean): NextStep {
  const flask = nextFlask(run);
  const why = isExtra ? whyAnother(run, judgement) : null;
  const { portion: planned } = planRun(run.references, run.setUp.rules, judgement.accurate?.mean);
  const { portion, excess } = arrangementOf(run.references);
  if (portion.unit === 'g') {
    const substance = weighedName(run);
    const isWhole = areWholeUnits(run);
    const values = { flask, why, massG: planned.suggested, substance };
    return step('weigh', flask, 'weigh', isWhole ? { ...values, isWhole } : values);
  }
  return step('pipette', flask, 'pipette', {
    ...{ flask, why, volumeMl: planned.suggested, excess: excessSaid(excess) },
    ...{ isFixed: portion.fixedMl !== null, bottleCode: portion.bottleCode ?? '' },
    ...pipettedFrom(run),
  });
}

/** What is pipetted, where that is no bottle. */
function pipettedFrom({ references }: RunState): Pick<StepValues<'pipette'>, 'from'> {
  if (!isAnalysis(references)) return {};
  const isDiluted = sampleOf(references).dilutions.length > 0;
  return { from: isDiluted ? 'the diluted sample' : 'sample' };
}

/** What is weighed, as a step names it: the standard, or a sample by its code. */
function weighedName({ references }: RunState): string {
  return isAnalysis(references)
    ? `sample ${sampleOf(references).state.sample.code}`
    : (standardSubstance(references.standard)?.shortName ?? 'the standard');
}

function excessSaid(excess: Arrangement['excess']): StepValues<'blank'>['excess'] {
  return excess && { volumeMl: excess.fixedMl, bottleCode: excess.bottleCode ?? '' };
}

/** The step that makes a blank. */
export function blankStep(run: RunState): NextStep {
  const flask = nextFlask(run);
  const { excess } = arrangementOf(run.references);
  return step('blank', flask, 'blank', { flask, excess: excessSaid(excess) });
}

function nextFlask({ lastFlask }: RunState): number {
  return lastFlask + 1;
}

/** What keeps the series from being finished. */
function whyAnother(run: RunState, { accurate, spread, limit }: Judgement): WhyAnother {
  const { agreeAtLeast } = run.setUp.rules;
  return accurate && accurate.n >= agreeAtLeast
    ? { because: 'spread', spread: spread.accurate ?? '', limit }
    : { because: 'too-few', missing: agreeAtLeast - (accurate?.n ?? 0) };
}
