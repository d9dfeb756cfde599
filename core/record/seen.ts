import type { Fact } from './fact';

/**
 * The facts that the author of an observation could see on the device it was entered on: those of the version
 * that it names, and the device's own. An observation is checked against these, not against what somebody else
 * has entered meanwhile. Without a named version: all of them. The first one everybody has seen.
 */
export function factsSeenBy<F extends Fact>(
  { basedOn, deviceId }: Pick<Fact, 'basedOn' | 'deviceId'>,
  facts: readonly F[],
): F[] {
  return facts.filter(
    (fact, i) =>
      i === 0 ||
      basedOn === null ||
      (fact.sequence ?? 0) <= basedOn ||
      (deviceId !== null && fact.deviceId === deviceId),
  );
}
