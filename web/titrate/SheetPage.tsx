import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import { describeEndPoint, findSubstance } from '#core/chemistry';
import { findIncident } from '#core/incident';
import type { HouseRules } from '#core/laboratory';
import { HOUSE_RULES, paperUnitsOf, ruleWords } from '#core/laboratory';
import { figureText, roundHalfEven } from '#core/measurement';
import type { Judgement, Replicate } from '#core/titration/judging';
import type { Flask, Reading, RunState } from '#core/titration/run';
import { forecastFlask } from '#core/titration/figures';
import { plannedTitrations, planRun } from '#core/titration/guidance';
import { judgeRun } from '#core/titration/judging';
import { isBlank, portionText, sampleIdOf, seriesOf } from '#core/titration/run';
import {
  arrangementOf,
  buretteChecks,
  describeInstruments,
  describeStandard,
  describeTitrant,
  isAnalysis,
  standardSubstance,
} from '#core/titration/setUp';
import { outcomeText } from '#core/wording';
import { Loading } from '../app/Loading';
import { usePersonName } from '../app/records';
import { useSession } from '../app/session';
import { Corrections } from '../judge/Corrections';
import { ButtonLink, PrintButton } from '../ui/Button';
import { Page } from '../ui/Page';
import { capitalized, instantText, ReactionEquations } from '../ui/typeset';
import { nameOfSeries } from './BenchHeader';
import { foundHead, foundText, foundUnit } from './found';
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
  const { method } = run.references;
  const series = seriesOf(run);
  const names = series.map(nameOfSeries).join(', ');
  return (
    <Page
      title={`Run sheet: ${names}`}
      tabTitle={`Run sheet, ${names}`}
      lead={leadOf(run)}
      actions={
        <span className="flex gap-3 print:hidden">
          <ButtonLink to={`/runs/${run.id}`}>To the bench</ButtonLink>
          <PrintButton look="primary">Print, or save as PDF</PrintButton>
        </span>
      }
    >
      {series.map((one, i) => (
        <SeriesOnPaper key={sampleIdOf(one) ?? 'bottle'} series={one} isFirst={i === 0} />
      ))}
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

/** What stands on paper of one series; what all share stands above the first. */
function SeriesOnPaper({
  series,
  isFirst,
}: {
  readonly series: RunState;
  readonly isFirst: boolean;
}) {
  const judgement = judgeRun(series);
  return (
    <>
      {isFirst && <Particulars run={series} judgement={judgement} />}
      {isAnalysis(series.references) && <h2 className="mt-4 font-bold">{nameOfSeries(series)}</h2>}
      <FlaskTable run={series} judgement={judgement} />
      <Outcome run={series} judgement={judgement} />
    </>
  );
}

/** What is titrated with what, below the heading. */
function leadOf({ references, setUp }: RunState): string {
  if (isAnalysis(references))
    return `${capitalized(references.method.name)}, ${describeTitrant(references)}`;
  const { bottle, standard } = references;
  const titrant = findSubstance(bottle.substanceId, bottle.own);
  const unit = paperUnitsOf(setUp.rules).molarity;
  return `${capitalized(titrant?.name ?? '')} ${figureText(bottle.nominalMolarity ?? '')} ${unit} against ${standardSubstance(standard)?.name ?? ''}`;
}

interface JudgedProps {
  readonly run: RunState;
  readonly judgement: Judgement;
}

/** With what, how and by which rule. */
function Particulars({ run, judgement }: JudgedProps) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const { references, setUp } = run;
  const { method, burette } = references;
  const { rules } = setUp;
  const arrangement = arrangementOf(references);
  return (
    <dl className="grid grid-cols-1 gap-x-10 text-[15px] md:grid-cols-2 print:grid-cols-2 print:text-[11px]">
      <Fact name="Method">
        {method.name}
        {setUp.method.kind === 'own' && `, version ${String(setUp.method.version)}`}
      </Fact>
      {isAnalysis(references) ? (
        <Fact name="Titrant">{describeTitrant(references)}</Fact>
      ) : (
        <Fact name="Standard">
          {arrangement.soughtIn === 'flask' && 'in the burette, '}
          {describeStandard(references)}
        </Fact>
      )}
      <Fact name="Reaction">
        <ReactionEquations of={method.equations} />
      </Fact>
      <Fact name="With">
        {describeInstruments(arrangement)}, {burette.name}, {figureText(setUp.temperatureC)} °C
      </Fact>
      <Fact name="End point">
        {describeEndPoint(method, rules)}; {method.colours.endPoint.word} (overshot:{' '}
        {method.colours.overshot.word}), for {rules.persistenceS} s
      </Fact>
      <Fact name="Medium">{method.medium}</Fact>
      <Fact name="Rule">
        {rules.agreeAtLeast} within {figureText(judgement.limit)}
        {rules.firstIsRough && '; the first is rough'}
      </Fact>
      <Fact name="Begun">
        {nameOf(run.started.by)}, {instantText(run.started.at, laboratory.timeZone)}
      </Fact>
    </dl>
  );
}

