/** Number of atoms of each element, in the order in which they first appear. */
export type ElementCounts = ReadonlyMap<string, number>;

const TOKEN = /([A-Z][a-z]?)(\d*)|(\()|\)(\d*)/y;

/**
 * Reads a chemical formula of elements, counts and round brackets, such as `C8H5KO4`.
 *
 * @throws RangeError naming the position where the formula cannot be read.
 */
export function parseFormula(formula: string): ElementCounts {
  const levels = [new Map<string, number>()];
  let position = 0;
  while (position < formula.length) {
    TOKEN.lastIndex = position;
    const token = TOKEN.exec(formula);
    if (!token) throw unreadable(formula, position);
    const [text, element, elementCount, open, groupCount] = token;
    if (element) {
      addAtoms(levels.at(-1), element, countOf(elementCount));
    } else if (open) {
      levels.push(new Map<string, number>());
    } else {
      const group = levels.pop();
      if (!group || levels.length === 0) throw unreadable(formula, position);
      for (const [inner, count] of group) {
        addAtoms(levels.at(-1), inner, count * countOf(groupCount));
      }
    }
    position += text.length;
  }
  const [counts] = levels;
  if (!counts || levels.length > 1 || counts.size === 0) throw unreadable(formula, position);
  return counts;
}

/** A count as written; none means one. */
function countOf(digits: string | undefined): number {
  return digits ? Number(digits) : 1;
}

function addAtoms(counts: Map<string, number> | undefined, element: string, count: number): void {
  counts?.set(element, (counts.get(element) ?? 0) + count);
}

function unreadable(formula: string, position: number): RangeError {
  return new RangeError(`formula "${formula}" cannot be read at position ${String(position + 1)}`);
}
