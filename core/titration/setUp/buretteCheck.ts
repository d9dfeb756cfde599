import type { Method } from '../../chemistry';
import type { HouseRules } from '../../laboratory';

/** One thing to look at before the first reading. */
export interface BuretteCheck {
  readonly id: string;
  readonly text: string;
}

/**
 * What is looked at before the burette is read for the first time, in the order of doing.
 * Source: common practice of volumetric analysis; a reading taken before the tip is full is wrong.
 */
export function buretteChecks(
  { colours, indicatorId }: Method,
  { rinses, darkMeniscus }: Pick<HouseRules, 'rinses' | 'darkMeniscus'>,
): readonly BuretteCheck[] {
  // A titrant that shows the end point by its own colour hides the bottom of its meniscus.
  const edge = indicatorId === null ? darkMeniscus : 'bottom';
  return [
    {
      id: 'rinsed',
      text: `Rinsed ${String(rinses)} times with the solution that goes in, the tip too.`,
    },
    { id: 'tip', text: 'Tip full, no bubble in it or in the column.' },
    { id: 'leak', text: 'Stopcock tight: no drop in half a minute.' },
    { id: 'funnel', text: 'Funnel taken out.' },
    { id: 'level', text: 'Level at or below zero, the wall above it drained.' },
    { id: 'meniscus', text: `Read at eye level, the ${edge} of the meniscus, both times.` },
    { id: 'flask', text: `White below the flask, which is ${colours.before.word}.` },
  ];
}
