import { findSubstance } from '../../chemistry';
import { MOLARITY } from '../../determination';
import { nominalMolPerL } from '../../reagent';
import type { RunReferences } from './references';

/** What a run finds out. */
interface Sought {
  /** As what it is stated, and in which unit. */
  readonly as: typeof MOLARITY;
  /** In the words of the measurement equation. */
  readonly name: string;
  readonly symbol: string;
  /** What it should come to by its label, in that unit. */
  readonly expected: number;
}

/**
 * What the records of a run seek. Nothing else asks of what it is: forecast, plan, model, judgement and explanation take it from
 * here.
 *
 * @throws RangeError for a bottle without a molarity, which a run cannot begin with
 */
export function soughtOf({ bottle }: Pick<RunReferences, 'bottle'>): Sought {
  return {
    as: MOLARITY,
    name: 'molarity of the titrant',
    symbol: `c_${findSubstance(bottle.substanceId, bottle.own)?.shortName ?? 'titrant'}`,
    expected: nominalMolPerL(bottle),
  };
}
