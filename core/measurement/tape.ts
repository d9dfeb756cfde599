import { combineComponents } from './component';
import { evaluateNodes, FUNCTIONS } from './evaluate';
import type { Expression, Input } from './expression';
import { operands, topologicalOrder } from './expression';

/** Trials that run through the tape together: enough to make an instruction cheap, few enough for the cache. */
export const BLOCK = 1024;

/** A column of values, one for each trial of a block. */
export type Column = Float64Array;

type Instruction = (count: number) => void;

/** A measurement equation compiled to a list of operations on columns. */
export interface Tape {
  /** The inputs that vary, each with the column into which its trials are written, in coherent units. */
  readonly inputs: readonly { readonly input: Input; readonly column: Column }[];
  /** Runs all operations over the first `count` trials of the columns. */
  readonly run: Instruction;
  /** Where the result of each trial is found, in coherent units. */
  readonly result: Column;
}

/** A node on the tape: a number that never changes, or a column. */
type Operand = number | Column;

/**
 * Compiles an expression graph. What depends on no varying input is computed once; every other node becomes
 * operations on columns of `BLOCK` trials, each after its operands. Inputs without uncertainty, and those for which
 * `isMuted` holds, are constants.
 */
export function compileTape(root: Expression, isMuted: (input: Input) => boolean): Tape {
  const values = evaluateNodes(root);
  const compiled = new Map<Expression, Operand>();
  const columns = new Map<string, { input: Input; column: Column }>();
  const instructions: Instruction[] = [];
  const operandOf = (node: Expression): Operand => compiled.get(node) ?? Number.NaN;

  for (const node of topologicalOrder(root)) {
    if (node.kind === 'input') {
      if (isMuted(node.input) || combineComponents(node.input.components) === 0) {
        compiled.set(node, values.get(node) ?? Number.NaN);
        continue;
      }
      const known = columns.get(node.input.id) ?? { input: node.input, column: newColumn() };
      columns.set(node.input.id, known);
      compiled.set(node, known.column);
    } else if (operands(node).every((operand) => typeof operandOf(operand) === 'number')) {
      compiled.set(node, values.get(node) ?? Number.NaN);
    } else {
      compiled.set(node, compileNode(node, operandOf, instructions));
    }
  }
  const result = operandOf(root);
  return {
    inputs: [...columns.values()],
    run: (count) => {
      for (const instruction of instructions) instruction(count);
    },
    result: typeof result === 'number' ? newColumn().fill(result) : result,
  };
}

function newColumn(): Column {
  return new Float64Array(BLOCK);
}

function compileNode(
  node: Expression,
  operandOf: (node: Expression) => Operand,
  instructions: Instruction[],
): Operand {
  switch (node.kind) {
    case 'input':
    case 'exact':
      throw new RangeError(`${node.kind} is not an operation`);
    case 'definition':
      return operandOf(node.of);
    case 'sum':
      return addUp(
        node.terms.map(({ sign, of }) => ({ sign, of: operandOf(of) })),
        instructions,
      );
    case 'mean': {
      const total = addUp(
        node.items.map((item) => ({ sign: 1, of: operandOf(item) })),
        instructions,
      );
      return multiply([total, 1 / node.items.length], instructions);
    }
    case 'product':
      return multiply(node.factors.map(operandOf), instructions);
    case 'quotient': {
      const denominator = operandOf(node.denominator);
      return typeof denominator === 'number'
        ? multiply([operandOf(node.numerator), 1 / denominator], instructions)
        : divide(operandOf(node.numerator), denominator, instructions);
    }
    case 'power': {
      const out = newColumn();
      const base = toColumn(operandOf(node.base));
      const exponent = toColumn(operandOf(node.exponent));
      instructions.push((count) => {
        for (let i = 0; i < count; i += 1) out[i] = at(base, i) ** at(exponent, i);
      });
      return out;
    }
    case 'function': {
      const out = newColumn();
      const argument = toColumn(operandOf(node.of));
      const { value } = FUNCTIONS[node.name];
      instructions.push((count) => {
        for (let i = 0; i < count; i += 1) out[i] = value(at(argument, i));
      });
      return out;
    }
  }
}

/** The value of a trial; columns are as long as a block, so there always is one. */
function at(column: Column, i: number): number {
  return column[i] as number;
}

function toColumn(operand: Operand): Column {
  return typeof operand === 'number' ? newColumn().fill(operand) : operand;
}

function addUp(
  terms: readonly { readonly sign: 1 | -1; readonly of: Operand }[],
  instructions: Instruction[],
): Operand {
  let constant = 0;
  const varying: { sign: 1 | -1; of: Column }[] = [];
  for (const { sign, of } of terms) {
    if (typeof of === 'number') constant += sign * of;
    else varying.push({ sign, of });
  }
  const out = newColumn();
  // Two terms a pass: each pass goes through memory once.
  const [first, second, ...rest] = varying;
  if (!first) return constant;
  instructions.push(
    second
      ? (count) => {
          for (let i = 0; i < count; i += 1) {
            out[i] = constant + first.sign * at(first.of, i) + second.sign * at(second.of, i);
          }
        }
      : (count) => {
          for (let i = 0; i < count; i += 1) out[i] = constant + first.sign * at(first.of, i);
        },
  );
  for (let next = 0; next < rest.length; next += 2) {
    const [one, other] = [rest[next], rest[next + 1]];
    if (one && other) {
      instructions.push((count) => {
        for (let i = 0; i < count; i += 1) {
          out[i] = at(out, i) + one.sign * at(one.of, i) + other.sign * at(other.of, i);
        }
      });
    } else if (one) {
      instructions.push((count) => {
        for (let i = 0; i < count; i += 1) out[i] = at(out, i) + one.sign * at(one.of, i);
      });
    }
  }
  return out;
}

function multiply(factors: readonly Operand[], instructions: Instruction[]): Operand {
  let constant = 1;
  const varying: Column[] = [];
  for (const factor of factors) {
    if (typeof factor === 'number') constant *= factor;
    else varying.push(factor);
  }
  const [first, second, ...rest] = varying;
  if (!first) return constant;
  const out = newColumn();
  instructions.push((count) => {
    if (second) {
      for (let i = 0; i < count; i += 1) out[i] = constant * at(first, i) * at(second, i);
    } else {
      for (let i = 0; i < count; i += 1) out[i] = constant * at(first, i);
    }
  });
  for (const factor of rest) {
    instructions.push((count) => {
      for (let i = 0; i < count; i += 1) out[i] = at(out, i) * at(factor, i);
    });
  }
  return out;
}

function divide(numerator: Operand, denominator: Column, instructions: Instruction[]): Column {
  const out = newColumn();
  instructions.push((count) => {
    if (typeof numerator === 'number') {
      for (let i = 0; i < count; i += 1) out[i] = numerator / at(denominator, i);
    } else {
      for (let i = 0; i < count; i += 1) out[i] = at(numerator, i) / at(denominator, i);
    }
  });
  return out;
}
