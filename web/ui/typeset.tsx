import { Fragment } from 'react';
import { balance, parseEquation, parseFormula } from '#core/chemistry';
import type { FormulaPiece } from '#core/chemistry';
import { figureText } from '#core/measurement';
import { Unanswerable } from '#core/problem';

/** A symbol in italics; what follows the first underscore stands below: `m_1`. */
export function Symbol({ of }: { readonly of: string }) {
  const [base = '', ...rest] = of.split('_');
  const subscript = rest.join('_');
  return (
    <span className="whitespace-nowrap">
      <i>{base}</i>
      {subscript && <sub className="text-[0.7em]">{subscript}</sub>}
    </span>
  );
}

/** A formula with true subscripts and raised charges. What is no formula stays as it is typed. */
export function ChemicalFormula({ of }: { readonly of: string }) {
  return (
    <span className="whitespace-nowrap">
      {piecesOf(of).map(({ text, level }, i) => {
        if (level === 'line') return text;
        const Level = level === 'subscript' ? 'sub' : 'sup';
        return (
          <Level key={i} className="text-[0.7em]">
            {text}
          </Level>
        );
      })}
    </span>
  );
}

function piecesOf(formula: string): readonly FormulaPiece[] {
  try {
    return parseFormula(formula).pieces;
  } catch (error) {
    if (error instanceof Unanswerable) return [{ text: formula, level: 'line' }];
    throw error;
  }
}

/** A reaction, balanced: `2 MnO4^- + 5 C2O4^2- …`. */
export function ReactionEquation({ of }: { readonly of: string }) {
  const { reactants, reactantCoefficients, products, productCoefficients } = balance(
    parseEquation(of),
  );
  return (
    <span>
      <ReactionSide species={reactants} coefficients={reactantCoefficients} />
      {' → '}
      <ReactionSide species={products} coefficients={productCoefficients} />
    </span>
  );
}

function ReactionSide({
  species,
  coefficients,
}: {
  readonly species: readonly string[];
  readonly coefficients: readonly number[];
}) {
  return species.map((formula, i) => (
    <Fragment key={formula}>
      {i > 0 && ' + '}
      {coefficients[i] !== 1 && `${String(coefficients[i])} `}
      <ChemicalFormula of={formula} />
    </Fragment>
  ));
}

/** A molarity with its expanded uncertainty, rounded already. */
export function Molarity({
  value,
  uncertainty,
  unit = 'mol/L',
}: {
  readonly value: string;
  readonly uncertainty: string;
  readonly unit?: string;
}) {
  return (
    <span className="sm:whitespace-nowrap">
      <span className="font-mono font-semibold">{figureText(value)}</span> <span>±</span>{' '}
      <span className="whitespace-nowrap">
        <span className="font-mono">{figureText(uncertainty)}</span> {unit}
      </span>
    </span>
  );
}

/** How a laboratory writes dates on its screens. */
export type DateFormat = 'words' | 'iso' | 'dots';

type Formatting = readonly [locale: string, options: Intl.DateTimeFormatOptions];

const DATES: Readonly<Record<DateFormat, Formatting>> = {
  words: ['en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }],
  iso: ['sv-SE', { dateStyle: 'short', timeZone: 'UTC' }],
  dots: ['de-DE', { day: '2-digit', month: '2-digit', year: 'numeric', timeZone: 'UTC' }],
};

const FORMATTERS = new Map<string, Intl.DateTimeFormat>();

/** A formatter, made when it is first needed: the first one of a page takes as long as drawing it. */
function formatter(...formatting: Formatting): Intl.DateTimeFormat {
  const key = JSON.stringify(formatting);
  const known = FORMATTERS.get(key) ?? new Intl.DateTimeFormat(...formatting);
  FORMATTERS.set(key, known);
  return known;
}

let written: DateFormat = 'words';

/** Has dates written as the laboratory writes them, from now on and everywhere: as a page has one language, it has one way. */
export function writeDatesAs(format: DateFormat): void {
  written = format;
}

/** A plain date as people write it: 2 Mar 2026, unless the laboratory has set another way. */
export function dateText(plainDate: string): string {
  return formatter(...DATES[written]).format(new Date(`${plainDate}T00:00:00Z`));
}

/** An instant in the laboratory's time zone: 2 Mar, 14:05; with its year where that is in doubt. */
export function instantText(instant: string, timeZone: string, hasYear = false): string {
  return formatter('en-GB', {
    day: 'numeric',
    month: 'short',
    ...(hasYear ? { year: 'numeric' } : {}),
    hour: '2-digit',
    minute: '2-digit',
    timeZone,
  }).format(new Date(instant));
}

/** An instant by the clock of the laboratory, with its day when that is not today's: `10:40`, `Fri 07:15`. */
export function clockText(instant: string, now: string, timeZone: string): string {
  const day = formatter('en-CA', { dateStyle: 'short', timeZone });
  const isToday = day.format(new Date(instant)) === day.format(new Date(now));
  return formatter('en-GB', {
    ...(isToday ? {} : { weekday: 'short' }),
    hour: '2-digit',
    minute: '2-digit',
    timeZone,
  }).format(new Date(instant));
}

/** The laboratory's wall clock at an instant: `2026-11-26T15:00`. */
export function localTimeAt(instant: string, timeZone: string): string {
  return formatter('sv-SE', {
    dateStyle: 'short',
    timeStyle: 'short',
    timeZone,
  })
    .format(new Date(instant))
    .replace(' ', 'T');
}

/** A local date and time as people write it: `Thu 26 Nov, 15:00`. */
export function localText(local: string): string {
  return formatter('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    timeZone: 'UTC',
  }).format(new Date(`${local}:00Z`));
}

/** The text with a capital first letter, for headings. */
export function capitalized(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** The equations of a method, a line each. */
export function ReactionEquations({ of: equations }: { readonly of: readonly string[] }) {
  return equations.map((equation) => (
    <span key={equation} className="block">
      <ReactionEquation of={equation} />
    </span>
  ));
}
