import { addDecimals, decimalText, roundHalfEven } from '#core/measurement';
import { netMassG } from '#core/metrology';
import { suggestValidUntil } from '#core/reagent';
import type { NextStep } from '#core/titration/guidance';
import type { Flask, RunState } from '#core/titration/run';
import { amountIn, plainDeterminationOf } from '#core/titration/figures';
import { nextStep, planRun } from '#core/titration/guidance';
import type { Judgement } from '#core/titration/judging';
import { judgeRun } from '#core/titration/judging';
import {
  flaskOf,
  isBlank,
  readingToCarryOver,
  standardizationOf,
  titreMl,
} from '#core/titration/run';
import { arrangementOf } from '#core/titration/setUp';
import type { NewFact } from '#contract';
import { stepText } from '#core/wording';
import type { PlannedSeries } from './cooperative';
import type { Bench } from './bench';
import { followByElectrode } from './electrode';

/** Spread of a practised hand, mL: reading and end point together. */
const HAND_ML = 0.018;

/** Works at the bench as the application advises, until the run is certified or left half done. */
export async function workSeries(bench: Bench, series: PlannedSeries): Promise<void> {
  for (;;) {
    const run = await bench.look();
    const made = run.flasks.filter((flask) => titreMl(flask) !== null).length;
    if (series.stopAfter !== undefined && made >= series.stopAfter) return;
    const judgement = judgeRun(run);
    const next = nextStep(run, judgement);
    if (next.action === 'certify') {
      const validUntil = suggestValidUntil(standardizationOf(run).references.bottle, bench.today());
      if (validUntil !== null) await bench.certify(run, validUntil, reasonFor(judgement));
      return;
    }
    if (next.flask === null) {
      await bench.enter(
        { kind: 'run.abandoned', body: { reason: stepText(next.says) } },
        run.version,
      );
      return;
    }
    await takeStep(bench, series, run, next, next.flask);
  }
}

/** Why a series is certified in spite of what is unusual about it; null where nothing is. */
function reasonFor({ replicates, result }: Judgement): string | null {
  if (replicates.some(({ verdict }) => verdict === 'set-aside')) {
    return 'The one set aside was run faster than the others; its scatter stays in s.';
  }
  return result?.pooling?.pooled.isTooLarge === true
    ? 'No slip was found in the readings and masses; its own scatter counts.'
    : null;
}

/** Puts right a mass that was copied wrongly, once its certificate has been issued, and has it certified anew. */
export async function putRight(
  bench: Bench,
  { flask: number, byG }: NonNullable<PlannedSeries['putRight']>,
): Promise<void> {
  const certified = await bench.look();
  const issued = certified.certificate;
  if (!issued) throw new Error('the demo has no certificate to withdraw');
  const why = `the mass of flask ${String(number)} is not what the balance printed`;
  await bench.withdraw(certified, issued.number, why);
  const open = await bench.look();
  const portion = flaskOf(open, number)?.portion;
  if (portion?.value.kind !== 'mass') throw new Error(`flask ${String(number)} was not weighed`);
  const massG = addDecimals(netMassG(portion.value.weighing), decimalText(byG));
  const weighing = { mode: 'tared', massG } as const;
  const body = { corrects: portion.factId, weighing, reason: 'two digits changed places' };
  await bench.enter({ kind: 'run.weighing-corrected', body }, open.version);
  const corrected = await bench.look();
  const validUntil = suggestValidUntil(standardizationOf(open).references.bottle, bench.today());
  if (validUntil !== null) {
    await bench.certify(corrected, validUntil, reasonFor(judgeRun(corrected)));
  }
}

async function takeStep(
  bench: Bench,
  series: PlannedSeries,
  run: RunState,
  next: NextStep,
  number: number,
): Promise<void> {
  const flask = flaskOf(run, number);
  switch (next.action) {
    case 'weigh':
      await weigh(bench, run, number);
      return;
    case 'pipette': {
      const volumeMl = `${String(arrangementOf(run.references).portion.fixedMl)}.00`;
      const body = { flask: number, volumeMl, reason: null };
      await bench.enter({ kind: 'run.flask-pipetted', body });
      return;
    }
    case 'blank':
      await bench.enter({ kind: 'run.blank-made', body: { flask: number } });
      return;
    case 'read-initial':
      await readInitial(bench, series, run, next, number);
      return;
    case 'read-final':
      if (!flask) throw new Error(`the demo's analyst finds no flask ${String(number)}`);
      await readFinal(bench, series, run, flask);
      return;
    case 'read-stop':
    case 'read-restart':
    case 'read-first-end':
    case 'settle':
    case 'resume':
    case 'certify':
    case 'stop':
    case 'closed':
      throw new Error(`the demo's analyst does not know how to ${next.action}`);
  }
}

