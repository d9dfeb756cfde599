import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { v7 as uuidv7 } from 'uuid';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Fact } from '#core/record';
import type { Problem, ProposedFact } from '#contract';
import { stored } from '../../core/test-support/stored';
import { Outbox } from './outbox';

const INES = uuidv7();
const TOBIN = uuidv7();

/** A reading; each of a run of its own unless it is told otherwise. */
function fact(
  readingMl: string,
  authorId = INES,
  changes: { recordId?: string; flask?: number; moment?: 'initial' | 'final' } = {},
): ProposedFact {
  const { recordId = uuidv7(), flask = 1, moment = 'initial' } = changes;
  return stored<ProposedFact>({
    id: uuidv7(),
    recordId,
    recordKind: 'run',
    kind: 'run.burette-read',
    schemaVersion: 1,
    body: { flask, moment, readingMl, carriedFrom: null, reason: null },
    authorId,
    deviceId: null,
    clockOffsetMs: null,
    deviceTime: '2026-03-02T08:00:00.000Z',
    basedOn: null,
  });
}

/** Tabs of one browser: what one says the others hear, and they take turns. */
let channels: Channel[];
let turn: Promise<void>;
class Channel {
  onmessage: (() => void) | null = null;
  constructor() {
    channels.push(this);
  }
  postMessage(): void {
    for (const other of channels) if (other !== this) other.onmessage?.();
  }
}
function takeTurn(_name: string, work: () => Promise<void>): Promise<void> {
  const done = turn.then(work);
  turn = done.catch(() => undefined);
  return done;
}

/** What the server answers, one request after another: kept, a refusal, or nothing at all. */
let answers: (
  | 'kept'
  | 'away'
  | 'broken'
  | { readonly status: number; readonly title: string; readonly code?: Problem['code'] }
)[];
/** Facts at which the server fails, whatever it answers to the others. */
let fails: ReadonlySet<string>;
let received: ProposedFact[];
let kept: Fact[];
let sessionsEnded: number;

