import type { RunFact } from '#core/titration/record';
import type { RunReferences } from '#core/titration/setUp';
import { foldRun } from '#core/titration/record';

/** Reads a run's answer on standard input, repeats its weighings to so many facts, and prints the fold's time in ms. */
let text = '';
for await (const chunk of process.stdin) text += String(chunk);
const { facts, references } = JSON.parse(text) as { facts: RunFact[]; references: RunReferences };
const [start, sample] = facts;
if (!start || !sample) throw new Error('the run has too few facts to repeat');

function many(count: number): RunFact[] {
  // References are as they were; only ids and numbers change.
  const repeated = Array.from({ length: count - 1 }, (_, i) => ({
    ...sample,
    id: `f${String(i)}`,
    sequence: i + 2,
    body: { ...sample?.body, flask: i + 1 },
  })) as RunFact[];
  return start ? [start, ...repeated] : [];
}

function bestOf(count: number): number {
  const run = many(count);
  let best = Number.POSITIVE_INFINITY;
  for (let turn = 0; turn < 15; turn += 1) {
    const began = performance.now();
    const state = foldRun(run, references);
    best = Math.min(best, performance.now() - began);
    if (state?.version !== count) throw new Error('the fold lost a fact');
  }
  return best;
}
console.log(
  JSON.stringify({
    thousandMs: bestOf(1_000),
    tenThousandMs: bestOf(10_000),
    peakMb: Math.round(process.resourceUsage().maxRSS / 1024),
  }),
);
