import type {
  ConstantNode,
  FunctionNode,
  MathNode,
  OperatorNode,
  ParenthesisNode,
  SymbolNode,
} from 'mathjs';
import { create, parseDependencies } from 'mathjs/number';
import { Unanswerable } from '../problem';
import type { Expression, FunctionName } from './expression';
import { apply, exact, minus, plus, power, product, quotient, sum } from './expression';

let parser: ReturnType<typeof create>['parse'] | null = null;

/** The parser and no more of its package, made when the first equation is typed. */
function parse(text: string): MathNode {
  parser ??= create({ ...parseDependencies }).parse;
  return parser(text);
}

const FUNCTIONS: Readonly<Record<string, FunctionName>> = {
  sqrt: 'sqrt',
  exp: 'exp',
  ln: 'ln',
  log: 'ln',
  log10: 'log10',
};

/**
 * A measurement equation typed as text, such as `1000*m*P/(M*(V-B))`: plain arithmetic with `^` or `**` for powers,
 * `sqrt`, `exp`, `ln` and `log10`. Each name stands for the expression given for it. Numbers are taken as they stand, so
 * the expressions should be in plain units (`plainUnit`), whose dimension is not checked.
 *
 * @throws Unanswerable `empty` or `syntax`, naming what cannot be read.
 */
export function parseTypedEquation(
  text: string,
  names: ReadonlyMap<string, Expression>,
): Expression {
  if (text.trim() === '') throw new Unanswerable('empty', 'model', 'There is no equation.');
  let root: MathNode;
  try {
    root = parse(text.replaceAll('**', '^'));
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw new Unanswerable('syntax', 'model', `The equation cannot be read: ${why}.`);
  }
  return expressionOf(root, names);
}

function expressionOf(node: MathNode, names: ReadonlyMap<string, Expression>): Expression {
  const part = (of: MathNode): Expression => expressionOf(of, names);
  switch (node.type) {
    case 'ParenthesisNode':
      return part((node as ParenthesisNode).content);
    case 'ConstantNode':
      return constantOf(node as ConstantNode);
    case 'SymbolNode':
      return namedExpression((node as SymbolNode).name, names);
    case 'OperatorNode':
      return operationOf(node as OperatorNode, part);
    case 'FunctionNode': {
      const { fn, args } = node as FunctionNode;
      const name = FUNCTIONS[fn.name];
      const [argument] = args;
      if (!name || !argument || args.length !== 1) {
        return unreadable(`${fn.name}(…) is not a function of one number that is known here`);
      }
      return apply(name, part(argument));
    }
    default:
      return unreadable(`${node.toString()} is more than plain arithmetic`);
  }
}

function constantOf({ value }: ConstantNode): Expression {
  return typeof value === 'number' ? exact(value) : unreadable(`${String(value)} is not a number`);
}

function namedExpression(name: string, names: ReadonlyMap<string, Expression>): Expression {
  return names.get(name) ?? unreadable(`nothing is given for ${name}`);
}

function operationOf(node: OperatorNode, part: (of: MathNode) => Expression): Expression {
  // `1/2a` would be read as half of a, and `2(V-B)` may be meant as a function.
  if (node.implicit) return unreadable(`${node.toString()} lacks a * between its factors`);
  const [first, second] = node.args.map(part);
  if (!first) return unreadable(`${String(node.op)} has nothing to work on`);
  if (!second) {
    if (node.op === '-') return sum([minus(first)]);
    return node.op === '+' ? first : unreadable(`${String(node.op)} is more than plain arithmetic`);
  }
  switch (node.op) {
    case '+':
      return sum([plus(first), plus(second)]);
    case '-':
      return sum([plus(first), minus(second)]);
    case '*':
      return product([first, second]);
    case '/':
      return quotient(first, second);
    case '^':
      return power(first, second);
    default:
      return unreadable(`${String(node.op)} is more than plain arithmetic`);
  }
}

function unreadable(why: string): never {
  throw new Unanswerable('syntax', 'model', `The equation cannot be read: ${why}.`);
}
