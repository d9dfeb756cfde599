import * as v from 'valibot';
import { expect, test } from 'vitest';
import { CATALOGUE } from '#core/chemistry';
import { methodSchema } from '#contract';
import { portionsOf, typedPortions } from './PortionFields';

test('what a form shows of the portions is what it writes back, for every method that ships', () => {
  for (const method of CATALOGUE.methods) {
    const rounded = method.portions.map((portion) =>
      portion.kind === 'weighed'
        ? portion
        : {
            ...portion,
            standardMolarityMolPerL: Number(portion.standardMolarityMolPerL.toPrecision(4)),
          },
    );
    expect(portionsOf(typedPortions(method))).toEqual(rounded);
  }
});

test('a figure that is none, a lower limit above the upper, and no portion at all are refused', () => {
  const [method] = CATALOGUE.methods;
  if (!method) throw new Error('the catalogue is empty');
  const typed = typedPortions(method);
  const messages = (changes: Partial<typeof typed>): readonly string[] => {
    const written = { ...method, portions: portionsOf({ ...typed, ...changes }) };
    const parsed = v.safeParse(methodSchema, written);
    return parsed.success ? [] : parsed.issues.map(({ message }) => message);
  };
  expect(messages({})).toEqual([]);
  expect(messages({ leastG: '0,45' })).toEqual([]);
  expect(messages({ leastG: 'a pinch' })).toEqual(['Write a number.']);
  expect(messages({ leastG: '1.2' })).toEqual(['The lower limit comes first.']);
  expect(messages({ molarity: '0' })).toEqual(['More than 0.']);
  expect(messages({ isWeighed: false, isAliquot: false })).toEqual(['Choose at least one.']);
});
