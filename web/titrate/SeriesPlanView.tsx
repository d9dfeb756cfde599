import { describeDrying, describeEndPoint, findSubstance } from '#core/chemistry';
import type { HouseRules } from '#core/laboratory';
import { roundHalfEven } from '#core/measurement';
import type { RunReferences } from '#core/titration';
import { instrumentOf, pipetteMl, pipetteVolumeMl, planRun } from '#core/titration';
import { useStock } from '../app/stock';
import { ShortName } from '../ui/ShortName';
import { ReactionEquation } from '../ui/typeset';

/** What to weigh or pipette, and how much of which bottle the series needs. */
export function SeriesPlanView({
  references,
  rules,
}: {
  readonly references: RunReferences;
  readonly rules: HouseRules;
}) {
  const { bottle, standard, method, excess } = references;
  const substance = findSubstance(method.standardId);
  const plan = planRun(references, rules);
  const isWeighed = standard.kind === 'lot';
  const figure = (value: number): string => roundHalfEven(value, isWeighed ? 2 : 1);
  const inFlaskId =
    method.inBurette === 'titrant' || isWeighed ? method.standardId : bottle.substanceId;
  const inBuretteId =
    method.inBurette === 'standard' && standard.kind === 'bottle' ? standard.bottle.id : bottle.id;
  const titre = plan.titreMl.suggested;
  const isOff = titre < plan.titreMl.least || titre > plan.titreMl.most;
  return (
    <section aria-labelledby="plan">
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
      <p className="mt-4 text-ink-soft">
        {isWeighed ? 'Weigh' : 'Measure'} into each flask, exactly known
        {excess && (
          <>
            , after <b className="text-ink">{pipetteVolumeMl(excess.vessel)} mL</b> of{' '}
            <ShortName of={excess.bottle.substanceId} /> from bottle {excess.bottle.code}
          </>
        )}
        :
      </p>
      <p className="text-[34px] leading-tight font-bold">
        {pipetteMl(standard) === null && 'about '}
        <span className="font-mono">{figure(plan.portion.suggested)}</span> {isWeighed ? 'g' : 'mL'}{' '}
        <ShortName of={inFlaskId} />
        {!isWeighed && ' solution'}
      </p>
      <p className={`mt-1 ${isOff ? 'font-semibold text-blush' : ''}`}>
        for a titre near <b>{roundHalfEven(titre, 1)} mL</b>
        {plan.titrationsPerFilling > 1 &&
          `, ${plan.titrationsPerFilling === 2 ? 'two' : 'several'} titrations from one filling`}
        .{' '}
        {isOff
          ? `The good range of the burette is ${roundHalfEven(plan.titreMl.least, 0)} to ${roundHalfEven(plan.titreMl.most, 0)} mL: take another ${instrumentOf(standard).type === 'glassware' ? 'pipette' : 'portion'} or burette.`
          : pipetteMl(standard) === null &&
            `Between ${figure(plan.portion.least)} and ${figure(plan.portion.most)} ${isWeighed ? 'g' : 'mL'} the titre stays in the good range of the burette.`}
      </p>
      <p className="mt-2 text-ink-soft">
        Approximate: {method.medium}; {describeEndPoint(method, rules)}.{' '}
        {isWeighed &&
          substance?.drying &&
          `Drying of the standard: ${describeDrying(substance.drying)}.`}
      </p>
      <table className="mt-4 w-full max-w-md">
        <caption className="pb-1 text-left font-bold">
          {method.inBurette === 'titrant' ? 'Titrant' : 'Standard solution'} that the series needs
        </caption>
        <tbody>
          {plan.titrant.map(({ what, volumeMl }) => (
            <tr key={what} className="border-t border-rule">
              <th scope="row" className="py-0.5 text-left font-normal">
                {what}
              </th>
              <td className="py-0.5 text-right font-mono">{roundHalfEven(volumeMl, 0)} mL</td>
            </tr>
          ))}
          <tr className="border-t-2 border-ink font-bold">
            <th scope="row" className="py-0.5 text-left">
              in all
            </th>
            <td className="py-0.5 text-right font-mono">
              {roundHalfEven(plan.titrantTotalMl, 0)} mL
            </td>
          </tr>
        </tbody>
      </table>
      <Enough bottleId={inBuretteId} neededMl={plan.titrantTotalMl} />
      {excess && (
        <Enough
          bottleId={excess.bottle.id}
          code={excess.bottle.code}
          // The planned titrations, one repeat and the blank, as for the burette.
          neededMl={
            (plan.titrations + 1 + Number(method.needsBlank)) * pipetteVolumeMl(excess.vessel)
          }
        />
      )}
    </section>
  );
}

/** Whether the bottle holds what the series needs, said before it begins. */
function Enough({
  bottleId,
  code,
  neededMl,
}: {
  readonly bottleId: string;
  /** Of a bottle beside the one whose need is listed above. */
  readonly code?: string;
  readonly neededMl: number;
}) {
  const leftMl = useStock()?.left.get(bottleId);
  if (leftMl === undefined) return null;
  const left = roundHalfEven(Math.max(0, leftMl), 0);
  const needed = roundHalfEven(neededMl, 0);
  const name = code === undefined ? 'The bottle' : `Bottle ${code}`;
  return leftMl >= neededMl ? (
    <p className="mt-2 text-leaf">
      {name} holds {left} mL: enough{code !== undefined && ` for the ${needed} mL in excess`}.
    </p>
  ) : (
    <p role="alert" className="mt-2 font-semibold text-blush">
      {name} holds only {left} mL: it will not last for the series
      {code !== undefined && `, which takes ${needed} mL in excess`}.
    </p>
  );
}
