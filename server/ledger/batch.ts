import type { PersonState } from '#core/people';
import type { ProposedFact } from '#contract';
import { AppError, toAppError } from '../http/appError';
import type { Services } from '../services';
import type { Appended } from './append';
import { appendFact, appendFacts, refuseForeign } from './append';

/** Facts that one transaction takes at most: more would let the first one wait for the last. */
const FACTS_AT_MOST = 64;

interface Waiting {
  readonly author: PersonState;
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
  append(author: PersonState, proposed: ProposedFact): Promise<Appended> {
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
      // Without the database none of them can be stored; else one is at fault, or met somebody else's: each on its own.
      const isAway = toAppError(error).code === 'unavailable';
      for (const { author, proposed, resolve, reject } of taken) {
        if (isAway) reject(error);
        else await appendFact(this.#services, author, proposed).then(resolve, reject);
      }
    }
  }
}
