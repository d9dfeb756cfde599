import type { LiveEvent } from '#contract';
import { liveEvent } from '#contract';
import { readAnswer } from '../app/api';
import { noteReach } from '../app/reachability';

/** What the tab that listens tells the others: events after one number, up to another. */
interface Told {
  readonly after: number;
  readonly upTo: number;
  readonly event: LiveEvent;
}

interface Parts {
  readonly onEvent: (event: LiveEvent) => void;
  /** The stream was refused: the session may have ended. */
  readonly onRefused: () => void;
}

const NAME = 'vine-measure.live';
const RETRY_MS = 2_000;

/** The server sends a beat every 15 s; without one for longer than this the connection is dead. */
const SILENCE_MS = 40_000;

/**
 * Hears of changes as they happen. All tabs of a browser share one connection: the one that holds a lock listens
 * and tells the others; when it is closed, the next one takes over where it was. Changes are numbered, so whoever
 * was asleep notices the gap and reads everything again.
 */
export class LiveUpdates {
  readonly #parts: Parts;
  readonly #channel = new BroadcastChannel(NAME);
  readonly #leaving = new AbortController();
  #last: number;
  #source: EventSource | null = null;
  #silence: ReturnType<typeof setTimeout> | undefined;

  /** @param after number of the last change that is known */
  constructor(after: number, parts: Parts) {
    this.#last = after;
    this.#parts = parts;
    this.#channel.onmessage = ({ data }: MessageEvent<Told>) => {
      this.#hear(data);
    };
    void navigator.locks
      .request(NAME, { signal: this.#leaving.signal }, () => this.#listen())
      // Left before its turn came.
      .catch(() => undefined);
  }

  /** Stops listening; another tab takes over. */
  close(): void {
    this.#leaving.abort();
    this.#channel.close();
  }

  #hear({ after, upTo, event }: Told): void {
    if (upTo <= this.#last) return;
    const isGap = after > this.#last;
    this.#last = upTo;
    this.#parts.onEvent(isGap ? { kind: 'gap' } : event);
  }

  /** Keeps a connection until this tab leaves. */
  #listen(): Promise<void> {
    // A lock may be granted in the moment of leaving; kept, it would silence every other tab.
    if (this.#leaving.signal.aborted) return Promise.resolve();
    this.#open();
    const again = (): void => {
      // After sleep or a change of network the old connection may hang without a word.
      if (document.visibilityState === 'visible') this.#open();
    };
    window.addEventListener('online', again);
    document.addEventListener('resume', again);
    return new Promise((resolve) => {
      this.#leaving.signal.addEventListener('abort', () => {
        window.removeEventListener('online', again);
        document.removeEventListener('resume', again);
        clearTimeout(this.#silence);
        this.#source?.close();
        resolve();
      });
    });
  }

  #open(): void {
    this.#source?.close();
    const source = new EventSource(`/api/events?after=${String(this.#last)}`);
    this.#source = source;
    this.#expectBeat();
    source.onopen = () => {
      noteReach('reached');
    };
    source.addEventListener('beat', () => {
      this.#expectBeat();
    });
    source.onmessage = ({ lastEventId, data }: MessageEvent<string>) => {
      this.#expectBeat();
      const told: Told = {
        after: this.#last,
        upTo: Number(lastEventId),
        event: readAnswer(liveEvent, JSON.parse(data)),
      };
      this.#channel.postMessage(told);
      this.#hear(told);
    };
    source.onerror = () => {
      noteReach('away');
      // An interrupted stream reconnects by itself; a refused one does not.
      if (source.readyState !== EventSource.CLOSED) return;
      this.#parts.onRefused();
      this.#openIn(RETRY_MS);
    };
  }

  #expectBeat(): void {
    this.#openIn(SILENCE_MS);
  }

  #openIn(delayMs: number): void {
    clearTimeout(this.#silence);
    if (this.#leaving.signal.aborted) return;
    this.#silence = setTimeout(() => {
      this.#open();
    }, delayMs);
  }
}
