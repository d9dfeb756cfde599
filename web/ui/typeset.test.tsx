import type { ReactNode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import {
  capitalized,
  ChemicalFormula,
  dateText,
  instantText,
  ReactionEquation,
  Symbol,
} from './typeset';

/** Lowered text in brackets, raised text in braces. */
function plain(node: ReactNode): string {
  return renderToStaticMarkup(node)
    .replace(/<sub[^>]*>(.*?)<\/sub>/g, '[$1]')
    .replace(/<sup[^>]*>(.*?)<\/sup>/g, '{$1}')
    .replace(/<[^>]+>/g, '');
}

test.each([
  ['NaOH', 'NaOH'],
  ['C8H5KO4', 'C[8]H[5]KO[4]'],
  ['OH^-', 'OH{−}'],
  ['C8H4O4^2-', 'C[8]H[4]O[4]{2−}'],
  ['H2C2O4.2H2O', 'H[2]C[2]O[4]·2H[2]O'],
  ['no-formula', 'no-formula'],
])('%s is set as %s', (formula, expected) => {
  expect(plain(<ChemicalFormula of={formula} />)).toBe(expected);
});

test('a reaction is balanced as it is set', () => {
  expect(plain(<ReactionEquation of="CO3^2- + H^+ -> CO2 + H2O" />)).toBe(
    'CO[3]{2−} + 2 H{+} → CO[2] + H[2]O',
  );
});

test('what follows the first underscore of a symbol stands below', () => {
  expect(renderToStaticMarkup(<Symbol of="R_final,2" />)).toMatch(
    /<i>R<\/i><sub[^>]*>final,2<\/sub>/,
  );
  expect(renderToStaticMarkup(<Symbol of="M" />)).not.toContain('<sub');
});

test('dates are read as people write them, instants in the laboratory’s time zone', () => {
  expect(dateText('2026-03-02')).toBe('2 Mar 2026');
  expect(instantText('2026-03-02T23:30:00.000Z', 'Europe/Vienna')).toBe('3 Mar, 00:30');
  expect(capitalized('sodium hydroxide')).toBe('Sodium hydroxide');
});
