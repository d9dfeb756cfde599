import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { RECIPE_EDITION } from '#core/chemistry';
import { CORRECTION_PRESETS, correctionRulesOf, DEFAULT_HOUSE_RULES } from '#core/laboratory';
import { LABEL_SHEETS } from '#core/label';
import type { PreparationPlan, PreparationState } from '#core/preparation';
import { stepsOf } from '#core/preparation';
import type { BottleState, LotState, PreparedBottle } from '#core/reagent';
import type { StoredFile } from '#core/record';
import type { Plain } from '#core/grammar';
import type { ListAnswer, NewFact, Problem } from '#contract';
import { stored } from '../../core/test-support/stored';
import { verifyAudit } from '../audit/verify';
import { findStrayFile } from '../files/queries';
import type { Client, TestLaboratory } from '../test-support/laboratory';
import { foundTestLaboratory, lotBody, startTestApp } from '../test-support/laboratory';

let laboratory: TestLaboratory;
let client: Client;
const ids = new Map<string, string>();
const idOf = (key: string): string => ids.get(key) ?? '';

beforeAll(async () => {
  laboratory = await foundTestLaboratory();
  client = await laboratory.signIn(laboratory.analyst);
  await stock();
});
afterAll(async () => {
  await laboratory.close();
});

async function register(key: string, fact: NewFact): Promise<void> {
  const recordId = uuidv7();
  await client.send(fact, recordId).expect(201);
  ids.set(key, recordId);
}

/** Lots, a balance and glassware for all of the preparations below. */
async function stock(): Promise<void> {
  const lot = lotBody(laboratory.today);
  const solid = { ...lot, purity: '0.999' };
  for (const substanceId of [
    ...['sodium-chloride', 'sodium-hydroxide', 'potassium-permanganate', 'oxalic-acid-dihydrate'],
    ...['sodium-carbonate', 'potassium-hydrogen-phthalate', 'ammonium-iron-ii-sulfate-hexahydrate'],
  ]) {
    const body = { ...solid, substanceId, lotNumber: `L-${substanceId.slice(0, 6)}` };
    await register(substanceId, { kind: 'lot.registered', body });
  }
  for (const [substanceId, purity, densityGPerMl] of [
    ['hydrochloric-acid', '0.37', '1.19'],
    ['sulfuric-acid', '0.96', '1.84'],
  ] as const) {
    const dissolved = { meaning: 'by-mass', densityGPerMl } as const;
    const body = { ...lot, substanceId, lotNumber: `C-${purity}`, purity, dissolved };
    await register(substanceId, { kind: 'lot.registered', body });
  }
  for (const [key, dissolved] of [
    ['naoh-by-mass', { meaning: 'by-mass', densityGPerMl: '1.525' }],
    ['naoh-by-volume', { meaning: 'by-volume' }],
  ] as const) {
    const body = {
      ...lot,
      substanceId: 'sodium-hydroxide',
      lotNumber: key,
      purity: '0.5',
      dissolved,
    };
    await register(key, { kind: 'lot.registered', body });
  }
  const masses = { readabilityG: '0.0001', repeatabilityG: '0.0001', linearityG: '0.0002' };
  await register('balance', {
    kind: 'equipment.registered',
    body: { type: 'balance', name: 'A1', ...masses, maxLoadG: '220', calibrationDue: null },
  });
  for (const [kind, volumeMl] of [
    ...(['100', '250'] as const).map((ml) => ['volumetric-flask', ml] as const),
    ...(['10', '50'] as const).map((ml) => ['one-mark-pipette', ml] as const),
    ['measuring-cylinder', '100'] as const,
  ]) {
    const name = `${kind}-${volumeMl}`;
    const toleranceDistribution = 'triangular' as const;
    const body = { type: 'glassware', name, kind, volumeMl, toleranceMl: '0.1' } as const;
    await register(name, {
      kind: 'equipment.registered',
      body: { ...body, toleranceDistribution, calibrationDue: null },
    });
  }
}

