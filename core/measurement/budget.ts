import type { BudgetLine } from './propagate';

/** What inputs of one kind contribute together. */
export interface EffectShare {
  readonly effect: string;
  /** Part of the combined variance, 0 to 1. */
  readonly share: number;
  /** Root of the sum of squares of its inputs' contributions, in the unit of the result. */
  readonly contribution: number;
  readonly lines: readonly BudgetLine[];
}

/** A budget with the inputs of one kind together, the largest first. */
export function budgetByEffect(budget: readonly BudgetLine[]): readonly EffectShare[] {
  const effects = [...new Set(budget.map((line) => line.input.effect))];
  return effects
    .map((effect) => {
      const lines = budget.filter((line) => line.input.effect === effect);
      return {
        effect,
        lines,
        share: lines.reduce((total, line) => total + line.share, 0),
        contribution: Math.hypot(...lines.map((line) => line.contribution)),
      };
    })
    .toSorted((a, b) => b.share - a.share);
}
