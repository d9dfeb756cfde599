import { Piscina } from 'piscina';
import { AppError } from '../http/appError';
import type makePdf from './printWorker';
import type { PrintTask } from './printWorker';

/** How long each kind of task may take, ms. */
type Longest = Readonly<Record<PrintTask['kind'], number>>;

const LONGEST_MS: Longest = {
  // A sheet of a hundred takes a second or two.
  labels: 10_000,
  // On a machine that is busy nobody is refused their certificate for that.
  document: 60_000,
  trial: 10_000,
};

/** Jobs that one person may have waiting. */
const WAITING_AT_MOST = 8;

interface Job {
  readonly task: PrintTask;
  readonly resolve: (pdf: Buffer) => void;
  readonly reject: (error: unknown) => void;
}

/**
 * Makes PDFs in one thread beside the server's own, a job at a time. People take turns, whoever asked for how many; a job
 * that takes too long is ended with its thread, and the next gets a fresh one.
 */
export class Printer {
  readonly #pool: Piscina<Parameters<typeof makePdf>[0], Uint8Array>;
  readonly #longestMs: Longest;
  /** By person, whose turn is next first. */
  readonly #waiting = new Map<string, Job[]>();
  #isPrinting = false;

  /** @param workerFile the built `printWorker` */
  constructor(workerFile: string, longestMs = LONGEST_MS) {
    this.#longestMs = longestMs;
    this.#pool = new Piscina({
      filename: workerFile,
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: Infinity,
    });
  }

  /** A PDF for somebody. @throws AppError when it takes too long, or too many of theirs wait already */
  print(personId: string, task: PrintTask): Promise<Buffer> {
    const theirs = this.#waiting.get(personId) ?? [];
    if (theirs.length >= WAITING_AT_MOST) {
      const message = 'Several sheets of yours are being made. Wait for them first.';
      throw new AppError('too-many-requests', message);
    }
    return new Promise((resolve, reject) => {
      this.#waiting.set(personId, [...theirs, { task, resolve, reject }]);
      void this.#printWaiting();
    });
  }

  /** Starts the thread before somebody waits for it: it reads fonts and libraries for a second. */
  getReady(): void {
    this.#pool.run({ kind: 'ready' }).catch(() => undefined);
  }

  async close(): Promise<void> {
    await this.#pool.destroy();
  }

  async #printWaiting(): Promise<void> {
    if (this.#isPrinting) return;
    this.#isPrinting = true;
    for (let job = this.#next(); job; job = this.#next()) await this.#print(job);
    this.#isPrinting = false;
  }

  /** The oldest job of whoever is next; they go to the end of the line. */
  #next(): Job | undefined {
    const [turn] = this.#waiting;
    if (!turn) return undefined;
    const [personId, [job, ...rest]] = turn;
    this.#waiting.delete(personId);
    if (rest.length > 0) this.#waiting.set(personId, rest);
    return job;
  }

  async #print({ task, resolve, reject }: Job): Promise<void> {
    const signal = AbortSignal.timeout(this.#longestMs[task.kind]);
    try {
      resolve(Buffer.from(await this.#pool.run(task, { signal })));
    } catch (error) {
      const message =
        task.kind === 'labels'
          ? 'These labels take too long to make: ask for fewer at a time.'
          : 'This takes too long to print; nothing was stored. Try it again.';
      reject(signal.aborted ? new AppError('too-large', message) : error);
    }
  }
}
