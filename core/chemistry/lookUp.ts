import type { HouseRules } from '../laboratory';
import { Unanswerable } from '../problem';
import { CATALOGUE } from './catalogue';
import type {
  Analysis,
  Catalogue,
  Drying,
  Indicator,
  Keeping,
  Method,
  Own,
  Part,
  Preparation,
  Procedure,
  Reacting,
  Solvent,
  StatedAs,
  Substance,
} from './catalogue/entries';
import type { HazardBand } from './catalogue/hazards';
import { keeping } from './catalogue/solutions';
import type { MoleRatio } from './equation';
import { balance, chainMoleRatio, parseEquation } from './equation';

/** The entry that ships, else the one that is among a laboratory's own. */
function found<Entry>(
  entriesOf: (catalogue: Catalogue) => readonly Entry[],
  isMeant: (entry: Entry) => boolean,
  own: Own,
): Entry | undefined {
  return entriesOf(CATALOGUE).find(isMeant) ?? entriesOf(catalogueOf(own)).find(isMeant);
}

/** The substance of that id, if it ships or is among a laboratory's own. */
export function findSubstance(id: string, own: Own = []): Substance | undefined {
  return found(
    ({ substances }) => substances,
    (substance) => substance.id === id,
    own,
  );
}

/** The method of that id, if the catalogue has it. */
export function findMethod(id: string): Method | undefined {
  return CATALOGUE.methods.find((method) => method.id === id);
}

/** The solvent of that id, if the catalogue has it. */
export function findSolvent(id: string): Solvent | undefined {
  return CATALOGUE.solvents.find((solvent) => solvent.id === id);
}

/** The solvent that an entry of the catalogue names. @throws RangeError where there is none of that id */
export function solventOf(id: string): Solvent {
  const solvent = findSolvent(id);
  if (!solvent) throw new RangeError(`solvent ${id} is not in the catalogue`);
  return solvent;
}

/** The methods that ship for a titrant. */
export function methodsFor(titrantId: string): readonly Method[] {
  return CATALOGUE.methods.filter(({ titrantIds }) => titrantIds.includes(titrantId));
}

/** Whether a reaction makes its own catalyst, so that its first drops are slow: permanganate with oxalate. */
export function isAutocatalytic(method: Method | Analysis): boolean {
  return method.titrant.species === 'MnO4^-' && partnerSpecies(method) === 'C2O4^2-';
}

/** The species that reacts with the titrant: of a standard, or of what a sample holds. */
export function partnerSpecies(method: Method | Analysis): string {
  return 'analyte' in method ? method.analyte : method.standard.species;
}

/** What names a substance, and carries it where it is the laboratory's own. */
interface NamingSubstance {
  readonly substanceId: string;
  readonly own?: Own | undefined;
}

/** Short name of the substance that something names; its id where there is no such substance. */
export function shortNameOf({ substanceId, own }: NamingSubstance): string {
  return findSubstance(substanceId, own)?.shortName ?? substanceId;
}

/** What a substance is easily taken for: what it names itself, and the laboratory's own that name it. */
export function lookalikesOf(substance: Substance, own: Own = []): readonly Substance[] {
  return [
    ...substance.mistakenFor.flatMap((id) => findSubstance(id, own) ?? []),
    ...catalogueOf(own).substances.filter(({ mistakenFor }) => mistakenFor.includes(substance.id)),
  ];
}

/** The indicator of that id, if it ships or is among a laboratory's own. */
export function findIndicator(id: string, own: Own = []): Indicator | undefined {
  return found(
    ({ indicators }) => indicators,
    (indicator) => indicator.id === id,
    own,
  );
}

/** The recipes of an edition, those of the laboratory's own before those that ship. */
export function recipesOf(edition: number, own: Own = []): readonly Preparation[] {
  return [
    ...catalogueOf(own).preparations,
    ...CATALOGUE.preparations.filter(({ sinceEdition }) => sinceEdition <= edition),
  ];
}

