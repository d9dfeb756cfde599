import { expect, test } from 'vitest';
import { wordsIn } from './glossary';

/** What is marked of a sentence, each with what it is a form of. */
function marked(sentence: string): readonly string[] {
  return wordsIn(sentence).flatMap(({ text, of }) => (of === null ? [] : [`${text}: ${of}`]));
}

test.each([
  ['How titrants are standardized.', ['titrants: titrant', 'standardized: standardize']],
  ['Nominal, and nominal again', ['Nominal: nominal']],
  [
    'expanded uncertainty of a titre',
    ['expanded uncertainty: expanded-uncertainty', 'titre: titre'],
  ],
  ['roughly nominally blanket', []],
])('%s', (sentence, found) => {
  expect(marked(sentence)).toEqual(found);
  // Nothing is lost of it.
  expect(
    wordsIn(sentence)
      .map(({ text }) => text)
      .join(''),
  ).toBe(sentence);
});
