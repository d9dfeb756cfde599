import { describeDrying, describeEndPoint } from '#core/chemistry';
import type { HouseRules } from '#core/laboratory';
import { figureText, roundHalfEven } from '#core/measurement';
import type { RunReferences } from '#core/titration/setUp';
import { blanksAsked, planRun, whyPortion } from '#core/titration/guidance';
import { arrangementOf, isAnalysis, standardSubstance } from '#core/titration/setUp';
import { useStock } from '../app/stock';
import { ShortName } from '../ui/ShortName';
import { ReactionEquations } from '../ui/typeset';
import { Term } from '../ui/Term';
import { Why } from '../ui/Why';

interface SeriesPlanViewProps {
  readonly references: RunReferences;
  readonly rules: HouseRules;
}

/** What to weigh or pipette, and how much of which bottle the series needs. */
export function SeriesPlanView({ references, rules }: SeriesPlanViewProps) {
  const { method } = references;
  const { inBurette, portion, excess } = arrangementOf(references);
  const plan = planRun(references, rules);
  const drying = isAnalysis(references)
    ? null
    : (standardSubstance(references.standard)?.drying ?? null);
  return (
    <section aria-labelledby="plan">
      <h2 id="plan" className="text-lg font-bold">
        The plan
      </h2>
      <p className="mt-1 text-ink-soft">
        <ReactionEquations of={method.equations} />
      </p>
      <Portion references={references} plan={plan} />
      <p className="mt-2 text-ink-soft">
        Approximate: {method.medium}; {describeEndPoint(method, rules)}.{' '}
        {portion.unit === 'g' && drying && `Drying of the standard: ${describeDrying(drying)}.`}
      </p>
      <Needed references={references} plan={plan} />
      <Enough bottleId={inBurette.id} neededMl={plan.titrantTotalMl} />
      {excess && (
        <Enough
          bottleId={excess.recordId}
          code={excess.bottleCode ?? ''}
          // The planned titrations, one repeat and the blank, as for the burette.
          neededMl={(plan.titrations + 1 + blanksAsked(method)) * excess.fixedMl}
        />
      )}
    </section>
  );
}

interface PlanProps {
  readonly references: RunReferences;
  readonly plan: ReturnType<typeof planRun>;
}

/** What goes into each flask, and the titre that it is for. */
function Portion({ references, plan }: PlanProps) {
  const { portion, excess } = arrangementOf(references);
  const isWeighed = portion.unit === 'g';
  const figure = (value: number): string => figureText(roundHalfEven(value, isWeighed ? 2 : 1));
  return (
    <>
      <p className="mt-4 text-ink-soft">
        {isWeighed ? 'Weigh' : 'Measure'} into each flask, exactly known
        {excess && (
          <>
            , after <b className="text-ink">{excess.fixedMl} mL</b> of{' '}
            <ShortName of={excess.substanceId} own={excess.own} /> from bottle {excess.bottleCode}
          </>
        )}
        :
      </p>
      <p className="text-[34px] leading-tight font-bold">
        {portion.fixedMl === null && 'about '}
        <span className="font-mono">{figure(plan.portion.suggested)}</span> {portion.unit}{' '}
        {portion.substanceId === null ? (
          'of the sample'
        ) : (
          <>
            <ShortName of={portion.substanceId} own={portion.own} />
            {!isWeighed && ' solution'}
          </>
        )}{' '}
        <span className="text-base font-normal">
          <Why of="this portion" because={whyPortion(references, plan)} />
        </span>
      </p>
      <Titre references={references} plan={plan} figure={figure} />
    </>
  );
}

/** The titre to expect, and whether it lies where the burette is good. */
function Titre({
  references,
  plan: { titreMl, titrationsPerFilling, portion },
  figure,
}: PlanProps & { readonly figure: (value: number) => string }) {
  const { fixedMl, unit } = arrangementOf(references).portion;
  const { suggested, least, most } = titreMl;
  // Small titres are daily work where samples are analysed: what matters there is U.
  const isOff = suggested > most || (suggested < least && !isAnalysis(references));
  const range = `${figureText(roundHalfEven(least, 0))} to ${figureText(roundHalfEven(most, 0))} mL`;
  return (
    <p className={`mt-1 ${isOff ? 'font-semibold text-blush' : ''}`}>
      for a <Term of="titre" /> near <b>{figureText(roundHalfEven(suggested, 1))} mL</b>
      {titrationsPerFilling > 1 &&
        `, ${titrationsPerFilling === 2 ? 'two' : 'several'} titrations from one filling`}
      .{' '}
      {isOff
        ? `The good range of the burette is ${range}: take another ${fixedMl === null ? 'portion' : 'pipette'} or burette.`
        : fixedMl === null &&
          `Between ${figure(portion.least)} and ${figure(portion.most)} ${unit} the titre stays in the good range of the burette.`}
    </p>
  );
}

/** How much the series takes from the burette's bottle, and for what. */
function Needed({ references, plan }: PlanProps) {
  const { soughtIn } = arrangementOf(references);
  const isTitrant = soughtIn === 'burette' || isAnalysis(references);
  return (
    <table className="mt-4 w-full max-w-md">
      <caption className="pb-1 text-left font-bold">
        {isTitrant ? 'Titrant' : 'Standard solution'} that the series needs
      </caption>
      <tbody>
        {plan.titrant.map(({ what, volumeMl }) => (
          <tr key={what} className="border-t border-rule">
            <th scope="row" className="py-0.5 text-left font-normal">
              {what}
            </th>
            <td className="py-0.5 text-right font-mono">
              {figureText(roundHalfEven(volumeMl, 0))} mL
            </td>
          </tr>
        ))}
        <tr className="border-t-2 border-ink font-bold">
          <th scope="row" className="py-0.5 text-left">
            in all
          </th>
          <td className="py-0.5 text-right font-mono">
            {figureText(roundHalfEven(plan.titrantTotalMl, 0))} mL
          </td>
        </tr>
      </tbody>
    </table>
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
      {name} holds {figureText(left)} mL: enough
      {code !== undefined && ` for the ${figureText(needed)} mL in excess`}.
    </p>
  ) : (
    <p role="alert" className="mt-2 font-semibold text-blush">
      {name} holds only {figureText(left)} mL: it will not last for the series
      {code !== undefined && `, which takes ${figureText(needed)} mL in excess`}.
    </p>
  );
}
