import type { Analysis, Method } from '../chemistry';
import { findSubstance, isAutocatalytic, parseFormula, partnerSpecies } from '../chemistry';
import type { PlainDetermination } from '../determination';
import { requirePositive, Unanswerable } from '../problem';
import type { Incident, IncidentDetails, RunFeature, RunNumbers, Verdict } from './incidents';
import { INCIDENTS } from './incidents';

/** What an incident means for a run. */
export interface Assessment {
  readonly incident: Incident;
  readonly verdict: Verdict;
  /** Of the result, against what it would be without the incident. */
  readonly direction: 'too-high' | 'too-low' | 'none' | 'either' | 'unknown';
  /** Size of the bias on the result, in %, least and most; null when nobody can say. */
  readonly biasPercent: readonly [least: number, most: number] | null;
  /** The same on the titre, without its sign. */
  readonly titreMl: readonly [least: number, most: number] | null;
  /** Which way the titre as read is off: 1 where it is too long, -1 too short; null where it may be either. */
  readonly effectOnTitre: 1 | -1 | null;
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
export function featuresOf(
  method: Method | Analysis,
  portion: 'weighed' | 'aliquot',
): Set<RunFeature> {
  const standard =
    'standardId' in method ? findSubstance(method.standardId, method.own) : undefined;
  const isHydrate = parseFormula(standard?.formula ?? 'H2O').pieces.some(
    ({ text }) => text === '·',
  );
  const features: readonly (readonly [RunFeature, boolean])[] = [
    ['hydroxide-titrant', method.titrant.species === 'OH^-'],
    [portion, true],
    ['standard-solution', portion === 'aliquot'],
    ['hot', method.flaskTemperatureC !== null],
    ['permanganate-oxalate', isAutocatalytic(method)],
    ['iron-ii', partnerSpecies(method) === 'Fe^2+'],
    ['indicator', method.indicatorId !== null],
    ['hydrate', isHydrate],
  ];
  return new Set(features.filter(([, holds]) => holds).map(([feature]) => feature));
}

/**
 * Says whether an incident matters, which way it biases the result, and by how much on these numbers: what the determination
 * gives for the titre as read, against what it gives for the titre that would have been read.
 *
 * @throws Unanswerable `empty` for an incident that is not known, `non-positive` for a titre of nothing.
 */
export function assessIncident(
  id: string,
  determination: PlainDetermination,
  numbers: RunNumbers,
  details: IncidentDetails = {},
): Assessment {
  const { titreMl } = numbers;
  requirePositive(titreMl, 'titreMl');
  requirePositive(numbers.titrantMolarityMolPerL, 'titrantMolarityMolPerL');
  const incident = findIncident(id);
  if (!incident) {
    throw new Unanswerable('empty', 'incident', `There is no incident ${id} in the list.`);
  }
  const slopePerMl = determination.relativePerMl(titreMl);
  // What is wrong with a portion is a part of what it took, not of what it left over.
  const taken =
    incident.concerns === 'portion' ? { ...numbers, titreMl: 1 / Math.abs(slopePerMl) } : numbers;
  const size = incident.size(taken, details);
  const known = effectOnTitre(incident, determination);
  const effect = known ?? Math.sign(slopePerMl);
  const percentOf = (shiftMl: number): number => {
    const asFound = determination.found(1, titreMl);
    const asItShouldBe = determination.found(1, titreMl - effect * shiftMl);
    return 100 * Math.abs(asFound / asItShouldBe - 1);
  };
  const isMeasured = Object.keys(details).length > 0;
  return {
    incident,
    verdict: (isMeasured ? incident.verdictWhenMeasured : undefined) ?? incident.verdict,
    direction: directionOf(incident, effect * slopePerMl),
    titreMl: size,
    effectOnTitre: known,
    biasPercent: size && [percentOf(size[0]), percentOf(size[1])],
    reason: incident.reason,
    action: incident.action,
  };
}

function directionOf({ shift }: Incident, effectOnResult: number): Assessment['direction'] {
  if (shift === 'none' || shift === 'either' || shift === 'unknown') return shift;
  return effectOnResult > 0 ? 'too-high' : 'too-low';
}

/**
 * Which way an incident moves the titre of this determination; null where it may be either. Its shift is that of a titre with the
 * standard in the flask: a standard in the burette that is weaker than it is taken for makes its titre longer, and a portion
 * that is smaller leaves more of an excess.
 */
function effectOnTitre(
  { shift, concerns }: Incident,
  { soughtIn, excessTitreMl }: PlainDetermination,
): 1 | -1 | null {
  if (shift !== 'high' && shift !== 'low') return null;
  const goesWithShift = {
    titration: true,
    portion: excessTitreMl === null,
    standard: soughtIn === 'burette',
  }[concerns];
  return (shift === 'high') === goesWithShift ? 1 : -1;
}
