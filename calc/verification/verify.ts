import * as v from 'valibot';
import type { ComparedPlace } from '../compare';
import { checkCase, vectorCase } from '../vectorFile';
import content from './pack.json';

/** The parts of the core that the pack goes through. */
const POINTS = [
  'chemistry',
  'measurement model',
  'metrology',
  'preparation and titration',
  'statistics',
  'equilibrium',
  'rounding and units',
  'slips and incidents',
] as const;

const packSchema = v.object({
  title: v.string(),
  cases: v.array(
    v.object({
      ...vectorCase.entries,
      point: v.picklist(POINTS),
      title: v.string(),
      source: v.string(),
      /** `published`: the figure proves itself here. `recomputed`: it could not be compared with a printed copy. */
      status: v.picklist(['published', 'recomputed']),
    }),
  ),
});

type PackCase = v.InferOutput<typeof packSchema>['cases'][number];

/** The cases of the pack, in order. */
export const PACK: readonly PackCase[] = v.parse(packSchema, content).cases;

/** A case of the pack, computed. */
export interface VerifiedCase extends Pick<
  PackCase,
  'id' | 'point' | 'title' | 'source' | 'status'
> {
  readonly places: readonly ComparedPlace[];
  readonly isWithin: boolean;
}

/** Computes one case of the pack and compares it with the figures of its source. */
export function verifyCase(one: PackCase): VerifiedCase {
  const { id, point, title, source, status } = one;
  const { places } = checkCase(one);
  return {
    id,
    point,
    title,
    source,
    status,
    places,
    isWithin: places.every((place) => place.isWithin),
  };
}
