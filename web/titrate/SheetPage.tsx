import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import { describeEndPoint, findSubstance } from '#core/chemistry';
import { findIncident } from '#core/incident';
import type { HouseRules } from '#core/laboratory';
import { HOUSE_RULES, paperUnitsOf, ruleWords } from '#core/laboratory';
import { roundHalfEven } from '#core/measurement';
import type { Judgement } from '#core/titration/judging';
import type { Flask, Reading, RunState } from '#core/titration/run';
import { forecastFlask } from '#core/titration/figures';
import { buretteChecks, plannedTitrations, planRun } from '#core/titration/guidance';
import { judgeRun } from '#core/titration/judging';
import { isBlank, portionText } from '#core/titration/run';
import { arrangementOf, describeInstruments, describeStandard } from '#core/titration/setUp';
import { Loading } from '../app/Loading';
import { usePersonName } from '../app/records';
import { useSession } from '../app/session';
import { Corrections } from '../judge/Corrections';
import { Button, ButtonLink } from '../ui/Button';
import { Page } from '../ui/Page';
import { capitalized, instantText, ReactionEquation } from '../ui/typeset';
import { gradeName } from './Grade';
import { useRun } from './useRun';
import { VERDICTS } from './wording';

/** The run on paper: with forecasts and room to write before it, with every entry and correction after it. */
export function SheetPage() {
  const { runId = '' } = useParams();
  const loaded = useRun(runId);
  return loaded ? <Sheet run={loaded.run} /> : <Loading />;
}

function Sheet({ run }: { readonly run: RunState }) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const { bottle, method, burette } = run.references;
  const arrangement = arrangementOf(run.references);
  const judgement = judgeRun(run);
  const titrant = findSubstance(bottle.substanceId);
  const { rules } = run.setUp;
  const units = paperUnitsOf(rules);
  return (
    <Page
      title={`Run sheet: bottle ${bottle.code}`}
      tabTitle={`Run sheet, bottle ${bottle.code}`}
      lead={`${capitalized(titrant?.name ?? '')} ${bottle.nominalMolarity ?? ''} ${units.molarity} against ${findSubstance(method.standardId)?.name ?? ''}`}
      actions={
        <span className="flex gap-3 print:hidden">
          <ButtonLink to={`/runs/${run.id}`}>To the bench</ButtonLink>
          <Button
            look="primary"
            onClick={() => {
              window.print();
            }}
          >
            Print, or save as PDF
          </Button>
        </span>
      }
    >
      <dl className="grid grid-cols-1 gap-x-10 text-[15px] md:grid-cols-2 print:grid-cols-2 print:text-[11px]">
        <Fact name="Method">
          {method.name}
          {run.setUp.method.kind === 'own' && `, version ${String(run.setUp.method.version)}`}
        </Fact>
        <Fact name="Standard">
          {arrangement.soughtIn === 'flask' && 'in the burette, '}
          {describeStandard(run.references)}
        </Fact>
        <Fact name="Reaction">
          {method.equations.map((equation) => (
            <span key={equation} className="block">
              <ReactionEquation of={equation} />
            </span>
          ))}
        </Fact>
        <Fact name="With">
          {describeInstruments(arrangement)}, {burette.name}, {run.setUp.temperatureC} °C
        </Fact>
        <Fact name="End point">
          {describeEndPoint(method, rules)}; {method.colours.endPoint.word} (overshot:{' '}
          {method.colours.overshot.word}), for {rules.persistenceS} s
        </Fact>
        <Fact name="Medium">{method.medium}</Fact>
        <Fact name="Rule">
          {rules.agreeAtLeast} within {judgement.limit}
          {rules.firstIsRough && '; the first is rough'}
        </Fact>
        <Fact name="Begun">
          {nameOf(run.started.by)}, {instantText(run.started.at, laboratory.timeZone)}
        </Fact>
      </dl>
      <FlaskTable run={run} judgement={judgement} />
      {judgement.result && (
        <p className="mt-3 text-lg">
          <b>
            <span className="font-mono">{judgement.result.rounded.value}</span> {units.molarity}
          </b>
          , <i>U</i> = {judgement.result.rounded.uncertainty} {units.molarity} (<i>k</i> ={' '}
          {roundHalfEven(judgement.result.evaluation.coverageFactor, 2)}), from{' '}
          {judgement.averaged?.n} {judgement.averaged?.n === 1 ? 'titration' : 'titrations'}
          {run.certificate
            ? `; certificate ${run.certificate.number}, valid until ${run.certificate.validUntil}`
            : '; not certified'}
        </p>
      )}
      {run.status === 'abandoned' && (
        <p className="mt-3 font-semibold">Abandoned: {run.closed?.reason}</p>
      )}
      <Corrections run={run} />
      <HouseRulesFollowed run={run} />
      {run.flasks.every(({ final }) => !final) && <Checklist run={run} />}
      <ul className="mt-4 list-disc pl-5 text-sm text-ink-soft">
        {method.cautions.map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
        <li>Local rules, the safety data sheet and the responsible person decide.</li>
      </ul>
      <div className="mt-8 hidden grid-cols-2 gap-10 print:grid">
        <p className="border-t border-ink pt-1">Analyst, date</p>
        <p className="border-t border-ink pt-1">Second person, date</p>
      </div>
    </Page>
  );
}

function Fact({ name, children }: { readonly name: string; readonly children: ReactNode }) {
  return (
    <div className="flex gap-3 border-b border-rule py-1">
      <dt className="w-[92px] shrink-0 text-ink-soft">{name}</dt>
      <dd>{children}</dd>
    </div>
  );
}

