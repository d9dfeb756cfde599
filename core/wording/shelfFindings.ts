import { figureText, roundSignificant } from '../measurement';

/** What speaks against entries about the laboratory, its people, instruments, lots and bottles. */
export const SHELF_FINDINGS = {
  'out-of-bounds': ({ least, most }: { least: number; most: number }) =>
    `It lies between ${figureText(least)} and ${figureText(most)} here.`,
  'workday-without-hours': () => 'The day ends after it begins.',
  'kept-twice': () => 'A substance stands there twice: keep one line.',
  'too-few': () => 'There must be at least as many titrations as have to agree.',
  'reason-before-question': () =>
    'A reason is asked for further from the label than explanations are.',
  'due-first': () => 'The due date lies before the calibration.',
  'far-off': ({ nominal, deviation }: { nominal: number; deviation: number }) =>
    `At ${figureText(nominal)} the deviation would be ${figureText(roundSignificant(deviation, 2))}. Was it another vessel, a mistyped figure, or trapped air?`,
  'negative-mass': () => 'A mass cannot be negative.',
  'below-readability': ({ balance, readabilityG }: { balance: string; readabilityG: string }) =>
    `Balance ${balance} shows no less than ${readabilityG} g.`,
  'over-max-load': ({ balance, maxLoadG }: { balance: string; maxLoadG: string }) =>
    `Balance ${balance} carries at most ${maxLoadG} g.`,
  'name-taken': () => 'Somebody has this name already.',
  'left-already': () => 'This account is already closed.',
  'not-left': () => 'This account is not closed.',
  'code-taken': () => 'Another bottle has this code: choose the next one.',
  computed: () => 'This figure was computed from what was prepared: it cannot be typed over.',
  'wrong-lot': ({ lotNumber }: { lotNumber: string }) =>
    `Lot ${lotNumber} is another substance than the one in the bottle.`,
  'in-already': () => 'The lot is already in the oven.',
  'not-in': () => 'The lot is not in the oven.',
  'opened-first': () => 'A lot cannot be opened before it was received.',
  'other-form': ({ stated, name }: { stated: string; name: string }) =>
    `${stated} g/mol is the molar mass of ${name}: choose that substance, or correct the figure.`,
  'use-by-first': () => 'The use-by date lies before the day of receipt.',
  'content-twice': () =>
    'This solution is stated in mol/L, so that its purity is 1: the molarity says the rest.',
  'not-certified': () => 'A standard that was bought needs the molarity of its certificate.',
  'purity-as-fraction': ({ percent }: { percent: string }) =>
    `A solid of ${percent} % is hardly one: write the purity in per cent, 99.98 and not 0.9998.`,
  'purity-too-vague': () => 'A purity is known better than to half of itself.',
  'beyond-max-load': () => 'This figure must be a small part of the maximum load.',
  'tolerance-too-wide': () => 'A tolerance is a small part of the volume.',
  'division-too-wide': () => 'A division must be smaller than the burette.',
  'holds-no-volume': () => 'Only what holds a volume is calibrated with water.',
  'no-mass': () => 'The mass must be more than 0 g.',
  'same-mass': () => 'Both masses are the same: nothing has been weighed out.',
  decimals: ({ instrument, decimals }: { instrument: 'balance' | 'burette'; decimals: number }) =>
    `${instrument === 'balance' ? 'The balance shows' : 'The burette is read to'} ${String(decimals)} decimals: write every one of them, a last zero too.`,
  oneself: ({ what }: { what: 'take-right' | 'close-account' }) =>
    `Ask somebody else who keeps the roles of people to ${what === 'take-right' ? 'take yours' : 'close that account'}.`,
  'auditor-alone': () => 'An auditor reads only: give this role alone.',
  'auditor-until': () => 'An auditor reads until a date, and nobody else has one.',
  'date-to-come': () => 'That day lies in the future.',
  'year-mistyped': ({ year }: { year: string }) => `The year ${year} is mistyped.`,
};
