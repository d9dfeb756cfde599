import type { Person, ProposedFact } from '#contract';
import { AppError } from '../http/appError';
import type { Services } from '../services';
import type { Appended } from './append';
import { appendFact, appendFacts, refuseForeign } from './append';

/** Facts that one transaction takes at most: more would let the first one wait for the last. */
const FACTS_AT_MOST = 64;

/** Two processes began the same record, or waited for each other: neither is the fault of a fact. */
const RACES: ReadonlySet<unknown> = new Set(['23505', '40P01', '40001']);

interface Waiting {
  readonly author: Person;
  readonly proposed: ProposedFact;
  readonly resolve: (appended: Appended) => void;
  readonly reject: (error: unknown) => void;
}

/**
 * Facts that arrive while others are being stored share the next transaction, one way to the disk for all of them.
 * Nothing is acknowledged before it is stored: what waits here when the process dies is sent again by its device.
 */
export class Batch {
  readonly #services: Services;
  #waiting: Waiting[] = [];
  #isStoring = false;

  constructor(services: Services) {
    this.#services = services;
  }

  /** Appends a fact with others. @throws AppError as `appendFact` does */
  append(author: Person, proposed: ProposedFact): Promise<Appended> {
    refuseForeign(author, proposed);
    return new Promise((resolve, reject) => {
      this.#waiting.push({ author, proposed, resolve, reject });
      void this.#storeWaiting();
    });
  }

  async #storeWaiting(): Promise<void> {
    if (this.#isStoring) return;
    this.#isStoring = true;
    while (this.#waiting.length > 0) await this.#store(this.#waiting.splice(0, FACTS_AT_MOST));
    this.#isStoring = false;
  }

  async #store(taken: readonly Waiting[]): Promise<void> {
    try {
      const outcomes = await appendFacts(
        this.#services,
        taken.map(({ proposed }) => proposed),
      );
      for (const [i, outcome] of outcomes.entries()) {
        if (outcome instanceof AppError) taken[i]?.reject(outcome);
        else taken[i]?.resolve(outcome);
      }
    } catch (error) {
      // A race or a taken code concerns one of them: each alone, so that none pays for another.
      for (const waiting of taken) await this.#storeAlone(waiting, error);
    }
  }

  async #storeAlone({ author, proposed, resolve, reject }: Waiting, error: unknown): Promise<void> {
    const isRace = RACES.has((error as { code?: unknown } | null)?.code);
    if (!isRace) {
      reject(error);
      return;
    }
    await appendFact(this.#services, author, proposed).then(resolve, reject);
  }
}
