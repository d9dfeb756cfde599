import { findSubstance } from '../chemistry';
import { roundHalfEven } from '../measurement';
import { netMassG } from '../metrology';
import { nominalMolPerL } from '../reagent';
import { forecastTitre, standardOf } from './forecast';
import type { Judgement } from './judge';
import { planSeries } from './plan';
import type { Flask, RunState } from './run';
import { flaskUnderBurette, openConflicts, placeName } from './run';

/** What the analyst does next. The sentence is the same on every screen. */
export interface NextStep {
  readonly action:
    'weigh' | 'read-initial' | 'read-final' | 'settle' | 'certify' | 'stop' | 'closed';
  /** The flask it concerns. */
  readonly flask: number | null;
  readonly sentence: string;
  /** Whether the last final reading can serve as the next initial one. */
  readonly canCarryOver: boolean;
}

/** Decides what comes next: finish the flask under the burette, settle, weigh, titrate, or stop. */
export function nextStep(run: RunState, judgement: Judgement): NextStep {
  if (run.status !== 'open') {
    return step('closed', null, `This run is ${run.status}. Its figures are frozen.`);
  }
  const busy = flaskUnderBurette(run);
  if (busy) return readFinal(run, busy);
  const [conflict] = openConflicts(run);
  if (conflict) {
    const sentence = `Two different entries for the ${placeName(conflict.place)} of flask ${String(conflict.flask)}: settle which one stands.`;
    return step('settle', conflict.flask, sentence);
  }
  const { rules } = run.setUp;
  const live = run.flasks.filter((flask) => !flask.voided);
  const waiting = live.filter((flask) => !flask.initial);
  if (judgement.isConcordant) {
    const percent = judgement.averaged?.relativeRangePercent ?? 0;
    return step(
      'certify',
      null,
      `You may stop: ${String(judgement.averaged?.n ?? 0)} titrations agree within ${roundHalfEven(percent, 2)} %.`,
    );
  }
  const accurate = judgement.accurate?.n ?? 0;
  if (accurate >= rules.titrationsAtMost) {
    return step(
      'stop',
      null,
      `Stop: ${String(accurate)} titrations and no ${String(rules.agreeAtLeast)} of them agree within ${rules.concordanceRelativeRangePercent} %. Look for the cause before more.`,
    );
  }
  const planned = (rules.firstIsRough ? 1 : 0) + rules.agreeAtLeast;
  const [first] = waiting;
  if (first && (live.length >= planned || live.length > waiting.length)) {
    return titrateStep(run, first);
  }
  return weighStep(run, judgement, live.length >= planned);
}

function step(action: NextStep['action'], flask: number | null, sentence: string): NextStep {
  return { action, flask, sentence, canCarryOver: false };
}

function readFinal(run: RunState, flask: Flask): NextStep {
  const { onBurette } = forecastTitre(
    run,
    Number(netMassG(flask.weighing.value)),
    Number(flask.initial?.value),
  );
  const number = String(flask.number);
  if (!onBurette?.holds) {
    return step(
      'read-final',
      flask.number,
      `Flask ${number}: watch the last mark. The end is expected at ${roundHalfEven(onBurette?.expected ?? 0, 1)} and the burette may not hold it.`,
    );
  }
  return step(
    'read-final',
    flask.number,
    `Run freely to ${roundHalfEven(onBurette.runFreelyTo, 1)}, then drop by drop. The end point is expected at ${roundHalfEven(onBurette.expected, 2)}.`,
  );
}

/** The step that begins the titration of a weighed flask. */
export function titrateStep(run: RunState, flask: Flask): NextStep {
  const massG = Number(netMassG(flask.weighing.value));
  const number = String(flask.number);
  const level = run.level ? Number(run.level.readingMl) : null;
  const forecast = forecastTitre(run, massG, level);
  if (level === null) {
    return step(
      'read-initial',
      flask.number,
      `Rinse and fill the burette, bring it to or below zero, then read it for flask ${number}.`,
    );
  }
  if (!forecast.onBurette?.holds) {
    return step(
      'read-initial',
      flask.number,
      `Refill: flask ${number} needs about ${roundHalfEven(forecast.titreMl, 1)} mL and what is left does not suffice. Then read.`,
    );
  }
  return {
    ...step(
      'read-initial',
      flask.number,
      `Flask ${number} is next. Carry on from ${roundHalfEven(level, 2)}, or refill and read.`,
    ),
    canCarryOver: true,
  };
}

/** The step that weighs one more flask; `isExtra` says why the planned ones were not enough. */
export function weighStep(run: RunState, judgement: Judgement, isExtra: boolean): NextStep {
  const number = Math.max(0, ...run.flasks.map((flask) => flask.number)) + 1;
  const molarity = judgement.accurate?.mean ?? nominalMolPerL(run.references.bottle);
  const plan = planSeries(
    standardOf(run.references),
    molarity,
    run.references.burette,
    run.setUp.rules,
  );
  const about = roundHalfEven(plan.massG.suggested, 2);
  const standard = findSubstance(run.references.lot.lot.substanceId)?.shortName ?? 'the standard';
  const why = isExtra ? whyAnother(run, judgement) : '';
  return step(
    'weigh',
    number,
    `${why}Weigh about ${about} g of ${standard} into flask ${String(number)}.`,
  );
}

/** What keeps the series from being finished, as a sentence that leads to one more flask. */
function whyAnother(run: RunState, judgement: Judgement): string {
  const { rules } = run.setUp;
  const counted = judgement.accurate;
  if (counted && counted.n >= rules.agreeAtLeast) {
    return `The titrations spread over ${roundHalfEven(counted.relativeRangePercent, 2)} %, the rule allows ${rules.concordanceRelativeRangePercent} %. `;
  }
  const missing = rules.agreeAtLeast - (counted?.n ?? 0);
  return `${String(missing)} more ${missing === 1 ? 'titration is' : 'titrations are'} needed. `;
}