/** What may be in a bottle: a substance in solution, or an indicator. */
export interface Content {
  readonly name: string;
  readonly shortName: string;
  /** Null for an indicator. */
  readonly formula: string | null;
  readonly hazards: readonly HazardBand[];
  readonly cautions: readonly string[];
}

/** The substance or indicator of that id, as a bottle's label needs it. */
export function findContent(id: string, own: Own = []): Content | undefined {
  const substance = findSubstance(id, own);
  if (substance) return substance;
  const indicator = findIndicator(id, own);
  return indicator && { ...indicator, shortName: indicator.name, formula: null, cautions: [] };
}

/** Keeping data of a solution of a substance; null when the catalogue has none. */
export function keepingOf(substanceId: string, own: Own = []): Keeping | null {
  const indicator = findIndicator(substanceId, own);
  if (indicator) {
    const { keepsFor: interval } = indicator;
    return keeping({
      ...{ substanceId, interval, source: indicator.source },
      ...{ container: 'brown-glass', remark: 'a dropping bottle' },
    });
  }
  return (
    found(
      ({ keeping: all }) => all,
      (one) => one.substanceId === substanceId,
      own,
    ) ?? null
  );
}

interface Reactions {
  readonly equations: readonly string[];
  readonly links: readonly string[];
}

/**
 * Moles of two substances that belong together: `first` is consumed in the first reaction, `last` in the last. What the
 * equations say of species, the numbers of species in a formula unit carry over to substances.
 *
 * @throws Unanswerable when an equation cannot be read or balanced, or a species does not take part.
 */
function moleRatioOfReactions(
  { equations, links }: Reactions,
  first: Reacting,
  last: Reacting,
): MoleRatio {
  const steps = equations.map((equation) => balance(parseEquation(equation)));
  const species = chainMoleRatio(steps, links, first.species, last.species);
  return {
    analyte: species.analyte * last.perFormulaUnit,
    titrant: species.titrant * first.perFormulaUnit,
  };
}

/** Moles of titrant per mole of what it is compared with. */
interface RatiosOfMethod {
  readonly standard: number;
  /** Null without an excess. */
  readonly excess: number | null;
}

/** Balancing is exact and not quick; the bench asks for the ratio at every key. */
const KNOWN_RATIOS = new WeakMap<Method, RatiosOfMethod>();

function ratiosOfMethod(method: Method): RatiosOfMethod {
  const known = KNOWN_RATIOS.get(method);
  if (known !== undefined) return known;
  const { titrant, standard } = titrantToStandard(method);
  const ratios = {
    standard: titrant / standard,
    excess: method.excess && titrantPerExcess(method, method.excess),
  };
  KNOWN_RATIOS.set(method, ratios);
  return ratios;
}

/** Moles of titrant and standard that belong together. What is in the flask comes first in the reactions of a back-titration. */
function titrantToStandard({
  titrant,
  standard,
  excess,
  ...reactions
}: Pick<Method, 'titrant' | 'standard' | 'excess' | 'equations' | 'links'>): {
  readonly titrant: number;
  readonly standard: number;
} {
  const [first, last] = excess ? [titrant, standard] : [standard, titrant];
  const ratio = moleRatioOfReactions(reactions, first, last);
  return excess
    ? { titrant: ratio.analyte, standard: ratio.titrant }
    : { titrant: ratio.titrant, standard: ratio.analyte };
}

function titrantPerExcess(method: Method, excess: NonNullable<Method['excess']>): number {
  const ratio = moleRatioOfReactions(upToExcess(method, excess), method.titrant, excess.reagent);
  return ratio.analyte / ratio.titrant;
}

