import type { AnalysisRun, BuretteMoment, RunState } from '#core/titration/run';
import { isAnalysisRun, sampleIdOf, seriesOf } from '#core/titration/run';
import { plainDeterminationOf } from '#core/titration/figures';
import { pipetteVolumeMl } from '#core/titration/setUp';
import type { Chance } from '#core/measurement';
import { roundHalfEven } from '#core/measurement';
import type { NewFact } from '#contract';

/** Spread of a practised hand at a piston burette, mL. */
const HAND_ML = 0.008;

/** What a blank takes where the medium takes any, mL. */
const BLANK_ML = 0.1;

/** A sample on the bench, and what it really holds, in the unit of its request. */
interface OnTheBench {
  readonly sampleId: string;
  readonly content: number;
}

/** What a simulated analyst of samples needs of the world. */
interface SampleBench {
  readonly chance: Chance;
  readonly enter: (fact: NewFact) => Promise<void>;
  readonly look: () => Promise<RunState>;
  /** Of a titration with two ends, how much of it runs in up to the first; null where there is one. */
  readonly toFirstEnd: number | null;
}

/** Titrates each sample of a batch in duplicate, after a blank where the analysis asks for one. */
export async function workBatch(bench: SampleBench, samples: readonly OnTheBench[]): Promise<void> {
  const { references } = analysisIn(await bench.look());
  const { method, portioning } = references;
  const blankMl = method.needsBlank ? BLANK_ML : 0;
  let flask = 1;
  if (method.needsBlank) {
    await bench.enter({ kind: 'run.blank-made', body: { flask } });
    await titrate(bench, flask, blankMl);
    flask += 1;
  }
  if (portioning.kind !== 'aliquot') throw new Error('the demo pipettes its samples');
  const volumeMl = pipetteVolumeMl(portioning.vessel);
  for (const { sampleId, content } of samples) {
    for (const _ of [1, 2]) {
      const volume = `${String(volumeMl)}.00`;
      const named = samples.length > 1 ? { sampleId } : {};
      const body = { flask, volumeMl: volume, reason: null, ...named };
      await bench.enter({ kind: 'run.flask-pipetted', body });
      const series = seriesOf(await bench.look()).find((one) => sampleIdOf(one) === sampleId);
      if (!series) throw new Error(`the batch has no sample ${sampleId}`);
      const netMl = plainDeterminationOf(analysisIn(series).references).titreMl(volumeMl, content);
      await titrate(bench, flask, netMl + blankMl);
      flask += 1;
    }
  }
}

function analysisIn(run: RunState): AnalysisRun {
  if (isAnalysisRun(run)) return run;
  throw new Error('the demo analyses samples here');
}

async function titrate({ chance, enter, toFirstEnd }: SampleBench, flask: number, titreMl: number) {
  const read = (moment: BuretteMoment, value: number): NewFact => ({
    kind: 'run.burette-read',
    body: { flask, moment, readingMl: roundHalfEven(value, 2), carriedFrom: null, reason: null },
  });
  await enter(read('initial', 0));
  if (toFirstEnd !== null) {
    await enter(read('first-end', toFirstEnd * titreMl + HAND_ML * chance.normal()));
  }
  await enter(read('final', Math.max(0.02, titreMl + HAND_ML * chance.normal())));
}
