import type { HazardCode, Pictogram } from '../chemistry';
import { findContent, HAZARD_STATEMENTS, hazardsAt, molarMass } from '../chemistry';
import type { PlainDate } from '../grammar';
import type { PaperUnits } from '../laboratory';
import type { BottleState, Lot } from '../reagent';
import { knownMolarity } from '../reagent';

/** Hazards as a label or a page shows them. */
export interface Hazards {
  readonly signal: 'Danger' | 'Warning' | null;
  readonly pictograms: readonly Pictogram[];
  readonly statements: readonly { readonly code: HazardCode; readonly text: string }[];
}

/** Signal word, pictograms and statements of hazard codes; the skull takes the place of the exclamation mark. */
export function hazardsOf(codes: readonly HazardCode[]): Hazards {
  const found = codes.map((code) => ({ code, ...HAZARD_STATEMENTS[code] }));
  const signals = new Set(found.map(({ signal }) => signal));
  const pictograms = new Set(found.flatMap(({ pictogram }) => pictogram ?? []));
  if (pictograms.has('skull')) pictograms.delete('exclamation');
  return {
    signal: signals.has('Danger') ? 'Danger' : signals.has('Warning') ? 'Warning' : null,
    pictograms: [...pictograms],
    statements: found.map(({ code, text }) => ({ code, text })),
  };
}

/**
 * Mass per cent of a substance in a dilute solution, taking its density as 1 g/mL: good enough to find the hazard band, whose
 * limits are whole per cents.
 */
function massPercent(formula: string, molarityMolPerL: number): number {
  return (molarityMolPerL * molarMass(formula).valueGPerMol) / 10;
}

/** Hazards of a solution at its own concentration, not of the pure substance; an indicator has those of its solution. */
export function hazardsOfSolution(contentId: string, molarityMolPerL: number | null): Hazards {
  const content = findContent(contentId);
  if (!content) return hazardsOf([]);
  const percent =
    content.formula === null || molarityMolPerL === null
      ? 100
      : Math.min(100, massPercent(content.formula, molarityMolPerL));
  return hazardsOf(hazardsAt(content.hazards, percent));
}

/** Hazards of a lot as received: the solid, or the concentrate at its strength. */
export function hazardsOfLot(lot: Lot): Hazards {
  const content = findContent(lot.substanceId);
  if (!content) return hazardsOf([]);
  return hazardsOf(hazardsAt(content.hazards, lot.dissolved ? 100 * Number(lot.purity) : 100));
}

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
  readonly useBy: PlainDate | null;
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

/** A label has room for so many letters of a note. */
const NOTE_LETTERS = 80;

function shortened(note: string): string {
  return note.length <= NOTE_LETTERS ? note : `${note.slice(0, NOTE_LETTERS - 1)}…`;
}

/** The label of a bottle as it stands. */
export function labelOf(
  bottle: BottleState,
  { maker, parents, dateText, units }: LabelContext,
): Label {
  const content = findContent(bottle.substanceId);
  const known = knownMolarity(bottle);
  const { nominalMolarity, purpose, volumeMl, plausibleMolarity } = bottle;
  const strength = known?.molarity ?? nominalMolarity;
  const from = parents.length > 0 ? ` from ${parents.join(', ')}` : '';
  const certificate = known?.certificateNumber;
  return {
    code: bottle.code,
    name: content?.name ?? bottle.substanceId,
    formula: content?.formula ?? null,
    molarity: known
      ? `${known.molarity} ± ${known.expandedUncertainty} ${units.molarity} (k = ${known.coverageFactor})`
      : nominalMolarity === null
        ? null
        : `nominal ${nominalMolarity} ${units.molarity}`,
    warning: known ? null : purpose === 'auxiliary' ? 'auxiliary' : 'not standardized',
    lines: [
      ...(certificate ? [`certified ${dateText(known.since)}, no. ${certificate}`] : []),
      ...(plausibleMolarity && !known
        ? [`between ${plausibleMolarity[0]} and ${plausibleMolarity[1]} ${units.molarity}`]
        : []),
      ...(bottle.dilutionFactor === null ? [] : [`sample, diluted ${bottle.dilutionFactor} times`]),
      `made ${dateText(bottle.preparedOn)} by ${maker}${from}, ${volumeMl} ${units.volume}`,
      ...(bottle.note === '' ? [] : [shortened(bottle.note)]),
    ],
    useBy: known ? known.until : bottle.useBy,
    hazards: hazardsOfSolution(bottle.substanceId, strength === null ? null : Number(strength)),
  };
}
