import Fraction from 'fraction.js';
import { Unanswerable } from '../problem';
import type { ProblemKind } from '../problem';
import { isElement } from './elements';

/** A piece of a formula as it is printed. */
export interface FormulaPiece {
  readonly text: string;
  readonly level: 'line' | 'subscript' | 'superscript';
}

/** A chemical formula as read. */
export interface Formula {
  /** Atoms of each element in the whole, hydrate water included, in the order of first appearance. */
  readonly counts: ReadonlyMap<string, Fraction>;
  /** In elementary charges. */
  readonly charge: number;
  /** How it is printed, from left to right; state symbols are left out. */
  readonly pieces: readonly FormulaPiece[];
}

const CLOSING: Readonly<Record<string, string>> = { '(': ')', '[': ']', '{': '}' };

const HYDRATE_DOT = /\s*[·•∙⋅.*]\s*/y;
const STATE_SYMBOL = /\s*\((?:s|l|g|aq|cr|am)\)$/;
const ELEMENT = /[A-Z][a-z]?/y;
/** A subscript; one that begins with 0. belongs to a compound of no fixed composition, such as Fe0.95O. */
const SUBSCRIPT = /0\.\d+|\d+/y;
const MULTIPLIER = /\d+\/\d+|\d+(?:\.\d+)?/y;
const CHARGE = /\^\{?(?:(\d*)([+-])|([+-])(\d+))\}?$/;
/** A charge without a caret: a sign that ends the formula, with nothing or a blank and digits before it. */
const BARE_CHARGE = /(?: (\d+))?([+-])$/;

const SUBSCRIPTS = '₀₁₂₃₄₅₆₇₈₉';
const SUPERSCRIPTS = '⁰¹²³⁴⁵⁶⁷⁸⁹';
const VULGAR: Readonly<Record<string, string>> = {
  '½': '1/2',
  '⅓': '1/3',
  '⅔': '2/3',
  '¼': '1/4',
  '¾': '3/4',
  '⅕': '1/5',
  '⅙': '1/6',
};

/** Raised and lowered characters to plain ones, a raised run to a charge after a caret. */
function toPlain(text: string): string {
  return text
    .replace(/[₀-₉]/g, (digit) => String(SUBSCRIPTS.indexOf(digit)))
    .replace(/[⁰¹²³⁴-⁹⁺⁻]+/g, (run) => {
      const plain = Array.from(run, (char) =>
        char === '⁺' ? '+' : char === '⁻' ? '-' : String(SUPERSCRIPTS.indexOf(char)),
      );
      return `^${plain.join('')}`;
    })
    .replace(/[½⅓⅔¼¾⅕⅙]/g, (char) => VULGAR[char] ?? char)
    .replace(/[−–]/g, '-');
}

/**
 * Reads a chemical formula: elements, subscripts, nested brackets of any kind, hydrate parts after a middle dot, a
 * full stop or an asterisk, each with a whole or fractional multiplier, raised and lowered characters, and a charge
 * after a caret (`C2O4^2-`), raised, or as a plain sign at the end. State symbols are ignored. `e^-` is the electron.
 *
 * @throws Unanswerable `empty`, `syntax`, `unbalanced-brackets` or `unknown-element`, naming the position.
 */
export function parseFormula(typed: string): Formula {
  return new FormulaReader(typed).read();
}

class FormulaReader {
  private readonly typed: string;
  /** Without state symbol and charge, in plain characters. */
  private readonly text: string;
  private readonly charge: number;
  private readonly pieces: FormulaPiece[] = [];
  private position = 0;

  constructor(typed: string) {
    this.typed = typed;
    const plain = toPlain(typed).trim().replace(STATE_SYMBOL, '');
    const [charge, text] = splitCharge(plain);
    this.charge = charge;
    this.text = text;
  }

  read(): Formula {
    if (this.text === '') this.fail('empty', 'There is no formula');
    if (this.text === 'e') return this.finish(new Map(), 'e');
    const counts = new Map<string, Fraction>();
    do {
      const multiplier = this.number(MULTIPLIER, 'line');
      const part = this.group(null);
      if (part.size === 0) this.unreadable();
      addAtoms(counts, part, multiplier);
    } while (this.hydrateDot());
    if (this.position < this.text.length) this.unreadable();
    if (this.charge !== 0 && counts.size === 1 && this.isAmbiguousIon(counts)) {
      this.fail(
        'syntax',
        `${this.typed} can be read in two ways; write the charge after a caret, as in Fe^3+`,
      );
    }
    return this.finish(counts, '');
  }

