import { describeDrying, describeEndPoint, findSubstance } from '#core/chemistry';
import type { HouseRules } from '#core/laboratory';
import { roundHalfEven } from '#core/measurement';
import { nominalMolPerL } from '#core/reagent';
import type { RunReferences } from '#core/titration';
import { planSeries, standardOf } from '#core/titration';
import { useStock } from '../app/stock';
import { ReactionEquation } from '../ui/typeset';

/** What to weigh and how much titrant the series needs. */
export function SeriesPlanView({
  references,
  rules,
}: {
  readonly references: RunReferences;
  readonly rules: HouseRules;
}) {
  const { bottle, lot, burette, method } = references;
  const standard = findSubstance(lot.lot.substanceId);
  const plan = planSeries(standardOf(references), nominalMolPerL(bottle), burette, rules);
  const grams = (value: number): string => roundHalfEven(value, 2);
  return (
    <section aria-labelledby="plan" className="border-l border-rule pl-10">
      <h2 id="plan" className="text-lg font-bold">
        The plan
      </h2>
      <p className="mt-1 text-ink-soft">
        {method.equations.map((equation) => (
          <span key={equation} className="block">
            <ReactionEquation of={equation} />
          </span>
        ))}
      </p>
      <p className="mt-4 text-ink-soft">Weigh into each flask, exactly known:</p>
      <p className="text-[34px] leading-tight font-bold">
        about <span className="font-mono">{grams(plan.massG.suggested)}</span> g{' '}
        {standard?.shortName}
      </p>
      <p className="mt-1">
        for a titre near <b>{roundHalfEven(plan.titreMl.suggested, 1)} mL</b>
        {plan.titrationsPerFilling > 1 && ', two titrations from one filling'}. Between{' '}
        {grams(plan.massG.least)} and {grams(plan.massG.most)} g the titre stays in the good range
        of the burette.
      </p>
      <p className="mt-2 text-ink-soft">
        Approximate: {method.medium}; {describeEndPoint(method)}.{' '}
        {standard?.drying && `Drying of the standard: ${describeDrying(standard.drying)}.`}
      </p>
      <table className="mt-5 w-full max-w-md">
        <caption className="pb-1 text-left font-bold">Titrant that the series needs</caption>
        <tbody>
          {plan.titrant.map(({ what, volumeMl }) => (
            <tr key={what} className="border-t border-rule">
              <th scope="row" className="py-1 text-left font-normal">
                {what}
              </th>
              <td className="py-1 text-right font-mono">{roundHalfEven(volumeMl, 0)} mL</td>
            </tr>
          ))}
          <tr className="border-t-2 border-ink font-bold">
            <th scope="row" className="py-1 text-left">
              in all
            </th>
            <td className="py-1 text-right font-mono">
              {roundHalfEven(plan.titrantTotalMl, 0)} mL
            </td>
          </tr>
        </tbody>
      </table>
      <Enough bottleId={bottle.id} neededMl={plan.titrantTotalMl} />
    </section>
  );
}

/** Whether the bottle holds what the series needs, said before it begins. */
function Enough({ bottleId, neededMl }: { readonly bottleId: string; readonly neededMl: number }) {
  const leftMl = useStock()?.left.get(bottleId);
  if (leftMl === undefined) return null;
  const left = roundHalfEven(Math.max(0, leftMl), 0);
  return leftMl >= neededMl ? (
    <p className="mt-2 text-leaf">The bottle holds {left} mL: enough.</p>
  ) : (
    <p role="alert" className="mt-2 font-semibold text-blush">
      The bottle holds only {left} mL: it will not last for the series.
    </p>
  );
}
