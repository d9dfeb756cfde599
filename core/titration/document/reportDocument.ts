import { ratiosOfAnalysis, RESULT_UNITS, statedAsOf } from '../../chemistry';
import type { Document, Row } from '../../document';
import { rowsOf, sectionOf } from '../../document';
import type { Id } from '../../grammar';
import { paperUnitsOf } from '../../laboratory';
import { decimalOf, figureText, roundSignificant } from '../../measurement';
import { controlText, requestFor, requirementText, statedWithin, takenText } from '../../sample';
import type { JudgedSeries, Replicate } from '../judging';
import {
  answerText,
  coverageText,
  foundIn,
  heldOf,
  judgedSeries,
  partsFound,
  statedText,
} from '../judging';
import type { AnalysisRun, Report } from '../run';
import { isBlank, portionText, titreToFirstEndMl } from '../run';
import { partAsked, pipetteVolumeMl, sampleOf, soughtOf, statedBy } from '../setUp';
import type { DocumentContext } from './context';
import { equipmentSection, excessRows, methodBlocks, ratioText, solutionRows } from './restsOn';
import { verdictText } from './series';
import { recordSection, signaturesSection } from './signed';

/** Figures of single titrations: one more than most results need. */
const CONTENT_FIGURES = 4;

/**
 * The report of a run of samples in words, each line only where it was computed or recorded.
 *
 * @param of the sample that it is of, and its place among those of the report; null for the whole batch
 */
export function reportDocument(
  run: AnalysisRun,
  report: Report,
  of: { readonly sampleId: Id; readonly place: number } | null,
  context: DocumentContext,
): Document {
  const judged = judgedSeries(run).filter(
    ({ series }) => of === null || sampleOf(series.references).state.id === of.sampleId,
  );
  const number = of ? `${report.number}/${String(of.place)}` : report.number;
  const results = report.results.filter(({ sampleId }) => of === null || sampleId === of.sampleId);
  const parts = [
    resultsSection(judged, report, context),
    samplesSection(judged, context),
    methodSection(run, report, context),
    sectionOf('Titrant', [
      rowsOf(solutionRows('Titrant', run.references.titrant, context)),
      excessRows(run.references.excess, context),
    ]),
    equipmentSection(run, context),
    titrationsSection(run, judged),
    uncertaintySection(run, results),
    signaturesSection({ ...report, signedOnceById: report.issuedById }, context),
    recordSection(run, report, context),
  ];
  return {
    title: 'Report of analysis',
    number,
    headline: headlineOf(report, judged),
    issuer: context.issuer,
    sections: parts.flatMap((part) => part ?? []),
    end: `End of report ${number}.`,
  };
}

/** What was asked of the only sample; of several, what was found of how many. */
function headlineOf({ analysis }: Report, judged: readonly JudgedSeries[]): string {
  const found = judged.filter(({ judgement }) => judgement.result);
  const [only, ...others] = found;
  if (!only?.judgement.result || others.length > 0) {
    return `${analysis}: ${String(found.length)} samples`;
  }
  const { series, judgement } = only;
  const answer = answerText(
    series,
    foundIn(series, only.judgement.result),
    partsFound(series, judgement),
  );
  return `${sampleOf(series.references).state.sample.code}: ${answer}`;
}

function resultsSection(
  judged: readonly JudgedSeries[],
  report: Report,
  { dateText }: DocumentContext,
) {
  return sectionOf('Results', [
    {
      kind: 'table',
      heads: ['Sample', 'Content', 'n', 'Verdict'],
      rows: judged.map(({ series, judgement }) => {
        const { state } = sampleOf(series.references);
        const { result, averaged } = judgement;
        const found = result && foundIn(series, result);
        const parts = partsFound(series, judgement);
        return [
          state.sample.code,
          found ? statedText({ series, judgement }, found, parts) : 'not found',
          String(averaged?.n ?? 0),
          (found && heldOf(series, found, parts)?.text) ?? '–',
        ];
      }),
    },
    { kind: 'sentences', sentences: report.controls.map((one) => `${controlText(one)}.`) },
    rowsOf([
      ['Held against', agreedText(judged)],
      ['Amends', report.amends && `report ${report.amends}, which was withdrawn`],
      ['Issued', dateText(report.issuedOn)],
    ]),
  ]);
}

/** What was agreed for each sample; once where it is the same for all. */
function agreedText(judged: readonly JudgedSeries[]): string | null {
  const agreed = judged.flatMap(({ series: { references } }) => {
    const { state } = sampleOf(references);
    const { unit } = statedBy(references.method, state);
    const asked = requestFor(state.sample, references.method.id);
    if (!asked || asked.requirement.kind === 'none') return [];
    const part = partAsked(references.method, state);
    const agreed = requirementText(asked.requirement, unit);
    return [{ code: state.sample.code, text: part ? `${part.name}: ${agreed}` : agreed }];
  });
  const texts = new Set(agreed.map(({ text }) => text));
  if (texts.size <= 1 && agreed.length === judged.length) return agreed[0]?.text ?? null;
  return agreed.map(({ code, text }) => `${code}: ${text}`).join('. ');
}