/** The reactions by which the excess is consumed before the rest is titrated. */
function upToExcess(
  { equations, links }: Reactions,
  { reagent }: NonNullable<Procedure['excess']>,
): Reactions {
  const at = links.indexOf(reagent.species);
  if (at < 0) {
    const message = `${reagent.species}, of which there is an excess, links no two of the reactions.`;
    throw new Unanswerable('empty', 'excess', message);
  }
  return { equations: equations.slice(0, at + 1), links: links.slice(0, at) };
}

/** nu of a method: moles of titrant per mole of standard, from the balanced equation. */
export function moleRatioOfMethod(method: Method): number {
  return ratiosOfMethod(method).standard;
}

/** Moles of titrant that a mole of the excess reagent takes; null for a method without one. */
export function excessRatioOfMethod(method: Method): number | null {
  return ratiosOfMethod(method).excess;
}

/**
 * Equivalents in a mole of the titrant, for the reaction of a method: equal equivalents react, counted on the species that
 * do, times how many of them a formula unit gives.
 */
export function equivalentsOfTitrant(method: Method): number {
  const { titrant, standard } = method;
  const single = ({ species }: Reacting): Reacting => ({ species, perFormulaUnit: 1 });
  const species = { ...method, titrant: single(titrant), standard: single(standard) };
  return titrantToStandard(species).standard * titrant.perFormulaUnit;
}

/** What shows the end point, in words for a plan or certificate: `phenolphthalein, 2 drops`; of two ends both. */
export function describeEndPoint(
  method: Procedure & Pick<Analysis, 'twoEnds'>,
  rules: Pick<HouseRules, 'indicatorDrops'>,
): string {
  const last = describeIndicator(method, rules);
  if (!method.twoEnds) return last;
  const { indicatorId, indicatorDrops } = method.twoEnds.first;
  const first = describeIndicator({ indicatorId, indicatorDrops, own: method.own ?? [] }, rules);
  return `${first}, then ${last}`;
}

/** What shows one end point, and how much of it. */
export function describeIndicator(
  method: Pick<Procedure, 'indicatorId' | 'indicatorDrops' | 'own'>,
  { indicatorDrops }: Pick<HouseRules, 'indicatorDrops'>,
): string {
  if (method.indicatorId === null) return 'no indicator: the titrant shows the end point';
  const indicator = findIndicator(method.indicatorId, method.own);
  const drops = method.indicatorDrops ?? indicatorDrops;
  const dose = indicator?.dose ?? (drops === 1 ? 'a drop' : `${String(drops)} drops`);
  return `${indicator?.name ?? method.indicatorId}, ${dose}`;
}

/** How a solid is dried, in words. */
export function describeDrying(drying: Drying): string {
  if (drying.kind !== 'oven') return drying.remark;
  const [low, high] = drying.temperatureC;
  const range = low === high ? String(low) : `${String(low)} to ${String(high)}`;
  const time = drying.hours === null ? '' : ` for ${String(drying.hours)} h`;
  const remark = drying.remark === '' ? '' : `; ${drying.remark}`;
  return `${range} °C${time}, cooled in a desiccator${remark}`;
}

/** A catalogue without entries, to add some to. */
export const NO_ENTRIES: Catalogue = {
  substances: [],
  concentrates: [],
  solvents: [],
  indicators: [],
  methods: [],
  analyses: [],
  preparations: [],
  keeping: [],
};

/** Entries of a laboratory's own as a catalogue. */
export function catalogueOf(own: Own): Catalogue {
  const entries = own.map(({ entry }) => entry);
  return {
    ...NO_ENTRIES,
    substances: entries.flatMap((one) => (one.kind === 'substance' ? [one.substance] : [])),
    indicators: entries.flatMap((one) => (one.kind === 'indicator' ? [one.indicator] : [])),
    analyses: entries.flatMap((one) => (one.kind === 'analysis' ? [one.analysis] : [])),
    preparations: entries.flatMap((one) => (one.kind === 'recipe' ? [one.recipe] : [])),
    keeping: entries.flatMap((one) =>
      one.kind === 'substance' && one.keeping ? [one.keeping] : [],
    ),
  };
}

