import { roundHalfEven, roundSignificant } from '../measurement';
import { massUncertainty, TOO_COARSE } from './startChecks';
import type { PlannerShelf, Route, SolidOnShelf, Wish } from './route';
import {
  combineRelative,
  figure,
  flaskFor,
  madeUp,
  notEnough,
  percent,
  smallestHolding,
  vesselUncertainty,
  whyApproximate,
} from './route';
import { massForSolutionG } from './solution';

/** A solid, weighed: a standard exactly and into a flask, what will be standardized roughly and into a beaker. */
export function weighing(
  wish: Wish,
  solid: SolidOnShelf,
  { vessels, balances }: Pick<PlannerShelf, 'vessels' | 'balances'>,
): Route {
  // A primary standard that is made up to a mark is a standard, whatever it is wanted for.
  const isExact = solid.isStandard && (wish.exactness === 'exact' || wish.madeUpIn === 'flask');
  const flask = isExact
    ? smallestHolding(vessels, 'volumetric-flask', wish.volumeMl)
    : flaskFor(wish, vessels);
  const volumeMl = flask?.volumeMl ?? wish.volumeMl;
  const massG = massForSolutionG(wish.molarityMolPerL, volumeMl, solid);
  const suitable = balances
    .filter(({ balance }) => Number(balance.maxLoadG) >= massG)
    .map(({ balance, id }) => ({ id, balance, relative: massUncertainty(balance, massG) }))
    .toSorted((a, b) => a.relative - b.relative);
  // A titrant that will be standardized goes on the coarsest balance that shows it to a per cent.
  const chosen = isExact
    ? suitable[0]
    : (suitable.filter(({ relative }) => relative < 0.01).at(-1) ?? suitable[0]);
  const objections = [
    ...(chosen ? [] : ['No balance can carry this mass.']),
    ...(isExact && chosen && chosen.relative > TOO_COARSE
      ? [
          `The mass is too small for ${chosen.balance.name}: uncertain by ${percent(chosen.relative)}.`,
        ]
      : []),
    ...(isExact && !flask ? ['No volumetric flask is large enough.'] : []),
    ...notEnough(massG, solid.leftG, 'g', solid.name),
    ...(wish.exactness === 'exact' && !solid.isStandard
      ? [
          `${solid.name} is not a primary standard: its solution stays nominal until it is standardized.`,
        ]
      : []),
  ];
  const uncertainty =
    isExact && chosen && flask
      ? combineRelative([
          ['the mass', chosen.relative],
          ['the purity', solid.relativeUncertainty],
          ['the flask', vesselUncertainty(flask)],
        ])
      : { relativeUncertainty: null, dominatedBy: null };
  return {
    kind: 'weigh',
    source: chosen
      ? {
          kind: 'weigh',
          lotId: solid.id,
          massG: isExact ? roundHalfEven(massG, 4) : roundSignificant(massG, 3),
          balanceId: chosen.id,
          flaskId: flask?.id ?? null,
        }
      : null,
    sourceId: solid.id,
    sourceName: solid.name,
    quantities: [
      {
        what: solid.name,
        amount: massG,
        unit: 'g',
        with: chosen?.balance.name ?? 'a balance',
        exactness: isExact ? 'exact' : 'approximate',
        why: isExact
          ? 'It enters the equation: weigh near this mass and write every digit.'
          : whyApproximate(wish),
        how: `m = c V M ÷ w = ${figure(wish.molarityMolPerL, 'mol/L')} × ${figure(volumeMl / 1000, 'L')} × ${figure(solid.molarMassGPerMol, 'g/mol')} ÷ ${figure(100 * solid.purity, '%')}`,
      },
      isExact
        ? {
            what: 'made up to the mark',
            amount: volumeMl,
            unit: 'mL',
            with: flask?.name ?? 'a volumetric flask',
            exactness: 'exact',
            why: 'It enters the equation.',
          }
        : madeUp(wish, volumeMl, flask),
    ],
    molarityMolPerL: wish.molarityMolPerL,
    volumeMl,
    ...uncertainty,
    objections,
  };
}
