import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import { judgeRun } from '#core/titration/judging';
import { concordantSeries } from '../../core/test-support/runs';
import { BudgetBars } from './BudgetBars';
import { FiguresWorking } from './FiguresWorking';
import { ReplicateTable } from './ReplicateTable';
import { WorkingView } from './WorkingView';

const script = concordantSeries().add('run.flask-voided', { flask: 3, reason: 'spilt a little' });
const judgement = judgeRun(script.state);
const { result } = judgement;
if (!result) throw new Error('the series has no result');

/** What a reader sees, without the markup. */
function text(markup: string): string {
  return markup.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');
}

test('every flask stands in the table with its verdict and the reason', () => {
  const shown = text(
    renderToStaticMarkup(<ReplicateTable run={script.state} judgement={judgement} />),
  );
  expect(shown).toContain('rough titration, left out by the house rule');
  expect(shown).toContain('spilt a little');
  expect(shown.match(/counts/g)).toHaveLength(2);
});

test('the budget shows all effects, largest first, and their shares make up the whole', () => {
  const shown = text(renderToStaticMarkup(<BudgetBars result={result} />));
  for (const effect of [
    'Balance',
    'Purity',
    'Molar mass',
    'Burette tolerance',
    'Temperature',
    'Readings',
    'End point',
    'Repeatability',
  ]) {
    expect(shown).toContain(effect);
  }
  const shares = [...shown.matchAll(/(\d+\.\d) %/g)].map((share) => Number(share[1]));
  expect(shares).toEqual(shares.toSorted((a, b) => b - a));
  expect(shares.reduce((total, share) => total + share, 0)).toBeCloseTo(100, 0);
});

test('the working puts the numbers in and ends with the molarity', () => {
  const shown = text(renderToStaticMarkup(<WorkingView steps={result.working} />));
  expect(shown).toContain('molarity from flask 2');
  expect(shown).toContain('0.4795 g');
  expect(shown).toContain('204.2223 g/mol');
  expect(shown).toMatch(/c NaOH = .* = 0\.100\d+ mol\/L/);
});

test('every statistic and the expanded uncertainty show how they come about', () => {
  const shown = text(
    renderToStaticMarkup(<FiguresWorking judgement={judgement} result={result} />),
  );
  const { combinedStandardUncertainty, coverageFactor } = result.evaluation;
  const product = (combinedStandardUncertainty * Number(coverageFactor.toFixed(2))).toPrecision(2);
  expect(shown).toContain(`${coverageFactor.toFixed(2)} · `);
  expect(shown).toContain(`= ${product} mol/L`);
  expect(shown).toMatch(/RSD = s \/ c̄ = 0\.0000\d+ \/ 0\.100\d\d = 0\.\d{3} %/);
  expect(shown).toContain('t-interval of the mean of 2, 95 %');
});
