import type { HouseRules } from '../../laboratory';
import { buretteLiquid } from './buretteLiquid';
import type { RunReferences } from './references';

/** One thing to look at before the first reading. */
export interface BuretteCheck {
  readonly id: string;
  readonly text: string;
}

const EDGES: Readonly<Record<HouseRules['darkMeniscus'], string>> = {
  top: 'the top of the meniscus, with a white card behind it',
  bottom: 'the bottom of the meniscus',
};

/**
 * What is looked at before the burette is read for the first time, in the order of doing.
 * Source: common practice of volumetric analysis; a reading taken before the tip is full is wrong.
 */
export function buretteChecks(
  references: RunReferences,
  rules: Pick<HouseRules, 'rinses' | 'darkMeniscus'>,
): readonly BuretteCheck[] {
  const { readAt } = buretteLiquid(references, rules);
  const { rinses } = rules;
  const { before } = references.method.colours;
  return [
    {
      id: 'rinsed',
      text: `Rinsed ${String(rinses)} times with the solution that goes in, the tip too.`,
    },
    { id: 'tip', text: 'Tip full, no bubble in it or in the column.' },
    { id: 'leak', text: 'Stopcock tight: no drop in half a minute.' },
    { id: 'funnel', text: 'Funnel taken out.' },
    { id: 'level', text: 'Level at or below zero, the wall above it drained.' },
    { id: 'meniscus', text: `Read at eye level, ${EDGES[readAt]}, both times.` },
    { id: 'flask', text: `White below the flask, which is ${before.word}.` },
  ];
}
