import pdfmake from 'pdfmake';
import type { Document } from '#core/document';
import { judgeRun } from '#core/titration/judging';
import { foldRun } from '#core/titration/record';
import type { Flask, RunState } from '#core/titration/run';
import { isBlank } from '#core/titration/run';
import type { CertificateFile } from '#contract';
import { documentPdf } from '../print/documentPdf';
import { FONT } from '../print/fonts';

/** Reads a certificate's file on standard input and prints how long its PDF, an empty one and judging take, in ms. */
let text = '';
for await (const chunk of process.stdin) text += String(chunk);
const { document, source } = JSON.parse(text) as CertificateFile & { readonly document: Document };

async function bestMs(turns: number, work: () => unknown): Promise<number> {
  let best = Number.POSITIVE_INFINITY;
  for (let turn = 0; turn < turns; turn += 1) {
    const began = performance.now();
    await work();
    best = Math.min(best, performance.now() - began);
  }
  return best;
}

const run = foldRun(source.facts, source.references);
if (!run) throw new Error('the file holds no run');

/** The run with so many titrations: those that it has, again and again, as entries of their own. */
function withTitrations(count: number): RunState {
  const made = run?.flasks.filter((flask) => !isBlank(flask) && !flask.voided && flask.final) ?? [];
  const again = Array.from({ length: count }, (_, i): Flask => {
    const one = made[i % made.length];
    if (!one) throw new Error('nothing was titrated');
    const own = <E extends { readonly factId: string }>(entry: E): E => ({
      ...entry,
      factId: `${entry.factId}-${String(i)}`,
    });
    return {
      ...one,
      ...{ number: i + 1, isRough: false, portion: own(one.portion) },
      ...{ initial: one.initial && own(one.initial), final: one.final && own(one.final) },
    };
  });
  if (!run) throw new Error('the file holds no run');
  return { ...run, flasks: again };
}

const [few, many] = [withTitrations(4), withTitrations(20)];
const attached = { name: 'source.json', content: Buffer.from(text), sha256: '0'.repeat(64) };
const printed = { document, source: attached, link: 'http://localhost/', logo: null };
// A judged state is remembered: each turn judges a copy.
console.log(
  JSON.stringify({
    certificateMs: await bestMs(10, () =>
      documentPdf({ ...printed, issuedAt: new Date().toISOString() }),
    ),
    emptyMs: await bestMs(10, () =>
      pdfmake.createPdf({ content: [' '], defaultStyle: { font: FONT } }).getBuffer(),
    ),
    judgeFourMs: await bestMs(50, () => judgeRun({ ...few })),
    judgeTwentyMs: await bestMs(50, () => judgeRun({ ...many })),
    peakMb: Math.round(process.resourceUsage().maxRSS / 1024),
  }),
);
