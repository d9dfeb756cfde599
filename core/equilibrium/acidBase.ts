import { requireNotNegative, requirePositive, Unanswerable } from '../problem';
import { crossing } from './root';

/** An acid with all its protolysis steps, in whatever form it was put in. */
export interface AcidSystem {
  readonly name: string;
  /** All forms together, in the original volume. */
  readonly totalMolPerL: number;
  /** Thermodynamic, one for each proton lost, in that order. */
  readonly pKa: readonly number[];
  readonly chargeFullyProtonated: number;
  /** Protons of the form that was put in; its counter-ions are inert and singly charged. */
  readonly protonsAtStart: number;
}

/** What is in the flask before the titration. */
export interface AcidBaseFlask {
  readonly volumeMl: number;
  /** Dilutes before the titration. */
  readonly waterAddedMl?: number;
  readonly strongAcidMolPerL?: number;
  readonly strongBaseMolPerL?: number;
  readonly systems?: readonly AcidSystem[];
}

/** A strong titrant. */
export interface AcidBaseTitrant {
  readonly kind: 'strong-acid' | 'strong-base';
  readonly molarityMolPerL: number;
}

/** How activities follow from concentrations; `a` is the Debye-Hückel constant, 0.509 at 25 °C. */
export type ActivityModel =
  { readonly kind: 'ideal' } | { readonly kind: 'davies'; readonly a: number };

/** Everything that decides an acid-base curve. */
export interface AcidBaseTitration {
  readonly flask: AcidBaseFlask;
  readonly titrant: AcidBaseTitrant;
  /** Thermodynamic ion product of water. */
  readonly kw: number;
  readonly activity: ActivityModel;
}

/** A point of the curve. */
export interface AcidBasePoint {
  readonly volumeMl: number;
  /** -log10 of the activity of the hydrogen ion; of its concentration in the ideal model. */
  readonly pH: number;
  readonly ionicStrengthMolPerL: number;
  /** What the charges of all species sum to, mol/L: zero but for the last bits. */
  readonly chargeBalanceMolPerL: number;
}

/** The Davies equation serves up to this ionic strength, mol/L. */
const DAVIES_LIMIT_MOL_PER_L = 0.5;

const PH_FROM = -3;
const PH_TO = 18;

/** Concentrations in the flask at one volume of titrant. */
interface Mixture {
  /** Charge of all ions that take no part in protolysis, mol/L. */
  readonly inertCharge: number;
  /** Half the sum of c z² of the same ions. */
  readonly inertStrength: number;
  readonly totals: readonly number[];
}

/**
 * The pH of a flask while a strong acid or base is added, from the balance of charges of all species. Any number of
 * acids with any number of protons; closed system, volumes additive.
 * Source: general treatment of protolysis, e.g. IUPAC; activity coefficients after C. W. Davies, log10 gamma = -A z²
 * (√I / (1 + √I) - 0.3 I).
 */
export class AcidBaseCurve {
  private readonly titration: AcidBaseTitration;
  private readonly systems: readonly (AcidSystem & { readonly ka: readonly number[] })[];
  private readonly startVolumeMl: number;
  /** The last solution, from where the next one is sought. */
  private lastPh = 7;
  private lastStrength = 0;

  /** @throws Unanswerable `non-positive` or `out-of-range` for what no flask can hold. */
  constructor(titration: AcidBaseTitration) {
    const { flask, titrant, kw } = titration;
    requirePositive(flask.volumeMl, 'volumeMl');
    requirePositive(titrant.molarityMolPerL, 'titrant');
    requirePositive(kw, 'kw');
    for (const [value, field] of [
      [flask.waterAddedMl, 'waterAddedMl'],
      [flask.strongAcidMolPerL, 'strongAcid'],
      [flask.strongBaseMolPerL, 'strongBase'],
    ] as const) {
      requireNotNegative(value ?? 0, field);
    }
    this.titration = titration;
    this.systems = (flask.systems ?? []).map((system) => {
      requireNotNegative(system.totalMolPerL, 'totalMolPerL');
      if (!(system.protonsAtStart >= 0 && system.protonsAtStart <= system.pKa.length)) {
        throw new Unanswerable(
          'out-of-range',
          'protonsAtStart',
          `${system.name} has ${String(system.pKa.length)} protons to give; it cannot start with ${String(system.protonsAtStart)}.`,
        );
      }
      return { ...system, ka: system.pKa.map((pKa) => 10 ** -pKa) };
    });
    this.startVolumeMl = flask.volumeMl + (flask.waterAddedMl ?? 0);
  }

