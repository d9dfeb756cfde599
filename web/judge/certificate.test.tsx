import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import { plainDate } from '#core/grammar';
import type { HouseRules } from '#core/laboratory';
import { DEFAULT_HOUSE_RULES } from '#core/laboratory';
import { issueCertificate, judgeRun } from '#core/titration/judging';
import { references, RunScript } from '../../core/test-support/runs';
import { idOf } from '../../core/test-support/stored';
import { CertificateView } from './CertificateView';

/** What a reader sees of a certificate under these rules. */
function certificateText(changes: Partial<HouseRules>): string {
  const rules = { ...DEFAULT_HOUSE_RULES, firstIsRough: false, ...changes };
  const { state } = new RunScript(references(), { rules })
    .titrate(1, '0.4800', '0.00', '23.50')
    .titrate(2, '0.4800', '0.00', '23.52')
    .titrate(3, '0.4800', '0.00', '23.51');
  const judgement = judgeRun(state);
  if (!judgement.result) throw new Error('the series has no result');
  const certificate = issueCertificate(state, judgement, {
    number: '0417-1',
    certifiedById: idOf('mirela'),
    certifiedOn: plainDate('2026-03-02'),
    validUntil: plainDate('2026-03-20'),
    reason: null,
  });
  const markup = renderToStaticMarkup(
    <QueryClientProvider client={new QueryClient()}>
      <CertificateView certificate={certificate} recomputed={judgement.result} />
    </QueryClientProvider>,
  );
  return markup.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');
}

test('a certificate states the expanded uncertainty and the RSD, in mol/L', () => {
  const shown = certificateText({});
  expect(shown).toMatch(/0\.0999\d* ± 0\.000\d+ mol\/L \( k = \d\.\d\d\)/);
  expect(shown).toMatch(/RSD 0\.043 %/);
  expect(shown).not.toContain('Normality');
  expect(shown).toContain('Computed again from the entries just now: the same figures');
});

test('by the house rules it states the RSD alone, the normality, and other names of the units', () => {
  const alone = certificateText({ certificateStates: 'rsd', paperUnits: 'molar' });
  expect(alone).toMatch(/Certified 0\.0999\d* M /);
  expect(alone).not.toContain('±');
  const normal = certificateText({ statesNormality: true, paperUnits: 'decimetre' });
  expect(normal).toMatch(/± 0\.000\d+ mol\/dm³/);
  expect(normal).toMatch(/Normality 0\.0999\d* eq\/L, 1 to the mole in this reaction/);
});
