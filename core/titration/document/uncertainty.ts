import { rowsOf, sectionOf } from '../../document';
import { budgetByEffect, figureText, roundHalfEven, roundSignificant } from '../../measurement';
import type { Result } from '../judging';
import { repeatabilityText } from '../judging';
import type { RunState } from '../run';

/** Where the uncertainty comes from, an effect a line, and what it does not cover. */
export function uncertaintySection(run: RunState, result: Result) {
  const { evaluation } = result;
  const relative = (100 * evaluation.combinedStandardUncertainty) / evaluation.value;
  const shade = evaluation.budget.find(({ input }) => input.id === `run:${run.id}/end-point`);
  return sectionOf('Uncertainty', [
    { kind: 'sentences', sentences: [repeatabilityText(result)] },
    {
      kind: 'table',
      heads: ['Effect', 'Adds / (mol/L)', 'Part of the variance'],
      rows: budgetByEffect(evaluation.budget)
        .filter(({ contribution }) => contribution > 0)
        .map(({ effect, contribution, share }) => [
          effect,
          figureText(roundSignificant(contribution, 2)),
          `${figureText(roundHalfEven(100 * share, 1))} %`,
        ]),
    },
    rowsOf([
      [
        'Combined standard uncertainty',
        `${figureText(roundSignificant(evaluation.combinedStandardUncertainty, 2))} mol/L (${figureText(roundHalfEven(relative, 2))} %)`,
      ],
      [
        'End point, common to all',
        shade &&
          `${shade.input.source}: adds ${figureText(roundSignificant(Math.abs(shade.contribution), 2))} mol/L, and more titrations do not average it`,
      ],
    ]),
    {
      kind: 'sentences',
      sentences: [
        'U covers what was weighed, read and corrected on the days of the titrations. It does not cover a change of the solution after the day of the certificate, nor its use with another end point.',
      ],
    },
  ]);
}
