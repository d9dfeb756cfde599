import { draftDigest, judgeRun } from '#core/titration/judging';
import * as v from 'valibot';
import type { NamedEntry } from '#core/chemistry';
import { findAnalysis, findMethod } from '#core/chemistry';
import type { Id, Plain, PlainDate } from '#core/grammar';
import { addToDate, plainDateAt } from '#core/grammar';
import { DEFAULT_HOUSE_RULES, withOverrides } from '#core/laboratory';
import { currentSchemaVersion, recordKindOf } from '#core/ledger';
import { Chance } from '#core/measurement';
import type { RunState } from '#core/titration/run';
import { seriesOf } from '#core/titration/run';
import type { PersonState } from '#core/people';
import type { ClientFactBody, NewFact } from '#contract';
import { DEMO_PASSWORD, newId, proposedFactSchema } from '#contract';
import { appendFact, foundLaboratory } from '../server/ledger/append';
import { findLaboratory, findProjection } from '../server/ledger/queries';
import { findRun } from '../server/ledger/references';
import { addPerson } from '../server/people/accounts';
import { bottlePreparation } from '../server/preparations/bottle';
import { CERTIFICATE } from '../server/runs/certify';
import type { Issuing } from '../server/runs/issue';
import { issue } from '../server/runs/issue';
import { REPORT } from '../server/runs/report';
import { signRun } from '../server/runs/sign';
import { OF_CERTIFICATE, withdraw } from '../server/runs/withdraw';
import type { Services } from '../server/services';
import type { Bench } from './bench';
import { putRight, workSeries } from './analyst';
import { workBatch } from './chemist';
import type { PersonKey, PlannedBottle, PlannedPreparation, PlannedSeries } from './cooperative';
import {
  BALANCES,
  BOUGHT_BOTTLES,
  BOTTLES,
  BURETTES,
  CALIBRATIONS,
  FURTHER_SERIES,
  GLASSWARE,
  HEATERS,
  LABORATORY,
  LETTERHEAD,
  LOTS,
  PEOPLE,
  PREPARATIONS,
  THERMOMETERS,
} from './cooperative';
import { creamOfTartar, ownAnalysis, tartarRecipe } from './ownEntries';
import type { PlannedBatch, PlannedSample } from './samples';
import { BATCHES, CONTROL_POINTS, OWN_ANALYSES, SAMPLES } from './samples';
import { followSteps } from './preparer';

const MINUTE_MS = 60_000;

/** The day, counted from the present, on which the records begin. */
const BEGINNING = -120;

/** The day on which the bought titrants were opened. */
const UNPACKED = -6;

/** How long before the present the last day's work began. */
const TODAY_BEGAN_MS = 70 * MINUTE_MS;

/** Where it is played, and what makes its documents. */
interface Demo extends Pick<Issuing, 'printer' | 'baseUrl'> {
  readonly db: Services['db'];
}

/**
 * Plays three months of the made-up laboratory through the services that a user's entries take, with a clock that
 * is moved along. Relative to `present`, and the same for the same seed.
 */
