import type { Evaluation, Expression, RoundedResult } from '../measurement';
import { commonInput, input, keptFreedom, originsOf, roundHalfEven, UNITS } from '../measurement';
import type { BottleState, StatedMolarity } from './bottle';
import { knownMolarity } from './freshness';
import type { LotState } from './lot';
import { lotMolarMass, lotPurityComponent } from './lot';

/** The purity of a lot, or the content of one that is a solution, as an input of a measurement equation. */
export function lotPurityInput({ id, version, lot }: LotState): Expression {
  return commonInput({
    id: `lot:${id}/purity@${String(version)}`,
    symbol: lot.dissolved ? 'w' : 'P',
    name: lot.dissolved ? 'content of the concentrate' : 'purity of the standard',
    effect: 'Purity',
    value: Number(lot.purity),
    unit: UNITS.one,
    components: [lotPurityComponent(lot)],
    source: `lot ${lot.lotNumber}, certificate`,
  });
}

/** The molar mass of a lot's substance as an input of a measurement equation. */
export function lotMolarMassInput({ id, version, lot }: LotState): Expression {
  const { valueGPerMol, standardUncertaintyGPerMol } = lotMolarMass(lot);
  return commonInput({
    id: `lot:${id}/molar-mass@${String(version)}`,
    symbol: 'M',
    name: 'molar mass of the standard',
    effect: 'Molar mass',
    value: valueGPerMol,
    unit: UNITS.gramPerMole,
    components: [{ name: 'molar mass', standardUncertainty: standardUncertaintyGPerMol }],
    source: lot.statedMolarMass
      ? `lot ${lot.lotNumber}, certificate`
      : 'formula, IUPAC atomic weights 2021',
  });
}

/** A nominal solution is what its label says within this part, rectangular, when nobody computed it. */
const NOMINAL = 0.05;

/**
 * The molarity of a bottle: as its certificate or making computed it, unrounded and with its degrees of freedom; where only the
 * label's figures are known, u = U / k; else nominal within its plausible range.
 */
export function bottleMolarityInput(
  bottle: BottleState,
  symbol: string,
  effect: string,
): Expression {
  const known = knownMolarity(bottle);
  const nominal = Number(bottle.nominalMolarity ?? 0);
  const [low, high] = bottle.plausibleMolarity?.map(Number) ?? [];
  const halfWidth = low === undefined || high === undefined ? NOMINAL * nominal : (high - low) / 2;
  const given = {
    id: `bottle:${bottle.id}/molarity@${String(bottle.version)}`,
    symbol,
    name: `molarity of bottle ${bottle.code}`,
    effect,
    unit: UNITS.molePerLitre,
  };
  if (!known) {
    const component = { name: 'nominal', distribution: 'rectangular', halfWidth } as const;
    const source = 'nominal, on its label';
    return commonInput({ ...given, value: nominal, components: [component], source });
  }
  const asBought = bottle.preparationId === null ? 'certificate of its supplier' : 'as made';
  const name = known.certificateNumber ?? asBought;
  if (!known.unrounded) {
    const component = {
      name,
      expandedUncertainty: Number(known.expandedUncertainty),
      coverageFactor: Number(known.coverageFactor),
    };
    const source = `${name}; u is U / k, as its label states them`;
    return commonInput({
      ...given,
      value: Number(known.molarity),
      components: [component],
      source,
    });
  }
  const { molarity, standardUncertainty, restsOn } = known.unrounded;
  const degreesOfFreedom = known.unrounded.effectiveDegreesOfFreedom ?? Number.POSITIVE_INFINITY;
  const distribution = Number.isFinite(degreesOfFreedom) ? 'student' : 'normal';
  return input({
    ...given,
    value: molarity,
    components: [{ name, standardUncertainty, degreesOfFreedom, distribution }],
    degreesOfFreedom,
    source: name,
    variation: 'common',
    restsOn,
  });
}

/** What was computed of a molarity, as whoever computes with it later takes it: rounded for its label, unrounded with what it rests on. */
export function statedMolarity({
  evaluation,
  rounded,
}: {
  readonly evaluation: Evaluation;
  readonly rounded: RoundedResult;
}): StatedMolarity {
  return {
    molarity: rounded.value,
    expandedUncertainty: rounded.uncertainty,
    coverageFactor: roundHalfEven(evaluation.coverageFactor, 2),
    unrounded: {
      molarity: evaluation.value,
      standardUncertainty: evaluation.combinedStandardUncertainty,
      effectiveDegreesOfFreedom: keptFreedom(evaluation),
      restsOn: originsOf(evaluation),
    },
  };
}
