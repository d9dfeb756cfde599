import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { LiveEvent } from '#contract';
import { noteReach, subscribeReachable } from '../app/reachability';
import { LiveUpdates } from './liveUpdates';

/** The browser's connection to the server, moved by the test. */
class Source extends EventTarget {
  static readonly CLOSED = 2;
  readyState = 1;
  onopen: (() => void) | null = null;
  onmessage: ((message: object) => void) | null = null;
  onerror: (() => void) | null = null;
  readonly url: string;
  constructor(url: string) {
    super();
    this.url = url;
    sources.push(this);
  }
  close(): void {
    this.readyState = Source.CLOSED;
  }
  tell(id: number, event: LiveEvent): void {
    this.onmessage?.({ lastEventId: String(id), data: JSON.stringify(event) });
  }
}

/** What tabs of one browser say to each other; a tab that sleeps hears nothing. */
class Channel {
  onmessage: ((message: { data: unknown }) => void) | null = null;
  isAsleep = false;
  constructor() {
    channels.push(this);
  }
  postMessage(data: unknown): void {
    for (const other of channels) {
      if (other !== this && !other.isAsleep) other.onmessage?.({ data });
    }
  }
  close(): void {
    channels = channels.filter((other) => other !== this);
  }
}

let sources: Source[];
let channels: Channel[];
let turns: Promise<unknown>;

beforeEach(() => {
  vi.useFakeTimers();
  sources = [];
  channels = [];
  turns = Promise.resolve();
  vi.stubGlobal('EventSource', Source);
  vi.stubGlobal('BroadcastChannel', Channel);
  vi.stubGlobal('window', new EventTarget());
  vi.stubGlobal('document', Object.assign(new EventTarget(), { visibilityState: 'visible' }));
  const request = (_name: string, _options: object, work: () => Promise<void>) => {
    const turn = turns.then(work);
    turns = turn;
    return turn;
  };
  vi.stubGlobal('navigator', { locks: { request } });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** A tab, what it has heard, and whether its stream was refused. */
async function openTab(after: number) {
  const heard: LiveEvent['kind'][] = [];
  const refused = vi.fn();
  const live = new LiveUpdates(after, {
    onEvent: (event) => heard.push(event.kind),
    onRefused: refused,
  });
  await vi.advanceTimersByTimeAsync(0);
  return { live, heard, refused };
}

const gap: LiveEvent = { kind: 'gap' };
const fact: LiveEvent = { kind: 'fact', recordKind: 'run', recordId: 'r', version: 2 };

test('one tab of a browser listens and tells the others; when it leaves, the next goes on where it was', async () => {
  const [first, second] = [await openTab(10), await openTab(10)];
  expect(sources.map(({ url }) => url)).toEqual(['/api/events?after=10']);
  sources[0]?.tell(11, gap);
  sources[0]?.tell(14, fact);
  expect([first.heard, second.heard]).toEqual([
    ['gap', 'fact'],
    ['gap', 'fact'],
  ]);
  first.live.close();
  await vi.advanceTimersByTimeAsync(0);
  expect(sources[0]?.readyState).toBe(Source.CLOSED);
  expect(sources[1]?.url).toBe('/api/events?after=14');
  sources[1]?.tell(15, gap);
  expect([first.heard.length, second.heard.length]).toEqual([2, 3]);
});

test('a tab that slept notices what it missed and reads everything again, once', async () => {
  const sleeper = await openTab(10).then(async (first) => ({ first, second: await openTab(10) }));
  const channel = channels[1];
  if (channel) channel.isAsleep = true;
  sources[0]?.tell(11, fact);
  if (channel) channel.isAsleep = false;
  sources[0]?.tell(12, fact);
  sources[0]?.tell(13, fact);
  expect(sleeper.second.heard).toEqual(['gap', 'fact']);
  expect(sleeper.first.heard).toEqual(['fact', 'fact', 'fact']);
});

test('a page that was read later than a change is not told of it again', async () => {
  const [, later] = [await openTab(10), await openTab(20)];
  sources[0]?.tell(15, fact);
  sources[0]?.tell(21, fact);
  expect(later.heard).toEqual(['fact']);
});

test('a refused stream asks for the session and tries again; a silent one is opened again', async () => {
  const tab = await openTab(10);
  const [source] = sources;
  source?.tell(12, fact);
  source?.close();
  source?.onerror?.();
  expect(tab.refused).toHaveBeenCalledOnce();
  await vi.advanceTimersByTimeAsync(1_999);
  expect(sources).toHaveLength(1);
  await vi.advanceTimersByTimeAsync(1);
  expect(sources.map(({ url }) => url)).toEqual(['/api/events?after=10', '/api/events?after=12']);
  // Beats keep it; without them it is taken for dead.
  for (let beat = 0; beat < 6; beat += 1) {
    await vi.advanceTimersByTimeAsync(15_000);
    sources[1]?.dispatchEvent(new Event('beat'));
  }
  expect(sources).toHaveLength(2);
  await vi.advanceTimersByTimeAsync(39_999);
  expect(sources).toHaveLength(2);
  await vi.advanceTimersByTimeAsync(1);
  expect(sources).toHaveLength(3);
  window.dispatchEvent(new Event('online'));
  expect(sources).toHaveLength(4);
});

test('a tab that leaves as its turn comes opens no connection, and the next tab has its turn', async () => {
  const leaving = new LiveUpdates(7, { onEvent: vi.fn(), onRefused: vi.fn() });
  leaving.close();
  const { heard } = await openTab(7);
  expect(sources).toHaveLength(1);
  sources[0]?.tell(8, gap);
  expect(heard).toEqual(['gap']);
});

test('the server counts as reached when the stream opens, as away when it breaks; an interrupted one is left to the browser', async () => {
  const tab = await openTab(10);
  noteReach('reached');
  const reached: boolean[] = [];
  const leave = subscribeReachable((isReachable) => reached.push(isReachable));
  const [source] = sources;
  source?.onerror?.();
  source?.onopen?.();
  leave();
  expect(reached).toEqual([false, true]);
  await vi.advanceTimersByTimeAsync(2_000);
  expect(sources).toHaveLength(1);
  expect(tab.refused).not.toHaveBeenCalled();
});

test('nothing is told twice, a page that nobody sees opens nothing again, and one that left stays silent', async () => {
  const { live, heard } = await openTab(10);
  sources[0]?.tell(11, fact);
  sources[0]?.tell(11, fact);
  expect(heard).toEqual(['fact']);
  Object.assign(document, { visibilityState: 'hidden' });
  window.dispatchEvent(new Event('online'));
  expect(sources).toHaveLength(1);
  Object.assign(document, { visibilityState: 'visible' });
  document.dispatchEvent(new Event('resume'));
  expect(sources).toHaveLength(2);
  live.close();
  await vi.advanceTimersByTimeAsync(0);
  sources[1]?.onerror?.();
  window.dispatchEvent(new Event('online'));
  await vi.advanceTimersByTimeAsync(100_000);
  expect(sources).toHaveLength(2);
});
