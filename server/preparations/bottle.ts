import { isDeepStrictEqual } from 'node:util';
import { checkTypedDate } from '#core/laboratory';
import type { AroundFact } from '#core/ledger';
import { foldRecord } from '#core/ledger';
import type { PreparationState } from '#core/preparation';
import { bottleOf, checkBottling, recordsOf, resultOf } from '#core/preparation';
import type { PreparedBottle } from '#core/reagent';
import type { Fact } from '#core/record';
import type { PersonState } from '#core/people';
import { authorOf } from '#core/people';
import type { BottlingRequest } from '#contract';
import { durably } from '../database/durably';
import { AppError, factIdReused } from '../http/appError';
import {
  lockAndOpen,
  deviceOf,
  makeServerFact,
  refuseStale,
  refuseUnexplained,
  refuseUnlessMay,
  storeNext,
} from '../ledger/append';
import { aroundOf } from '../ledger/around';
import { recordOf } from '../ledger/references';
import type { Services } from '../services';

/**
 * Fills what a preparation made into a bottle: the figures are computed here from what was done, the preparation is closed and the
 * bottle put on the shelf, both or neither. Sent twice it is done once.
 *
 * @throws AppError when the preparation has moved on, is spoilt or unfinished, or the code is taken.
 */
export async function bottlePreparation(
  services: Services,
  person: PersonState,
  preparationId: string,
  request: BottlingRequest,
): Promise<PreparedBottle> {
  refuseUnlessMay(authorOf(person), 'enter');
  return durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    const opened = await lockAndOpen(inside, [
      { id: preparationId, kind: 'preparation' },
      { id: request.bottleId, kind: 'bottle' },
    ]);
    const { records, surroundings } = opened;
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
    const around = aroundOf(services, surroundings);
    const bottle = decide(around, person, preparation, request);
    const made = bottlingFacts(services, person, preparation, request, bottle);
    await storeNext(inside, authorOf(person), made, opened);
    return bottle;
  });
}

/** What a request decides of the bottle itself. */
function pick({ code, container, useBy }: BottlingRequest) {
  return { code, container, useBy };
}

function decide(
  around: AroundFact,
  person: PersonState,
  preparation: PreparationState,
  request: BottlingRequest,
): PreparedBottle {
  const records = recordsOf(preparation, around);
  const result = resultOf(preparation, records);
  const day = around.today;
  refuseUnexplained(
    [
      ...checkBottling(preparation, result !== null),
      ...checkTypedDate('useBy', request.useBy, 'to-come', day),
    ],
    request,
  );
  if (!result) throw new RangeError('a bottle without a result was let through');
  return bottleOf(preparation, result, records, {
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
  person: PersonState,
  preparation: PreparationState,
  request: BottlingRequest,
  bottle: PreparedBottle,
): readonly Fact[] {
  const { basedOn } = request;
  const device = deviceOf(request);
  return [
    makeServerFact(services, person.id, {
      ...device,
      id: request.bottleFactId,
      recordId: request.bottleId,
      recordKind: 'bottle',
      kind: 'bottle.prepared',
      body: bottle,
    }),
    makeServerFact(services, person.id, {
      ...device,
      id: request.factId,
      recordId: preparation.id,
      recordKind: 'preparation',
      kind: 'preparation.bottled',
      body: { bottleId: request.bottleId },
      basedOn,
    }),
  ];
}