function readingsOf(facts: readonly { readonly body: unknown }[]): string[] {
  return facts.map((item) => (item.body as { readingMl: string }).readingMl);
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  globalThis.indexedDB = new IDBFactory();
  vi.stubGlobal('window', new EventTarget());
  vi.stubGlobal('BroadcastChannel', Channel);
  vi.stubGlobal('navigator', { locks: { request: takeTurn } });
  channels = [];
  turn = Promise.resolve();
  answers = [];
  fails = new Set();
  received = [];
  kept = [];
  sessionsEnded = 0;
  vi.stubGlobal('fetch', (_path: string, request: { body: string; signal?: unknown }) => {
    // Nothing is waited for without end.
    expect(request.signal).toBeInstanceOf(AbortSignal);
    const sent = JSON.parse(request.body) as ProposedFact;
    const failed = { status: 500, title: 'The server failed.', code: 'internal' } as const;
    const answer = fails.has(sent.id) ? failed : (answers.shift() ?? 'kept');
    if (answer === 'away') return Promise.reject(new TypeError('Failed to fetch'));
    received.push(sent);
    const asStored = { ...sent, sequence: received.length, recordedAt: sent.deviceTime };
    if (answer === 'kept') return Promise.resolve(Response.json(asStored, { status: 201 }));
    if (answer === 'broken') return Promise.resolve(new Response('bad gateway', { status: 502 }));
    const code = 'impossible-entry';
    const problem: Partial<Problem> = { code, requestId: 'r-1', ...answer, fields: [] };
    const headers = { 'content-type': 'application/problem+json' };
    return Promise.resolve(Response.json(problem, { status: answer.status, headers }));
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

async function openOutbox(author: string | null = INES): Promise<Outbox> {
  const outbox = new Outbox(
    (item) => kept.push(item),
    () => {
      sessionsEnded += 1;
    },
  );
  await outbox.open();
  outbox.signIn(author);
  return outbox;
}

/** A turn of the event loop, beside the clock that the test moves. */
const realTimeout = globalThis.setTimeout;

/** Lets timers up to a time run, and what they set off. */
async function pass(milliseconds: number): Promise<void> {
  await vi.advanceTimersByTimeAsync(milliseconds);
  // IndexedDB of the test answers on real turns of the event loop.
  for (let turn = 0; turn < 20; turn += 1) await new Promise((resolve) => realTimeout(resolve));
  await vi.advanceTimersByTimeAsync(0);
}

test('facts are sent in the order of entry and leave the outbox when they are acknowledged', async () => {
  const outbox = await openOutbox();
  for (const reading of ['0.10', '23.60', '23.61']) await outbox.keep(fact(reading));
  await pass(10);
  expect(readingsOf(received)).toEqual(['0.10', '23.60', '23.61']);
  expect(readingsOf(kept)).toEqual(['0.10', '23.60', '23.61']);
  expect(outbox.snapshot()).toEqual([]);
});

test('while the server is away nothing is lost, and the same fact is tried again, later each time', async () => {
  answers = ['away', 'broken', { status: 503, title: 'no database' }, 'kept'];
  const outbox = await openOutbox();
  const first = fact('0.10');
  await outbox.keep(first);
  await pass(10);
  expect(readingsOf(outbox.snapshot().map((entry) => entry.fact))).toEqual(['0.10']);
  await outbox.keep(fact('23.60'));
  await pass(10);
  await pass(2_100);
  await pass(4_100);
  await pass(8_100);
  expect(received.at(-1)?.id).not.toBe(first.id);
  expect(readingsOf(kept)).toEqual(['0.10', '23.60']);
  expect(
    new Set(received.filter((item) => item.id === first.id).map((item) => JSON.stringify(item)))
      .size,
  ).toBe(1);
});

test('what fails is tried again after 1, 2, 4 and 8 s, then every 15 s; a success begins again', async () => {
  answers = Array.from({ length: 7 }, () => 'broken' as const);
  const outbox = await openOutbox();
  await outbox.keep(fact('0.10'));
  await pass(0);
  const waits = [1_000, 2_000, 4_000, 8_000, 15_000, 15_000];
  for (const [i, waitMs] of waits.entries()) {
    expect(received).toHaveLength(i + 1);
    await pass(waitMs - 1);
    expect(received).toHaveLength(i + 1);
    await pass(1);
  }
  expect(kept).toEqual([]);
  await pass(15_000);
  expect(readingsOf(kept)).toEqual(['0.10']);
  answers = ['broken'];
  await outbox.keep(fact('0.20'));
  await pass(0);
  await pass(999);
  expect(readingsOf(kept)).toEqual(['0.10']);
  await pass(1);
  expect(readingsOf(kept)).toEqual(['0.10', '0.20']);
});

test('whoever listens is told of each change until it leaves; nothing changes but what is named', async () => {
  const refusal = { status: 422, title: 'The burette reads from 0 to 50 mL.' };
  answers = [refusal, refusal];
  const outbox = await openOutbox();
  let told = 0;
  const leave = outbox.subscribe(() => {
    told += 1;
  });
  const [first, second] = [fact('51.00'), fact('52.00')];
  await outbox.keep(first);
  await outbox.keep(second);
  await pass(10);
  // Written down and refused, each.
  expect(told).toBeGreaterThanOrEqual(4);
  expect(outbox.snapshot().map((one) => one.refusal)).toEqual([refusal.title, refusal.title]);
  await outbox.discard(first.id);
  expect(outbox.snapshot().map((one) => one.fact.id)).toEqual([second.id]);
  // What is not there, or still on its way, is not replaced.
  await outbox.replace(first.id, fact('0.10'));
  outbox.signIn(null);
  const waiting = fact('0.20');
  await outbox.keep(waiting);
  await outbox.replace(waiting.id, fact('0.30'));
  expect(outbox.snapshot().map((one) => one.fact.id)).toEqual([second.id, waiting.id]);
  leave();
  const before = told;
  await outbox.discard(second.id);
  expect(told).toBe(before);
});

test('what is entered while something is on its way goes after it, at once', async () => {
  const outbox = await openOutbox();
  await outbox.keep(fact('0.10'));
  await vi.advanceTimersByTimeAsync(0);
  const later = outbox.keep(fact('0.20'));
  await pass(0);
  await later;
  await pass(0);
  expect(readingsOf(kept)).toEqual(['0.10', '0.20']);
});

test('what was not sent outlives the page', async () => {
  answers = ['away'];
  const before = await openOutbox();
  await before.keep(fact('0.10'));
  await pass(10);
  expect(kept).toEqual([]);
  const after = await openOutbox();
  await pass(10);
  expect(readingsOf(kept)).toEqual(['0.10']);
  expect(after.snapshot()).toEqual([]);
});

test('a fact is sent under its author only', async () => {
  const outbox = await openOutbox(null);
  await outbox.keep(fact('0.10', INES));
  await outbox.keep(fact('0.20', TOBIN));
  await pass(10);
  expect(received).toEqual([]);
  outbox.signIn(TOBIN);
  await pass(10);
  expect(readingsOf(received)).toEqual(['0.20']);
  outbox.signIn(INES);
  await pass(10);
  expect(readingsOf(received)).toEqual(['0.20', '0.10']);
});

test('a refused fact stays with its reason until it has been read, and holds back no other', async () => {
  answers = [{ status: 422, title: 'The burette reads from 0 to 50 mL.' }];
  const outbox = await openOutbox();
  const refused = fact('51.00');
  await outbox.keep(refused);
  await outbox.keep(fact('0.10'));
  await pass(10);
  expect(outbox.snapshot()).toMatchObject([
    { fact: { id: refused.id }, refusal: 'The burette reads from 0 to 50 mL.' },
  ]);
  expect(readingsOf(kept)).toEqual(['0.10']);
  const reopened = await openOutbox();
  expect(reopened.snapshot()).toHaveLength(1);
  await reopened.discard(refused.id);
  expect(reopened.snapshot()).toEqual([]);
});

test('an ended session keeps the fact for the next one; a waiting fact cannot be thrown away', async () => {
  answers = [{ status: 401, code: 'not-signed-in', title: 'Sign in to go on.' }];
  const outbox = await openOutbox();
  const waiting = fact('0.10');
  await outbox.keep(waiting);
  await pass(10);
  await outbox.discard(waiting.id);
  expect(outbox.snapshot()).toMatchObject([{ refusal: null }]);
  expect(sessionsEnded).toBe(1);
  await pass(1_100);
  expect(readingsOf(kept)).toEqual(['0.10']);
});

test('the return of the network sends at once', async () => {
  answers = ['away'];
  const outbox = await openOutbox();
  await outbox.keep(fact('0.10'));
  await pass(10);
  expect(kept).toEqual([]);
  window.dispatchEvent(new Event('online'));
  await pass(10);
  expect(readingsOf(kept)).toEqual(['0.10']);
});

test('a refused fact holds back what rests on it, through a reload too, and nothing else', async () => {
  answers = [{ status: 422, title: 'The burette reads from 0 to 50 mL.' }];
  const recordId = uuidv7();
  const first = fact('51.00', INES, { recordId });
  const outbox = await openOutbox();
  await outbox.keep(first);
  await outbox.keep(fact('23.60', INES, { recordId, moment: 'final' }));
  await outbox.keep(fact('0.20', INES, { recordId, flask: 2 }));
  await pass(10);
  expect(readingsOf(received)).toEqual(['51.00', '0.20']);
  const reopened = await openOutbox();
  await pass(10);
  expect(reopened.snapshot()).toMatchObject([
    { refusal: 'The burette reads from 0 to 50 mL.', isHeld: false },
    { refusal: null, isHeld: true },
  ]);
  await reopened.discard(first.id);
  await pass(10);
  expect(readingsOf(received)).toEqual(['51.00', '0.20', '23.60']);
});

test('a bottle whose code another device gave takes a new one; what rests on it waits, the rest goes on', async () => {
  answers = [{ status: 409, code: 'already-exists', title: 'Another bottle has this code.' }];
  const bottleId = uuidv7();
  const named = (kind: string, recordId: string, body: object): ProposedFact =>
    ({ ...fact('0'), recordId, recordKind: kind.split('.')[0], kind, body }) as ProposedFact;
  const bottle = {
    ...named('bottle.prepared', bottleId, { code: '0424-K', parents: [], preparationId: null }),
    schemaVersion: 2,
  };
  const withdrawn = named('bottle.withdrawn', bottleId, { reason: 'cloudy' });
  const lot = named('lot.taken-out', uuidv7(), {});
  const outbox = await openOutbox();
  for (const one of [bottle, withdrawn, lot]) await outbox.keep(one);
  await pass(10);
  expect(received.map(({ kind }) => kind)).toEqual(['bottle.prepared', 'lot.taken-out']);
  expect(outbox.snapshot()).toMatchObject([
    { fact: { id: bottle.id }, code: 'already-exists' },
    { fact: { id: withdrawn.id }, isHeld: true },
  ]);
  const body = { ...bottle.body, code: '0425-K' };
  await outbox.replace(bottle.id, { ...bottle, id: uuidv7(), body } as ProposedFact);
  await pass(10);
  expect(outbox.snapshot()).toEqual([]);
  expect(received.slice(2)).toMatchObject([
    { recordId: bottleId, body: { code: '0425-K' } },
    { id: withdrawn.id },
  ]);
});

test('an entry at which the server always fails says so, lets the others by and holds what rests on it', async () => {
  const recordId = uuidv7();
  const first = fact('0.10', INES, { recordId });
  const rests = fact('23.60', INES, { recordId, moment: 'final' });
  const decision = stored<ProposedFact>({
    ...first,
    ...{ id: uuidv7(), kind: 'run.abandoned', body: { reason: 'out of titrant' }, basedOn: 2 },
  });
  fails = new Set([first.id]);
  const outbox = await openOutbox();
  for (const one of [first, rests, decision, fact('0.20'), fact('0.30')]) await outbox.keep(one);
  await pass(10);
  expect(readingsOf(kept)).toEqual(['0.20', '0.30']);
  for (const wait of [1_100, 2_100, 4_100]) await pass(wait);
  expect(outbox.snapshot()).toMatchObject([
    { fact: { id: first.id }, refusal: null, failure: { times: 4, requestId: 'r-1' } },
    { fact: { id: rests.id }, isHeld: true },
    { fact: { id: decision.id }, isHeld: true },
  ]);
  expect(sessionsEnded).toBe(0);
  // Mended on the server: all of it goes through, in order.
  fails = new Set();
  await pass(15_100);
  expect(outbox.snapshot()).toEqual([]);
  expect(kept.slice(2).map(({ id }) => id)).toEqual([first.id, rests.id, decision.id]);
});

test('what an older version of the program wrote down is sent in the shape of today', async () => {
  answers = ['away'];
  const source = { kind: 'concentrate', takeMl: '8.28' };
  const older = { ...fact('0'), recordKind: 'preparation', kind: 'preparation.started' };
  const before = await openOutbox();
  await before.keep({ ...older, body: { source } } as unknown as ProposedFact);
  await pass(10);
  await openOutbox();
  await pass(10);
  expect(kept).toMatchObject([
    { schemaVersion: 4, body: { source: { ...source, flaskId: null }, carbonDioxide: 'boiled' } },
  ]);
});

test.each(['wrong-author', 'wrong-origin', 'too-many-requests', 'other-version'] as const)(
  'an answer %s says nothing against the fact: it is tried again',
  async (code) => {
    answers = [{ status: 403, code, title: 'Not now.' }];
    const outbox = await openOutbox();
    await outbox.keep(fact('0.10'));
    await pass(10);
    expect(outbox.snapshot()).toMatchObject([{ refusal: null }]);
    await pass(1_100);
    expect(readingsOf(kept)).toEqual(['0.10']);
  },
);

test('two tabs keep one order, send nothing twice, and one sends what the other left', async () => {
  answers = ['away'];
  const [first, second] = [await openOutbox(), await openOutbox()];
  await first.keep(fact('0.10'));
  await second.keep(fact('0.20'));
  await first.keep(fact('0.30'));
  await pass(10);
  await pass(2_100);
  expect(readingsOf(received)).toEqual(['0.10', '0.20', '0.30']);
  expect([first.snapshot(), second.snapshot()]).toEqual([[], []]);

  answers = ['away', 'away'];
  await first.keep(fact('0.40'));
  await pass(10);
  expect(readingsOf(second.snapshot().map((entry) => entry.fact))).toEqual(['0.40']);
  // The tab that made it is as good as gone.
  first.signIn(null);
  for (let wait = 0; wait < 4; wait += 1) await pass(5_000);
  expect(readingsOf(kept).filter((reading) => reading === '0.40')).toHaveLength(1);
});
