import type { Expression } from '../measurement';
import { commonInput, UNITS } from '../measurement';
import type { BottleState } from './bottle';
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

/** The molarity of a bottle: of its certificate or making, else nominal within its plausible range. */
export function bottleMolarityInput(
  bottle: BottleState,
  symbol: string,
  effect: string,
): Expression {
  const known = knownMolarity(bottle);
  const nominal = Number(bottle.nominalMolarity ?? 0);
  const [low, high] = bottle.plausibleMolarity?.map(Number) ?? [];
  const halfWidth = low === undefined || high === undefined ? NOMINAL * nominal : (high - low) / 2;
  return commonInput({
    id: `bottle:${bottle.id}/molarity@${String(bottle.version)}`,
    symbol,
    name: `molarity of bottle ${bottle.code}`,
    effect,
    value: known ? Number(known.molarity) : nominal,
    unit: UNITS.molePerLitre,
    components: known
      ? [
          {
            name: known.certificateNumber ?? 'as made',
            expandedUncertainty: Number(known.expandedUncertainty),
            coverageFactor: Number(known.coverageFactor),
          },
        ]
      : [{ name: 'nominal', distribution: 'rectangular', halfWidth }],
    source: known ? (known.certificateNumber ?? 'as made') : 'nominal, on its label',
  });
}
