import { v7 as uuidv7 } from 'uuid';
import type { Id } from '#core/grammar';
import { addToDate } from '#core/grammar';
import type { PreparationPlan } from '#core/preparation';
import { stepsOf } from '#core/preparation';
import type { ListAnswer, NewFact } from '#contract';
import { methodSchema, newId } from '#contract';
import { findMethod, RECIPE_EDITION } from '#core/chemistry';
import * as v from 'valibot';
import { correctionRulesOf, DEFAULT_HOUSE_RULES } from '#core/laboratory';
import { decimalText } from '#core/measurement';
import type { Client, TestLaboratory } from './laboratory';
import { startRun, stockLaboratory, titrateSeries } from './laboratory';
import { decisionOf, signatureOf } from './signing';

const NOW = { deviceId: null, clockOffsetMs: null };

/** The smallest picture that is one: a PNG of one pixel. */
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

/**
 * A laboratory in which a little of everything has happened: a standard weighed out and bottled, a titrant certified, files,
 * drying, calibration, withdrawal, a method and rules of its own. What is kept of it shows later versions what this one wrote.
 */
export async function playTinyLaboratory(laboratory: TestLaboratory): Promise<void> {
  const { today } = laboratory;
  const chief = await laboratory.signIn(laboratory.chief);
  const analyst = await laboratory.signIn(laboratory.analyst);
  const send = async (fact: NewFact, recordId: string, basedOn: number | null = null) =>
    chief.send(fact, recordId, { basedOn }).expect(201);
  const ids = await stockLaboratory(analyst, today);

  await send({ kind: 'lot.opened', body: { openedOn: today } }, ids.khp);
  await send({ kind: 'lot.put-to-dry', body: { temperatureC: '120' } }, ids.khp);
  await send({ kind: 'lot.taken-out', body: {} }, ids.khp);
  const counted = { amountLeft: '480', reason: 'counted at the shelf' };
  await send({ kind: 'lot.counted', body: counted }, ids.khp, 4);
  await attach(chief, `/api/lots/${ids.khp}/certificates?name=k-1.png`);
  const classified = { codes: ['H319' as const], sheet: 'sheet of the maker, May 2026' };
  await send({ kind: 'lot.classified', body: classified }, ids.khp, 6);

  const rules = { ...DEFAULT_HOUSE_RULES, rinses: 4 };
  const laboratoryId = (
    (await chief.get('/api/records/laboratory').expect(200)).body as { records: { id: string }[] }
  ).records[0]?.id;
  const told = { rules, reason: 'four are kinder to the burette' };
  await send({ kind: 'laboratory.rules-set', body: told }, laboratoryId ?? '', 2);
  const method = v.parse(methodSchema, { ...findMethod('naoh-by-khp'), id: 'own-by-khp' });
  const written = { method: { ...method, rules: { rinses: 3 } }, reason: 'written for the trial' };
  await send({ kind: 'method.written', body: written }, uuidv7(), 0);
  await send(
    { kind: 'laboratory.rules-set', body: { ...told, rules: DEFAULT_HOUSE_RULES } },
    laboratoryId ?? '',
    3,
  );

  const runId = await startRun(analyst, { ...ids });
  await titrateSeries(analyst, runId);
  await attach(analyst, `/api/runs/${runId}/flasks/2/photographs?name=shade.png`);
  const signed = await signatureOf(laboratory, runId);
  await analyst.post(`/api/runs/${runId}/signatures`, signed).expect(204);
  const decided = await decisionOf(laboratory, runId);
  await chief.post(`/api/runs/${runId}/certificate`, decided).expect(201);
  await prepareStandard(analyst, ids);

  const corrected = { supplier: 'Cellar supply, the other branch', purity: '0.9998' };
  const lots = (await chief.get('/api/records/lot').expect(200)).body as ListAnswer<'lot'>;
  const khp = lots.records.find(({ id }) => id === ids.khp);
  if (!khp) throw new Error('the lot was not registered');
  const lot = { ...khp.lot, ...corrected };
  await send(
    { kind: 'lot.corrected', body: { lot, reason: 'it came from another branch' } },
    ids.khp,
    khp.version,
  );
  await send(
    {
      kind: 'person.rights-changed',
      body: { roles: ['trainee'], auditsUntil: null, reason: 'is still learning' },
    },
    laboratory.analyst.id,
    1,
  );

  const points = [{ nominal: '50', deviation: '0.01', expandedUncertainty: '0.02' }];
  const calibration = {
    ...{ calibratedOn: today, due: addToDate(today, { months: 12 }), certificate: 'K 7, our own' },
    found: { kind: 'points' as const, points },
  };
  await send({ kind: 'equipment.calibrated', body: calibration }, ids.burette);
  const reason = 'somebody asked whether it is off';
  await send({ kind: 'equipment.withdrawn', body: { reason } }, ids.burette, 2);
  await send({ kind: 'equipment.returned', body: { reason: 'it was not' } }, ids.burette, 3);
}

