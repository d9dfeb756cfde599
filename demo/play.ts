import { v7 as uuidv7 } from 'uuid';
import { addToDate, DEFAULT_HOUSE_RULES, plainDateAt } from '#core/laboratory';
import { currentSchemaVersion } from '#core/record';
import type { RunState } from '#core/titration';
import type { NewFact, Person, ProposedFact } from '#contract';
import { appendFact, foundLaboratory } from '../server/ledger/append';
import { findRun } from '../server/ledger/references';
import { addPerson } from '../server/people/accounts';
import { certifyRun } from '../server/runs/certify';
import type { Services } from '../server/services';
import type { Bench } from './analyst';
import { workSeries } from './analyst';
import type { PersonKey, PlannedBottle, PlannedSeries } from './cooperative';
import { BALANCES, BOTTLES, BURETTES, GLASSWARE, LABORATORY, LOTS, PEOPLE } from './cooperative';
import { seededChance } from './random';

const RECORD_KINDS = { lot: 'lot', equipment: 'equipment', bottle: 'bottle', run: 'run' } as const;
const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;

/** How long before the present the last day's work began. */
const TODAY_BEGAN_MS = 50 * MINUTE_MS;

/**
 * Plays three months of the made-up laboratory through the services that a user's entries take, with a clock that
 * is moved along. Relative to `present`, and the same for the same seed.
 */
export async function loadDemo(db: Services['db'], present: Date, seed = 417): Promise<void> {
  let now = present.getTime();
  const services: Services = { db, now: () => new Date(now) };
  const chance = seededChance(seed);
  const goTo = (day: number): void => {
    const morning = new Date(present.getTime() + day * DAY_MS).setUTCHours(7, 10, 0, 0);
    now =
      day === 0 ? present.getTime() - TODAY_BEGAN_MS : morning + chance.between(0, 90) * MINUTE_MS;
  };
  const today = (): string => plainDateAt(new Date(now).toISOString(), LABORATORY.timeZone);
  const dateOf = (day: number): string =>
    addToDate(plainDateAt(present.toISOString(), LABORATORY.timeZone), { days: day });

  const enter = async (
    person: Person,
    recordId: string,
    fact: NewFact,
    basedOn: number | null = null,
  ): Promise<void> => {
    const [room = ''] = fact.kind.split('.');
    // The record's kind is the first word of the fact's kind, which pairs it with its body.
    const proposed = {
      ...fact,
      id: uuidv7({ msecs: now }),
      recordId,
      recordKind: RECORD_KINDS[room as keyof typeof RECORD_KINDS],
      schemaVersion: currentSchemaVersion(fact.kind),
      authorId: person.id,
      deviceId: null,
      deviceTime: new Date(now).toISOString(),
      clockOffsetMs: null,
      basedOn,
    } as ProposedFact;
    await appendFact(services, person, proposed);
    now += chance.between(1, 2) * MINUTE_MS;
  };

  goTo(-120);
  const people = await addPeople(services);
  const register = async (fact: NewFact): Promise<string> => {
    const recordId = uuidv7({ msecs: now });
    await enter(people.mirela, recordId, fact);
    return recordId;
  };
  const ids = new Map<string, string>();
  for (const [key, lot] of Object.entries(LOTS)) {
    const body = {
      ...lot,
      receivedOn: dateOf(lot.receivedOn),
      useBy: dateOf(lot.useBy),
    };
    ids.set(key, await register({ kind: 'lot.registered', body }));
  }
  for (const [key, item] of Object.entries({ ...BALANCES, ...BURETTES, ...GLASSWARE })) {
    const calibrationDue = dateOf(item.calibrationDue);
    ids.set(
      key,
      await register({ kind: 'equipment.registered', body: { ...item, calibrationDue } }),
    );
  }
  const idOf = (key: string): string => ids.get(key) ?? '';

  const prepare = async (bottle: PlannedBottle): Promise<void> => {
    goTo(bottle.preparedDay);
    const recordId = uuidv7({ msecs: now });
    ids.set(bottle.code, recordId);
    const body = {
      code: bottle.code,
      substanceId: 'sodium-hydroxide',
      nominalMolarity: bottle.nominalMolarity,
      volumeMl: bottle.volumeMl,
      lotId: idOf('pellets'),
      preparedOn: today(),
      preparedBy: people[bottle.preparedBy].id,
      container: 'plastic',
      note: bottle.note,
    } as const;
    await enter(people[bottle.preparedBy], recordId, { kind: 'bottle.prepared', body });
  };

  const standardize = async (bottle: PlannedBottle, series: PlannedSeries): Promise<void> => {
    goTo(series.day);
    const analyst = people[series.by];
    const runId = uuidv7({ msecs: now });
    const look = async (): Promise<RunState> => {
      const run = await findRun(db, runId);
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
      certify: async (run, validUntil, reason) => {
        await certifyRun(services, people[series.certifiedBy], runId, {
          factId: uuidv7({ msecs: now }),
          bottleFactId: uuidv7({ msecs: now }),
          deviceId: null,
          deviceTime: new Date(now).toISOString(),
          clockOffsetMs: null,
          basedOn: run.version,
          validUntil,
          reason,
        });
      },
    };
    const firstVersion = (key: string) => ({ id: idOf(key), version: 1 });
    const earlier = bottle.series.filter((other) => other.day < series.day).length;
    await bench.enter({
      kind: 'run.started',
      body: {
        methodId: 'naoh-by-khp',
        bottle: { id: idOf(bottle.code), version: 1 + earlier },
        lot: firstVersion('khp'),
        balance: firstVersion('analytical'),
        burette: firstVersion(series.burette),
        rules: DEFAULT_HOUSE_RULES,
        temperatureC: '21',
        temperatureVariationK: '2',
        methodRepeatabilityPercent: null,
        reason: null,
      },
    });
    await workSeries(bench, series);
  };

  const events = BOTTLES.flatMap((bottle) => [
    { day: bottle.preparedDay, play: () => prepare(bottle) },
    ...bottle.series.map((series) => ({
      day: series.day,
      play: () => standardize(bottle, series),
    })),
  ]);
  for (const event of events.toSorted((a, b) => a.day - b.day)) await event.play();
}

async function addPeople(services: Services): Promise<Record<PersonKey, Person>> {
  const added = new Map<PersonKey, Person>();
  for (const { key, ...person } of PEOPLE) {
    // Nobody signs in with it: the demo's people are chosen with one click, on this machine only.
    const password = uuidv7();
    added.set(key, await addPerson(services, null, { ...person, password }, true));
  }
  const people = Object.fromEntries(added) as Record<PersonKey, Person>;
  await foundLaboratory(services, people.mirela.id, LABORATORY);
  return people;
}
