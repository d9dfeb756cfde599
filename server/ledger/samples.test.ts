import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Problem } from '#contract';
import { newId } from '#contract';
import type { StockedLaboratory } from '../test-support/laboratory';
import { foundStockedLaboratory, sampleBody, wareBody } from '../test-support/laboratory';
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

  const how = 'down the drain with much water';
  const disposed = { kind: 'sample.disposed', body: { how } } as const;
  await analyst.send(disposed, sample, { basedOn: 3 }).expect(201);
  const corrected = {
    kind: 'sample.corrected',
    body: { sample: body, reason: 'too late' },
  } as const;
  await analyst.send(corrected, sample, { basedOn: 4 }).expect(422);
});
