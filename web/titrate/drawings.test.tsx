import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import { forecastTitre } from '#core/titration/figures';
import { judgeRun } from '#core/titration/judging';
import type { BuretteLiquid } from '#core/titration/setUp';
import { burette, concordantSeries, RunScript } from '../../core/test-support/runs';
import { BuretteDrawing } from './BuretteDrawing';
import { MolarityScale } from './MolarityScale';

/** Heights of the burette's whole-millilitre marks, from the drawing itself. */
function markHeights(svg: string): number[] {
  return [...svg.matchAll(/d="M106 ([\d.]+)h-(\d+)"/g)].map((mark) => Number(mark[1]));
}

const CLEAR: BuretteLiquid = { css: null, word: null, readAt: 'bottom' };
const VIOLET: BuretteLiquid = { css: '#4b1360', word: 'violet', readAt: 'top' };

function draw(
  levelMl: number | null,
  startedMl: number | null = null,
  massG = 0.48,
  liquid = CLEAR,
): string {
  const { state } = new RunScript().weigh(1, '0.4800');
  const { onBurette } = forecastTitre(state, massG, startedMl);
  return renderToStaticMarkup(
    <BuretteDrawing
      burette={burette}
      liquid={liquid}
      levelMl={levelMl}
      startedMl={startedMl}
      forecast={onBurette}
    />,
  );
}

test('the burette is to scale: marks at equal steps, zero at the top', () => {
  const heights = markHeights(draw(0));
  expect(heights).toHaveLength(101);
  const steps = heights.slice(1).map((height, i) => height - (heights[i] ?? 0));
  expect(Math.max(...steps) - Math.min(...steps)).toBeLessThan(1e-9);
  expect(heights[0]).toBeLessThan(heights.at(-1) ?? 0);
});

test.each([0, 7.1, 23.46, 50])('the meniscus for %d mL stands at its mark', (levelMl) => {
  const svg = draw(levelMl);
  const heights = markHeights(svg);
  const [top = 0, bottom = 0] = [heights[0], heights.at(-1)];
  const expected = top + (levelMl / 50) * (bottom - top);
  // A quadratic curve is lowest halfway between its ends and its control point.
  const [, edge = '', control = ''] =
    /d="M63 ([\d.]+)Q84 ([\d.]+) 105 [\d.]+" fill="none"/.exec(svg) ?? [];
  const meniscusBottom = (Number(edge) + Number(control)) / 2;
  expect(meniscusBottom).toBeCloseTo(expected, 6);
});

test('a dark liquid has its own colour, its upper edge stands at the mark, and marks on it are light', () => {
  const svg = draw(23.46, null, 0.48, VIOLET);
  const [top = 0, bottom = 0] = [markHeights(svg)[0], markHeights(svg).at(-1)];
  const [, edge = ''] = /d="M63 ([\d.]+)Q84/.exec(svg) ?? [];
  expect(Number(edge)).toBeCloseTo(top + (23.46 / 50) * (bottom - top), 6);
  expect(svg).toContain('fill="#4b1360"');
  expect(svg).toContain('read the top edge');
  expect(svg).toContain('violet, level at 23.46 mL, read at the top of the meniscus');
  const light = (of: string) => of.split('stroke="var(--color-label)"').length - 1;
  // Below the level: 54 marks of the scale, 23.5 to 50, and those of the loupe.
  expect(light(svg)).toBeGreaterThanOrEqual(54);
  expect(light(draw(23.46))).toBe(0);
});

test('the drawing says in words what it shows', () => {
  expect(draw(null)).toContain('G50, 50 mL, not read yet');
  const svg = draw(0.1, 0.1);
  expect(svg).toMatch(/level at 0\.10 mL, end point expected at 23\.\d\d mL/);
  expect(svg).toContain('run freely to');
  expect(svg).toContain('end expected');
});

test('the loupe shows the tenths around the reading', () => {
  const svg = draw(23.46);
  for (const tenth of ['23.2', '23.3', '23.4', '23.5', '23.6', '23.7'])
    expect(svg).toContain(`>${tenth}<`);
});

test('the loupe shows no marks that the glass does not bear', () => {
  expect(draw(0.1)).not.toMatch(/>-0\.\d</);
  expect(draw(49.95)).not.toContain('>50.1<');
});

test('each dot of the molarity scale stands in the order of its molarity', () => {
  const judgement = judgeRun(concordantSeries().state);
  const svg = renderToStaticMarkup(<MolarityScale judgement={judgement} nominal={0.1} />);
  const places = [...svg.matchAll(/<circle cx="([\d.]+)"/g)].map((dot) => Number(dot[1]));
  const molarities = judgement.replicates.map((replicate) => replicate.molarity ?? 0);
  const order = (values: readonly number[]) =>
    values
      .map((value, i) => [value, i] as const)
      .toSorted((a, b) => a[0] - b[0])
      .map(([, i]) => i);
  expect(places).toHaveLength(4);
  expect(order(places)).toEqual(order(molarities));
  expect(places.every((place) => place > 0 && place < 470)).toBe(true);
  expect(svg).toContain('flask 1: 0.10');
});

test('numbers of flasks whose molarities are the same stand beside each other', () => {
  const script = new RunScript();
  for (const flask of [1, 2, 3, 4]) script.titrate(flask, '0.4800', '0.00', '23.50');
  const judgement = judgeRun(script.titrate(5, '0.4800', '0.00', '23.40').state);
  const svg = renderToStaticMarkup(<MolarityScale judgement={judgement} nominal={0.1} />);
  expect(svg).toContain('>1, 2, 3, 4<');
  expect(svg).toContain('>5<');
});

test('an empty series and a single titration draw without a gap', () => {
  const draft = new RunScript();
  const empty = judgeRun(draft.state);
  expect(renderToStaticMarkup(<MolarityScale judgement={empty} nominal={0.1} />)).toContain(
    'no molarity found yet',
  );
  const single = judgeRun(draft.titrate(1, '0.4800', '0.00', '23.50').state);
  const svg = renderToStaticMarkup(<MolarityScale judgement={single} nominal={0.1} />);
  expect(svg).not.toContain('NaN');
});