/** What the run came to so far, or why it was given up. */
function Outcome({ run, judgement }: JudgedProps) {
  const { setUp, certificate, status, closed } = run;
  const { result, averaged } = judgement;
  const unit = isAnalysis(run.references) ? foundUnit(run) : paperUnitsOf(setUp.rules).molarity;
  return (
    <>
      {result && (
        <p className="mt-3 text-lg">
          <b>
            <span className="font-mono">{figureText(result.rounded.value)}</span> {unit}
          </b>
          , <i>U</i> = {figureText(result.rounded.uncertainty)} {unit} (<i>k</i> ={' '}
          {figureText(roundHalfEven(result.evaluation.coverageFactor, 2))}), from {averaged?.n}{' '}
          {averaged?.n === 1 ? 'titration' : 'titrations'}
          {certificate
            ? `; certificate ${certificate.number}, valid until ${certificate.validUntil}`
            : '; not certified'}
        </p>
      )}
      {status === 'abandoned' && <p className="mt-3 font-semibold">Abandoned: {closed?.reason}</p>}
    </>
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

function FlaskTable({ run, judgement }: JudgedProps) {
  const units = paperUnitsOf(run.setUp.rules);
  return (
    <div data-cut="scrolls sideways" className="overflow-x-auto print:overflow-visible">
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
              isAnalysis(run.references) ? foundHead(run) : `c / (${units.molarity})`,
              'Remarks',
            ].map((head) => (
              <th key={head} scope="col" className="py-1.5 pr-3">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {judgement.replicates.map((replicate) => (
            <FlaskRow key={replicate.flask.number} run={run} replicate={replicate} />
          ))}
          <PlannedRows run={run} judgement={judgement} />
        </tbody>
      </table>
    </div>
  );
}

function FlaskRow({
  run,
  replicate: { flask, titreMl, molarity, verdict, why },
}: {
  readonly run: RunState;
  readonly replicate: Replicate;
}) {
  const { volume } = paperUnitsOf(run.setUp.rules);
  const word = verdict === 'open' ? null : VERDICTS[verdict].word;
  const remarks = [word, why && outcomeText(why), ...remarksOf(flask, volume)];
  return (
    <tr className="border-b border-rule align-top">
      <th scope="row" className="py-2 pr-3">
        {flask.number}
      </th>
      <td className="py-2 pr-3 font-mono">{portionText(flask.portion.value, volume)}</td>
      <td className="py-2 pr-3 font-mono">
        <Readings of={[flask.initial, ...flask.refills.map(({ restart }) => restart)]} />
      </td>
      <td className="py-2 pr-3 font-mono">
        <Readings of={[...flask.refills.map(({ stop }) => stop), flask.final]} />
      </td>
      <td className="py-2 pr-3 font-mono">
        {titreMl === null ? (
          <span className="text-ink-soft">
            ≈ {figureText(roundHalfEven(forecastFlask(run, flask, null).titreMl, 2))}
          </span>
        ) : (
          figureText(titreMl)
        )}
      </td>
      <td className="py-2 pr-3 font-mono">{molarity === null ? '' : foundText(run, molarity)}</td>
      <td className="py-2 pr-3">
        {remarks.filter((text) => text !== null && text !== '').join('; ')}
      </td>
    </tr>
  );
}

/** Rows to write into, with what is to be expected there. */
function PlannedRows({ run, judgement }: JudgedProps) {
  const { references, setUp } = run;
  const plan = planRun(references, setUp.rules, judgement.accurate?.mean);
  const isWeighed = arrangementOf(references).portion.unit === 'g';
  const unit = isWeighed ? 'g' : paperUnitsOf(setUp.rules).volume;
  return plannedRows(run).map((number) => (
    <tr key={number} className="h-11 border-b border-rule">
      <th scope="row" className="pr-3">
        {number}
      </th>
      <td className="pr-3 text-ink-soft">
        about {figureText(roundHalfEven(plan.portion.suggested, isWeighed ? 2 : 1))} {unit}
      </td>
      <td />
      <td />
      <td className="pr-3 font-mono text-ink-soft">
        ≈ {figureText(roundHalfEven(plan.titreMl.suggested, 1))}
      </td>
      <td />
      <td />
    </tr>
  ));
}

/** The readings of a column, those that a second person confirmed marked. */
function Readings({ of }: { readonly of: readonly (Reading | null)[] }) {
  return of.map(
    (reading) =>
      reading && (
        <span key={reading.factId} className="block">
          {figureText(reading.value)}
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
    ...provisional.map(({ value }) => `${figureText(value)} ${volumeUnit} before the end`),
    ...temperatures.map(({ temperatureC }) => `${figureText(temperatureC)} °C`),
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
      {buretteChecks(run.references, run.setUp.rules).map(({ id, text }) => (
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
