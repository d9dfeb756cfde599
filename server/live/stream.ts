import type { Response } from 'express';
import type { Knex } from 'knex';
import type { LiveEvent } from '#contract';
import type { AuditEntry } from '../audit/entry';
import type { ChainedEntry } from '../audit/queries';
import { listAuditAfter } from '../audit/queries';
import type { Feed } from './feed';

/** A reader that leaves so many bytes unread is dropped; it comes back and goes on from where it was. */
const UNREAD_BYTES_AT_MOST = 256 * 1024;

/** Who missed more than this reads everything again instead. */
const MISSED_AT_MOST = 2_000;

const HEARTBEAT_MS = 15_000;

/** What a stream works with. */
interface StreamParts {
  readonly db: Knex;
  readonly feed: Feed;
  readonly response: Response;
  /** Number of the last event that the reader knows. */
  readonly after: number;
  /** Asked at each heartbeat; the stream of an ended session ends. */
  readonly isAllowed: () => Promise<boolean>;
  readonly onDropped: (unreadBytes: number) => void;
}

/** Sends what changes to one browser, in order and without gaps, until either side leaves. */
export async function streamEvents(parts: StreamParts): Promise<void> {
  const { db, feed, response, onDropped } = parts;
  // Who left while the session was looked up has been closed already, and nothing would tell of it again.
  if (response.closed || response.destroyed) return;
  let last = parts.after;
  let isLive = false;
  /** What comes while the past is still being sent. */
  let meanwhile: ChainedEntry[] = [];

  const write = (text: string): void => {
    if (response.destroyed) return;
    response.write(text);
    if (response.writableLength <= UNREAD_BYTES_AT_MOST) return;
    onDropped(response.writableLength);
    response.destroy();
  };
  const send = (entries: readonly ChainedEntry[]): void => {
    const fresh = entries.filter(({ sequence }) => sequence > last);
    last = fresh.at(-1)?.sequence ?? last;
    write(fresh.map(eventText).join(''));
  };
  const unsubscribe = feed.subscribe(
    (entries) => {
      if (isLive) send(entries);
      else meanwhile.push(...entries);
    },
    () => response.end(),
  );
  const heartbeat = setInterval(() => {
    void parts
      .isAllowed()
      // A database that is away for a moment ends nobody's session.
      .catch(() => true)
      .then((isAllowed) => {
        // An event, because a comment does not reach the page.
        if (isAllowed) write('event: beat\ndata: still here\n\n');
        else response.end();
      });
  }, HEARTBEAT_MS);
  heartbeat.unref();
  response.on('close', () => {
    clearInterval(heartbeat);
    unsubscribe();
  });

  response.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-store',
    // Asks proxies not to hold events back.
    'x-accel-buffering': 'no',
  });
  write('retry: 1000\n\n');
  const missed = await listAuditAfter(db, last, MISSED_AT_MOST + 1);
  if (missed.length > MISSED_AT_MOST) {
    last = missed.at(-1)?.sequence ?? last;
    write(`id: ${String(last)}\ndata: ${JSON.stringify({ kind: 'gap' } satisfies LiveEvent)}\n\n`);
    // What lies beyond is in the gap as well: whoever hears of it reads everything again.
  } else {
    send(missed);
  }
  isLive = true;
  send(meanwhile);
  meanwhile = [];
}

/** An entry as it goes over the wire; what concerns no page moves the number on without a word. */
function eventText({ sequence, text }: ChainedEntry): string {
  const event = liveEventOf(JSON.parse(text) as AuditEntry);
  const id = `id: ${String(sequence)}\n`;
  return event === null ? `${id}\n` : `${id}data: ${JSON.stringify(event)}\n\n`;
}

function liveEventOf(entry: AuditEntry): LiveEvent | null {
  switch (entry.kind) {
    case 'fact': {
      const { recordKind, recordId, version } = entry;
      return { kind: 'fact', recordKind, recordId, version };
    }
    case 'rebuilt':
    case 'restored':
      return { kind: 'gap' };
    case 'account-made':
    case 'signed-in':
    case 'signed-out':
    case 'sign-in-failed':
    case 'printed':
    case 'backed-up':
    case 'break-accepted':
    case 'password-set':
    case 'sessions-ended':
      return null;
  }
}
