import { figureText, roundHalfEven } from '../../measurement';
import type { Judgement, Replicate, Result } from './judge';

/** What a verdict is called. */
export const VERDICT_WORDS: Readonly<Record<Replicate['verdict'], string>> = {
  counts: 'counts',
  rough: 'rough',
  void: 'void',
  open: 'ready',
  blank: 'blank',
  overshot: 'overshot',
  disputed: 'two values',
  'set-aside': 'set aside',
};

/** Says which account of repeatability entered, so that nothing is counted twice. */
export function repeatabilityText({ repeatabilityFrom, repeatability }: Result): string {
  const percent = (part: number | null): string =>
    part === null ? 'none' : `${figureText(roundHalfEven(100 * part, 3))} %`;
  const figures = `inputs ${percent(repeatability.inputs)}, scatter ${percent(repeatability.scatter)}, method ${percent(repeatability.method)}`;
  switch (repeatabilityFrom) {
    case 'inputs':
      return `What varies between flasks enters once, through readings, weighings and end points, the largest account (${figures}).`;
    case 'pooled':
      return `What varies between flasks enters once, as the scatter of the titrations pooled with what was known of it (${figures}).`;
    case 'scatter':
      return `What varies between flasks enters once, as the scatter of the titrations, the largest account (${figures}).`;
    case 'method':
      return `What varies between flasks enters once, as the known repeatability of the method, the largest account (${figures}).`;
  }
}

const TESTS = { grubbs: ['Grubbs', 'G'], dixon: ['Dixon', 'Q'] } as const;

/** What the house rule's outlier test says, with its statistic against the critical value. */
export function outlierText({
  flask,
  test,
  statistic,
  critical,
  isOutlier,
}: NonNullable<Judgement['outlier']>): string {
  const [name, sign] = TESTS[test];
  const figures = `${sign} = ${figureText(roundHalfEven(statistic, 2))} of ${figureText(roundHalfEven(critical, 2))}`;
  return `${name}, 95 %: flask ${String(flask)} is furthest out, ${figures}: it ${isOutlier ? 'stands out' : 'does not stand out'}.`;
}
