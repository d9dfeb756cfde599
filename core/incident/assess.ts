import type { Method } from '../chemistry';
import { findSubstance, isAutocatalytic, parseFormula } from '../chemistry';
import { requirePositive, Unanswerable } from '../problem';
import type { Incident, IncidentDetails, RunFeature, RunNumbers, Verdict } from './incidents';
import { INCIDENTS } from './incidents';

/** What is found out: a titrant's molarity from a standard, or an unknown from the titrant. */
export type Purpose = 'standardization' | 'assay';

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
 * makes a titrant seem weaker than it is, and an unknown richer.
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
  const size = incident.size(numbers, details);
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

function directionOf({ shift }: Incident, purpose: Purpose): Assessment['direction'] {
  if (shift === 'none' || shift === 'either' || shift === 'unknown') return shift;
  // c = n / V: a titrant's molarity goes against its titre, an unknown with it.
  return (shift === 'high') === (purpose === 'assay') ? 'too-high' : 'too-low';
}

/** c = n / V is off by d / V, and c V by d / (V - d) or d / (V + d), where V is the titre as read. */
function biasPercent(
  shiftMl: number,
  { shift }: Incident,
  purpose: Purpose,
  { titreMl }: RunNumbers,
): number {
  if (purpose === 'standardization') return (100 * shiftMl) / titreMl;
  return (100 * shiftMl) / (shift === 'low' ? titreMl + shiftMl : titreMl - shiftMl);
}
