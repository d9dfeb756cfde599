import { expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import type { HouseRules } from '#core/laboratory';
import { withFigures } from '#core/measurement';
import type { Role } from '#core/rights';
import { concordantSeries, khpLot, PLAIN_RULES, RunScript } from '../../test-support/runs';
import { idOf } from '../../test-support/stored';
import type { SignatureMeaning } from '../run';
import type { Signatories, Signing } from './index';
import {
  draftDigest,
  judgeRun,
  reviewOf,
  signaturesWith,
  signedSoFar,
  signingFindings,
  signingOf,
} from './index';

/** Whoever enters in these scripts. */
const ANALYST = idOf('ines');

const NOBODY_ELSE: Signatories = { traineeIds: [], authorizingIds: [ANALYST] };
const TWO: Signatories = { traineeIds: [], authorizingIds: [ANALYST, idOf('mirela')] };

function draftOf({ state }: RunScript): string {
  return draftDigest(state) ?? '';
}

/** Where its signatures stand. */
function standing({ state }: RunScript, signatories = TWO): Signing {
  const signing = signingOf(state, signatories);
  if (!signing) throw new Error('it has no result');
  return signing;
}

/** A series under a rule of signing. */
function series(signatures: HouseRules['signatures'] = 'performed-authorized'): RunScript {
  const script = new RunScript(undefined, { rules: { ...PLAIN_RULES, signatures } });
  script.facts.push(...concordantSeries().facts.slice(1));
  return script;
}

function sign(script: RunScript, means: 'performed' | 'checked'): RunScript {
  return script.add(`run.${means}`, { draft: draftOf(script) });
}

function against(
  { state }: RunScript,
  means: SignatureMeaning,
  id: string,
  roles: readonly Role[],
  signatories: Signatories = TWO,
): readonly string[] {
  const signer = { id: idOf(id), roles };
  const signing = signingOf(state, signatories);
  return signingFindings(state, signing, means, signer).map(({ code }) => code);
}

const SIGNATORY = ['authorized-signatory'] as const;

test('a certificate takes the signatures of the house rule, in their order', () => {
  const needed = (script: RunScript, signatories = TWO) => standing(script, signatories).needed;
  expect(needed(series('authorized'))).toEqual(['authorized']);
  expect(needed(series())).toEqual(['performed', 'authorized']);
  const three = ['performed', 'checked', 'authorized'];
  expect(needed(series('performed-checked-authorized'))).toEqual(three);
  // A trainee had a part in it, whatever the rule.
  expect(needed(series('authorized'), { ...TWO, traineeIds: [ANALYST] })).toEqual(three);

  expect(against(series('authorized'), 'authorized', 'mirela', SIGNATORY)).toEqual([]);
  expect(against(series(), 'authorized', 'mirela', SIGNATORY)).toEqual(['not-signed']);
  const performed = sign(series(), 'performed');
  expect(against(performed, 'authorized', 'mirela', SIGNATORY)).toEqual([]);
  expect(against(performed, 'performed', 'ines', ['analyst'])).toEqual(['signed-already']);
  expect(against(series(), 'performed', 'tobin', ['analyst'])).toEqual(['not-performer']);
  expect(against(series(), 'performed', 'ines', [])).toEqual(['not-allowed']);
});

test('lists say as what a run is signed, and no longer once another entry makes another draft', () => {
  const script = sign(series(), 'performed');
  const soFar = ({ state }: RunScript) => signedSoFar(state);
  expect([soFar(series()), soFar(script)]).toEqual([[], ['performed']]);
  script.titrate(5, '0.4800', '0.00', '23.52');
  expect(soFar(script)).toEqual([]);
  expect(soFar(sign(script, 'performed'))).toEqual(['performed']);
});

test('nobody checks their own work, nor authorizes it where somebody else can', () => {
  const both = ['analyst', 'reviewer', 'authorized-signatory'] as const;
  const performed = sign(series('performed-checked-authorized'), 'performed');
  expect(against(performed, 'checked', 'ines', both, NOBODY_ELSE)).toEqual(['own-work']);
  expect(against(performed, 'checked', 'tobin', both)).toEqual([]);
  const byTwo = sign(series(), 'performed');
  expect(against(byTwo, 'authorized', 'ines', both, TWO)).toEqual(['own-work']);
  expect(against(byTwo, 'authorized', 'ines', both, NOBODY_ELSE)).toEqual([]);
  const { state } = byTwo;
  const signing = standing(byTwo, NOBODY_ELSE);
  const at = '2026-03-02T09:00:00.000Z';
  const independent = (id: string): boolean =>
    signaturesWith(state, signing, { by: idOf(id), at }).isIndependent;
  expect([independent('ines'), independent('mirela')]).toEqual([false, true]);
});

test('fewer titrations than the rule asks for are authorized by a technical manager only', () => {
  const rules = { ...PLAIN_RULES, firstIsRough: false };
  const finals = ['23.50', '23.52', '23.51'];
  const made = (count: number): RunScript =>
    finals
      .slice(0, count)
      .reduce(
        (script, final, i) => script.titrate(i + 1, '0.4800', '0.00', final),
        new RunScript(undefined, { rules }),
      );
  const manager = [...SIGNATORY, 'technical-manager'] as const;
  for (const [count, isEnough] of [
    [2, false],
    [3, true],
  ] as const) {
    const performed = sign(made(count), 'performed');
    const codes = isEnough ? [] : ['too-few-to-authorize'];
    expect(against(performed, 'authorized', 'mirela', SIGNATORY)).toEqual(codes);
    expect(against(performed, 'authorized', 'mirela', manager)).toEqual([]);
  }
});

test('a signature counts for one draft: whatever is entered makes another, what is said of it does not', () => {
  const script = sign(series(), 'performed');
  const before = draftOf(script);
  expect(withFigures(',', () => draftOf(script))).toBe(before);
  script.add('run.returned', { remarks: 'why?' });
  expect(against(script, 'authorized', 'mirela', SIGNATORY)).toEqual(['return-open']);
  script.add('run.answered', { answer: 'it was so' });
  expect(draftOf(script)).toBe(before);
  expect(against(script, 'authorized', 'mirela', SIGNATORY)).toEqual([]);
  // Even what changes no figure.
  script.add('run.temperature-taken', { flask: 2, temperatureC: '21.0', reason: null });
  expect(draftOf(script)).not.toBe(before);
  const { given, lapsed } = standing(script);
  expect({ given, lapsed }).toEqual({ given: [], lapsed: ['performed'] });
});

test('the draft is the same wherever it is made, what it says of a titration set aside too', () => {
  const script = series().titrate(5, '0.4800', '0.00', '25.50');
  const setAside = judgeRun(script.state).replicates.find(({ verdict }) => verdict === 'set-aside');
  expect(setAside?.flask.number).toBe(5);
  expect(withFigures(',', () => draftOf(script))).toBe(draftOf(script));
});

test('whoever looks it through is told what is out of the ordinary, and nothing where nothing is', () => {
  const now = { bottles: [], lots: [khpLot()], equipment: [] };
  const day = plainDate('2026-03-02');
  const told = ({ state }: RunScript, records = now) =>
    reviewOf(state, records, day).map(({ about, text }) => `${about}: ${text}`);
  expect(told(series())).toEqual([]);
  const script = series();
  const corrects = script.state.flasks[1]?.final?.factId ?? '';
  script
    .add('run.reading-corrected', { corrects, readingMl: '23.45', reason: 'read again' })
    .add('run.flask-voided', { flask: 3, reason: 'a bubble left the tip' })
    .add('run.incident-noted', {
      flask: 4,
      incidentId: 'bubble-in-tip',
      measured: null,
      waterMl: null,
      volumetricFlaskMl: null,
      remark: 'seen late',
    });
  const expired = { ...now, lots: [khpLot({ useBy: '2026-03-01' })] };
  expect(told(script, expired)).toEqual([
    'entry: Flask 2, final reading: was 23.44 mL. read again.',
    expect.stringMatching(/^incident: Flask 4: .+; seen late\.$/),
    'left-out: Flask 3 is left out: a bubble left the tip.',
    'parent: Lot K-22 had run out.',
  ]);
});
