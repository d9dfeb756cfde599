import { appendFile, readFile } from 'node:fs/promises';
import type { Knex } from 'knex';
import type { Logger } from 'pino';
import { durably } from '../database/durably';
import { getAuditHead } from './queries';

/** The end of the log as it once was. */
export interface NotedHead {
  readonly sequence: number;
  readonly hash: string;
}

/** How often the end of the log is noted while it moves. */
const NOTE_MS = 60_000;

/**
 * Notes the end of the log in a file outside the database, a line each time, so that entries taken back at its end are
 * missed. Whoever is to find out keeps the file where the database's owner cannot write.
 */
export class HeadNotes {
  readonly #db: Knex;
  readonly #file: string;
  readonly #logger: Logger;
  #last = 0;
  #timer: ReturnType<typeof setInterval> | undefined;

  constructor(db: Knex, file: string, logger: Logger) {
    this.#db = db;
    this.#file = file;
    this.#logger = logger;
  }

  start(): void {
    void this.note();
    this.#timer = setInterval(() => void this.note(), NOTE_MS);
    this.#timer.unref();
  }

  async stop(): Promise<void> {
    clearInterval(this.#timer);
    await this.note();
  }

  /** Notes the end of the log as it is on the disk, when it has moved; what fails is told and tried again. */
  async note(): Promise<void> {
    try {
      const { sequence, hash } = await durably(this.#db, getAuditHead);
      if (sequence === this.#last) return;
      const at = new Date().toISOString();
      await appendFile(this.#file, `${at} ${String(sequence)} ${hash}\n`, { mode: 0o600 });
      this.#last = sequence;
    } catch (error) {
      this.#logger.warn({ err: error }, 'the end of the audit log could not be noted');
    }
  }
}

/** The heads that were noted in a file; none when there is no such file. A line that was cut off is left out. */
export async function readHeadNotes(file: string): Promise<readonly NotedHead[]> {
  const text = await readFile(file, 'utf8').catch((error: unknown) => {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return '';
    throw error;
  });
  return text.split('\n').flatMap((line) => {
    const [, sequence, hash] = /^\S+ (\d+) ([0-9a-f]{64})$/.exec(line) ?? [];
    return sequence !== undefined && hash !== undefined
      ? [{ sequence: Number(sequence), hash }]
      : [];
  });
}
