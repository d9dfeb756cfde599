import { afterAll, beforeAll, expect, test } from 'vitest';
import * as v from 'valibot';
import { findAnalysis } from '#core/chemistry';
import { addToDate } from '#core/grammar';
import { LABEL_SHEETS } from '#core/label';
import { DEFAULT_HOUSE_RULES, withOverrides } from '#core/laboratory';
import type { ListAnswer, Problem, ReportRequest, RunAnswer } from '#contract';
import { newId, runAnswer } from '#contract';
import { reproduce } from '../../calc/reproduce';
import type { StockedLaboratory } from '../test-support/laboratory';
import {
  bottleBody,
  foundStockedLaboratory,
  lotBody,
  PASSWORD,
  sampleBody,
  wareBody,
} from '../test-support/laboratory';
import { decisionOf, reportOf, runNow, signatureOf } from '../test-support/signing';
import { findProjection } from './queries';

let stocked: StockedLaboratory;

beforeAll(async () => {
  stocked = await foundStockedLaboratory();
});

afterAll(async () => {
  await stocked.laboratory.close();
});

test('a sample is received, diluted, struck and disposed of; a second one with its code is refused', async () => {
  const { laboratory, analyst, chief } = stocked;
  const { today } = laboratory;
  const body = sampleBody('W-1', today);
  const [sample, pipette, flask, small] = [newId(), newId(), newId(), newId()];
  const received = { kind: 'sample.received', body } as const;
  await analyst.send(received, sample).expect(201);
  const twin = await analyst.send(received, newId()).expect(409);
  expect((twin.body as Problem).fields[0]?.field).toBe('body.code');

  const register = (id: string, ware: ReturnType<typeof wareBody>) =>
    chief.send({ kind: 'equipment.registered', body: ware }, id).expect(201);
  await register(pipette, wareBody('one-mark-pipette', '10'));
  await register(flask, wareBody('volumetric-flask', '250'));
  await register(small, wareBody('volumetric-flask', '10'));
  const at = (id: string) => ({ id, version: 1 });
  const diluted = (into: string, from = pipette) =>
    ({
      kind: 'sample.diluted',
      body: { pipette: at(from), flask: at(into), reason: null },
    }) as const;
  // An aliquot as large as the flask, and a pipette that is none.
  await analyst.send(diluted(small), sample, { basedOn: 1 }).expect(422);
  await analyst.send(diluted(flask, flask), sample, { basedOn: 1 }).expect(422);
  await analyst.send(diluted(flask), sample, { basedOn: 1 }).expect(201);
  const stateOf = () => findProjection(laboratory.database.db, 'sample', sample);
  const [first] = (await stateOf())?.dilutions ?? [];
  const strike = { dilutionId: first?.factId ?? '', reason: 'the wrong flask' };
  const struck = { kind: 'sample.dilution-struck', body: strike } as const;
  await analyst.send(struck, sample, { basedOn: 1 }).expect(409);
  await analyst.send(struck, sample, { basedOn: 2 }).expect(201);
  expect(await stateOf()).toMatchObject({
    dilutions: [],
    struck: [{ because: 'the wrong flask' }],
  });

  const [sheet] = LABEL_SHEETS;
  const labels = (sampleIds: readonly string[]) =>
    analyst.post('/api/labels', { sampleIds, sheet, startAt: 0 });
  const paper = await labels([sample, sample]).expect(200);
  expect((paper.body as Buffer).toString('latin1', 0, 5)).toBe('%PDF-');
  await labels([newId()]).expect(422);
  await labels([]).expect(400);

  const how = 'down the drain with much water';
  const disposed = { kind: 'sample.disposed', body: { how } } as const;
  // Both labels are one entry of its record.
  await analyst.send(disposed, sample, { basedOn: 4 }).expect(201);
  const corrected = {
    kind: 'sample.corrected',
    body: { sample: body, reason: 'too late' },
  } as const;
  await analyst.send(corrected, sample, { basedOn: 5 }).expect(422);
});