async function attach(client: Client, path: string): Promise<void> {
  await client.agent
    .post(path)
    .set('x-csrf-token', client.headers['x-csrf-token'])
    .set('content-type', 'image/png')
    .send(PICTURE)
    .expect(201);
}

/** Potassium hydrogen phthalate into a flask of 250 mL, and into a bottle. */
async function prepareStandard(
  client: Client,
  ids: { readonly khp: Id; readonly balance: Id },
): Promise<void> {
  const flaskId = newId();
  const flask = {
    type: 'glassware',
    name: 'F 250',
    kind: 'volumetric-flask',
    volumeMl: '250',
    toleranceMl: '0.15',
    toleranceDistribution: 'triangular',
    calibrationDue: null,
  } as const;
  await client.send({ kind: 'equipment.registered', body: flask }, flaskId).expect(201);
  const plan: PreparationPlan = {
    ...{ purpose: 'standard', soluteId: 'potassium-hydrogen-phthalate', recipeId: null },
    recipeEdition: RECIPE_EDITION,
    ...{
      targetMolarity: decimalText('0.1'),
      volumeMl: decimalText('250'),
      carbonDioxide: 'boiled',
      corrections: correctionRulesOf(DEFAULT_HOUSE_RULES),
      thermometerId: null,
    },
    source: {
      kind: 'weigh',
      lotId: ids.khp,
      massG: decimalText('5.1056'),
      balanceId: ids.balance,
      flaskId,
    },
    ...{ neededBy: null, note: '', reason: null },
  };
  const id = uuidv7();
  await client.send({ kind: 'preparation.started', body: plan }, id).expect(201);
  const steps = stepsOf(plan);
  for (const { id: step, measures, waitMinutes } of steps) {
    const quantity =
      measures?.kind === 'mass'
        ? { kind: 'mass' as const, weighing: { mode: 'tared' as const, massG: '5.1048' } }
        : { kind: 'temperature' as const, temperatureC: '20.5' };
    const fact: NewFact = measures
      ? {
          kind: 'preparation.measured',
          body: { step, quantity, replaces: [], takenFrom: null, pins: [], reason: null },
        }
      : {
          kind: 'preparation.step-done',
          body: {
            ...{ step, isLeftOut: false, pins: [] },
            reason: waitMinutes === null ? null : 'done before',
          },
        };
    await client.send(fact, id).expect(201);
  }
  await client
    .post(`/api/preparations/${id}/bottle`, {
      ...{ factId: uuidv7(), bottleFactId: uuidv7(), bottleId: uuidv7(), ...NOW },
      ...{ deviceTime: new Date().toISOString(), basedOn: steps.length + 1, code: 'S1' },
      ...{ container: 'clear-glass', useBy: null, reason: null },
    })
    .expect(201);
}
