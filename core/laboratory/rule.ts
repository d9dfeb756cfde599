import type { DecimalText } from '../measurement';
import { decimalText } from '../measurement';
import type { Finding } from '../record';
import { impossible } from '../record';

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

/** A rule with its name. */
export type NamedRule<K extends string, V> = Rule<V> & { readonly key: K };

/** Rules under the heading that they belong to. */
export interface RuleGroup<K extends string, V> {
  readonly heading: string;
  readonly rules: readonly NamedRule<K, V>[];
}

/** Tables of rules, one for each heading, as lists in their order. */
export function grouped<K extends string, V>(
  tables: Readonly<Record<string, Readonly<Partial<Record<K, Rule<V>>>>>>,
): readonly RuleGroup<K, V>[] {
  return Object.entries(tables).map(([heading, table]) => ({
    heading,
    // `Object.entries` forgets which keys there are.
    rules: Object.entries(table as Readonly<Record<K, Rule<V>>>).map(([key, rule]) => ({
      ...(rule as Rule<V>),
      key: key as K,
    })),
  }));
}

/** Answers, all or some, that lie outside of the bounds of what is asked. */
export function checkBounds<K extends string>(
  rules: readonly NamedRule<K, unknown>[],
  answers: Readonly<Partial<Record<K, unknown>>>,
): readonly Finding[] {
  return rules.flatMap(({ key, answer }): readonly Finding[] => {
    const value = answers[key];
    if (value === undefined || answer.kind === 'choice') return [];
    const { least, most } = answer;
    const isWithin = Number(value) >= least && Number(value) <= most;
    return isWithin ? [] : [impossible('out-of-bounds', key, { least, most })];
  });
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
