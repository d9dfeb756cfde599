import * as v from 'valibot';
import type { ListAnswer, ListKind, ListRequest, RecordAnswer, StockAnswer } from '#contract';
import { LIST_ORDERS } from '#contract';
import { searchTerms } from '#core/record';
import { AppError } from '../http/appError';
import type { Services } from '../services';
import { laboratoryNow } from './around';
import type { ListedRow, Place, Wanted } from './queries';
import { findListed, listLeftAtHand, listPage, listParentNames } from './queries';

/** Records of a page. */
const PAGE = 100;

/** Length of the records of a page as text, from which on it ends earlier. */
const PAGE_CHARACTERS = 150_000;

/** Lots and bottles of which is told what is left. */
const STOCK_AT_MOST = 500;

/** A place in a list, and which list it is of. */
const cursorSchema = v.strictObject({
  list: v.strictObject({
    kind: v.string(),
    order: v.picklist(LIST_ORDERS),
    terms: v.array(v.string()),
    standing: v.array(v.string()),
    aboutId: v.nullable(v.string()),
    restsOnId: v.nullable(v.string()),
    isAtHand: v.boolean(),
  }),
  place: v.strictObject({ key: v.string(), id: v.pipe(v.string(), v.uuid()) }),
});
type Cursor = v.InferOutput<typeof cursorSchema>;

/**
 * A page of a list.
 *
 * @throws AppError `invalid-request` for a place that is of another list or none
 */
export async function readPage(
  services: Services,
  kind: ListKind,
  request: ListRequest,
): Promise<ListAnswer<ListKind>> {
  const list: Cursor['list'] = {
    kind,
    order: request.order,
    terms: [...searchTerms(request.search)],
    standing: request.standing.split(',').filter(Boolean),
    aboutId: request.about ?? null,
    restsOnId: request.restsOn ?? null,
    isAtHand: request.atHand === 'yes',
  };
  const after = request.after === undefined ? null : placeIn(list, request.after);
  const { today, settings } = await laboratoryNow(services.db, services);
  const wanted: Wanted = { ...list, kind, today, warningDays: settings.warningDays };
  const rows = await listPage(services.db, wanted, after, PAGE + 1);
  const page = rows.slice(0, fitting(rows.slice(0, PAGE)));
  const last = page.at(-1);
  return {
    records: page.map(({ state }) => state),
    left: Object.fromEntries(page.flatMap(({ id, left }) => (left === null ? [] : [[id, left]]))),
    names: Object.fromEntries(page.flatMap(({ about }) => (about ? [[about.id, about.name]] : []))),
    next: last && page.length < rows.length ? cursorOf(list, last) : null,
  };
}

/** How many records go into one answer: at least one. */
function fitting(rows: readonly ListedRow[]): number {
  let characters = 0;
  const end = rows.findIndex(({ state }) => {
    characters += JSON.stringify(state).length;
    return characters > PAGE_CHARACTERS;
  });
  return end < 0 ? rows.length : Math.max(1, end);
}

function cursorOf(list: Cursor['list'], { key, id }: Place): string {
  return Buffer.from(JSON.stringify({ list, place: { key, id } })).toString('base64url');
}

function placeIn(list: Cursor['list'], text: string): Place {
  const read = v.safeParse(v.pipe(v.string(), v.parseJson(), cursorSchema), decoded(text));
  const isOfThis = read.success && JSON.stringify(read.output.list) === JSON.stringify(list);
  if (isOfThis && isKey(list.order, read.output.place.key)) return read.output.place;
  throw new AppError('invalid-request', 'This is no place in this list. Begin the list again.', [
    { field: 'after', message: 'This is no place in this list.' },
  ]);
}

function decoded(text: string): string {
  return Buffer.from(text, 'base64url').toString('utf8');
}

/** Whether a list of that order can have such a key. */
function isKey(order: Cursor['list']['order'], key: string): boolean {
  return order === 'newest' ? v.is(v.pipe(v.string(), v.isoTimestamp()), key) : !key.includes('\0');
}

/** One record. @throws AppError `not-found` */
export async function readRecord(
  services: Services,
  kind: ListKind,
  id: string,
): Promise<RecordAnswer<ListKind>> {
  const { db } = services;
  const { today } = await laboratoryNow(db, services);
  const found = await findListed(db, kind, id, today);
  if (!found) throw new AppError('not-found', `There is no such ${kind}.`);
  const parents = await listParentNames(db, id);
  const names = Object.fromEntries(parents.map((parent) => [parent.id, parent.name]));
  const { state: record, isAtHand, left } = found;
  return { record, isAtHand, left, names };
}

/** What is left of what may come to hand. */
export async function readStock(services: Services): Promise<StockAnswer> {
  const { today } = await laboratoryNow(services.db, services);
  return { left: Object.fromEntries(await listLeftAtHand(services.db, today, STOCK_AT_MOST)) };
}
