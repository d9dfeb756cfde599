import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { renderToStaticMarkup } from 'react-dom/server';
import { MemoryRouter } from 'react-router';
import { expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import type { HouseRules } from '#core/laboratory';
import { issueCertificate, judgeRun } from '#core/titration/judging';
import type { Certificate } from '#core/titration/run';
import { PLAIN_RULES, references, RunScript, thermometer } from '../../core/test-support/runs';
import { idOf, stored } from '../../core/test-support/stored';
import { CertificateView } from './CertificateView';

/** What a reader sees of a certificate under these rules, as an earlier core may have issued it. */
function certificateText(
  changes: Partial<HouseRules>,
  earlier: Partial<Certificate> = {},
  { hasBlank = false, at25 = false } = {},
): string {
  const rules = { ...PLAIN_RULES, firstIsRough: false, ...changes };
  const script = new RunScript(references({ thermometer: at25 ? thermometer : null }), {
    rules,
    ...(at25 && { temperatureC: '25.0', thermometer: { id: 'T1', version: 1 } }),
  })
    .titrate(1, '0.4800', '0.00', '23.50')
    .titrate(2, '0.4800', '0.00', '23.52')
    .titrate(3, '0.4800', '0.00', '23.51');
  if (hasBlank) {
    script.add('run.blank-made', { flask: 4 });
    script.read(4, 'initial', '30.00').read(4, 'final', '30.05');
  }
  const { state } = script;
  const judgement = judgeRun(state);
  if (!judgement.result) throw new Error('the series has no result');
  const certificate = issueCertificate(state, judgement, {
    number: '0417-1',
    certifiedById: idOf('mirela'),
    signatures: [],
    isIndependent: true,
    certifiedOn: plainDate('2026-03-02'),
    validUntil: plainDate('2026-03-20'),
    reason: null,
  });
  const markup = renderToStaticMarkup(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <CertificateView
          run={state}
          certificate={{ ...certificate, ...earlier }}
          result={judgement.result}
        />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return markup.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');
}

test('a certificate states the expanded uncertainty and the RSD, in mol/L', () => {
  const shown = certificateText({});
  expect(shown).toMatch(/0\.0999\d* ± 0\.000\d+ mol\/L \( k = \d\.\d\d\)/);
  expect(shown).toContain('RSD 0.043 % of one titration, from the 3 that were accurate');
  expect(shown).not.toContain('Normality');
  expect(shown).toContain('Computed again from the entries just now: the same figures');
});

test('by the house rules it states the RSD alone, the normality, and other names of the units', () => {
  const alone = certificateText({ certificateStates: 'rsd', paperUnits: 'molar' });
  expect(alone).toMatch(/Certified 0\.0999\d* M /);
  expect(alone).not.toContain('±');
  const normal = certificateText({ statesNormality: true, paperUnits: 'decimetre' });
  expect(normal).toMatch(/± 0\.000\d+ mol\/dm³/);
  expect(normal).toMatch(/Normality 0\.0999\d* eq\/dm³, 1 to the mole in this reaction/);
});

test('where an earlier core reckoned otherwise, what it comes to now, how far that is and why stand beside it', () => {
  const unrounded = { molarity: 0.1, standardUncertainty: 0.0001 };
  const earlier: Partial<Certificate> = {
    unrounded,
    expandedUncertainty: stored('0.00020'),
    coreVersion: '3',
  };
  const shown = certificateText({}, earlier, { hasBlank: true });
  expect(shown).toMatch(
    /it comes to 0\.1001\d* ± 0\.000\d+ mol\/L .* The certificate keeps its own/,
  );
  expect(shown).toMatch(/Since core 3, which certified it, the value has moved by \d+ % of U/);
  expect(shown).toContain('The uncertainty of the blank was left out');
  expect(shown).not.toContain('passed on');
  // Where only digits that are not printed differ, it says so calmly.
  const unprinted = certificateText({}, { unrounded, coreVersion: '3' }, { hasBlank: true });
  expect(unprinted).toContain('the figures are the same as they are rounded here');
  // What today's core has certified no mistake of before explains; nor does a run without a blank know this one.
  expect(certificateText({}, { ...earlier, coreVersion: '4' }, { hasBlank: true })).not.toContain(
    'left out where',
  );
  expect(certificateText({}, earlier)).not.toContain('left out where');
});

test('beside what was corrected stands the molarity as measured; what was not is told with its size', () => {
  const both = { volumeCorrection: 'corrected', buoyancyCorrection: 'corrected' } as const;
  const corrected = certificateText(both, {}, { at25: true });
  expect(corrected).toContain('Temperature 25.0 °C on T1');
  expect(corrected).toMatch(
    /At 20 °C As measured at 25 °C: 0\.0999\d*; temperature \+0\.111 %; buoyancy \+0\.058 %/,
  );
  const plain = certificateText({ buoyancyCorrection: 'carried' }, {}, { at25: true });
  expect(plain).toContain(
    'At 20 °C Not corrected, carried in U: temperature +0.111 %, buoyancy +0.058 %',
  );
  const before = certificateText({}, { corrections: null });
  expect(before).toContain('Temperature 20 °C, not measured');
  expect(before).not.toContain('At 20 °C');
});