function plan(soluteId: string, changes: Partial<Plain<PreparationPlan>>): PreparationPlan {
  return stored({
    purpose: 'standard',
    soluteId,
    recipeId: null,
    recipeEdition: RECIPE_EDITION,
    targetMolarity: '0.1',
    volumeMl: '250',
    carbonDioxide: 'boiled',
    corrections: correctionRulesOf({ ...DEFAULT_HOUSE_RULES, ...CORRECTION_PRESETS.plain }),
    thermometerId: null,
    source: { kind: 'indicator' },
    neededBy: null,
    note: '',
    reason: null,
    ...changes,
  });
}

function weighed(
  key: string,
  massG: string,
  flask: string | null,
): Plain<PreparationPlan['source']> {
  const flaskId = flask === null ? null : idOf(flask);
  return { kind: 'weigh', lotId: idOf(key), massG, balanceId: idOf('balance'), flaskId };
}

function diluted(bottle: string, pipette: string, flask: string): Plain<PreparationPlan['source']> {
  return {
    kind: 'dilute',
    from: { kind: 'bottle', bottleId: idOf(bottle) },
    stages: [{ pipetteId: idOf(pipette), flaskId: idOf(flask) }],
  };
}

function poured(key: string, takeMl: string): Plain<PreparationPlan['source']> {
  const cylinderId = idOf('measuring-cylinder-100');
  return { kind: 'concentrate', lotId: idOf(key), takeMl, cylinderId, flaskId: null };
}

async function start(given: PreparationPlan): Promise<string> {
  const id = uuidv7();
  await client.send({ kind: 'preparation.started', body: given }, id).expect(201);
  return id;
}

/** Does every step as planned, measuring what each asks for; leaves it to be bottled. */
async function work(given: PreparationPlan): Promise<string> {
  const id = await start(given);
  for (const { id: step, measures, waitMinutes } of stepsOf(given)) {
    const measured = (quantity: object): NewFact =>
      ({
        kind: 'preparation.measured',
        body: { step, quantity, replaces: [], takenFrom: null, pins: [], reason: null },
      }) as NewFact;
    const fact: NewFact =
      measures?.kind === 'mass'
        ? measured({
            kind: 'mass',
            weighing: { mode: 'tared', massG: measures.targetG.toFixed(4) },
          })
        : measures?.kind === 'volume'
          ? measured({ kind: 'volume', volumeMl: String(measures.targetMl) })
          : measures?.kind === 'temperature'
            ? measured({ kind: 'temperature', temperatureC: '20.5' })
            : {
                kind: 'preparation.step-done',
                body: {
                  ...{ step, isLeftOut: false, pins: [] },
                  // Nobody waits for hours here.
                  reason: waitMinutes === null ? null : 'dried and boiled before',
                },
              };
    await client.send(fact, id).expect(201);
  }
  return id;
}

let codes = 0;

async function stateOf(id: string): Promise<PreparationState> {
  const answer = await client.get('/api/records/preparation').expect(200);
  const { records } = answer.body as ListAnswer<'preparation'>;
  const state = records.find((one) => one.id === id);
  if (!state) throw new Error('the preparation was not stored');
  return state;
}

async function bottle(id: string, changes: object = {}) {
  codes += 1;
  return client.post(`/api/preparations/${id}/bottle`, {
    factId: uuidv7(),
    bottleFactId: uuidv7(),
    bottleId: uuidv7(),
    deviceId: null,
    deviceTime: new Date().toISOString(),
    clockOffsetMs: null,
    basedOn: (await stateOf(id)).version,
    code: `P${String(codes)}`,
    container: 'clear-glass',
    useBy: null,
    reason: null,
    ...changes,
  });
}

async function make(given: PreparationPlan, key?: string): Promise<PreparedBottle> {
  const bottleId = uuidv7();
  const answer = await bottle(await work(given), { bottleId });
  expect(answer.status).toBe(201);
  if (key !== undefined) ids.set(key, bottleId);
  return answer.body as PreparedBottle;
}