  /** `Fe3+`: one element, a subscript and a sign without caret. */
  private isAmbiguousIon(counts: ReadonlyMap<string, Fraction>): boolean {
    return /^[A-Z][a-z]?\d+[+-]$/.test(this.typed.trim()) && counts.size === 1;
  }

  private finish(counts: ReadonlyMap<string, Fraction>, symbol: string): Formula {
    if (symbol) this.pieces.push({ text: symbol, level: 'line' });
    if (this.charge !== 0) {
      const size = Math.abs(this.charge);
      const text = `${size === 1 ? '' : String(size)}${this.charge > 0 ? '+' : '−'}`;
      this.pieces.push({ text, level: 'superscript' });
    }
    return { counts, charge: this.charge, pieces: this.pieces };
  }

  /** Elements and bracketed groups up to the bracket that closes this one. */
  private group(open: string | null): Map<string, Fraction> {
    const counts = new Map<string, Fraction>();
    for (;;) {
      const char = this.text[this.position];
      if (char !== undefined && char in CLOSING) {
        this.take(char);
        const inner = this.group(char);
        if (this.text[this.position] !== CLOSING[char]) {
          this.fail('unbalanced-brackets', `A bracket ${char} is not closed`);
        }
        this.take(this.text[this.position] ?? '');
        if (inner.size === 0) this.unreadable();
        addAtoms(counts, inner, this.number(SUBSCRIPT, 'subscript'));
        continue;
      }
      const symbol = this.match(ELEMENT);
      if (symbol === null) {
        if (open === null && char !== undefined && Object.values(CLOSING).includes(char)) {
          this.fail('unbalanced-brackets', `The bracket ${char} was never opened`);
        }
        return counts;
      }
      addAtoms(
        counts,
        new Map([[this.elementIn(symbol), ONE]]),
        this.number(SUBSCRIPT, 'subscript'),
      );
    }
  }

  /** The element that a symbol names; where two letters name none, the first may, and the second is then at fault. */
  private elementIn(symbol: string): string {
    if (!isElement(symbol)) {
      this.position -= symbol.length;
      this.fail('unknown-element', `There is no element ${symbol}`);
    }
    this.pieces.push({ text: symbol, level: 'line' });
    return symbol;
  }

  private hydrateDot(): boolean {
    if (this.match(HYDRATE_DOT) === null) return false;
    this.pieces.push({ text: '·', level: 'line' });
    return true;
  }

  /** A multiplier or subscript, 1 when there is none. */
  private number(pattern: RegExp, level: FormulaPiece['level']): Fraction {
    const found = this.match(pattern);
    if (found === null) return ONE;
    if (/^0\d/.test(found)) {
      this.position -= found.length;
      this.fail('syntax', `A count of ${found} begins with a zero: a letter O may be meant`);
    }
    const value = /\/0+$/.test(found) ? ZERO : new Fraction(found);
    if (value.compare(ZERO) !== 1) {
      this.position -= found.length;
      this.fail('syntax', `A count of ${found} makes no sense`);
    }
    this.pieces.push({ text: found, level });
    return value;
  }

  private take(char: string): void {
    this.pieces.push({ text: char, level: 'line' });
    this.position += char.length;
  }

  private match(pattern: RegExp): string | null {
    pattern.lastIndex = this.position;
    const found = pattern.exec(this.text)?.[0];
    if (found === undefined) return null;
    this.position += found.length;
    return found;
  }

  private unreadable(): never {
    return this.fail('syntax', `The formula ${this.typed} cannot be read`);
  }

  private fail(kind: ProblemKind, sentence: string): never {
    const where = kind === 'empty' ? '' : ` (position ${String(this.position + 1)})`;
    throw new Unanswerable(kind, 'formula', `${sentence}${where}.`);
  }
}

const ZERO = new Fraction(0);
const ONE = new Fraction(1);

function addAtoms(
  counts: Map<string, Fraction>,
  part: ReadonlyMap<string, Fraction>,
  times: Fraction,
): void {
  for (const [element, count] of part) {
    counts.set(element, count.mul(times).add(counts.get(element) ?? 0));
  }
}

/** The charge at the end of a formula, and what stands before it. */
function splitCharge(text: string): [charge: number, rest: string] {
  const found = CHARGE.exec(text);
  const bare = found ? null : BARE_CHARGE.exec(text);
  const match = found ?? bare;
  if (!match) return [0, text];
  const [, digits, sign, leadingSign, trailingDigits] = match;
  const size = Number([digits, trailingDigits].find(Boolean) ?? '1');
  return [(sign ?? leadingSign) === '-' ? -size : size, text.slice(0, match.index)];
}
