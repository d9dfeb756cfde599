import type { Method } from '../chemistry';
import { findSubstance, isAutocatalytic, parseFormula } from '../chemistry';
import { requirePositive, Unanswerable } from '../problem';
import type { Incident, IncidentDetails, RunFeature, RunNumbers, Verdict } from './incidents';
import { INCIDENTS } from './incidents';

/**
 * What is found out: a titrant's molarity from a standard, or an unknown in the flask from the titrant, from a standard in
 * the burette, or from what it leaves of an excess.
 */
export type Purpose = 'standardization' | 'assay' | 'standard-in-burette' | 'back-titration';

/** What an incident means for a run. */
export interface Assessment {
  readonly incident: Incident;
  readonly verdict: Verdict;
  /** Of the result, against what it would be without the incident. */
  readonly direction: 'too-high' | 'too-low' | 'none' | 'either' | 'unknown';
  /** Size of the bias on the result, in %, least and most; null when nobody can say. */
  readonly biasPercent: readonly [least: number, most: number] | null;
  /** The same on the titre. */
  readonly titreMl: readonly [least: number, most: number] | null;
  readonly reason: string;
  readonly action: string;
}

/** The incident of that id, if it is in the list. */
export function findIncident(id: string): Incident | undefined {
  return INCIDENTS.find((incident) => incident.id === id);
}

/** The incidents that can happen in a run with these features. */
export function incidentsFor(features: ReadonlySet<RunFeature>): readonly Incident[] {
  return INCIDENTS.filter(({ onlyIn }) => onlyIn.every((feature) => features.has(feature)));
}

/** What a run by a method is like, as far as incidents go. */
export function featuresOf(method: Method, portion: 'weighed' | 'aliquot'): Set<RunFeature> {
  const isHydrate = parseFormula(findSubstance(method.standardId)?.formula ?? 'H2O').pieces.some(
    ({ text }) => text === '·',
  );
  const features: readonly (readonly [RunFeature, boolean])[] = [
    ['hydroxide-titrant', method.titrant.species === 'OH^-'],
    [portion, true],
    ['standard-solution', portion === 'aliquot'],
    ['hot', method.flaskTemperatureC !== null],
    ['permanganate-oxalate', isAutocatalytic(method)],
    ['iron-ii', method.standard.species === 'Fe^2+'],
    ['indicator', method.indicatorId !== null],
    ['hydrate', isHydrate],
  ];
  return new Set(features.filter(([, holds]) => holds).map(([feature]) => feature));
}

/**
 * Says whether an incident matters, which way it biases the result, and by how much on these numbers. A titre that is too high
 * makes a titrant seem weaker than it is, and an unknown richer, but poorer where an excess is titrated back.
 *
 * @throws Unanswerable `empty` for an incident that is not known, `non-positive` for a titre of nothing.
 */
export function assessIncident(
  id: string,
  purpose: Purpose,
  numbers: RunNumbers,
  details: IncidentDetails = {},
): Assessment {
  requirePositive(numbers.titreMl, 'titreMl');
  requirePositive(numbers.titrantMolarityMolPerL, 'titrantMolarityMolPerL');
  const incident = findIncident(id);
  if (!incident) {
    throw new Unanswerable('empty', 'incident', `There is no incident ${id} in the list.`);
  }
  // What is wrong with a portion is a part of what it took, not of what it left over.
  const isPartOfPortion = purpose === 'back-titration' && incident.concerns === 'portion';
  const size = incident.size(
    isPartOfPortion ? { ...numbers, titreMl: consumedOf(numbers) } : numbers,
    details,
  );
  const percentOf = (shiftMl: number): number => biasPercent(shiftMl, incident, purpose, numbers);
  const isMeasured = Object.keys(details).length > 0;
  return {
    incident,
    verdict: (isMeasured ? incident.verdictWhenMeasured : undefined) ?? incident.verdict,
    direction: directionOf(incident, purpose),
    titreMl: size,
    biasPercent: size && [percentOf(size[0]), percentOf(size[1])],
    reason: incident.reason,
    action: incident.action,
  };
}

function directionOf(incident: Incident, purpose: Purpose): Assessment['direction'] {
  const { shift } = incident;
  if (shift === 'none' || shift === 'either' || shift === 'unknown') return shift;
  return (shift === 'high') === goesWithShift(incident, purpose) ? 'too-high' : 'too-low';
}

/**
 * Whether the result goes with the shift, which is that of a titre with the standard in the flask. c = n / V: a titrant's
 * molarity goes against its titre, an unknown with it. A standard that is weaker than it is taken for makes both seem
 * stronger; only where its titre is taken off an excess does it make them seem weaker.
 */
function goesWithShift({ concerns }: Incident, purpose: Purpose): boolean {
  switch (purpose) {
    case 'standardization':
      return false;
    case 'assay':
      return true;
    case 'standard-in-burette':
      return concerns !== 'standard';
    case 'back-titration':
      return concerns !== 'titration';
  }
}

/** Titre that what was in the flask took of an excess, mL; the titre itself without one. */
function consumedOf({ titreMl, consumedMl }: RunNumbers): number {
  return consumedMl ?? titreMl;
}

/** c = n / V is off by d / V, and c V by d / (V - d) or d / (V + d), where V is the titre as read, or what was consumed. */
function biasPercent(
  shiftMl: number,
  incident: Incident,
  purpose: Purpose,
  numbers: RunNumbers,
): number {
  const consumedMl = consumedOf(numbers);
  if (purpose === 'standardization') return (100 * shiftMl) / consumedMl;
  const trueMl = consumedMl + (directionOf(incident, purpose) === 'too-low' ? shiftMl : -shiftMl);
  return (100 * shiftMl) / trueMl;
}