async function bottleState(key: string): Promise<BottleState | undefined> {
  const answer = await client.get('/api/records/bottle').expect(200);
  return (answer.body as ListAnswer<'bottle'>).records.find(({ id }) => id === idOf(key));
}

describe('from plan to bottle', () => {
  test('P1: sodium chloride 2 mol/L, and its dilution to 0.4 mol/L, which inherits its molarity', async () => {
    const salt = plan('sodium-chloride', {
      targetMolarity: '2',
      source: weighed('sodium-chloride', '29.2494', 'volumetric-flask-250'),
    });
    const made = await make(salt, 'salt');
    expect(Number(made.made?.molarity)).toBeCloseTo((1000 * 29.2494 * 0.999) / (58.4428 * 250), 3);
    const weaker = await make(
      plan('sodium-chloride', {
        targetMolarity: '0.4',
        source: diluted('salt', 'one-mark-pipette-50', 'volumetric-flask-250'),
      }),
    );
    expect(Number(weaker.made?.molarity)).toBeCloseTo(Number(made.made?.molarity) / 5, 3);
    expect(weaker).toMatchObject({
      purpose: 'standard',
      parents: [{ kind: 'bottle', id: idOf('salt') }],
    });
  });

  test.each([
    ['1', '84'],
    ['0.1', '8.3'],
  ])('P2: hydrochloric acid %s mol/L from 37 %% is nominal', async (targetMolarity, takeMl) => {
    const made = await make(
      plan('hydrochloric-acid', {
        ...{ purpose: 'titrant', targetMolarity, volumeMl: '1000' },
        source: poured('hydrochloric-acid', takeMl),
      }),
      `acid ${targetMolarity}`,
    );
    expect(made.made).toBeNull();
    expect(Number(made.nominalMolarity) / Number(targetMolarity)).toBeCloseTo(1, 1);
    const [low, high] = made.plausibleMolarity?.map(Number) ?? [];
    expect(low).toBeLessThan(Number(targetMolarity));
    expect(high).toBeGreaterThan(Number(targetMolarity));
  });

  test('P3: sodium hydroxide from 50 %: by mass 19.1, by volume 12.5 mol/L', async () => {
    const from = (key: string, takeMl: string) =>
      make(
        plan('sodium-hydroxide', {
          ...{ purpose: 'titrant', volumeMl: '1000' },
          source: poured(key, takeMl),
        }),
      );
    const [byMass, byVolume] = [await from('naoh-by-mass', '8'), await from('naoh-by-volume', '8')];
    expect(Number(byMass.nominalMolarity)).toBeCloseTo((8 * 19.065) / 1000, 3);
    expect(Number(byVolume.nominalMolarity)).toBeCloseTo((8 * 12.501) / 1000, 3);
  });

  test('P4: sodium hydroxide 0.3 mol/L, 20 mL of 6 mol/L stock and 380 mL of water added together', async () => {
    const stockPlan = plan('sodium-hydroxide', {
      ...{ purpose: 'auxiliary', targetMolarity: '6', volumeMl: '100' },
      source: weighed('sodium-hydroxide', '24.0', null),
    });
    await make(stockPlan, 'stock');
    const made = await make(
      plan('sodium-hydroxide', {
        ...{ purpose: 'titrant', targetMolarity: '0.3', volumeMl: '400' },
        source: {
          ...{ kind: 'add-volumes', bottleId: idOf('stock'), takeMl: '20', weakerBottleId: null },
          fillMl: '380',
          cylinderId: idOf('measuring-cylinder-100'),
        },
      }),
    );
    expect(made).toMatchObject({ nominalMolarity: '0.300', made: null, purpose: 'titrant' });
  });

  test('P5: permanganate 0.02 mol/L from 0.2 mol/L by cylinder, and from the solid', async () => {
    const permanganate = (
      volumeMl: string,
      source: Plain<PreparationPlan['source']>,
      molarity = '0.02',
    ) =>
      plan('potassium-permanganate', {
        ...{ purpose: 'titrant', targetMolarity: molarity, volumeMl, source },
      });
    const solid = permanganate('1000', weighed('potassium-permanganate', '3.16', null));
    expect((await make(solid)).nominalMolarity).toBe('0.0200');
    await make(
      permanganate('100', weighed('potassium-permanganate', '3.16', null), '0.2'),
      'violet',
    );
    const weaker = permanganate('100', {
      ...{ kind: 'add-volumes', bottleId: idOf('violet'), takeMl: '10', weakerBottleId: null },
      fillMl: '90',
      cylinderId: null,
    });
    expect((await make(weaker)).nominalMolarity).toBe('0.0200');
  });

  test.each([
    ['oxalic-acid-dihydrate', '1.5758', 126.064, '0.05'],
    ['sodium-carbonate', '1.3249', 105.988, '0.05'],
    ['potassium-hydrogen-phthalate', '5.1056', 204.222, '0.1'],
    ['ammonium-iron-ii-sulfate-hexahydrate', '9.8035', 392.13, '0.1'],
  ])('P6: %s, weighed into 250 mL', async (key, massG, molarMass, targetMolarity) => {
    const source = weighed(key, massG, 'volumetric-flask-250');
    const made = await make(plan(key, { targetMolarity, source }));
    const byHand = (1000 * Number(massG) * 0.999) / (molarMass * 250);
    expect(Number(made.made?.molarity) / byHand).toBeCloseTo(1, 3);
    expect(Number(made.made?.expandedUncertainty) / byHand).toBeLessThan(0.003);
  });

  test('P7: an acid diluted 10 to 100 mL, a sample 10 to 250 mL: the factor is carried', async () => {
    const acid = await make(
      plan('hydrochloric-acid', {
        source: diluted('acid 1', 'one-mark-pipette-10', 'volumetric-flask-100'),
      }),
    );
    expect(acid).toMatchObject({ made: null, purpose: 'titrant', dilutionFactor: null });
    const sample = await make(
      plan('hydrochloric-acid', {
        ...{ purpose: 'auxiliary', targetMolarity: '0.04' },
        source: {
          kind: 'dilute',
          from: { kind: 'sample', name: 'tank cleaner', molarity: '1' },
          stages: [
            {
              pipetteId: idOf('one-mark-pipette-10'),
              flaskId: idOf('volumetric-flask-250'),
            },
          ],
        },
      }),
    );
    expect(sample).toMatchObject({ dilutionFactor: '25.0000', note: 'tank cleaner' });
  });

  test('P8: sulfuric acid 3 mol/L, the acid mixture, an indicator: labelled and dated as the rest', async () => {
    const acid = plan('sulfuric-acid', {
      ...{ purpose: 'auxiliary', targetMolarity: '3', volumeMl: '500' },
      source: poured('sulfuric-acid', '83'),
    });
    expect((await make(acid)).nominalMolarity).toBe('2.99');
    const recipeId = 'acid-mixture';
    const mixture = { ...acid, recipeId, targetMolarity: '2.7', volumeMl: '1000' };
    const source = poured('sulfuric-acid', '150');
    expect((await make(stored({ ...mixture, source }))).purpose).toBe('auxiliary');
    const indicator = plan('phenolphthalein', {
      ...{ purpose: 'auxiliary', targetMolarity: null, volumeMl: '100' },
    });
    expect(await make(indicator)).toMatchObject({ nominalMolarity: null, parents: [] });
  });
});

