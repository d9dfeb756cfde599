import { requireNotNegative, requirePositive, Unanswerable } from '../problem';
import { crossing } from './root';

/** A redox couple by its oxidized formula. */
export interface RedoxCouple {
  readonly name: string;
  readonly electrons: number;
  /** At 1 mol/L hydrogen ions, V. */
  readonly formalPotentialV: number;
  /** Hydrogen ions taken up with the electrons; none unless given. */
  readonly hydrogenIons?: number;
  /** Moles of the reduced form from one of the oxidized, 2 for dichromate; 1 unless given. */
  readonly reducedPerOxidized?: number;
}

/** Everything that decides a redox curve. */
export interface RedoxTitration {
  readonly analyte: RedoxCouple;
  /** Of the oxidized formula plus its equivalent of reduced form, in the flask. */
  readonly analyteMolPerL: number;
  /** Share of the analyte that is in its product form before the titration; 0 unless given. */
  readonly convertedFraction?: number;
  readonly titrant: RedoxCouple;
  readonly titrantMolPerL: number;
  readonly titrantIs: 'oxidant' | 'reductant';
  readonly flaskVolumeMl: number;
  /** Held constant by the medium. */
  readonly pH: number;
  readonly temperatureC: number;
}

/** Molar gas constant, J/(mol K), and Faraday constant, C/mol. Source: CODATA 2018, exact. */
const GAS_CONSTANT = 8.314462618;
const FARADAY_CONSTANT = 96485.33212;

/** How far beyond both formal potentials the solution is sought, V. */
const REACH_V = 2;

/**
 * The potential of a flask while an oxidant or reductant is added: both couples at equilibrium with one another and with
 * the electrode, volumes additive, by the balance of electrons with Nernst's equation.
 */
export class RedoxCurve {
  private readonly titration: RedoxTitration;
  /** RT ln 10 / F, V. */
  private readonly slopeV: number;
  private readonly analytePotential: number;
  private readonly titrantPotential: number;

  /** @throws Unanswerable `non-positive` or `out-of-range`. */
  constructor(titration: RedoxTitration) {
    const { analyte, titrant, convertedFraction = 0 } = titration;
    requirePositive(titration.analyteMolPerL, 'analyte');
    requirePositive(titration.titrantMolPerL, 'titrant');
    requirePositive(titration.flaskVolumeMl, 'flaskVolumeMl');
    requirePositive(titration.temperatureC + 273.15, 'temperatureC');
    for (const couple of [analyte, titrant]) {
      requirePositive(couple.electrons, 'electrons');
      requirePositive(couple.reducedPerOxidized ?? 1, 'reducedPerOxidized');
    }
    if (!(convertedFraction >= 0 && convertedFraction <= 1)) {
      throw new Unanswerable('out-of-range', 'convertedFraction', 'A share lies between 0 and 1.');
    }
    this.titration = titration;
    this.slopeV = (GAS_CONSTANT * (titration.temperatureC + 273.15) * Math.LN10) / FARADAY_CONSTANT;
    this.analytePotential = this.potentialAtPh(analyte);
    this.titrantPotential = this.potentialAtPh(titrant);
  }

  /** Volume at which as many electrons were added or taken as the analyte has to exchange, mL. */
  equivalenceVolumeMl(): number {
    const { analyte, titrant, analyteMolPerL, titrantMolPerL, flaskVolumeMl } = this.titration;
    const toConvert = 1 - (this.titration.convertedFraction ?? 0);
    return (
      (analyte.electrons * analyteMolPerL * flaskVolumeMl * toConvert) /
      (titrant.electrons * titrantMolPerL)
    );
  }

  /**
   * Potential at a volume of titrant, V; null where it is not defined, because one of the two forms that would set it
   * is missing.
   */
  at(volumeMl: number): number | null {
    requireNotNegative(volumeMl, 'volumeMl');
    const { titrant, titrantMolPerL, convertedFraction = 0 } = this.titration;
    if (volumeMl === 0 && (convertedFraction === 0 || convertedFraction === 1)) return null;
    if (convertedFraction === 1) return null;
    const excess = this.excess(volumeMl);
    const from = Math.min(this.analytePotential, this.titrantPotential) - REACH_V;
    const to = Math.max(this.analytePotential, this.titrantPotential) + REACH_V;
    const { titrantIs } = this.titration;
    const direction = titrantIs === 'oxidant' ? 1 : -1;
    const titrantElectrons = titrant.electrons * titrantMolPerL * volumeMl;
    return crossing(
      (potential) => {
        const left = this.leftElectrons(potential, volumeMl, titrantElectrons);
        return direction * (excess - left);
      },
      from,
      to,
    );
  }