async function weigh(bench: Bench, run: RunState, flask: number): Promise<void> {
  const plan = planRun(run.references, run.setUp.rules);
  const netG = plan.portion.suggested * (1 + 0.012 * bench.chance.normal());
  const beforeG = 18 + bench.chance.between(0.5, 4);
  const weighing =
    flask % 2 === 0
      ? ({ mode: 'tared', massG: grams(netG) } as const)
      : ({
          mode: 'by-difference',
          beforeG: grams(beforeG),
          afterG: grams(beforeG - netG),
        } as const);
  await bench.enter({ kind: 'run.flask-weighed', body: { flask, weighing, reason: null } });
}

async function readInitial(
  bench: Bench,
  series: PlannedSeries,
  run: RunState,
  next: NextStep,
  flask: number,
): Promise<void> {
  const last = readingToCarryOver(run);
  // A curve goes on beyond the end: it begins with a full burette.
  const isCarried = next.canCarryOver && !series.electrode && last;
  const isPiston = run.references.burette.construction === 'piston';
  const filled = isPiston ? 0 : bench.chance.between(0.02, 0.6);
  await bench.enter({
    kind: 'run.burette-read',
    body: {
      flask,
      moment: 'initial',
      readingMl: isCarried ? last.value : millilitres(filled),
      carriedFrom: isCarried ? last.factId : null,
      reason: null,
    },
  });
}

/** What a blank takes, mL, where the medium takes any. */
const BLANK_ML = 0.12;

/** Heats a flask whose titration must be hot, and writes down how hot it is. */
async function heat(bench: Bench, run: RunState, flask: number): Promise<void> {
  const window = run.references.method.flaskTemperatureC;
  if (!window) return;
  const temperatureC = roundHalfEven(window[1] - bench.chance.between(0, 4), 0);
  const body = { flask, temperatureC, reason: null };
  await bench.enter({ kind: 'run.temperature-taken', body });
}

async function readFinal(
  bench: Bench,
  series: PlannedSeries,
  run: RunState,
  flask: Flask,
): Promise<void> {
  const overshoot = flask.isRough
    ? bench.chance.between(0.05, 0.15)
    : HAND_ML * bench.chance.normal();
  await heat(bench, run, flask.number);
  const blank = run.references.method.needsBlank ? BLANK_ML : 0;
  const net = isBlank(flask)
    ? 0
    : plainDeterminationOf(run.references).titreMl(amountIn(flask), bench.trueMolarity);
  const titre = Math.max(0, net + blank + overshoot);
  const end = Number(flask.initial?.value) + titre;
  const read = (readingMl: string, reason: string | null = null): NewFact => ({
    kind: 'run.burette-read',
    body: { flask: flask.number, moment: 'final', readingMl, carriedFrom: null, reason },
  });
  if (series.electrode && !flask.isRough) {
    await bench.enter(read(await followByElectrode(bench, run, flask)));
    return;
  }
  if (series.incident === 'misread' && flask.number === 3) {
    await bench.enter(read(millilitres(end + 0.2)));
    const run = await bench.look();
    const entry = flaskOf(run, 3)?.final;
    const body = {
      corrects: entry?.factId ?? '',
      readingMl: millilitres(end),
      reason: 'Read against the wrong graduation; seen before the next flask.',
    };
    await bench.enter({ kind: 'run.reading-corrected', body }, run.version);
    return;
  }
  if (series.incident === 'bubble' && flask.number === 2) {
    await bench.enter(read(millilitres(end + 0.24)));
    const body = { flask: 2, reason: 'A bubble left the tip during the titration.' };
    await bench.enter({ kind: 'run.flask-voided', body }, (await bench.look()).version);
    return;
  }
  if (series.incident === 'brown' && flask.number === 3) {
    await bench.enter(read(millilitres(end + 0.9), 'The flask has gone brown.'));
    const remark = 'Run too fast at the start.';
    const size = { measured: null, waterMl: null, volumetricFlaskMl: null };
    const body = { flask: 3, incidentId: 'brown-turbidity', ...size, remark };
    await bench.enter({ kind: 'run.incident-noted', body });
    const reason = 'Brown turbidity in the flask.';
    const { version } = await bench.look();
    await bench.enter({ kind: 'run.flask-voided', body: { flask: 3, reason } }, version);
    return;
  }
  if (series.incident === 'overshot' && flask.number === 3) {
    const before = { flask: 3, readingMl: millilitres(end - 0.01) };
    await bench.enter({ kind: 'run.provisional-read', body: before });
    await bench.enter(read(millilitres(end + 0.05)));
    const body = { flask: 3, grade: 'drop-over' } as const;
    await bench.enter({ kind: 'run.end-point-graded', body });
    return;
  }
  await bench.enter(read(millilitres(end)));
  if (series.incident === 'read-twice' && flask.number === 2) {
    const looked = await bench.look();
    const body = {
      corrects: flaskOf(looked, 2)?.final?.factId ?? '',
      readingMl: millilitres(end - 0.01),
      reason: 'Read again with the card behind the meniscus.',
    };
    await bench.enter({ kind: 'run.reading-corrected', body }, looked.version);
  }
}

function grams(value: number): string {
  return roundHalfEven(value, 4);
}

function millilitres(value: number): string {
  return roundHalfEven(value, 2);
}
