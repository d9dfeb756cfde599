import { ratiosOfAnalysis, RESULT_UNITS, statedAsOf } from '../../chemistry';
import type { Document, Row } from '../../document';
import { rowsOf, sectionOf } from '../../document';
import type { Id } from '../../grammar';
import { paperUnitsOf } from '../../laboratory';
import { decimalOf, figureText, roundSignificant } from '../../measurement';
import { controlText, requirementText } from '../../sample';
import { outcomeText } from '../../wording';
import type { JudgedSeries } from '../judging';
import {
  contentText,
  coverageText,
  foundIn,
  heldAs,
  judgedSeries,
  VERDICT_WORDS,
} from '../judging';
import type { AnalysisRun, Report } from '../run';
import { isBlank, portionText } from '../run';
import { pipetteVolumeMl, sampleOf, soughtOf, statedBy } from '../setUp';
import type { DocumentContext } from './context';
import { equipmentSection, solutionRows } from './restsOn';
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
      rowsOf(
        run.references.excess
          ? solutionRows('Added in excess', run.references.excess.bottle, context)
          : [],
      ),
    ]),
    equipmentSection(run, context),
    titrationsSection(run, judged),
    uncertaintySection(run, report, results),
    signaturesSection({ ...report, signedOnceById: report.issuedById }, context),
    recordSection(run, report, context),
  ];
  return {
    title: 'Report of analysis',
    number,
    headline: headlineOf(report, results),
    issuer: context.issuer,
    sections: parts.flatMap((part) => part ?? []),
    end: `End of report ${number}.`,
  };
}

/** The result of the only sample; of several, what was found of how many. */
function headlineOf({ analysis }: Report, results: Report['results']): string {
  const [only, ...others] = results;
  return only && others.length === 0
    ? `${only.code}: ${only.stated}`
    : `${analysis}: ${String(results.length)} samples`;
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
        return [
          state.sample.code,
          found ? contentText(series, found) : 'not found',
          String(averaged?.n ?? 0),
          (found && heldAs(series, found)?.text) ?? '–',
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
    const { requirement, unit } = statedBy(references.method, state);
    return requirement.kind === 'none'
      ? []
      : [{ code: state.sample.code, text: requirementText(requirement, unit) }];
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
      const taken = [sample.sampledBy, sample.sampledOn && dateText(sample.sampledOn)];
      const named = taken.filter((one) => one !== '' && one !== null);
      const steps = dilutions.map(
        ({ pipette, flask }) =>
          `${figureText(decimalOf(pipetteVolumeMl(pipette)))} mL to ${figureText(decimalOf(pipetteVolumeMl(flask)))} mL`,
      );
      const rows: readonly Row[] = [
        ['Sample', [sample.code, sample.description, sample.source].filter(Boolean).join(', ')],
        ['For', sample.customer],
        ['Taken', named.length > 0 ? named.join(', ') : 'not by this laboratory'],
        ['Received', dateText(sample.receivedOn)],
        ['Condition', sample.condition],
        [
          'Density',
          sample.density &&
            `${figureText(sample.density.value)} ± ${figureText(sample.density.plusMinus)} g/mL`,
        ],
        [
          'Mean mass of one',
          sample.unitMass &&
            `${figureText(sample.unitMass.value)} ± ${figureText(sample.unitMass.plusMinus)} g`,
        ],
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
  const choice = run.setUp.method;
  const as = statedAsOf(method, null);
  const { perTitrant } = ratiosOfAnalysis(method, as);
  return sectionOf('Method', [
    rowsOf([
      ['Analysis', method.name],
      [
        'Version',
        choice.kind === 'own'
          ? `${String(choice.version)} of the laboratory’s own`
          : `catalogue ${catalogueVersion}`,
      ],
      ['Source', method.source],
    ]),
    {
      kind: 'rows',
      rows: [
        {
          name: method.equations.length === 1 ? 'Reaction' : 'Reactions',
          value: { kind: 'reactions', equations: method.equations },
        },
      ],
    },
    rowsOf([
      [
        'Ratio',
        `${figureText(decimalOf(Number(roundSignificant(perTitrant, 4))))} mol of ${as?.name ?? 'the acid'} to 1 mol of titrant`,
      ],
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
    return judgement.replicates.flatMap(({ flask, titreMl, molarity, verdict, why }) => {
      if (verdict === 'open' || seen.has(flask.number)) return [];
      seen.add(flask.number);
      return [
        [
          isBlank(flask) ? 'blank' : code,
          String(flask.number),
          portionText(flask.portion.value, volume),
          titreMl === null ? '–' : `${figureText(titreMl)} ${volume}`,
          molarity === null
            ? '–'
            : `${figureText(roundSignificant(molarity, CONTENT_FIGURES))} ${unit}`,
          [VERDICT_WORDS[verdict], ...(why ? [outcomeText(why)] : [])].join(': '),
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

/** What the figures cover, u of the titration and of the method apart, and what the paper may be used for. */
function uncertaintySection(run: AnalysisRun, { results }: Report, of: Report['results']) {
  const parts = results
    .filter((one) => of.includes(one))
    .map(({ code, unit, unrounded: { titrationUncertainty, methodUncertainty } }) => {
      const inUnit = (u: number | null): string =>
        u === null
          ? '–'
          : `${figureText(roundSignificant(u, 2))} ${RESULT_UNITS[unit].unit.symbol}`;
      return [code, inUnit(titrationUncertainty), inUnit(methodUncertainty)];
    });
  return sectionOf('What it covers', [
    {
      kind: 'table',
      heads: ['Sample', 'u of the titration', 'u of the method'],
      rows: run.references.method.performance?.methodUncertaintyPercent ? parts : [],
    },
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