  /** The point of the curve at a volume of titrant, mL. */
  at(volumeMl: number): AcidBasePoint {
    requireNotNegative(volumeMl, 'volumeMl');
    const mixture = this.mixtureAt(volumeMl);
    const { activity } = this.titration;
    if (activity.kind === 'ideal') {
      const pH = this.solve(mixture, 0);
      return this.point(volumeMl, pH, mixture, 0);
    }
    let strength = this.lastStrength;
    for (let turn = 0; turn < 200; turn += 1) {
      const pH = this.solve(mixture, strength);
      const next = this.ionicStrength(mixture, pH, strength);
      // Half steps after many turns settle what would swing.
      const step = (next - strength) * (turn < 60 ? 1 : 0.5);
      strength += step;
      if (Math.abs(step) <= 1e-14 + 1e-13 * strength) break;
    }
    this.lastStrength = strength;
    return this.point(volumeMl, this.solve(mixture, strength), mixture, strength);
  }

  /**
   * Volumes at which the titrant is equivalent to the strong acid or base in the flask and to each proton that its
   * systems give or take, one after the other in the order of their pKa; mL.
   */
  equivalenceVolumesMl(): readonly number[] {
    const { flask, titrant } = this.titration;
    const isBase = titrant.kind === 'strong-base';
    const steps = this.systems
      .flatMap(({ pKa, protonsAtStart, totalMolPerL }) => {
        const lost = pKa.length - protonsAtStart;
        const open = isBase ? pKa.slice(lost) : pKa.slice(0, lost);
        return open.map((value) => ({ pKa: value, molarity: totalMolPerL }));
      })
      .toSorted((a, b) => (isBase ? a.pKa - b.pKa : b.pKa - a.pKa));
    const net = (flask.strongAcidMolPerL ?? 0) - (flask.strongBaseMolPerL ?? 0);
    let consumed = isBase ? net : -net;
    const demands = consumed > 0 ? [consumed] : [];
    for (const step of steps) {
      consumed += step.molarity;
      if (consumed > 0 && step.molarity > 0) demands.push(consumed);
    }
    return demands.map((demand) => (demand * flask.volumeMl) / titrant.molarityMolPerL);
  }

  /** Volume of titrant at which the pH passes a value, mL; null when it does not up to `endVolumeMl`. */
  volumeAtPh(pH: number, endVolumeMl: number): number | null {
    const direction = this.titration.titrant.kind === 'strong-base' ? 1 : -1;
    return crossing((volume) => direction * (this.at(volume).pH - pH), 0, endVolumeMl);
  }

  /** Ionic strength beyond which the activity model is not meant to be used, if it is passed at a volume. */
  isBeyondModel(volumeMl: number): boolean {
    const point = this.at(volumeMl);
    const strength =
      this.titration.activity.kind === 'ideal'
        ? this.ionicStrength(this.mixtureAt(volumeMl), point.pH, 0)
        : point.ionicStrengthMolPerL;
    return strength > (this.titration.activity.kind === 'ideal' ? 0.001 : DAVIES_LIMIT_MOL_PER_L);
  }

  private mixtureAt(volumeMl: number): Mixture {
    const { flask, titrant } = this.titration;
    const total = this.startVolumeMl + volumeMl;
    const dilution = flask.volumeMl / total;
    const added = (titrant.molarityMolPerL * volumeMl) / total;
    const acid =
      (flask.strongAcidMolPerL ?? 0) * dilution + (titrant.kind === 'strong-acid' ? added : 0);
    const base =
      (flask.strongBaseMolPerL ?? 0) * dilution + (titrant.kind === 'strong-base' ? added : 0);
    let inertCharge = base - acid;
    let inertStrength = (base + acid) / 2;
    const totals = this.systems.map((system) => {
      const molarity = system.totalMolPerL * dilution;
      const { pKa, protonsAtStart, chargeFullyProtonated } = system;
      const chargeAtStart = chargeFullyProtonated - (pKa.length - protonsAtStart);
      inertCharge -= chargeAtStart * molarity;
      inertStrength += (Math.abs(chargeAtStart) * molarity) / 2;
      return molarity;
    });
    return { inertCharge, inertStrength, totals };
  }

  private point(volumeMl: number, pH: number, mixture: Mixture, strength: number): AcidBasePoint {
    this.lastPh = pH;
    return {
      volumeMl,
      pH,
      ionicStrengthMolPerL: strength,
      chargeBalanceMolPerL: this.balance(mixture, pH, strength)[0],
    };
  }

  /** The pH at which the charges balance at a given ionic strength: Newton's method held within a bracket. */
  private solve(mixture: Mixture, strength: number): number {
    let low = PH_FROM;
    let high = PH_TO;
    let pH = this.lastPh;
    for (let turn = 0; turn < 200; turn += 1) {
      const [charge, slope] = this.balance(mixture, pH, strength);
      if (charge === 0) return pH;
      // Charge falls with rising pH.
      if (charge > 0) low = pH;
      else high = pH;
      const newton = pH - charge / slope;
      const next = newton > low && newton < high ? newton : (low + high) / 2;
      if (Math.abs(next - pH) < 1e-13 || high - low < 1e-13) return next;
      pH = next;
    }
    return pH;
  }