function samplesSection(judged: readonly JudgedSeries[], { dateText }: DocumentContext) {
  return sectionOf(
    judged.length === 1 ? 'Sample' : 'Samples',
    judged.map(({ series: { references } }) => {
      const { state, dilutions } = sampleOf(references);
      const { sample } = state;
      const steps = dilutions.map(
        ({ pipette, flask }) =>
          `${figureText(decimalOf(pipetteVolumeMl(pipette)))} mL to ${figureText(decimalOf(pipetteVolumeMl(flask)))} mL`,
      );
      const rows: readonly Row[] = [
        ['Sample', [sample.code, sample.description, sample.source].filter(Boolean).join(', ')],
        ['For', sample.customer],
        ['Taken', takenText(sample, dateText)],
        ['Received', dateText(sample.receivedOn)],
        ['Condition', sample.condition],
        ['Density', sample.density && statedWithin(sample.density, 'g/mL')],
        ['Dry matter', sample.dryMatter && statedWithin(sample.dryMatter, '%')],
        ['Mean mass of one', sample.unitMass && statedWithin(sample.unitMass, 'g')],
        ['Diluted', steps.length > 0 && `${steps.join(', then ')}; the result is of the original`],
      ];
      return rowsOf(rows);
    }),
  );
}

function methodSection(
  run: AnalysisRun,
  { endPoint, temperatureC, catalogueVersion }: Report,
  { instantText }: DocumentContext,
) {
  const { method } = run.references;
  const as = statedAsOf(method, null);
  const { perTitrant } = ratiosOfAnalysis(method, as);
  return sectionOf('Method', [
    ...methodBlocks('Analysis', run, catalogueVersion),
    rowsOf([
      ['Ratio', `${ratioText(perTitrant)} mol of ${as?.name ?? 'the acid'} to 1 mol of titrant`],
      ['Medium', method.medium],
      ['End point', endPoint],
      ['Temperature', `${figureText(temperatureC)} °C`],
      ['Titrated from', instantText(run.started.at)],
    ]),
  ]);
}

/** Every flask of every sample with what became of it; blanks once. */
function titrationsSection(run: AnalysisRun, judged: readonly JudgedSeries[]) {
  const { volume } = paperUnitsOf(run.setUp.rules);
  const seen = new Set<number>();
  const rows = judged.flatMap(({ series, judgement }) => {
    const { code } = sampleOf(series.references).state.sample;
    const unit = soughtOf(series.references).as.unit.symbol;
    return judgement.replicates.flatMap((one) => {
      const { flask, molarity } = one;
      if (one.verdict === 'open' || seen.has(flask.number)) return [];
      seen.add(flask.number);
      return [
        [
          isBlank(flask) ? 'blank' : code,
          String(flask.number),
          portionText(flask.portion.value, volume),
          titreText(one, volume),
          molarity === null
            ? '–'
            : `${figureText(roundSignificant(molarity, CONTENT_FIGURES))} ${unit}`,
          verdictText(one),
        ],
      ];
    });
  });
  return sectionOf('Titrations', [
    {
      kind: 'table',
      heads: ['Sample', 'Flask', 'Portion', 'Titre', 'Content', 'Verdict'],
      rows: rows.toSorted((a, b) => Number(a[1]) - Number(b[1])),
    },
  ]);
}

/** The titre of a flask, of two ends both: `36.00; 38.00 mL`. */
function titreText({ flask, titreMl }: Replicate, volume: string): string {
  if (titreMl === null) return '–';
  const ends = [titreToFirstEndMl(flask), titreMl].flatMap((one) => one ?? []);
  return `${ends.map((one) => figureText(one)).join('; ')} ${volume}`;
}

/** What the figures cover, u of the titration and of the method apart, and what the paper may be used for. */
function uncertaintySection(run: AnalysisRun, results: Report['results']) {
  const rows = results.flatMap(
    ({ code, unit, unrounded: { titrationUncertainty, methodUncertainty } }) => {
      if (methodUncertainty === null) return [];
      const inUnit = (u: number): string =>
        `${figureText(roundSignificant(u, 2))} ${RESULT_UNITS[unit].unit.symbol}`;
      return [[code, inUnit(titrationUncertainty), inUnit(methodUncertainty)]];
    },
  );
  return sectionOf('What it covers', [
    { kind: 'table', heads: ['Sample', 'u of the titration', 'u of the method'], rows },
    {
      kind: 'sentences',
      sentences: [
        coverageText(run),
        'The results relate to the items as received.',
        'This report is not to be reproduced except in full.',
      ],
    },
  ]);
}
