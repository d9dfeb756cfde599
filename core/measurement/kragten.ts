import { combineComponents } from './component';
import { evaluateNodes } from './evaluate';
import type { Expression, Input } from './expression';
import { topologicalOrder } from './expression';
import type { EvaluationOptions } from './propagate';
import { combineContributions } from './propagate';
import type { Unit } from './unit';

/** An uncertainty by finite steps, in the unit asked for. */
export interface KragtenEstimate {
  readonly combinedStandardUncertainty: number;
  /** Change of the result when an input rises by its standard uncertainty, with sign. */
  readonly contributions: readonly { readonly input: Input; readonly contribution: number }[];
}

/**
 * Raises each input by its whole standard uncertainty, one at a time, and takes the changes for contributions.
 * Source: J. Kragten, Analyst 119 (1994) 2161; EURACHEM/CITAC Guide CG 4, appendix E.2.
 */
export function kragten(
  root: Expression,
  unit: Unit,
  { isMuted = () => false, correlations = [] }: EvaluationOptions = {},
): KragtenEstimate {
  const value = evaluateNodes(root).get(root) ?? Number.NaN;
  const inputs = new Map(
    topologicalOrder(root).flatMap((node) =>
      node.kind === 'input' ? [[node.input.id, node.input]] : [],
    ),
  );
  const contributions = Array.from(inputs.values(), (input) => {
    const step = isMuted(input) ? 0 : combineComponents(input.components);
    const raised = evaluateNodes(root, new Map([[input.id, input.value + step]]));
    return { input, contribution: ((raised.get(root) ?? Number.NaN) - value) / unit.toCoherent };
  });
  return {
    combinedStandardUncertainty: combineContributions(
      new Map(contributions.map(({ input, contribution }) => [input.id, contribution])),
      correlations,
    ),
    contributions,
  };
}