  /** Sum of all charges at a pH, mol/L, and its derivative by pH. */
  private balance(
    { inertCharge, totals }: Mixture,
    pH: number,
    strength: number,
  ): [charge: number, slope: number] {
    const activityH = 10 ** -pH;
    const gamma = this.gammaExponent(strength);
    const single = 10 ** -gamma;
    const hydrogen = activityH / single;
    const hydroxide = this.titration.kw / activityH / single;
    let charge = inertCharge + hydrogen - hydroxide;
    let slope = -hydrogen - hydroxide;
    for (let s = 0; s < this.systems.length; s += 1) {
      const system = this.systems[s] as (typeof this.systems)[number];
      const { ka, chargeFullyProtonated } = system;
      let term = 1;
      let sum = 1;
      let first = chargeFullyProtonated;
      let second = chargeFullyProtonated ** 2;
      for (let lost = 1; lost <= ka.length; lost += 1) {
        const z = chargeFullyProtonated - lost;
        term *= (ka[lost - 1] as number) / activityH;
        // gamma of the charge before over gamma of this one.
        if (gamma !== 0) term *= 10 ** (gamma * (z * z - (z + 1) * (z + 1)));
        sum += term;
        first += z * term;
        second += z * z * term;
      }
      const meanCharge = first / sum;
      charge += (totals[s] as number) * meanCharge;
      slope -= (totals[s] as number) * (second / sum - meanCharge * meanCharge);
    }
    return [charge, slope * Math.LN10];
  }

  /** Half the sum of c z² of all ions at a pH. */
  private ionicStrength({ inertStrength, totals }: Mixture, pH: number, strength: number): number {
    const activityH = 10 ** -pH;
    const gamma = this.gammaExponent(strength);
    const single = 10 ** -gamma;
    let total = inertStrength + (activityH + this.titration.kw / activityH) / single / 2;
    this.systems.forEach(({ ka, chargeFullyProtonated }, s) => {
      let term = 1;
      let sum = 1;
      let squares = chargeFullyProtonated ** 2;
      ka.forEach((constant, i) => {
        const z = chargeFullyProtonated - i - 1;
        term *= (constant / activityH) * 10 ** (gamma * (z * z - (z + 1) ** 2));
        sum += term;
        squares += z * z * term;
      });
      total += ((totals[s] ?? 0) * squares) / sum / 2;
    });
    return total;
  }

  /** -log10 of the activity coefficient of a single charge. */
  private gammaExponent(strength: number): number {
    const { activity } = this.titration;
    if (activity.kind === 'ideal' || strength === 0) return 0;
    const root = Math.sqrt(strength);
    return activity.a * (root / (1 + root) - 0.3 * strength);
  }
}

/** Places between two equivalences at which the slope of a curve is compared. */
const STEPS_BETWEEN = 80;

/** A step is seen where the curve is so many times steeper in it than on either side. */
const SEEN_APART = 2;

/**
 * Whether each equivalence has a step of its own in the curve: between halfway to the one before and halfway to the one after it
 * rises and falls again by a factor that can be seen. One that has none, such as that of the first proton of sulfuric acid, or of
 * hydroxide beside much carbonate, merges with the next.
 */
export function distinctSteps(
  curve: Pick<AcidBaseCurve, 'at'>,
  equivalenceVolumesMl: readonly number[],
): readonly boolean[] {
  return equivalenceVolumesMl.map((volume, i) => {
    const next = equivalenceVolumesMl[i + 1];
    if (next === undefined) return true;
    const from = ((equivalenceVolumesMl[i - 1] ?? 0) + volume) / 2;
    const width = ((volume + next) / 2 - from) / STEPS_BETWEEN;
    const pHs = Array.from({ length: STEPS_BETWEEN + 1 }, (_, j) => curve.at(from + j * width).pH);
    const slopes = pHs.slice(1).map((pH, j) => Math.abs(pH - (pHs[j] ?? pH)));
    const steepest = Math.max(...slopes);
    const place = slopes.indexOf(steepest);
    const flattest = Math.max(
      Math.min(...slopes.slice(0, place + 1)),
      Math.min(...slopes.slice(place)),
    );
    return steepest >= SEEN_APART * flattest;
  });
}

/** Volumes halfway between one equivalence (or zero) and the next. */
export function midpointVolumesMl(equivalenceVolumesMl: readonly number[]): readonly number[] {
  return equivalenceVolumesMl.map((volume, i) => ((equivalenceVolumesMl[i - 1] ?? 0) + volume) / 2);
}

/** How far a volume lies from the equivalence, in percent of it. */
export function titrationErrorPercent(volumeMl: number, equivalenceVolumeMl: number): number {
  return (100 * (volumeMl - equivalenceVolumeMl)) / equivalenceVolumeMl;
}
