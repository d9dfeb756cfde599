import { figureText, roundSignificant } from '../measurement';
import type {
  ConcentrateOnShelf,
  MeasuringVessel,
  PlannerShelf,
  Route,
  SolutionOnShelf,
  Wish,
} from './route';
import {
  figure,
  flaskFor,
  howMuchOf,
  LEAST_DILUTION,
  madeUp,
  NEAR_ENOUGH,
  notEnough,
  smallestHolding,
  tooLittle,
  whyApproximate,
} from './route';

/** From a concentrate by cylinder, into water; null when it is too weak. */
export function fromConcentrate(
  wish: Wish,
  { id, name, molarityMolPerL: strength, remark, leftMl }: ConcentrateOnShelf,
  vessels: readonly MeasuringVessel[],
): Route | null {
  if (strength < wish.molarityMolPerL) return null;
  const flask = flaskFor(wish, vessels);
  const madeUpMl = flask?.volumeMl ?? wish.volumeMl;
  const volumeMl = (wish.molarityMolPerL * madeUpMl) / strength;
  const cylinder = smallestHolding(vessels, 'measuring-cylinder', volumeMl);
  return {
    kind: 'concentrate',
    source: {
      kind: 'concentrate',
      lotId: id,
      takeMl: roundSignificant(volumeMl, 3),
      cylinderId: cylinder?.id ?? null,
      flaskId: flask?.id ?? null,
    },
    sourceId: id,
    sourceName: name,
    quantities: [
      {
        what: name,
        amount: volumeMl,
        unit: 'mL',
        with: cylinder?.name ?? 'a cylinder',
        exactness: 'approximate',
        why: `It has ${figureText(Number(strength.toPrecision(3)))} mol/L, known to a per cent or two. ${remark}`,
        how: howMuchOf(wish, madeUpMl, strength),
      },
      {
        ...madeUp(wish, madeUpMl, flask),
        what: flask
          ? `${wish.solventName}, first, then to the mark`
          : `${wish.solventName}, first, up to`,
      },
    ],
    molarityMolPerL: wish.molarityMolPerL,
    volumeMl: madeUpMl,
    relativeUncertainty: null,
    dominatedBy: null,
    objections: [
      ...notEnough(volumeMl, leftMl, 'mL', name),
      ...tooLittle(volumeMl, cylinder),
      ...(wish.exactness === 'exact'
        ? ['From a concentrate the molarity is only nominal: it must be standardized.']
        : []),
    ],
  };
}

/** A solution and water by cylinder, added together: quick, and good for what is standardized afterwards. */
export function addingVolumes(
  wish: Wish,
  solution: SolutionOnShelf,
  vessels: readonly MeasuringVessel[],
): Route | null {
  const { molarityMolPerL: strength, name, leftMl } = solution;
  if (strength < LEAST_DILUTION * wish.molarityMolPerL) return null;
  const takeMl = (wish.molarityMolPerL * wish.volumeMl) / strength;
  const waterMl = wish.volumeMl - takeMl;
  const cylinder = smallestHolding(vessels, 'measuring-cylinder', takeMl);
  const why = whyApproximate(wish);
  return {
    kind: 'add-volumes',
    source: {
      kind: 'add-volumes',
      bottleId: solution.id,
      takeMl: roundSignificant(takeMl, 3),
      weakerBottleId: null,
      fillMl: roundSignificant(waterMl, 3),
      cylinderId: cylinder?.id ?? null,
    },
    sourceId: solution.id,
    sourceName: name,
    quantities: [
      {
        what: name,
        amount: takeMl,
        unit: 'mL',
        with: cylinder?.name ?? 'a cylinder',
        exactness: 'approximate',
        why,
        how: howMuchOf(wish, wish.volumeMl, strength),
      },
      {
        what: `${wish.solventName}, added to it`,
        amount: waterMl,
        unit: 'mL',
        with: 'a cylinder',
        exactness: 'approximate',
        why: 'Volumes are added, not made up to a mark: taken as additive.',
        how: restOf(wish.volumeMl, takeMl),
      },
    ],
    molarityMolPerL: wish.molarityMolPerL,
    volumeMl: wish.volumeMl,
    relativeUncertainty: null,
    dominatedBy: null,
    objections: [...notEnough(takeMl, leftMl, 'mL', name), ...tooLittle(takeMl, cylinder)],
  };
}

/** How what is filled up follows from what was taken. */
function restOf(volumeMl: number, takenMl: number): string {
  return `the rest: ${figure(volumeMl, 'mL')} − ${figure(takenMl, 'mL')}`;
}

/** A solution weaker than this part of what is wanted is not worth strengthening. */
const WORTH_STRENGTHENING = 0.5;

/** A solution that came out too weak, strengthened with the strongest one of the shelf: both by cylinder. */
export function strengthening(wish: Wish, { solutions, vessels }: PlannerShelf): readonly Route[] {
  const { molarityMolPerL: wanted, volumeMl } = wish;
  const [strongest] = solutions
    .filter(({ molarityMolPerL }) => molarityMolPerL > LEAST_DILUTION * wanted)
    .toSorted((a, b) => b.molarityMolPerL - a.molarityMolPerL);
  if (!strongest) return [];
  return solutions
    .filter(
      ({ molarityMolPerL }) =>
        molarityMolPerL < wanted * (1 - NEAR_ENOUGH) &&
        molarityMolPerL >= WORTH_STRENGTHENING * wanted,
    )
    .map((weaker): Route => {
      const takeMl =
        (volumeMl * (wanted - weaker.molarityMolPerL)) /
        (strongest.molarityMolPerL - weaker.molarityMolPerL);
      const fillMl = volumeMl - takeMl;
      const cylinder = smallestHolding(vessels, 'measuring-cylinder', takeMl);
      const why = whyApproximate(wish);
      const approximate = { unit: 'mL', exactness: 'approximate', why } as const;
      return {
        kind: 'strengthen',
        source: {
          kind: 'add-volumes',
          bottleId: strongest.id,
          takeMl: roundSignificant(takeMl, 3),
          weakerBottleId: weaker.id,
          fillMl: roundSignificant(fillMl, 3),
          cylinderId: cylinder?.id ?? null,
        },
        sourceId: weaker.id,
        sourceName: `${weaker.name} with ${strongest.name}`,
        quantities: [
          {
            ...approximate,
            what: weaker.name,
            amount: fillMl,
            with: 'a cylinder',
            how: restOf(volumeMl, takeMl),
          },
          {
            ...approximate,
            what: `${strongest.name}, added to it`,
            amount: takeMl,
            with: cylinder?.name ?? 'a cylinder',
            how: `V = V′ (c − c₁) ÷ (c₂ − c₁), with c₁ = ${figure(weaker.molarityMolPerL, 'mol/L')} of the weaker and c₂ = ${figure(strongest.molarityMolPerL, 'mol/L')} of the stronger one`,
          },
        ],
        molarityMolPerL: wanted,
        volumeMl,
        relativeUncertainty: null,
        dominatedBy: null,
        objections: [
          ...notEnough(fillMl, weaker.leftMl, 'mL', weaker.name),
          ...notEnough(takeMl, strongest.leftMl, 'mL', strongest.name),
          ...tooLittle(takeMl, cylinder),
        ],
      };
    });
}