  /** Volume at which the potential passes a value, mL; null when it does not up to `endVolumeMl`. */
  volumeAtPotential(potentialV: number, endVolumeMl: number): number | null {
    const direction = this.titration.titrantIs === 'oxidant' ? 1 : -1;
    return crossing(
      (volume) => {
        const potential = this.at(volume);
        return potential === null ? -1 : direction * (potential - potentialV);
      },
      0,
      endVolumeMl,
    );
  }

  /** Electrons (in mmol) that the analyte has left to exchange when all titrant reacts; negative with titrant in excess. */
  private excess(volumeMl: number): number {
    const { titrant, titrantMolPerL } = this.titration;
    return titrant.electrons * titrantMolPerL * (this.equivalenceVolumeMl() - volumeMl);
  }

  /**
   * The same balance from the composition at a potential: electrons in what is left of the analyte minus those in
   * what is left of the titrant. Both are computed as what is left, so that nothing cancels near the equivalence.
   */
  private leftElectrons(potential: number, volumeMl: number, titrantElectrons: number): number {
    const { analyte, titrant, analyteMolPerL, titrantMolPerL, flaskVolumeMl, titrantIs } =
      this.titration;
    const total = flaskVolumeMl + volumeMl;
    const ofAnalyte = this.shares(
      analyte,
      this.analytePotential,
      potential,
      (analyteMolPerL * flaskVolumeMl) / total,
    );
    const analyteElectrons = analyte.electrons * analyteMolPerL * flaskVolumeMl;
    const ofTitrant = this.shares(
      titrant,
      this.titrantPotential,
      potential,
      (titrantMolPerL * volumeMl) / total,
    );
    return titrantIs === 'oxidant'
      ? analyteElectrons * ofAnalyte.reduced - titrantElectrons * ofTitrant.oxidized
      : analyteElectrons * ofAnalyte.oxidized - titrantElectrons * ofTitrant.reduced;
  }

  private potentialAtPh(couple: RedoxCouple): number {
    const shift = (couple.hydrogenIons ?? 0) / couple.electrons;
    return couple.formalPotentialV - shift * this.slopeV * this.titration.pH;
  }

  /**
   * Shares of a couple in its oxidized and its reduced form at a potential: with u + w = 1 and Nernst's
   * [ox] / [red]^r, u / w^r = 10^(n (E - E0) / s) r^r T^(r - 1).
   */
  private shares(
    couple: RedoxCouple,
    formalPotential: number,
    potential: number,
    totalMolPerL: number,
  ): { readonly oxidized: number; readonly reduced: number } {
    if (totalMolPerL === 0) return { oxidized: 0, reduced: 0 };
    const r = couple.reducedPerOxidized ?? 1;
    const exponent = (couple.electrons * (potential - formalPotential)) / this.slopeV;
    const logRatio = exponent + r * Math.log10(r) + (r - 1) * Math.log10(totalMolPerL);
    const ratio = 10 ** Math.max(-300, Math.min(300, logRatio));
    if (r >= 1) {
      const reduced = partOfWhole(ratio, r);
      return { oxidized: ratio * reduced ** r, reduced };
    }
    const inverse = ratio ** (-1 / r);
    const oxidized = partOfWhole(inverse, 1 / r);
    return { oxidized, reduced: inverse * oxidized ** (1 / r) };
  }
}

/** The w between 0 and 1 with q w^r + w = 1, r at least 1: Newton's method from the right, where it cannot overshoot. */
function partOfWhole(q: number, r: number): number {
  if (r === 1) return 1 / (1 + q);
  let w = Math.min(1, q ** (-1 / r));
  for (let turn = 0; turn < 100; turn += 1) {
    const next = w - (q * w ** r + w - 1) / (q * r * w ** (r - 1) + 1);
    if (!(next < w)) break;
    w = next;
  }
  return w;
}
