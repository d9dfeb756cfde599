import { findSubstance, isAutocatalytic } from '../../chemistry';
import { roundHalfEven } from '../../measurement';
import { forecastFlask } from '../figures';
import type { Judgement } from '../judging';
import { seriesFault } from '../judging';
import type { Flask, RunState } from '../run';
import { flaskUnderBurette, isBlank, openConflicts, openRefill, pauseOf, placeName } from '../run';
import type { Arrangement } from '../setUp';
import { arrangementOf } from '../setUp';
import { planRun, plannedTitrations } from './plan';

/** What the analyst does next. The sentence is the same on every screen. */
export interface NextStep {
  readonly action:
    | 'weigh'
    | 'pipette'
    | 'blank'
    | 'read-initial'
    | 'read-stop'
    | 'read-restart'
    | 'read-final'
    | 'settle'
    | 'resume'
    | 'certify'
    | 'stop'
    | 'closed';
  /** The flask it concerns. */
  readonly flask: number | null;
  readonly sentence: string;
  /** Whether the last final reading can serve as the next initial one. */
  readonly canCarryOver: boolean;
}

/** Decides what comes next: finish the flask under the burette, settle, fill a flask, titrate, or stop. */
export function nextStep(run: RunState, judgement: Judgement): NextStep {
  if (run.status !== 'open') {
    return step('closed', null, `This run is ${run.status}. Its figures are frozen.`);
  }
  if (pauseOf(run)) {
    const level = flaskUnderBurette(run) ? '' : ' The burette is then filled and read anew.';
    return step('resume', null, `This run is paused. Whoever goes on resumes it.${level}`);
  }
  const busy = flaskUnderBurette(run);
  if (busy) return underBurette(run, busy);
  const [conflict] = openConflicts(run);
  if (conflict) {
    const sentence = `Two different entries for the ${placeName(conflict.place)} of flask ${String(conflict.flask)}: settle which one stands.`;
    return step('settle', conflict.flask, sentence);
  }
  const { rules } = run.setUp;
  const live = run.flasks.filter((flask) => !flask.voided);
  const waiting = live.filter((flask) => !flask.initial);
  const filled = live.filter((flask) => !isBlank(flask)).length;
  const planned = plannedTitrations(rules);
  const lacksBlank = run.references.method.needsBlank && !live.some(isBlank);
  const [first] = waiting;
  if (judgement.isConcordant && !lacksBlank && !waiting.some(isBlank)) {
    return step(
      'certify',
      null,
      `You may stop: ${String(judgement.averaged?.n ?? 0)} titrations agree within ${judgement.spread.averaged ?? ''}.`,
    );
  }
  if (lacksBlank && filled >= planned) return blankStep(run);
  const accurate = judgement.accurate?.n ?? 0;
  if (accurate >= rules.titrationsAtMost && !judgement.isConcordant) {
    return step(
      'stop',
      null,
      `Stop: ${String(accurate)} titrations and no ${String(rules.agreeAtLeast)} of them agree within ${judgement.limit}. ${seriesFault(judgement)?.sentence ?? 'Look for the cause before more.'}`,
    );
  }
  if (first && (filled >= planned || live.length > waiting.length)) return titrateStep(run, first);
  return portionStep(run, judgement, filled >= planned);
}

function step(action: NextStep['action'], flask: number | null, sentence: string): NextStep {
  return { action, flask, sentence, canCarryOver: false };
}

/** What to do with the flask that is being titrated. */
function underBurette(run: RunState, flask: Flask): NextStep {
  const number = String(flask.number);
  if (openRefill(flask) !== null) {
    const sentence = `Flask ${number}: fill the burette again, then read the level that it goes on from.`;
    return step('read-restart', flask.number, sentence);
  }
  const { burette, excess } = run.references;
  const { onBurette } = forecastFlask(run, flask, null);
  const expected = onBurette?.expected ?? 0;
  const capacityMl = Number(burette.capacityMl);
  if (expected > capacityMl) {
    const sentence = `Flask ${number}: stop before the last mark at ${String(capacityMl)}, read, and refill. About ${roundHalfEven(expected - capacityMl, 1)} mL will still be wanted.`;
    return step('read-stop', flask.number, sentence);
  }
  if (!onBurette?.holds) {
    return step(
      'read-final',
      flask.number,
      `Flask ${number}: watch the last mark. The end is expected at ${roundHalfEven(expected, 1)} and the burette may not hold it.`,
    );
  }
  if (isBlank(flask) && !excess) {
    const sentence = `Flask ${number}, the blank: drop by drop from the start, to the same colour. A few tenths of a millilitre at most.`;
    return step('read-final', flask.number, sentence);
  }
  return step(
    'read-final',
    flask.number,
    `Run freely to ${roundHalfEven(onBurette.runFreelyTo, 1)}, then drop by drop. The end point is expected at ${roundHalfEven(expected, 2)}.`,
  );
}

