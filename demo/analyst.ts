import { roundHalfEven } from '#core/measurement';
import { nominalMolPerL, suggestValidUntil } from '#core/reagent';
import type { Flask, NextStep, RunState } from '#core/titration';
import {
  expectedTitreMl,
  judgeRun,
  nextStep,
  planSeries,
  readingToCarryOver,
  standardOf,
  titreMl,
} from '#core/titration';
import { netMassG } from '#core/metrology';
import type { NewFact } from '#contract';
import type { PlannedSeries } from './cooperative';
import type { Chance } from './random';

/** What a simulated analyst needs of the world. */
export interface Bench {
  readonly chance: Chance;
  /** The molarity that the titrant really has, mol/L. */
  readonly trueMolarity: number;
  /** Enters a fact of the run; some minutes pass. */
  readonly enter: (fact: NewFact, basedOn?: number) => Promise<void>;
  readonly certify: (run: RunState, validUntil: string, reason: string | null) => Promise<void>;
  /** The run as the server has it. */
  readonly look: () => Promise<RunState>;
  readonly today: () => string;
}

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
      const validUntil = suggestValidUntil(run.references.bottle.substanceId, bench.today());
      const isSelective = judgement.replicates.some((item) => item.verdict === 'set-aside');
      const reason = isSelective
        ? 'The one set aside was run faster than the others; its scatter stays in s.'
        : null;
      if (validUntil !== null) await bench.certify(run, validUntil, reason);
      return;
    }
    if (next.flask === null) {
      await bench.enter({ kind: 'run.abandoned', body: { reason: next.sentence } }, run.version);
      return;
    }
    await takeStep(bench, series, run, next, next.flask);
  }
}

async function takeStep(
  bench: Bench,
  series: PlannedSeries,
  run: RunState,
  next: NextStep,
  number: number,
): Promise<void> {
  const flask = run.flasks.find((item) => item.number === number);
  if (next.action === 'weigh' || !flask) await weigh(bench, run, number);
  else if (next.action === 'read-initial') await readInitial(bench, run, next, number);
  else await readFinal(bench, series, run, flask);
}

async function weigh(bench: Bench, run: RunState, flask: number): Promise<void> {
  const { bottle, burette } = run.references;
  const nominal = nominalMolPerL(bottle);
  const plan = planSeries(standardOf(run.references), nominal, burette, run.setUp.rules);
  const netG = plan.massG.suggested * (1 + 0.012 * bench.chance.normal());
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
  run: RunState,
  next: NextStep,
  flask: number,
): Promise<void> {
  const last = readingToCarryOver(run);
  const isCarried = next.canCarryOver && last;
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

async function readFinal(
  bench: Bench,
  series: PlannedSeries,
  run: RunState,
  flask: Flask,
): Promise<void> {
  const massG = Number(netMassG(flask.weighing.value));
  const overshoot = flask.isRough
    ? bench.chance.between(0.05, 0.15)
    : HAND_ML * bench.chance.normal();
  const titre = expectedTitreMl(standardOf(run.references), massG, bench.trueMolarity) + overshoot;
  const end = Number(flask.initial?.value) + titre;
  const read = (readingMl: string): NewFact => ({
    kind: 'run.burette-read',
    body: { flask: flask.number, moment: 'final', readingMl, carriedFrom: null, reason: null },
  });
  if (series.mishap === 'misread' && flask.number === 3) {
    await bench.enter(read(millilitres(end + 0.2)));
    const run = await bench.look();
    const entry = run.flasks.find((item) => item.number === 3)?.final;
    const body = {
      corrects: entry?.factId ?? '',
      readingMl: millilitres(end),
      reason: 'Read against the wrong graduation; seen before the next flask.',
    };
    await bench.enter({ kind: 'run.reading-corrected', body }, run.version);
    return;
  }
  if (series.mishap === 'bubble' && flask.number === 2) {
    await bench.enter(read(millilitres(end + 0.24)));
    const body = { flask: 2, reason: 'A bubble left the tip during the titration.' };
    await bench.enter({ kind: 'run.flask-voided', body }, (await bench.look()).version);
    return;
  }
  await bench.enter(read(millilitres(end)));
}

function grams(value: number): string {
  return roundHalfEven(value, 4);
}

function millilitres(value: number): string {
  return roundHalfEven(value, 2);
}