test('a batch is titrated with a bottle of known molarity: each sample has its content', async () => {
  const { laboratory, analyst, chief, ids } = stocked;
  const { today } = laboratory;
  const [first, second, pipette] = [newId(), newId(), newId()];
  const code = (text: string) =>
    ({ kind: 'sample.received', body: sampleBody(text, today) }) as const;
  await analyst.send(code('B-1'), first).expect(201);
  await analyst.send(code('B-2'), second).expect(201);
  const ware = wareBody('one-mark-pipette', '25');
  await chief.send({ kind: 'equipment.registered', body: ware }, pipette).expect(201);
  const rules = withOverrides(DEFAULT_HOUSE_RULES, findAnalysis('titratable-acidity')?.rules ?? {});
  const begun = (titrant: string, samples: readonly string[]) =>
    ({
      kind: 'run.started',
      body: {
        method: { kind: 'catalogue', id: 'titratable-acidity' },
        titrant: { id: titrant, version: 1 },
        samples: samples.map((id) => ({ sample: { id, version: 1 }, dilutions: [] })),
        portioning: { kind: 'aliquot', vessel: { id: pipette, version: 1 } },
        excess: null,
        burette: { id: ids.burette, version: 1 },
        rules,
        temperatureC: '20',
        temperatureVariationK: '2',
        thermometer: null,
        airDensityKgPerM3: null,
        methodRepeatabilityPercent: null,
        earlierSeries: null,
        reason: null,
      },
    }) as const;
  // The stocked bottle was never standardized; a sample stands in a run once; an unknown one not at all.
  const nominal = await analyst.send(begun(ids.bottle, [first]), newId()).expect(422);
  expect((nominal.body as Problem).fields[0]?.field).toBe('body.titrant');
  // With what a standardization has come to it may be worked with, though nobody has authorized that yet.
  const calculated = {
    ...{ runId: newId(), molarity: '0.1002', expandedUncertainty: '0.0002', coverageFactor: '2' },
    unrounded: {
      ...{ molarity: 0.1002, standardUncertainty: 0.0001, effectiveDegreesOfFreedom: null },
      restsOn: [],
    },
  };
  const early = newId();
  const { body } = begun(ids.bottle, [first]);
  const withCalculated = { kind: 'run.started', body: { ...body, calculated } } as const;
  await analyst.send(withCalculated, early).expect(201);
  const asKnown = (await analyst.get(`/api/runs/${early}`)).body as RunAnswer;
  expect(asKnown.references).toMatchObject({ titrant: { made: { molarity: '0.1002' } } });
  const [lot, titrant] = [newId(), newId()];
  const bought = {
    ...lotBody(today),
    ...{ substanceId: 'sodium-hydroxide', lotNumber: 'V-1', purity: '1' },
    dissolved: { meaning: 'by-molarity', molarity: '0.1' },
  } as const;
  await chief.send({ kind: 'lot.registered', body: bought }, lot).expect(201);
  const standard = {
    ...bottleBody('0077', lot, analyst, today),
    made: {
      ...{ molarity: '0.1000', expandedUncertainty: '0.0002', coverageFactor: '2.00' },
      unrounded: null,
    },
    useBy: addToDate(today, { days: 20 }),
    purpose: 'standard',
  } as const;
  await analyst.send({ kind: 'bottle.prepared', body: standard }, titrant).expect(201);
  await analyst.send(begun(titrant, [first, first]), newId()).expect(422);
  await analyst.send(begun(titrant, [newId()]), newId()).expect(422);

  const run = newId();
  await analyst.send(begun(titrant, [first, second]), run).expect(201);
  const pipetted = (flask: number, sampleId?: string) =>
    ({
      kind: 'run.flask-pipetted',
      body: { flask, volumeMl: '25', reason: null, ...(sampleId && { sampleId }) },
    }) as const;
  await analyst.send(pipetted(1), run, { basedOn: 1 }).expect(422);
  await analyst.send(pipetted(1, newId()), run, { basedOn: 1 }).expect(422);
  await analyst.send(pipetted(1, first), run, { basedOn: 1 }).expect(201);
  await analyst.send(pipetted(2, second), run, { basedOn: 2 }).expect(201);
  const read = (flask: number, moment: 'initial' | 'final', readingMl: string) =>
    ({
      kind: 'run.burette-read',
      body: { flask, moment, readingMl, carriedFrom: null, reason: null },
    }) as const;
  const readings = [
    read(1, 'initial', '0.00'),
    read(1, 'final', '20.65'),
    read(2, 'initial', '20.65'),
    read(2, 'final', '43.15'),
  ];
  for (const [i, reading] of readings.entries()) {
    await analyst.send(reading, run, { basedOn: 3 + i }).expect(201);
  }
  const summary = await findProjection(laboratory.database.db, 'run', run);
  // 0.1 x 20.65 / 2 x 150.087 / 25, and with 22.50 mL.
  expect(summary?.samples.map(({ code: of, content }) => [of, content?.toFixed(3)])).toEqual([
    ['B-1', '6.199'],
    ['B-2', '6.754'],
  ]);
  const answer = await analyst.get(`/api/runs/${run}`).expect(200);
  expect(v.is(runAnswer, answer.body)).toBe(true);
});

