import type { DecimalText } from '../measurement';
import { decimalText } from '../measurement';

/** Something that laboratories answer differently: a convention, a setting. */
export interface Rule<V> {
  /** What is asked, so that an answer ends the sentence. */
  readonly question: string;
  readonly answer:
    | {
        readonly kind: 'choice';
        readonly choices: readonly (readonly [value: V, words: string])[];
      }
    /** A decimal as typed, or a whole number; outside the bounds it would say nothing or ask for what nobody can do. */
    | {
        readonly kind: 'figure' | 'count';
        readonly unit: string;
        readonly least: number;
        readonly most: number;
      };
  /** What we ship. */
  readonly default: V;
  /** Frozen: what was done before the rule could be set. */
  readonly before: V;
  /** Which lot of rules it came with, 0 being the first: facts that are older get what was done before. */
  readonly since: number;
  /** Why the default is what it is. */
  readonly why: string;
}

type Given<V, Answer> = Pick<Rule<V>, 'question' | 'why'> &
  Readonly<Answer & Record<'default' | 'before', NoInfer<V>>> & { readonly since?: number };

/** One of several answers. */
export function choice<V extends string>({
  choices,
  ...rule
}: Given<V, { choices: Readonly<Record<V, string>> }>): Rule<V> {
  // `Object.entries` forgets which keys there are.
  const listed = Object.entries(choices) as [V, string][];
  return { since: 0, ...rule, answer: { kind: 'choice', choices: listed } };
}

/** Yes or no, what we ship first. */
export function yesOrNo({
  yes,
  no,
  ...rule
}: Given<boolean, { yes: string; no: string }>): Rule<boolean> {
  const choices = [[true, yes] as const, [false, no] as const];
  if (!rule.default) choices.reverse();
  return { since: 0, ...rule, answer: { kind: 'choice', choices } };
}

interface Bounded {
  unit: string;
  least: number;
  most: number;
}

/** A decimal as typed. */
export function figure({ unit, least, most, ...rule }: Given<string, Bounded>): Rule<DecimalText> {
  return {
    since: 0,
    ...rule,
    default: decimalText(rule.default),
    before: decimalText(rule.before),
    answer: { kind: 'figure', unit, least, most },
  };
}

/** A whole number. */
export function count({ unit, least, most, ...rule }: Given<number, Bounded>): Rule<number> {
  return { since: 0, ...rule, answer: { kind: 'count', unit, least, most } };
}