describe('what a preparation does to the rest', () => {
  test('bottling is done once, however often it is sent; both records are closed together', async () => {
    const id = await work(
      plan('sodium-carbonate', {
        source: weighed('sodium-carbonate', '1.3249', 'volumetric-flask-250'),
      }),
    );
    const same = { factId: uuidv7(), bottleFactId: uuidv7(), bottleId: uuidv7(), code: 'ONCE' };
    const { version } = await stateOf(id);
    const first = await bottle(id, { ...same, basedOn: version });
    const second = await bottle(id, { ...same, basedOn: version });
    expect([first.status, second.status]).toEqual([201, 201]);
    expect(second.body).toEqual(first.body);
    expect(await stateOf(id)).toMatchObject({ status: 'bottled', bottleId: same.bottleId });
    expect((await bottle(id)).status).toBe(422);
  });

  test('a taken code leaves the preparation open and no bottle behind', async () => {
    const id = await work(plan('phenolphthalein', { purpose: 'auxiliary', targetMolarity: null }));
    expect((await bottle(id, { code: 'P1' })).status).toBe(409);
    expect((await stateOf(id)).status).toBe('open');
    expect((await bottle(id)).status).toBe(201);
  });

  test('a parent is charged: what does not suffice any more is said before', async () => {
    const small = { ...lotBody(laboratory.today), amountReceived: '6', purity: '0.999' };
    await register('small', {
      kind: 'lot.registered',
      body: { ...small, substanceId: 'potassium-hydrogen-phthalate', lotNumber: 'SMALL' },
    });
    const again = plan('potassium-hydrogen-phthalate', {
      source: weighed('small', '5.1056', 'volumetric-flask-250'),
    });
    await make(again);
    const refused = await client
      .send({ kind: 'preparation.started', body: again }, uuidv7())
      .expect(422);
    expect((refused.body as Problem).title).toMatch(/^Only 0.894 g of lot SMALL are left/);
    const lot = (await client.get('/api/records/lot')).body as { records: LotState[] };
    const version = lot.records.find(({ id }) => id === idOf('small'))?.version ?? 0;
    const counted = { amountLeft: '20', reason: 'a second glass was found' };
    await client
      .send({ kind: 'lot.counted', body: counted }, idOf('small'), { basedOn: version })
      .expect(201);
    await start(again);
  });

  test('parents and equipment that are out of use, and expired ones, are told apart', async () => {
    const given = plan('sodium-chloride', {
      targetMolarity: '0.4',
      source: diluted('salt', 'one-mark-pipette-50', 'volumetric-flask-250'),
    });
    const tried = async (): Promise<string> =>
      ((await client.send({ kind: 'preparation.started', body: given }, uuidv7())).body as Problem)
        .title;
    const use = async (kind: 'withdrawn' | 'returned', reason: string): Promise<void> => {
      const basedOn = (await bottleState('salt'))?.version ?? 0;
      await client
        .send({ kind: `bottle.${kind}`, body: { reason } }, idOf('salt'), { basedOn })
        .expect(201);
    };
    await use('withdrawn', 'flocks in it');
    expect(await tried()).toMatch(/^Bottle P1 is out of use: flocks in it/);
    await use('returned', 'filtered and compared');
    await client
      .send(
        { kind: 'equipment.withdrawn', body: { reason: 'chipped tip' } },
        idOf('one-mark-pipette-50'),
        { basedOn: 1 },
      )
      .expect(201);
    expect(await tried()).toMatch(/pipette.* is out of use: chipped tip/);
    const old = { ...lotBody(laboratory.today), receivedOn: '2020-01-01', useBy: '2021-01-01' };
    await register('old', {
      kind: 'lot.registered',
      body: { ...old, substanceId: 'sodium-chloride', lotNumber: 'OLD' },
    });
    const stale = plan('sodium-chloride', {
      source: weighed('old', '1.4611', 'volumetric-flask-250'),
    });
    const asked = await client.send({ kind: 'preparation.started', body: stale }, uuidv7());
    expect((asked.body as Problem).code).toBe('reason-needed');
    await start({ ...stale, reason: 'for training only' });
  });

  test('the drying log: in once, out once; another person goes on where the first left', async () => {
    const lotId = idOf('potassium-hydrogen-phthalate');
    const put: NewFact = { kind: 'lot.put-to-dry', body: { temperatureC: '115' } };
    await client.send(put, lotId).expect(201);
    await client.send(put, lotId).expect(422);
    const id = await start(
      plan('potassium-hydrogen-phthalate', {
        source: weighed('potassium-hydrogen-phthalate', '5.1056', 'volumetric-flask-250'),
      }),
    );
    const chief = await laboratory.signIn(laboratory.chief);
    await chief.send({ kind: 'lot.taken-out', body: {} }, lotId).expect(201);
    await chief.send({ kind: 'lot.taken-out', body: {} }, lotId).expect(422);
    const unasked = { step: 'dry', isLeftOut: false, pins: [], reason: null };
    const asked = await client.send({ kind: 'preparation.step-done', body: unasked }, id);
    expect((asked.body as Problem).code).toBe('reason-needed');
    const done = { ...unasked, reason: 'dried yesterday, see the drying log' };
    await chief.send({ kind: 'preparation.step-done', body: done }, id).expect(201);
    await client.send({ kind: 'preparation.step-done', body: done }, id).expect(201);
    const state = await stateOf(id);
    expect(state.steps.find((step) => step.id === 'dry')?.done?.by).toBe(laboratory.chief.id);
  });

  test('what names nothing, or the wrong thing, is refused and not stored', async () => {
    const source = weighed('sodium-chloride', '1.4611', 'volumetric-flask-250');
    const bad = (changes: object): Partial<Plain<PreparationPlan>> => ({
      source: { ...source, ...changes },
    });
    const before = (await client.get('/api/records/preparation')).body as { records: unknown[] };
    for (const [changes, status] of [
      [bad({ lotId: uuidv7() }), 422],
      [bad({ flaskId: idOf('balance') }), 422],
      [bad({ lotId: idOf('sulfuric-acid') }), 422],
      [bad({ massG: '-1' }), 400],
      [{ targetMolarity: '0' }, 400],
      [{ recipeId: 'grandmother' }, 422],
    ] as const) {
      const body = plan('sodium-chloride', { source, ...changes });
      await client.send({ kind: 'preparation.started', body }, uuidv7()).expect(status);
    }
    const after = (await client.get('/api/records/preparation')).body as { records: unknown[] };
    expect(after.records).toHaveLength(before.records.length);
  });
});

