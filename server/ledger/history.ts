import * as v from 'valibot';
import { FACT_KINDS, isSigned, recordKindOf } from '#core/ledger';
import type { HistoryAnswer, HistoryRequest } from '#contract';
import { AppError } from '../http/appError';
import type { Services } from '../services';
import { laboratoryNow } from './around';
import type { HistoryPlace } from './queries';
import { listHistory } from './queries';

/** Lines in one answer. */
const PAGE = 50;

const placeSchema = v.strictObject({
  at: v.pipe(v.string(), v.isoTimestamp()),
  id: v.pipe(v.string(), v.uuid()),
});

/**
 * A page of what was entered, the newest first.
 *
 * @throws AppError `invalid-request` for a place that is none
 */
export async function readHistory(
  services: Services,
  { recordId, recordKind, by, signed, from, to, after }: HistoryRequest,
): Promise<HistoryAnswer> {
  const { timeZone } = await laboratoryNow(services.db, services);
  const kinds = FACT_KINDS.filter(
    (kind) =>
      (recordKind === undefined || recordKindOf(kind) === recordKind) &&
      (signed === 'no' || isSigned(kind)),
  );
  const isEveryKind = kinds.length === FACT_KINDS.length;
  const rows = await listHistory(
    services.db,
    {
      ...{ recordId: recordId ?? null, authorId: by ?? null },
      kinds: isEveryKind ? null : kinds,
      ...{ from: from ?? null, to: to ?? null, timeZone },
    },
    after === undefined ? null : placeOf(after),
    PAGE + 1,
  );
  const page = rows.slice(0, PAGE);
  const last = page.at(-1)?.fact;
  return {
    lines: page,
    next: last && rows.length > PAGE ? JSON.stringify({ at: last.recordedAt, id: last.id }) : null,
  };
}

function placeOf(after: string): HistoryPlace {
  try {
    return v.parse(placeSchema, JSON.parse(after));
  } catch {
    throw new AppError('invalid-request', 'This is no place in the history.');
  }
}
