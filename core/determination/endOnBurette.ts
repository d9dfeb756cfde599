/** Where a titration is expected to end on the scale of the burette. All in mL. */
export interface EndOnBurette {
  /** Up to here it may be run quickly. */
  readonly runFreelyTo: number;
  readonly expected: number;
  readonly from: number;
  readonly to: number;
  /** Whether the end comes before the last mark, band included. */
  readonly holds: boolean;
}

/** From here on drop by drop: the last millilitres before the expected band. */
const SLOW_MARGIN_ML = 2;

/** Lays the end that is expected, within plus or minus half a band, along a burette that stands at a level. All in mL. */
export function endOnBurette(
  levelMl: number,
  expectedMl: number,
  halfBandMl: number,
  capacityMl: number,
): EndOnBurette {
  const from = expectedMl - halfBandMl;
  const to = expectedMl + halfBandMl;
  return {
    runFreelyTo: Math.max(levelMl, Math.floor((from - SLOW_MARGIN_ML) * 10) / 10),
    expected: expectedMl,
    from,
    to,
    holds: to <= capacityMl,
  };
}