/** The step that stops a titration in the middle, to refill. */
export function refillStep({ number }: Flask): NextStep {
  const sentence = `Flask ${String(number)}: read the level at which you stop, before you refill.`;
  return step('read-stop', number, sentence);
}

/** The step that begins the titration of a flask. */
export function titrateStep(run: RunState, flask: Flask): NextStep {
  const name = isBlank(flask)
    ? `flask ${String(flask.number)}, the blank,`
    : `flask ${String(flask.number)}`;
  const level = run.level ? Number(run.level.readingMl) : null;
  const forecast = forecastFlask(run, flask, level);
  const goOn =
    run.setUp.rules.startOfTitration === 'carry-on'
      ? `Carry on from ${roundHalfEven(level ?? 0, 2)}, or refill and read.`
      : 'Refill to near zero and read.';
  const heat = heatFirst(run, flask);
  if (level === null) {
    return step(
      'read-initial',
      flask.number,
      `${heat}Rinse and fill the burette, bring it to or below zero, then read it for ${name.replace(/,$/, '')}.`,
    );
  }
  if (!forecast.onBurette?.holds) {
    return step(
      'read-initial',
      flask.number,
      heat === ''
        ? `Refill: ${name} needs about ${roundHalfEven(forecast.titreMl, 1)} mL and what is left does not suffice. Then read.`
        : `${heat}Refill, and read: it needs about ${roundHalfEven(forecast.titreMl, 1)} mL.`,
    );
  }
  return {
    ...step(
      'read-initial',
      flask.number,
      `${heat}${name.charAt(0).toUpperCase()}${name.slice(1)} is next. ${goOn}`,
    ),
    canCarryOver: run.setUp.rules.startOfTitration === 'carry-on',
  };
}

/** What a hot titration asks before its first reading. */
function heatFirst({ references: { method }, setUp: { rules } }: RunState, flask: Flask): string {
  if (!method.flaskTemperatureC) return '';
  const [least, most] = method.flaskTemperatureC;
  const number = String(flask.number);
  if (!isAutocatalytic(method) || rules.oxalateHeating === 'to-75-80') {
    return `Heat flask ${number} to ${String(most)} °C, never below ${String(least)}. `;
  }
  return rules.oxalateHeating === 'until-steaming'
    ? `Heat flask ${number} until it steams, never below ${String(least)} °C. `
    : `Titrate flask ${number} cold for most of the way, then heat it to ${String(least)} °C. `;
}

/** The step that fills one more flask; `isExtra` says why the planned ones were not enough. */
export function portionStep(run: RunState, judgement: Judgement, isExtra: boolean): NextStep {
  const number = nextFlask(run);
  const why = isExtra ? whyAnother(run, judgement) : '';
  const { portion: planned } = planRun(run.references, run.setUp.rules, judgement.accurate?.mean);
  const { portion, excess } = arrangementOf(run.references);
  const into = `into flask ${String(number)}`;
  if (portion.unit === 'g') {
    const about = roundHalfEven(planned.suggested, 2);
    const name = findSubstance(portion.substanceId)?.shortName ?? 'the standard';
    return step('weigh', number, `${why}Weigh about ${about} g of ${name} ${into}.`);
  }
  const volume =
    portion.fixedMl === null
      ? `about ${roundHalfEven(planned.suggested, 0)} mL`
      : `${String(planned.suggested)} mL`;
  const what = `${volume} of bottle ${portion.bottleCode ?? ''}`;
  if (excess) {
    const sentence = `${why}Pipette ${excessText(excess)}, ${into}, then ${what}.`;
    return step('pipette', number, sentence);
  }
  const verb = portion.fixedMl === null ? 'Let' : 'Pipette';
  return step('pipette', number, `${why}${verb} ${what} ${into}.`);
}

function excessText({ fixedMl, bottleCode }: NonNullable<Arrangement['excess']>): string {
  return `${String(fixedMl)} mL of bottle ${bottleCode ?? ''}, the excess`;
}

/** The step that makes a blank. */
export function blankStep(run: RunState): NextStep {
  const number = nextFlask(run);
  const { excess } = arrangementOf(run.references);
  const same = excess
    ? `${excessText(excess)}, and nothing that takes it up`
    : 'the same medium and indicator, and nothing to titrate';
  const sentence = `Make a blank as flask ${String(number)}: ${same}.`;
  return step('blank', number, sentence);
}

function nextFlask(run: RunState): number {
  return Math.max(0, ...run.flasks.map((flask) => flask.number)) + 1;
}

/** What keeps the series from being finished, as a sentence that leads to one more flask. */
function whyAnother(run: RunState, judgement: Judgement): string {
  const { rules } = run.setUp;
  const counted = judgement.accurate;
  if (counted && counted.n >= rules.agreeAtLeast) {
    return `The titrations spread over ${judgement.spread.accurate ?? ''}, the rule allows ${judgement.limit}. `;
  }
  const missing = rules.agreeAtLeast - (counted?.n ?? 0);
  return `${String(missing)} more ${missing === 1 ? 'titration is' : 'titrations are'} needed. `;
}
