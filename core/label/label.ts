import { figureText } from '../measurement';
import { findAnalysis, findContent } from '../chemistry';
import type { PlainDate } from '../grammar';
import type { PaperUnits } from '../laboratory';
import type { BottleState } from '../reagent';
import { certificateInForce, knownMolarity, labelledMolarity, readyFrom } from '../reagent';
import type { SampleState } from '../sample';
import type { Hazards } from './classification';
import { hazardsOf, hazardsOfBottle } from './classification';
import { normalitiesOf } from './normality';

/** What a label says, line by line; the printer and the screen lay it out. */
export interface Label {
  readonly code: string;
  readonly name: string;
  readonly formula: string | null;
  /** `0.1021 ± 0.0002 mol/L (k = 2.00)`, `nominal 0.1 mol/L`; null for what has no molarity. */
  readonly molarity: string | null;
  /** Said in capitals: it may not be measured with. Null for what is known. */
  readonly warning: string | null;
  readonly lines: readonly string[];
  /** The last day that counts, and what it is the last day of. */
  readonly lastDay: { readonly says: 'use by' | 'keep to'; readonly on: PlainDate } | null;
  readonly hazards: Hazards;
}

/** What a label needs beside the bottle. */
export interface LabelContext {
  readonly maker: string;
  /** Of each parent, in words: `lot KP-2207`, `bottle 0409`. */
  readonly parents: readonly string[];
  readonly dateText: (date: PlainDate) => string;
  readonly units: PaperUnits;
}

/** What the code on a label says: where the bottle is looked up, and its own code for whoever has no network. */
export function bottleLink(
  baseUrl: string,
  { id, code }: Pick<BottleState, 'id' | 'code'>,
): string {
  return `${baseUrl}/bottles/${id}#${code}`;
}

/** A label has room for so many letters of a note. */
const NOTE_LETTERS = 80;

function shortened(note: string): string {
  return note.length <= NOTE_LETTERS ? note : `${note.slice(0, NOTE_LETTERS - 1)}…`;
}

/** What the house rule has said of equivalents, a line for each reaction that counts them otherwise. */
function normalityLines(bottle: BottleState, units: PaperUnits): readonly string[] {
  return normalitiesOf(bottle.substanceId, labelledMolarity(bottle), units).map(
    ({ text, perMole }) => `${text} (${String(perMole)} to the mole)`,
  );
}

/** The label of a bottle as it stands. */
export function labelOf(
  bottle: BottleState,
  { maker, parents, dateText, units }: LabelContext,
): Label {
  const content = findContent(bottle.substanceId, bottle.own);
  const known = knownMolarity(bottle);
  const { nominalMolarity, purpose, volumeMl, plausibleMolarity } = bottle;
  const from = parents.length > 0 ? ` from ${parents.join(', ')}` : '';
  const certificate = known?.certificateNumber;
  const clearFrom = readyFrom(bottle);
  const referenceC = certificateInForce(bottle)?.corrections?.referenceC;
  const at = referenceC === undefined ? '' : `, at ${figureText(referenceC)} °C`;
  return {
    code: bottle.code,
    name: content?.name ?? bottle.substanceId,
    formula: content?.formula ?? null,
    molarity: known
      ? `${figureText(known.molarity)} ± ${figureText(known.expandedUncertainty)} ${units.molarity} (k = ${figureText(known.coverageFactor)})`
      : nominalMolarity === null
        ? null
        : `nominal ${figureText(nominalMolarity)} ${units.molarity}`,
    warning: known ? null : purpose === 'auxiliary' ? 'auxiliary' : 'not standardized',
    lines: [
      ...normalityLines(bottle, units),
      ...(certificate ? [`certified ${dateText(known.since)}, no. ${certificate}${at}`] : []),
      ...(plausibleMolarity && !known
        ? [
            `between ${figureText(plausibleMolarity[0])} and ${figureText(plausibleMolarity[1])} ${units.molarity}`,
          ]
        : []),
      ...(bottle.dilutionFactor === null
        ? []
        : [`sample, diluted ${figureText(bottle.dilutionFactor)} times`]),
      `made ${dateText(bottle.preparedOn)} by ${maker}${from}, ${figureText(volumeMl)} ${units.volume}`,
      ...(clearFrom === null ? [] : [`clear from ${dateText(clearFrom)}`]),
      ...(bottle.note === '' ? [] : [shortened(bottle.note)]),
    ],
    lastDay: lastDay('use by', known ? known.until : bottle.useBy),
    hazards: hazardsOfBottle(bottle),
  };
}

function lastDay(
  says: NonNullable<Label['lastDay']>['says'],
  on: PlainDate | null,
): Label['lastDay'] {
  return on && { says, on };
}

/** What the code on the label of a sample says. */
export function sampleLink(baseUrl: string, { id, sample }: SampleState): string {
  return `${baseUrl}/samples/${id}#${sample.code}`;
}

/** The label of a sample as it was received. What is in it nobody knows yet, so that it bears no hazards. */
export function labelOfSample(
  { sample }: SampleState,
  { dateText }: Pick<LabelContext, 'dateText'>,
): Label {
  const { code, description, source, customer, store, condition, receivedOn, keepUntil } = sample;
  const analyses = sample.requests.map(
    ({ analysisId }) => findAnalysis(analysisId, sample.own)?.name ?? analysisId,
  );
  return {
    ...{ code, name: description, formula: null, molarity: null },
    warning: sample.isControl === true ? 'control' : 'sample',
    lines: [
      ...(source === '' ? [] : [source]),
      `received ${dateText(receivedOn)}${customer === '' ? '' : ` for ${customer}`}`,
      ...(condition === '' ? [] : [condition]),
      ...(store === '' ? [] : [`kept: ${store}`]),
      ...(analyses.length === 0 ? [] : [shortened(analyses.join('; '))]),
    ],
    lastDay: lastDay('keep to', keepUntil),
    hazards: hazardsOf([]),
  };
}