test('its results are signed and reported: frozen on the run and on its samples, on paper and as a file', async () => {
  const { laboratory, analyst, chief } = stocked;
  const { db } = laboratory.database;
  const run = await runOf('B-1');
  const samples = (await findProjection(db, 'run', run))?.samples.map(({ id }) => id) ?? [];
  const where = stocked.laboratory;
  // Not certified, and not by somebody who signed nothing.
  const certified = await chief.post(`/api/runs/${run}/certificate`, await decisionOf(where, run));
  expect([certified.status, (certified.body as Problem).title]).toEqual([
    400,
    expect.stringContaining('certifies no titrant'),
  ]);
  const decision = (changes: Partial<ReportRequest> = {}) => reportOf(where, run, changes);
  const single = 'one determination was asked for';
  await chief.post(`/api/runs/${run}/report`, await decision({ reason: single })).expect(422);
  await analyst.post(`/api/runs/${run}/signatures`, await signatureOf(where, run)).expect(204);
  const unexplained = await chief.post(`/api/runs/${run}/report`, await decision()).expect(422);
  expect((unexplained.body as Problem).title).toContain('Sample B-1');
  await chief
    .post(`/api/runs/${run}/report`, await decision({ reason: single, password: 'not it at all' }))
    .expect(401);
  const asked = await decision({ reason: single, form: 'each' });
  const issued = await chief.post(`/api/runs/${run}/report`, asked).expect(201);
  expect(issued.body).toMatchObject({ number: 'B-1-R1', form: 'each', amends: null });
  const again = await chief.post(`/api/runs/${run}/report`, asked).expect(201);
  expect(again.body).toEqual(issued.body);

  const state = await runNow(where, run);
  expect(state).toMatchObject({ status: 'reported', report: { number: 'B-1-R1' } });
  expect(state.reports[0]?.documents.map(({ name }) => name)).toEqual([
    'B-1-R1.json',
    'B-1-R1-1.pdf',
    'B-1-R1-2.pdf',
  ]);
  const [first] = samples;
  const reported = async () => (await findProjection(db, 'sample', first ?? ''))?.reported ?? [];
  expect(await reported()).toMatchObject([
    { reportNumber: 'B-1-R1', analysisId: 'titratable-acidity', withdrawn: null },
  ]);
  const file = await analyst.get(`/api/runs/${run}/reports/B-1-R1`).expect(200);
  expect(reproduce(file.body)).toMatchObject({ kind: 'identical' });
  const changed = JSON.parse(
    JSON.stringify(file.body).replace('"readingMl":"20.65"', '"readingMl":"20.66"'),
  ) as object;
  expect(reproduce(changed)).toMatchObject({ kind: 'different' });
  await analyst.get(`/api/runs/${run}/reports/B-1-R9`).expect(404);
  const paper = state.reports[0]?.documents[1]?.fileId ?? '';
  const pdf = await analyst.get(`/api/files/${paper}`).expect(200);
  expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');

  const withdrawal = {
    ...{ factId: newId(), number: 'B-1-R1', reason: 'the pipette was another', password: PASSWORD },
    ...{ deviceId: null, deviceTime: new Date().toISOString(), clockOffsetMs: null },
    basedOn: state.version,
  };
  await analyst.post(`/api/runs/${run}/report-withdrawal`, withdrawal).expect(403);
  await chief.post(`/api/runs/${run}/report-withdrawal`, withdrawal).expect(204);
  await chief.post(`/api/runs/${run}/report-withdrawal`, withdrawal).expect(204);
  expect(await reported()).toMatchObject([{ withdrawn: { reason: 'the pipette was another' } }]);
  expect(await runNow(where, run)).toMatchObject({ status: 'open', report: null });
  await analyst.post(`/api/runs/${run}/signatures`, await signatureOf(where, run)).expect(204);
  const amended = await chief
    .post(`/api/runs/${run}/report`, await decision({ reason: single }))
    .expect(201);
  expect(amended.body).toMatchObject({ number: 'B-1-R2', amends: 'B-1-R1' });
});

/** The run in which a sample was titrated. */
async function runOf(code: string): Promise<string> {
  const answer = await stocked.analyst.get(`/api/records/run?search=${code}`).expect(200);
  return (answer.body as ListAnswer<'run'>).records[0]?.id ?? '';
}
