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
  if (names('confirms') || names('strikes')) return true;
  const sharesFlask =
    'flask' in body && 'flask' in earlier.body && body.flask === earlier.body.flask;
  switch (earlier.kind) {
    case 'run.started':
      return true;
    case 'run.flask-weighed':
    case 'run.flask-pipetted':
    case 'run.blank-made':
      return sharesFlask;
    case 'run.burette-read':
    case 'run.burette-refilled':
      // Later readings of the same titration; its first one stands on its own.
      return (
        sharesFlask &&
        earlier.body.moment !== 'final' &&
        'readingMl' in body &&
        !('moment' in body && body.moment === 'initial')
      );
    case 'run.provisional-read':
    case 'run.electrode-read':
    case 'run.electrode-reading-struck':
    case 'run.temperature-taken':
    case 'run.flask-photographed':
    case 'run.reading-confirmed':
    case 'run.paused':
    case 'run.resumed':
    case 'run.end-point-graded':
    case 'run.end-point-taken-back':
    case 'run.burette-checked':
    case 'run.incident-noted':
    case 'run.weighing-corrected':
    case 'run.volume-corrected':
    case 'run.reading-corrected':
    case 'run.conflict-settled':
    case 'run.flask-voided':
    case 'run.abandoned':
    case 'run.certified':
      return false;
  }
}
