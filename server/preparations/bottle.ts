import { isDeepStrictEqual } from 'node:util';
import type { Knex } from 'knex';
import { checkTypedDate } from '#core/laboratory';
import { foldRecord } from '#core/ledger';
import type { PreparationState } from '#core/preparation';
import { bottleOf, checkBottling, resultOf } from '#core/preparation';
import type { PreparedBottle } from '#core/reagent';
import type { Fact } from '#core/record';
import type { BottlingRequest, Person } from '#contract';
import { durably } from '../database/durably';
import { AppError, factIdReused } from '../http/appError';
import { loadShelf, today } from '../ledger/admit';
import {
  makeServerFact,
  recordOf,
  refuseStale,
  refuseUnexplained,
  storeNext,
} from '../ledger/append';
import { lockRecords } from '../ledger/queries';
import { loadRecords } from '../ledger/references';
import type { Services } from '../services';

/**
 * Fills what a preparation made into a bottle: the figures are computed here from what was done, the preparation is closed and the
 * bottle put on the shelf, both or neither. Sent twice it is done once.
 *
 * @throws AppError when the preparation has moved on, is spoilt or unfinished, or the code is taken.
 */
export async function bottlePreparation(
  services: Services,
  person: Person,
  preparationId: string,
  request: BottlingRequest,
): Promise<PreparedBottle> {
  return durably(services.db, async (tx) => {
    await lockRecords(tx, [preparationId, request.bottleId]);
    const records = await loadRecords(tx, [
      { id: preparationId, kind: 'preparation' },
      { id: request.bottleId, kind: 'bottle' },
    ]);
    const { facts } = recordOf(records, preparationId);
    const preparation = foldRecord('preparation', facts);
    if (!preparation) throw new AppError('not-found', 'There is no such preparation.');
    const there = recordOf(records, request.bottleId).facts;
    const before = there.find(({ id }) => id === request.bottleFactId);
    if (before && preparation.bottleId === request.bottleId) {
      const bottle = before.body as PreparedBottle;
      const { code, container, useBy } = bottle;
      if (isDeepStrictEqual({ code, container, useBy }, pick(request))) return bottle;
    }
    if (there.length > 0 || facts.some(({ id }) => id === request.factId)) throw factIdReused();
    refuseStale(request.basedOn, preparation.version);
    const bottle = await decide(tx, services, person, preparation, request);
    await storeNext(tx, bottlingFacts(services, person, preparation, request, bottle), records);
    return bottle;
  });
}

/** What a request decides of the bottle itself. */
function pick({ code, container, useBy }: BottlingRequest) {
  return { code, container, useBy };
}

async function decide(
  tx: Knex,
  services: Services,
  person: Person,
  preparation: PreparationState,
  request: BottlingRequest,
): Promise<PreparedBottle> {
  const shelf = await loadShelf(tx);
  const result = resultOf(preparation, shelf);
  const day = await today(tx, services);
  refuseUnexplained(
    [
      ...checkBottling(preparation, result !== null),
      ...checkTypedDate('useBy', request.useBy, 'to-come', day),
    ],
    request,
  );
  if (!result) throw new RangeError('a bottle without a result was let through');
  return bottleOf(preparation, result, shelf, {
    code: request.code,
    container: request.container,
    useBy: request.useBy,
    preparedBy: person.id,
    preparedOn: day,
  });
}

/** What bottling writes into the preparation and on the shelf; not numbered yet. */
function bottlingFacts(
  services: Services,
  person: Person,
  preparation: PreparationState,
  request: BottlingRequest,
  bottle: PreparedBottle,
): readonly Fact[] {
  const { deviceId, deviceTime, clockOffsetMs, basedOn } = request;
  const device = { deviceId, deviceTime, clockOffsetMs };
  return [
    makeServerFact(services, person.id, {
      ...device,
      id: request.factId,
      recordId: preparation.id,
      recordKind: 'preparation',
      kind: 'preparation.bottled',
      body: { bottleId: request.bottleId },
      basedOn,
    }),
    makeServerFact(services, person.id, {
      ...device,
      id: request.bottleFactId,
      recordId: request.bottleId,
      recordKind: 'bottle',
      kind: 'bottle.prepared',
      body: bottle,
    }),
  ];
}