export async function loadDemo(
  { db, printer, baseUrl }: Demo,
  present: Date,
  seed = 417,
): Promise<void> {
  let now = present.getTime();
  const services: Services = { db, now: () => new Date(now) };
  const chance = new Chance(seed);
  const goTo = (day: number): void => {
    const morning = Date.parse(`${dateOf(day)}T07:10:00Z`);
    now = day === 0 ? todaysWork() : morning + chance.between(0, 90) * MINUTE_MS;
  };
  /** When today's work began: some time before the present, but today. */
  const todaysWork = (): number => {
    let began = present.getTime() - TODAY_BEGAN_MS;
    while (plainDateAt(new Date(began).toISOString(), LABORATORY.timeZone) < dateOf(0)) {
      began += MINUTE_MS;
    }
    return began;
  };
  const today = (): PlainDate => plainDateAt(new Date(now).toISOString(), LABORATORY.timeZone);
  const dateOf = (day: number): PlainDate =>
    addToDate(plainDateAt(present.toISOString(), LABORATORY.timeZone), { days: day });

  const enter = async (
    person: PersonState,
    recordId: string,
    fact: NewFact,
    basedOn: number | null = null,
  ): Promise<void> => {
    const proposed = v.parse(proposedFactSchema, {
      ...fact,
      id: newId(now),
      recordId,
      recordKind: recordKindOf(fact.kind),
      schemaVersion: currentSchemaVersion(fact.kind),
      authorId: person.id,
      deviceId: null,
      deviceTime: new Date(now).toISOString(),
      clockOffsetMs: null,
      basedOn,
    });
    await appendFact(services, person, proposed);
    now += chance.between(1, 2) * MINUTE_MS;
  };

  goTo(BEGINNING);
  const people = await addPeople(services);
  const register = async (fact: NewFact): Promise<Id> => {
    const recordId = newId(now);
    await enter(people.mirela, recordId, fact);
    return recordId;
  };
  const founded = await findLaboratory(db);
  if (founded) {
    const body = { lines: LETTERHEAD, reason: 'as it stands on our paper' };
    const fact = { kind: 'laboratory.letterhead-set', body } as const;
    await enter(people.mirela, founded.id, fact, founded.version);
  }
  const ids = new Map<string, Id>();
  for (const [key, lot] of Object.entries(LOTS)) {
    const body = {
      ...lot,
      receivedOn: dateOf(lot.receivedOn),
      openedOn: dateOf(lot.openedOn),
      useBy: dateOf(lot.useBy),
    };
    const recordId = newId(now);
    ids.set(key, recordId);
    // Written down when it was opened, or when the records began; the clock then goes on from where it was.
    const opened = Date.parse(`${dateOf(lot.openedOn)}T06:30:00Z`);
    const aheadMs = Math.max(0, opened - now);
    now += aheadMs;
    await enter(people.mirela, recordId, { kind: 'lot.registered', body });
    now -= aheadMs;
  }
  for (const [key, item] of Object.entries({
    ...BALANCES,
    ...BURETTES,
    ...GLASSWARE,
    ...THERMOMETERS,
  })) {
    const calibrationDue = dateOf(item.calibrationDue);
    ids.set(
      key,
      await register({ kind: 'equipment.registered', body: { ...item, calibrationDue } }),
    );
  }
  for (const { of: calibrated, calibratedOn, due, ...found } of CALIBRATIONS) {
    const body = { ...found, calibratedOn: dateOf(calibratedOn), due: dateOf(due) };
    await enter(
      people.mirela,
      ids.get(calibrated) ?? '',
      { kind: 'equipment.calibrated', body },
      1,
    );
  }
  for (const [key, body] of Object.entries(HEATERS)) {
    ids.set(key, await register({ kind: 'equipment.registered', body }));
  }
  const idOf = (key: string): Id => {
    const id = ids.get(key);
    if (id === undefined) throw new RangeError(`the demo has nothing called ${key}`);
    return id;
  };

  const prepare = async (bottle: PlannedBottle): Promise<void> => {
    goTo(bottle.preparedDay);
    const recordId = newId(now);
    ids.set(bottle.code, recordId);
    const body = {
      code: bottle.code,
      substanceId: bottle.substanceId,
      nominalMolarity: bottle.nominalMolarity,
      volumeMl: bottle.volumeMl,
      purpose: 'titrant',
      parents: [{ kind: 'lot', id: idOf(bottle.lot) }],
      preparationId: null,
      made: null,
      plausibleMolarity: null,
      dilutionFactor: null,
      useBy: null,
      preparedOn: today(),
      preparedBy: people[bottle.preparedBy].id,
      container: bottle.container,
      note: bottle.note,
    } satisfies Plain<ClientFactBody<'bottle.prepared'>>;
    await enter(people[bottle.preparedBy], recordId, { kind: 'bottle.prepared', body });
  };

  const unpack = async (bottle: (typeof BOUGHT_BOTTLES)[number]): Promise<void> => {
    const { code, substanceId, lot, container, molarity, expandedUncertainty, note } = bottle;
    const recordId = newId(now);
    ids.set(code, recordId);
    const body = {
      ...{ code, substanceId, container, note, nominalMolarity: molarity, volumeMl: '1000' },
      purpose: 'standard',
      parents: [{ kind: 'lot', id: idOf(lot) }],
      preparationId: null,
      made: { molarity, expandedUncertainty, coverageFactor: '2.00', unrounded: null },
      plausibleMolarity: null,
      dilutionFactor: null,
      useBy: addToDate(today(), { days: 60 }),
      preparedOn: today(),
      preparedBy: people.jasna.id,
    } satisfies Plain<ClientFactBody<'bottle.prepared'>>;
    await enter(people.jasna, recordId, { kind: 'bottle.prepared', body });
  };

  const atVersion = async (
    kind: 'bottle' | 'equipment' | 'sample',
    key: string,
  ): Promise<{ id: string; version: number }> => {
    const id = idOf(key);
    return { id, version: (await findProjection(db, kind, id))?.version ?? 1 };
  };

  const benches = new Map<PlannedSeries, Bench>();
  const standardize = async (
    bottle: Pick<PlannedBottle, 'code' | 'nominalMolarity' | 'preparedDay' | 'offsetPercent'>,
    series: PlannedSeries,
  ): Promise<void> => {
    goTo(series.day);
    const analyst = people[series.by];
    const runId = newId(now);
    const look = async (): Promise<RunState> => {
      const run = await findRun({ db, now: () => new Date() }, runId);
      if (!run) throw new Error(`the demo run on bottle ${bottle.code} was not stored`);
      return run.state;
    };
    const monthsOld = (series.day - bottle.preparedDay) / 30;
    const bench: Bench = {
      chance,
      trueMolarity:
        Number(bottle.nominalMolarity) * (1 + bottle.offsetPercent / 100 - 0.0015 * monthsOld),
      enter: (fact, basedOn) => enter(analyst, runId, fact, basedOn),
      look,
      today,
      withdraw: (run, number, reason) =>
        withdraw(OF_CERTIFICATE, services, people[series.certifiedBy], runId, {
          ...{ factId: newId(now), bottleFactId: newId(now), password: DEMO_PASSWORD },
          ...{ deviceId: null, deviceTime: new Date(now).toISOString(), clockOffsetMs: null },
          ...{ basedOn: run.version, number, reason },
        }),
      certify: async (run, validUntil, reason) => {
        const draft = draftDigest(run) ?? '';
        const stamp = () => ({
          ...{ password: DEMO_PASSWORD, draft, factId: newId(now) },
          ...{ deviceId: null, deviceTime: new Date(now).toISOString(), clockOffsetMs: null },
        });
        await signRun(services, analyst, runId, {
          ...stamp(),
          means: 'performed',
          basedOn: run.version,
        });
        const issuing = { services, printer, baseUrl };
        await issue(CERTIFICATE, issuing, people[series.certifiedBy], runId, {
          ...stamp(),
          bottleFactId: newId(now),
          basedOn: run.version + 1,
          validUntil,
          reason,
        });
      },
    };
    const firstVersion = (key: string) => ({ id: idOf(key), version: 1 });
    const { method = 'naoh-by-khp', against = { lot: 'khp' }, excess } = series;
    await bench.enter({
      kind: 'run.started',
      body: {
        method: { kind: 'catalogue', id: method },
        bottle: await atVersion('bottle', bottle.code),
        standard:
          'lot' in against
            ? {
                kind: 'lot',
                lot: firstVersion(against.lot),
                balance: firstVersion('analytical'),
              }
            : {
                kind: 'bottle',
                bottle: await atVersion('bottle', against.bottle),
                vessel: firstVersion(against.pipette),
              },
        excess: excess
          ? {
              bottle: await atVersion('bottle', excess.bottle),
              vessel: firstVersion(excess.pipette),
            }
          : null,
        burette: await atVersion('equipment', series.burette),
        rules: withOverrides(DEFAULT_HOUSE_RULES, findMethod(method)?.rules ?? {}),
        temperatureC: series.temperatureC ?? '21.0',
        temperatureVariationK: '0.5',
        thermometer: await atVersion('equipment', 'thermometer'),
        airDensityKgPerM3: null,
        methodRepeatabilityPercent: null,
        earlierSeries: null,
        reason: null,
      },
    });
    await workSeries(bench, series);
    benches.set(series, bench);
  };

  const guided = async (planned: PlannedPreparation): Promise<void> => {
    goTo(planned.day);
    const person = people[planned.by];
    const recordId = newId(now);
    await followSteps(planned, idOf, {
      chance,
      enter: (fact, basedOn) => enter(person, recordId, fact, basedOn),
      enterOnLot: (lotId, fact) => enter(person, lotId, fact),
      wait: (minutes) => {
        now = Math.min(now + minutes * MINUTE_MS, present.getTime());
      },
      bottle: async (code, container, useBy, basedOn) => {
        const bottleId = newId(now);
        ids.set(code, bottleId);
        await bottlePreparation(services, person, recordId, {
          factId: newId(now),
          bottleFactId: newId(now),
          bottleId,
          deviceId: null,
          deviceTime: new Date(now).toISOString(),
          clockOffsetMs: null,
          basedOn,
          code,
          container,
          useBy,
          reason: null,
        });
      },
      today,
    });
  };

  const ownAnalyses: NamedEntry[] = [];
  for (const [key, { from, reason, ...given }] of Object.entries(OWN_ANALYSES)) {
    const id = newId(now);
    const entry = ownAnalysis(id, from, given);
    ownAnalyses.push({ id, version: 1, entry });
    ids.set(`own:${key}`, id);
    await enter(people.mirela, id, { kind: 'entry.written', body: { entry, reason } }, 0);
  }
  /** The id of an analysis, of the laboratory's own too. */
  const ownIdOf = (analysisId: string): string =>
    analysisId.startsWith('own:') ? idOf(analysisId) : analysisId;

  const receive = async ({ sample, receivedDay, by, dilution }: PlannedSample): Promise<void> => {
    goTo(receivedDay);
    const recordId = newId(now);
    ids.set(sample.code, recordId);
    const [sampledOn, receivedOn] = [dateOf(receivedDay), dateOf(receivedDay)];
    const requests = sample.requests.map((one) => ({
      ...one,
      analysisId: ownIdOf(one.analysisId),
    }));
    const own = ownAnalyses.filter(({ id }) => requests.some((one) => one.analysisId === id));
    const body = {
      ...{ ...sample, requests, sampledOn, receivedOn, keepUntil: dateOf(receivedDay + 28) },
      ...(own.length > 0 && { own }),
    };
    await enter(people[by], recordId, { kind: 'sample.received', body });
    const [request] = requests;
    if (sample.isControl === true && request) {
      const points = CONTROL_POINTS.map(([day, value]) => ({ on: dateOf(day), value }));
      const { analysisId, unit } = request;
      const taken = { analysisId, unit, points, source: 'the chart on the wall of the laboratory' };
      await enter(people[by], recordId, { kind: 'sample.points-taken-over', body: taken }, 1);
    }
    if (!dilution) return;
    const pipette = await atVersion('equipment', dilution.pipette);
    const flask = await atVersion('equipment', dilution.flask);
    const diluted = { pipette, flask, reason: null };
    await enter(people[by], recordId, { kind: 'sample.diluted', body: diluted }, 1);
  };

  const analyse = async (batch: PlannedBatch): Promise<void> => {
    goTo(batch.day);
    const analyst = people[batch.by];
    const runId = newId(now);
    const { analysis } = batch;
    const analysisId = ownIdOf(analysis);
    const own = ownAnalyses.find(({ id }) => id === analysisId);
    const codes = Object.keys(batch.contents);
    const samples = [];
    for (const code of codes) {
      samples.push({ sample: await atVersion('sample', code), dilutions: [] });
    }
    const look = async (): Promise<RunState> => {
      const run = await findRun({ db, now: () => new Date() }, runId);
      if (!run) throw new Error(`the demo run of ${codes.join(', ')} was not stored`);
      return run.state;
    };
    await enter(analyst, runId, {
      kind: 'run.started',
      body: {
        method: own
          ? { kind: 'own', id: own.id, version: own.version }
          : { kind: 'catalogue', id: analysisId },
        titrant: await atVersion('bottle', batch.titrant),
        samples,
        portioning: { kind: 'aliquot', vessel: await atVersion('equipment', batch.pipette) },
        excess: null,
        burette: await atVersion('equipment', batch.burette ?? 'piston20'),
        rules: withOverrides(
          DEFAULT_HOUSE_RULES,
          findAnalysis(analysisId, ownAnalyses)?.rules ?? {},
        ),
        temperatureC: '20.6',
        temperatureVariationK: '0.5',
        thermometer: await atVersion('equipment', 'thermometer'),
        airDensityKgPerM3: null,
        methodRepeatabilityPercent: null,
        earlierSeries: null,
        reason: batch.begunBecause ?? null,
      },
    });
    const bench = { chance, enter: (fact: NewFact) => enter(analyst, runId, fact), look };
    await workBatch(
      { ...bench, toFirstEnd: batch.toFirstEnd ?? null },
      codes.map((code) => ({ sampleId: idOf(code), content: batch.contents[code] ?? 0 })),
    );
    const run = await look();
    const stamp = () => ({
      ...{ password: DEMO_PASSWORD, draft: draftDigest(run) ?? '', factId: newId(now) },
      ...{ deviceId: null, deviceTime: new Date(now).toISOString(), clockOffsetMs: null },
    });
    await signRun(services, analyst, runId, {
      ...stamp(),
      means: 'performed',
      basedOn: run.version,
    });
    const issuing = { services, printer, baseUrl };
    await issue(REPORT, issuing, people.mirela, runId, {
      ...stamp(),
      ...{ basedOn: run.version + 1, form: 'batch', reason: batch.remark ?? ownScatter(run) },
    });
  };

  const standardizations = ({
    bottle,
    series,
  }: Pick<(typeof FURTHER_SERIES)[number], 'bottle' | 'series'>) => {
    const { putRight: later } = series;
    const correct = async (planned: NonNullable<PlannedSeries['putRight']>): Promise<void> => {
      goTo(planned.day);
      const bench = benches.get(series);
      if (bench) await putRight(bench, planned);
    };
    return [
      { day: series.day, play: () => standardize(bottle, series) },
      ...(later ? [{ day: later.day, play: () => correct(later) }] : []),
    ];
  };

  const events = [
    ...PREPARATIONS.map((planned) => ({ day: planned.day, play: () => guided(planned) })),
    ...BOTTLES.flatMap((bottle) => [
      { day: bottle.preparedDay, play: () => prepare(bottle) },
      ...bottle.series.flatMap((series) => standardizations({ bottle, series })),
    ]),
    ...FURTHER_SERIES.flatMap(standardizations),
    ...BOUGHT_BOTTLES.map((bottle) => ({ day: UNPACKED, play: () => unpack(bottle) })),
    ...SAMPLES.map((planned) => ({ day: planned.receivedDay, play: () => receive(planned) })),
    ...BATCHES.map((planned) => ({ day: planned.day, play: () => analyse(planned) })),
  ];
  for (const event of events.toSorted((a, b) => a.day - b.day)) await event.play();

  const tartarId = newId(now);
  const tartar = { id: tartarId, version: 1, entry: creamOfTartar(tartarId) };
  const write = (id: Id, body: Plain<ClientFactBody<'entry.written'>>): Promise<void> =>
    enter(people.mirela, id, { kind: 'entry.written', body }, 0);
  const because = 'A standard for bases that the cellar gives away.';
  await write(tartarId, { entry: tartar.entry, reason: because });
  const recipeId = newId(now);
  await write(recipeId, {
    entry: tartarRecipe(recipeId, tartar),
    own: [tartar],
    reason: 'Cold water does not dissolve it.',
  });
}

/** Why a batch is reported that scatters more than such titrations usually do; null where none does. */
function ownScatter(run: RunState): string | null {
  const isScattered = seriesOf(run).some(
    (series) => judgeRun(series).result?.pooling?.pooled.isTooLarge === true,
  );
  return isScattered ? 'No slip was found in the readings; its own scatter counts.' : null;
}

async function addPeople(services: Services): Promise<Record<PersonKey, PersonState>> {
  const added = new Map<PersonKey, PersonState>();
  for (const { key, ...person } of PEOPLE) {
    // Nobody signs in with it: the demo's people are chosen with one click, on this machine only.
    const password = newId();
    added.set(key, await addPerson(services, null, { ...person, password }, true));
  }
  const people = Object.fromEntries(added) as Record<PersonKey, PersonState>;
  await foundLaboratory(services, people.mirela.id, LABORATORY);
  return people;
}
