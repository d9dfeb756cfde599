import type { Observation, RunFact } from './facts';

/**
 * The facts that the author of an observation could see on the device it was entered on: those of the version
 * that it names, and the device's own. An observation is checked against these, not against what somebody else
 * has entered meanwhile. Without a named version: all of them.
 */
export function factsSeenBy(observation: Observation, facts: readonly RunFact[]): RunFact[] {
  const { basedOn, deviceId } = observation;
  return facts.filter(
    (fact) =>
      basedOn === null ||
      fact.kind === 'run.started' ||
      (fact.sequence ?? 0) <= basedOn ||
      (deviceId !== null && fact.deviceId === deviceId),
  );
}

/**
 * Whether a fact makes sense only together with an earlier one of the same device: while the earlier one is
 * refused, the later one waits.
 */
export function restsOn(later: Pick<RunFact, 'recordId' | 'body'>, earlier: RunFact): boolean {
  if (later.recordId !== earlier.recordId) return false;
  const { body } = later;
  const names = (key: string): boolean => key in body && Reflect.get(body, key) === earlier.id;
  if (names('carriedFrom') || names('corrects') || names('keeps')) return true;
  const sharesFlask =
    'flask' in body && 'flask' in earlier.body && body.flask === earlier.body.flask;
  switch (earlier.kind) {
    case 'run.started':
      return true;
    case 'run.flask-weighed':
      return sharesFlask;
    case 'run.burette-read':
      return (
        sharesFlask &&
        earlier.body.moment === 'initial' &&
        'moment' in body &&
        body.moment === 'final'
      );
    case 'run.burette-checked':
    case 'run.incident-noted':
    case 'run.weighing-corrected':
    case 'run.reading-corrected':
    case 'run.conflict-settled':
    case 'run.flask-voided':
    case 'run.abandoned':
    case 'run.certified':
      return false;
  }
}