/**
 * Adds a laboratory's own entries, which stand before those that ship where ids are the same.
 */
export function extendCatalogue(base: Catalogue, own: Catalogue): Catalogue {
  const merge = <Entry>(
    key: (entry: Entry) => string,
    shipped: readonly Entry[],
    added: readonly Entry[],
  ): Entry[] => {
    const replaced = new Set(added.map(key));
    return [...added, ...shipped.filter((entry) => !replaced.has(key(entry)))];
  };
  const id = (entry: { readonly id: string }): string => entry.id;
  return {
    substances: merge(id, base.substances, own.substances),
    concentrates: merge(id, base.concentrates, own.concentrates),
    solvents: merge(id, base.solvents, own.solvents),
    indicators: merge(id, base.indicators, own.indicators),
    methods: merge(id, base.methods, own.methods),
    analyses: merge(id, base.analyses, own.analyses),
    preparations: merge(id, base.preparations, own.preparations),
    keeping: merge((entry) => entry.substanceId, base.keeping, own.keeping),
  };
}

/** Moles of what an analysis finds that belong to a mole of what it is compared with. */
interface RatiosOfAnalysis {
  readonly perTitrant: number;
  /** Null without an excess. */
  readonly perExcess: number | null;
  /** Equivalents in a mole of it: equal equivalents react. */
  readonly equivalents: number;
}

const KNOWN_ANALYSES = new WeakMap<Analysis, RatiosOfAnalysis>();

/** Of the species that reacts, one of it in a formula unit. */
function ratiosOfSpecies(analysis: Analysis): RatiosOfAnalysis {
  const known = KNOWN_ANALYSES.get(analysis);
  if (known !== undefined) return known;
  const { excess, titrant } = analysis;
  const analyte: Reacting = { species: analysis.analyte, perFormulaUnit: 1 };
  const whole = moleRatioOfReactions(analysis, analyte, titrant);
  const part =
    excess && moleRatioOfReactions(upToExcess(analysis, excess), analyte, excess.reagent);
  const ratios = {
    perTitrant: whole.analyte / whole.titrant,
    perExcess: part && part.analyte / part.titrant,
    equivalents: whole.titrant / titrant.perFormulaUnit,
  };
  KNOWN_ANALYSES.set(analysis, ratios);
  return ratios;
}

/**
 * The mole ratios of an analysis for what its result is stated as; null where that is to be found out, so that it is counted in what
 * reacts.
 *
 * @throws Unanswerable when an equation cannot be read or balanced, or a species does not take part.
 */
export function ratiosOfAnalysis(analysis: Analysis, as: StatedAs | null): RatiosOfAnalysis {
  const { perTitrant, perExcess, equivalents } = ratiosOfSpecies(analysis);
  const inFormula = as?.perFormulaUnit ?? 1;
  return {
    perTitrant: perTitrant / inFormula,
    perExcess: perExcess && perExcess / inFormula,
    equivalents: equivalents * inFormula,
  };
}

/** The analysis of that id, if it ships or is among a laboratory's own. */
export function findAnalysis(id: string, own: Own = []): Analysis | undefined {
  return found(
    ({ analyses }) => analyses,
    (one) => one.id === id,
    own,
  );
}

/** Every part that an analysis may find, whatever the case; none where it has one end. */
export function partsOf({ twoEnds }: Pick<Analysis, 'twoEnds'>): readonly Part[] {
  return twoEnds ? [...twoEnds.always, ...twoEnds.cases.flat()] : [];
}

/** As what an analysis, or a part that it finds, states a content, by its formula; the usual one for null. Null where it is to be found out. */
export function statedAsOf(
  { statedAs }: Pick<Analysis, 'statedAs'>,
  formula: string | null,
): StatedAs | null {
  return statedAs.find((one) => one.formula === formula) ?? statedAs[0] ?? null;
}
