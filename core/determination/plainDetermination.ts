import { coherentValue, evaluate, UNITS } from '../measurement';
import type { Balance } from './balance';
import { inNumbers, relativePerLitre, solve } from './balance';
import type { Determination } from './determination';
import { balanceOf, takesMasses } from './determination';

const ML = UNITS.millilitre.toCoherent;

/**
 * A determination in plain numbers, for all that is asked at every key: portions in g or mL, titres in mL, what is sought in its
 * unit. A titre is that which the flask took, without what a blank takes where that is subtracted.
 */
export class PlainDetermination {
  readonly soughtIn: Determination['soughtIn'];
  /** Of the solution in the burette; null where that is sought. */
  readonly titrantMolPerL: number | null;
  /** What a blank takes off every titre. */
  readonly subtractedMl: number;
  readonly #balance: Balance<number>;
  readonly #portionUnit: number;
  readonly #soughtUnit: number;
  /** The titre that all of an excess takes, where a blank tells; null where it does not. */
  readonly #blankMl: number | null;

  constructor(determination: Determination) {
    const { soughtIn, sought, blank } = determination;
    this.soughtIn = soughtIn;
    this.titrantMolPerL = soughtIn === 'flask' ? coherentValue(determination.known.molarity) : null;
    this.#balance = inNumbers(balanceOf(determination));
    this.#portionUnit = takesMasses(determination) ? 1 : ML;
    this.#soughtUnit = sought.unit.toCoherent;
    const blankMl = blank.kind === 'none' ? 0 : evaluate(blank.volume, UNITS.millilitre);
    this.subtractedMl = blank.kind === 'subtracted' ? blankMl : 0;
    this.#blankMl = blank.kind === 'gives-the-excess' ? blankMl : null;
  }

  /** What a titration finds; not above 0 where more was left of an excess than was added. */
  found(portion: number, titreMl: number): number {
    const titre = this.#net(titreMl) * ML;
    const given = { titre, portion: portion * this.#portionUnit };
    return solve(this.#balance, 'sought', given) / this.#soughtUnit;
  }

  /** The titre that a portion takes; not above 0 where it uses up the excess. */
  titreMl(portion: number, sought: number): number {
    const given = { sought: sought * this.#soughtUnit, portion: portion * this.#portionUnit };
    return this.#net(solve(this.#balance, 'titre', given) / ML);
  }

  /** The portion for a titre. */
  portion(titreMl: number, sought: number): number {
    const given = { sought: sought * this.#soughtUnit, titre: this.#net(titreMl) * ML };
    return solve(this.#balance, 'portion', given) / this.#portionUnit;
  }

  /** What a millilitre more of a titre is worth, relative to what is found, with its sign. */
  relativePerMl(titreMl: number): number {
    const perMl = relativePerLitre(this.#balance, this.#net(titreMl) * ML) * ML;
    return this.#blankMl === null ? perMl : -perMl;
  }

  /** The titre that all of an excess takes, with no portion to take any up; null without an excess. */
  get excessTitreMl(): number | null {
    if (this.#blankMl !== null) return this.#blankMl;
    return this.#balance.excess && this.titreMl(0, 1);
  }

  /** What of a titre stands in the balance: it is the rest of an excess, where a blank tells that. */
  #net(titreMl: number): number {
    return this.#blankMl === null ? titreMl : this.#blankMl - titreMl;
  }
}