/** Rows to write into, for flasks that are planned and not there yet. */
function plannedRows(run: RunState): readonly number[] {
  if (run.status !== 'open') return [];
  const live = run.flasks.filter((flask) => !flask.voided && !isBlank(flask)).length;
  const last = run.flasks.at(-1)?.number ?? 0;
  return Array.from(
    { length: Math.max(0, plannedTitrations(run.setUp.rules) - live) },
    (_, i) => last + 1 + i,
  );
}

function FlaskTable({ run, judgement }: { readonly run: RunState; readonly judgement: Judgement }) {
  const { references, setUp } = run;
  const plan = planRun(references, setUp.rules, judgement.accurate?.mean);
  const isWeighed = arrangementOf(references).portion.unit === 'g';
  const units = paperUnitsOf(setUp.rules);
  const about = `about ${roundHalfEven(plan.portion.suggested, isWeighed ? 2 : 1)} ${isWeighed ? 'g' : units.volume}`;
  return (
    <table className="mt-4 w-full border-collapse text-left text-[15px] max-md:text-[11px] print:text-[11px]">
      <caption className="sr-only">Flasks</caption>
      <thead>
        <tr className="border-b-2 border-ink">
          {[
            'Flask',
            'Portion',
            `Start / ${units.volume}`,
            `End / ${units.volume}`,
            `Titre / ${units.volume}`,
            `c / (${units.molarity})`,
            'Remarks',
          ].map((head) => (
            <th key={head} scope="col" className="py-1.5 pr-3">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {judgement.replicates.map(({ flask, titreMl, molarity, verdict, why }) => (
          <tr key={flask.number} className="border-b border-rule align-top">
            <th scope="row" className="py-2 pr-3">
              {flask.number}
            </th>
            <td className="py-2 pr-3 font-mono">
              {portionText(flask.portion.value, units.volume)}
            </td>
            <td className="py-2 pr-3 font-mono">
              <Readings of={[flask.initial, ...flask.refills.map(({ restart }) => restart)]} />
            </td>
            <td className="py-2 pr-3 font-mono">
              <Readings of={[...flask.refills.map(({ stop }) => stop), flask.final]} />
            </td>
            <td className="py-2 pr-3 font-mono">
              {titreMl ?? (
                <span className="text-ink-soft">
                  ≈ {roundHalfEven(forecastFlask(run, flask, null).titreMl, 2)}
                </span>
              )}
            </td>
            <td className="py-2 pr-3 font-mono">
              {molarity === null ? '' : roundHalfEven(molarity, 5)}
            </td>
            <td className="py-2 pr-3">
              {[
                verdict === 'open' ? null : VERDICTS[verdict].word,
                why,
                ...remarksOf(flask, units.volume),
              ]
                .filter((text) => text !== null && text !== '')
                .join('; ')}
            </td>
          </tr>
        ))}
        {plannedRows(run).map((number) => (
          <tr key={number} className="h-11 border-b border-rule">
            <th scope="row" className="pr-3">
              {number}
            </th>
            <td className="pr-3 text-ink-soft">{about}</td>
            <td />
            <td />
            <td className="pr-3 font-mono text-ink-soft">
              ≈ {roundHalfEven(plan.titreMl.suggested, 1)}
            </td>
            <td />
            <td />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The readings of a column, those that a second person confirmed marked. */
function Readings({ of }: { readonly of: readonly (Reading | null)[] }) {
  return of.map(
    (reading) =>
      reading && (
        <span key={reading.factId} className="block">
          {reading.value}
          {reading.confirmed.length > 0 && ' ✓'}
        </span>
      ),
  );
}

function remarksOf(
  { grade, incidents, temperatures, provisional }: Flask,
  volumeUnit: string,
): readonly string[] {
  return [
    ...(grade ? [gradeName(grade.grade)] : []),
    ...provisional.map(({ value }) => `${value} ${volumeUnit} before the end`),
    ...temperatures.map(({ temperatureC }) => `${temperatureC} °C`),
    ...incidents.map(({ incidentId, remark }) =>
      [findIncident(incidentId)?.name ?? incidentId, remark]
        .filter((text) => text !== '')
        .join(': '),
    ),
  ];
}

/** Conventions that a reader of the sheet may want to know and that no figure tells. */
const TOLD: readonly (keyof HouseRules)[] = [
  'rinses',
  'carbonDioxide',
  'washDown',
  'overshotCounts',
  'cleaning',
  'waste',
];

/** The house rules that the run followed, as far as no figure tells them. */
function HouseRulesFollowed({ run }: { readonly run: RunState }) {
  const texts = HOUSE_RULES.filter(({ key }) => TOLD.includes(key));
  return (
    <section className="mt-4 text-sm print:text-[10px]">
      <h2 className="font-bold">By the house rules</h2>
      <p className="text-ink-soft">
        {texts.map((rule) => `${rule.question}: ${ruleWords(rule, run.setUp.rules)}.`).join(' ')}
      </p>
    </section>
  );
}

/** What is looked at before the first reading, to be ticked by hand. */
function Checklist({ run }: { readonly run: RunState }) {
  return (
    <ul className="mt-4 grid grid-cols-1 gap-x-10 text-[15px] md:grid-cols-2 print:grid-cols-2 print:text-[11px]">
      {buretteChecks(run.references.method, run.setUp.rules).map(({ id, text }) => (
        <li key={id} className="flex gap-2 py-0.5">
          <span
            aria-hidden="true"
            className="mt-1 inline-block size-4 shrink-0 border border-ink"
          />
          {text}
        </li>
      ))}
    </ul>
  );
}
