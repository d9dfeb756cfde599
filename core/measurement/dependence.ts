import type { Expression, Input, Origin } from './expression';
import { topologicalOrder } from './expression';
import type { Correlation, Evaluation } from './propagate';

/** Parts below this change a correlation by less than a thousandth and are not passed on. */
const LEAST_PART = 0.02;

/** What an input rests on, as a vector of length 1: its origins and a rest of its own. */
function vectorOf({ id, restsOn = [] }: Input): ReadonlyMap<string, number> {
  const known = restsOn.reduce((total, { part }) => total + part ** 2, 0);
  const vector = new Map(restsOn.map((origin) => [origin.id, origin.part]));
  if (restsOn.length === 0) return vector.set(id, 1);
  return vector.set(`${id}/rest`, Math.sqrt(Math.max(0, 1 - known)));
}

/** Origins that may stand behind another result too: what is measured in one flask or told of one run stands behind no other. */
function isShared(id: string): boolean {
  return !id.startsWith('run:') && !id.startsWith('fact:');
}

/** What a result rests on, for whatever is computed with it later; what its inputs rest on goes with them. */
export function originsOf({
  budget,
  combinedStandardUncertainty: u,
}: Evaluation): readonly Origin[] {
  const parts = new Map<string, number>();
  for (const { input, contribution } of budget) {
    if (contribution === 0 || input.variation === 'by-replicate') continue;
    for (const [id, part] of vectorOf(input)) {
      if (isShared(id)) parts.set(id, (parts.get(id) ?? 0) + (part * contribution) / u);
    }
  }
  return [...parts]
    .map(([id, part]) => ({ id, part }))
    .filter(({ part }) => Math.abs(part) >= LEAST_PART);
}

/**
 * Correlations between the inputs of an equation, as far as they rest on the same: r = sum over the common origins of the products of
 * their parts.
 * Source: JCGM 100:2008, F.1.2.3, equation F.2, for inputs that are functions of common quantities.
 */
export function correlationsIn(root: Expression): readonly Correlation[] {
  const inputs = new Map(
    topologicalOrder(root).flatMap((node) =>
      node.kind === 'input' ? [[node.input.id, node.input] as const] : [],
    ),
  );
  const passedOn = [...inputs.values()].filter(({ restsOn = [] }) => restsOn.length > 0);
  const seen = new Set<string>();
  return passedOn.flatMap((one) => {
    seen.add(one.id);
    const vector = vectorOf(one);
    return [...inputs.values()].flatMap((other): readonly Correlation[] => {
      if (seen.has(other.id)) return [];
      let coefficient = 0;
      for (const [id, part] of vectorOf(other)) coefficient += part * (vector.get(id) ?? 0);
      return coefficient === 0 ? [] : [{ between: [one.id, other.id], coefficient }];
    });
  });
}
