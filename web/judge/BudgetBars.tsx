import { budgetByEffect, figureText, roundHalfEven, roundSignificant } from '#core/measurement';
import type { BudgetLine } from '#core/measurement';
import type { Result } from '#core/titration/judging';
import { repeatabilityText } from '#core/titration/judging';
import { Symbol } from '../ui/typeset';
import { PoolingView } from './PoolingView';

/** Where the uncertainty comes from: a bar for each kind of effect, its inputs inside. */
export function BudgetBars({ result }: { readonly result: Result }) {
  const groups = budgetByEffect(result.evaluation.budget);
  return (
    <section aria-labelledby="budget">
      <h2 id="budget" className="text-lg font-bold">
        Where the uncertainty comes from
      </h2>
      <p className="text-[15px] text-ink-soft">{repeatabilityText(result)}</p>
      {result.pooling && <PoolingView pooling={result.pooling} />}
      <ul className="mt-2 divide-y divide-rule">
        {groups.map((group) => (
          <li key={group.effect}>
            <details>
              <summary className="grid min-h-12 grid-cols-[minmax(0,1fr)_minmax(0,1fr)_72px] items-center gap-3 md:grid-cols-[150px_minmax(0,1fr)_72px] lg:min-h-10">
                <span>{group.effect}</span>
                <span className="h-4 bg-shade">
                  <span
                    className="block h-full bg-leaf"
                    style={{ width: `${String(100 * group.share)}%` }}
                  />
                </span>
                <span className="text-right font-mono whitespace-nowrap">
                  {figureText(roundHalfEven(100 * group.share, 1))} %
                </span>
              </summary>
              <Inputs lines={group.lines} unit={result.evaluation.unit.symbol} />
            </details>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Inputs({ lines, unit }: { readonly lines: readonly BudgetLine[]; readonly unit: string }) {
  return (
    <table className="mb-3 w-full text-sm">
      <thead>
        <tr className="text-left text-ink-soft">
          <th scope="col" className="font-normal">
            input
          </th>
          <th scope="col" className="font-normal">
            value
          </th>
          <th scope="col" className="font-normal">
            <i>u</i>
          </th>
          <th scope="col" className="font-normal">
            adds / ({unit})
          </th>
        </tr>
      </thead>
      <tbody>
        {lines.map(({ input, standardUncertainty, contribution }) => (
          <tr key={input.id} className="border-t border-rule align-top">
            <td className="py-1 pr-2">
              <Symbol of={input.symbol} /> {input.name}
              <span className="block text-ink-soft">{input.source}</span>
            </td>
            <td className="py-1 pr-2 font-mono">
              {figureText(roundSignificant(input.value, 6))} {input.unit.symbol}
            </td>
            <td className="py-1 pr-2 font-mono">
              {standardUncertainty === 0
                ? 'in the repeatability'
                : `${figureText(roundSignificant(standardUncertainty, 2))} ${input.unit.symbol}`}
            </td>
            <td className="py-1 font-mono">
              {figureText(contribution === 0 ? '–' : roundSignificant(Math.abs(contribution), 2))}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
