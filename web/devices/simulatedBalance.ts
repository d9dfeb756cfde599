import { decimalPlaces, roundHalfEven } from '#core/measurement';
import type { Balance } from '#core/metrology';
import type { BalanceDriver, BalanceReading } from './balance';

/** Time in which the pan comes two thirds of the way to its rest, ms. */
const SETTLING_MS = 450;

/** The display counts as stable when it has shown the same for so long, give or take one step. */
const STABLE_MS = 1_200;

/** Draught, in steps of the display: with the doors open and shut. */
const DRAUGHT_STEPS = { open: 14, shut: 0.35 };

/** How far the zero wanders in a second, in steps of the display. */
const DRIFT_STEPS_PER_S = 0.03;

const TICK_MS = 100;

/**
 * A stand-in for a balance, for the demo: it settles, drifts, feels the draught through open doors, rounds to its readability and
 * can be tared. Time passes by `advance` only, so that tests need no clock.
 */
export class SimulatedBalance implements BalanceDriver {
  readonly name: string;
  readonly #stepG: number;
  readonly #decimals: number;
  readonly #maxG: number;
  readonly #random: () => number;
  readonly #listeners = new Set<(reading: BalanceReading) => void>();
  #loadG = 0;
  #panG = 0;
  #zeroG = 0;
  #tareG = 0;
  #areDoorsOpen = false;
  #shownSteps = 0;
  #sameForMs = 0;
  #timer: ReturnType<typeof setInterval> | undefined;

  /** @param random gives numbers from 0 up to 1 */
  constructor(balance: Balance, random: () => number = Math.random) {
    this.name = `${balance.name}, simulated`;
    this.#stepG = Number(balance.readabilityG);
    this.#decimals = decimalPlaces(balance.readabilityG);
    this.#maxG = Number(balance.maxLoadG);
    this.#random = random;
  }

  get areDoorsOpen(): boolean {
    return this.#areDoorsOpen;
  }

  /**
   * Puts something on the pan, or takes it off when negative; the doors are opened for it. A hand is not exact: `spread` is the
   * part by which it may be more or less.
   */
  load(massG: number, spread = 0): void {
    this.#areDoorsOpen = true;
    const moved = massG * (1 + spread * (2 * this.#random() - 1));
    this.#loadG = Math.max(0, this.#loadG + moved);
  }

  moveDoors(areOpen: boolean): void {
    this.#areDoorsOpen = areOpen;
  }

  readonly tare = (): void => {
    this.#tareG = this.#panG + this.#zeroG;
    this.#sameForMs = 0;
    this.#tell();
  };

  readonly subscribe = (listener: (reading: BalanceReading) => void): (() => void) => {
    this.#listeners.add(listener);
    let last = performance.now();
    this.#timer ??= setInterval(() => {
      // A busy page is called late: as much time passes as has passed.
      const now = performance.now();
      this.advance(now - last);
      last = now;
    }, TICK_MS);
    listener(this.reading);
    return () => {
      this.#listeners.delete(listener);
      if (this.#listeners.size > 0) return;
      clearInterval(this.#timer);
      this.#timer = undefined;
    };
  };

  get reading(): BalanceReading {
    if (this.#loadG > this.#maxG) return { massG: null, isStable: false };
    return {
      massG: roundHalfEven(this.#shownSteps * this.#stepG, this.#decimals),
      isStable: !this.#areDoorsOpen && this.#sameForMs >= STABLE_MS,
    };
  }

  /** Lets time pass. */
  advance(ms: number): void {
    const { open, shut } = DRAUGHT_STEPS;
    const wander = (): number => 2 * this.#random() - 1;
    this.#panG += (this.#loadG - this.#panG) * (1 - Math.exp(-ms / SETTLING_MS));
    this.#zeroG += ((wander() * DRIFT_STEPS_PER_S * ms) / 1000) * this.#stepG;
    const draughtG = wander() * (this.#areDoorsOpen ? open : shut) * this.#stepG;
    const steps = Math.round((this.#panG + this.#zeroG + draughtG - this.#tareG) / this.#stepG);
    const isSame = Math.abs(steps - this.#shownSteps) <= (this.#sameForMs > 0 ? 1 : 0);
    this.#sameForMs = isSame ? this.#sameForMs + ms : 0;
    // A display that stands still does not follow the last step to and fro.
    if (!isSame || this.#sameForMs < STABLE_MS) this.#shownSteps = steps;
    this.#tell();
  }

  #tell(): void {
    const { reading } = this;
    for (const listener of this.#listeners) listener(reading);
  }
}