describe('certificates of lots and labels of bottles', () => {
  const attach = (lotId: string, name: string, type: string, content: Buffer) =>
    client.agent
      .post(`/api/lots/${lotId}/certificates`)
      .query({ name })
      .set('x-csrf-token', client.headers['x-csrf-token'])
      .set('content-type', type)
      .send(content);
  const PDF = Buffer.from('%PDF-1.7\n1 0 obj\n<<>>\nendobj\n%%EOF\n');
  const PROGRAM = Buffer.concat([Buffer.from([0x7f, 0x45, 0x4c, 0x46, 2, 1, 1]), Buffer.alloc(64)]);

  test('a PDF is kept with its lot and comes back as it was', async () => {
    const lotId = idOf('sodium-carbonate');
    const answer = await attach(lotId, 'certificate.pdf', 'application/pdf', PDF).expect(201);
    const { fileId } = answer.body as StoredFile;
    const back = await client.get(`/api/files/${fileId}`).expect(200);
    expect(back.headers['content-disposition']).toContain('attachment');
    expect(Buffer.compare(back.body as Buffer, PDF)).toBe(0);
    const { records } = (await client.get('/api/records/lot')).body as ListAnswer<'lot'>;
    const lot = records.find(({ id }) => id === lotId);
    expect(lot?.certificates).toMatchObject([{ fileId, sizeBytes: PDF.length }]);
    await laboratory.visitor().get(`/api/files/${fileId}`).expect(401);
    // Every column of its row is vouched for, not its content alone.
    const other = idOf('salt');
    for (const change of [
      { name: 'other.pdf' },
      { type: 'image/png' },
      { sha256: '0'.repeat(64) },
      { content: Buffer.from('x') },
      { record_id: other },
    ]) {
      const rollback = new Error('taken back');
      const tampering = laboratory.database.owner.transaction(async (tx) => {
        await tx.raw('ALTER TABLE files DISABLE TRIGGER USER');
        await tx('files').where({ id: fileId }).update(change);
        expect(await findStrayFile(tx), Object.keys(change).join()).toBe(fileId);
        throw rollback;
      });
      await expect(tampering).rejects.toBe(rollback);
    }
    await expect(
      laboratory.database.db('files').where({ id: fileId }).update({ name: 'other' }),
    ).rejects.toThrow(/permission denied/);
    expect((await verifyAudit(laboratory.database.db)).kind).toBe('whole');
  });

  test('a program that calls itself a PDF is refused by its content, and nothing is stored', async () => {
    const before = await laboratory.database.db('files').count();
    const lotId = idOf('sodium-carbonate');
    const refused = await attach(lotId, 'invoice.pdf', 'application/pdf', PROGRAM).expect(415);
    expect((refused.body as Problem).title).toMatch(/^invoice.pdf is a file of the kind elf/);
    await attach(lotId, 'notes.txt', 'text/plain', Buffer.from('words')).expect(415);
    await attach(lotId, 'large.pdf', 'application/pdf', Buffer.alloc(9_000_000, PDF)).expect(413);
    await attach(uuidv7(), 'certificate.pdf', 'application/pdf', PDF).expect(404);
    // By its content it is what it may be; its name says something else.
    const misnamed = await attach(lotId, 'a.html', 'application/pdf', PDF).expect(415);
    expect((misnamed.body as Problem).title).toMatch(/^a.html is by its content pdf/);
    expect(await laboratory.database.db('files').count()).toEqual(before);
  });

  test('nobody’s file is read, and what is set aside for files is not overrun', async () => {
    const path = `/api/lots/${idOf('sodium-carbonate')}/certificates?name=a.pdf`;
    const large = Buffer.alloc(9_000_000, PDF);
    // Refused for want of a session before it is known to be too large.
    await laboratory
      .visitor()
      .post(path)
      .set('content-type', 'application/pdf')
      .send(large)
      .expect(401);
    const small = await startTestApp(laboratory.database, { fileQuotaBytes: 150 });
    const sent = () =>
      request(small.server)
        .post(path)
        .set(client.headers)
        .set('content-type', 'application/pdf')
        .send(PDF);
    const { rows } = await laboratory.database.db.raw<{ rows: { taken: string }[] }>(
      'SELECT sum(octet_length(content)) AS taken FROM files',
    );
    const room = Math.floor((150 - Number(rows[0]?.taken)) / PDF.length);
    for (let turn = 0; turn < room; turn += 1) await sent().expect(201);
    const full = await sent().expect(413);
    expect((full.body as Problem).title).toContain('FILES_MB');
    await small.close();
  });

  test('labels come as a PDF of their own millimetres, and each one is on record', async () => {
    const [single, , small] = LABEL_SHEETS;
    const bottleIds = [idOf('salt'), idOf('acid 1'), idOf('violet')];
    const answer = await client
      .post('/api/labels', { bottleIds, sheet: small, startAt: 22 })
      .expect(200);
    const text = (answer.body as Buffer).toString('latin1');
    expect(text.startsWith('%PDF-')).toBe(true);
    // Two labels fill the sheet that was begun; the third goes on another of 210 by 297 mm.
    expect(text.match(/\/MediaBox \[0 0 595\.\d+ 841\.\d+\]/g)).toHaveLength(2);
    await client.post('/api/labels', { bottleIds: [idOf('salt')], sheet: single, startAt: 0 });
    expect((await bottleState('salt'))?.labels.map(({ sheet }) => sheet)).toEqual([
      small?.name,
      single?.name,
    ]);
    await client
      .post('/api/labels', { bottleIds: [uuidv7()], sheet: single, startAt: 0 })
      .expect(422);
    const wide = { ...single, pageMm: [60, 54] };
    await client.post('/api/labels', { bottleIds, sheet: wide, startAt: 0 }).expect(400);
  });
});
