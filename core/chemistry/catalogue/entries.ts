import type { CalendarDuration } from '../../grammar';
import type { RuleOverrides } from '../../laboratory';
import type { RecordVersion } from '../../record';
import type { ResultUnit } from '../resultUnits';
import type { HazardBand } from './hazards';

/** How a solid is made ready to be weighed. Temperatures are not to be exceeded. */
export type Drying =
  | {
      readonly kind: 'oven';
      readonly temperatureC: readonly [low: number, high: number];
      readonly hours: number | null;
      readonly remark: string;
    }
  | { readonly kind: 'desiccator' | 'not-heated' | 'not-needed'; readonly remark: string };

/** Where a residue goes. */
type Waste =
  | 'acid-base'
  | 'manganese'
  | 'chromium'
  | 'mercury'
  | 'silver'
  | 'iodine'
  | 'metal'
  | 'organic'
  | 'harmless';

export interface Substance {
  readonly id: string;
  readonly name: string;
  /** Short name on labels and in tables. */
  readonly shortName: string;
  /** As received, hydrate water included. */
  readonly formula: string;
  /** What laboratories keep it for. */
  readonly role: 'primary-standard' | 'titrant-material' | 'reagent';
  /** Form in which a lot is received. */
  readonly form: string;
  /** Of the solid, for buoyancy; null for liquids, which are not weighed as standards. */
  readonly densityGPerCm3: number | null;
  readonly drying: Drying | null;
  /** The most that dissolves in water at about 20 °C, mol/L; null where no limit is kept. */
  readonly solubilityMolPerL: number | null;
  /** What a solution of it needs beside water, as a clause; null when water does. */
  readonly needs: string | null;
  /** What its solutions hold beside it, for their hazards. */
  readonly solution: SolutionOf;
  /** How its solutions look; null where they are as clear as water. */
  readonly solutionColour: SolutionColour | null;
  readonly hazards: readonly HazardBand[];
  readonly cautions: readonly string[];
  readonly waste: Waste;
  /** Substances whose name or bottle is easily taken for this one's, such as the anhydrous form. */
  readonly mistakenFor: readonly string[];
  readonly source: string;
}

/** The colour of a solution in a layer as deep as a burette is wide, at a strength. */
export interface SolutionColour extends Colour {
  readonly atMolPerL: number;
}

/** What the solutions of a substance hold beside it. */
export interface SolutionOf {
  readonly solventId: string;
  readonly additions: readonly { readonly substanceId: string; readonly gPerL: number }[];
}

/** A solution as it is bought; its own label rules. */
export interface Concentrate {
  readonly id: string;
  readonly substanceId: string;
  /** % by mass. */
  readonly massPercent: number;
  readonly densityGPerMl: number;
  readonly source: string;
}

export interface Solvent {
  readonly id: string;
  readonly name: string;
  readonly densityGPerMl: number;
  /** At 20 °C. */
  readonly cubicExpansionPerK: number;
  /** Dilute solutions in it expand as water does, of which the density is known at every temperature. */
  readonly isWater: boolean;
  readonly hazards: readonly HazardBand[];
  readonly source: string;
}

/** A colour of the flask with its word. */
export interface Colour {
  readonly word: string;
  /** sRGB. */
  readonly css: string;
}

export interface Indicator {
  readonly id: string;
  readonly name: string;
  /** What the change depends on: pH, potential in V, or a reagent of its own. */
  readonly changes: readonly (
    | { readonly by: 'pH' | 'potential-V'; readonly range: readonly [number, number] }
    | { readonly by: 'reagent'; readonly what: string }
  )[];
  /** For each change, the colours before and after it, upwards in pH or potential. */
  readonly colours: readonly (readonly [string, string])[];
  readonly preparation: string;
  /** How it is made up where dissolving it will not do, since the second edition of the recipes; null where it will. */
  readonly steps: readonly PreparationStep[] | null;
  /** How much of it goes into a flask, for one that is not counted in drops; null for drops. */
  readonly dose: string | null;
  readonly keepsFor: CalendarDuration;
  /** Of the dye itself, or of what tells the end. */
  readonly hazards: readonly HazardBand[];
  /** Mass fraction of that in the solution as it is made up, and what else is in it, in %. */
  readonly madeUp: {
    readonly ownPercent: number;
    readonly holds: readonly { readonly id: string; readonly massPercent: number }[];
  };
  readonly source: string;
}

/** A reacting species, and how many of it a formula unit of the substance gives. */
export interface Reacting {
  readonly species: string;
  readonly perFormulaUnit: number;
}

/** A substance in solution, or a solvent where there is no molarity. */
interface MediumReagent {
  readonly id: string;
  readonly molarityMolPerL: number | null;
}

/** How a titration is done: reaction, conditions, and what the analyst looks for. */
export interface Procedure {
  readonly id: string;
  readonly name: string;
  readonly titrantIds: readonly string[];
  /**
   * For a back-titration: the reagent of which every flask gets a known excess, what is left of it being titrated. Its
   * species links the reactions. Null without one.
   */
  readonly excess: { readonly substanceId: string; readonly reagent: Reacting } | null;
  /** Net reactions in order; each but the last makes the link that the next consumes, or leaves it over. */
  readonly equations: readonly string[];
  readonly links: readonly string[];
  readonly titrant: Reacting;
  readonly nominalMolarityMolPerL: number;
  /** Null when the titrant shows the end itself, or an electrode does. */
  readonly indicatorId: string | null;
  readonly indicatorDrops: number | null;
  readonly colours: {
    readonly before: Colour;
    readonly endPoint: Colour;
    readonly overshot: Colour;
  };
  /**
   * What a flask shows before the end, first to last, where that is more than `colours.before`: an in-between colour is not the end. A
   * word may say what is done there.
   */
  readonly course?: readonly Colour[];
  readonly medium: string;
  /** What of the medium has hazards of its own, as it is added; absent where nothing does. */
  readonly mediumHolds?: readonly MediumReagent[];
  readonly solventId: string;
  /** Null at room temperature. */
  readonly flaskTemperatureC: readonly [low: number, high: number] | null;
  /** House rules that this method sets itself. */
  readonly rules: RuleOverrides;
  /** Whether the medium itself takes titrant, so that a blank is subtracted. */
  readonly needsBlank: boolean;
  readonly cautions: readonly string[];
  readonly source: string;
  readonly own?: Own;
}

/** How a titrant is standardized. */
export interface Method extends Procedure {
  readonly standardId: string;
  /** What is in the burette. */
  readonly inBurette: 'titrant' | 'standard';
  readonly standard: Reacting;
  /** A standard weighed into each flask, an aliquot of its solution, or either. */
  readonly portions: readonly Portion[];
}

type Portion =
  | { readonly kind: 'weighed'; readonly massG: readonly [low: number, high: number] }
  | {
      readonly kind: 'aliquot';
      readonly standardMolarityMolPerL: number;
      readonly volumeMl: readonly [low: number, high: number];
    };

/** As what a content is stated: 6.2 g/L *as tartaric acid*. */
export interface StatedAs {
  readonly name: string;
  readonly formula: string;
  /** How many of the species that react a formula unit stands for. */
  readonly perFormulaUnit: number;
  /** Of the pure substance at 20 °C, g/mL, for a content by volume; null where nobody states one. */
  readonly densityGPerMl: number | null;
}

/** A part of what a sample holds, which both ends of its titration tell together. */
export interface Part {
  readonly id: string;
  readonly name: string;
  /** Its titre: so many times that to the first end, and so many times that to the last. */
  readonly titre: { readonly toFirst: number; readonly toLast: number };
  readonly statedAs: readonly StatedAs[];
}

/** A titration that is read at two ends, and what the first of them tells beside the last. */
export interface TwoEnds {
  /** What shows the first; the indicator of the last goes in after it. */
  readonly first: {
    readonly indicatorId: string;
    readonly indicatorDrops: number;
    /** What is seen there, as a clause: `the last pink is gone`. */
    readonly until: string;
    readonly colours: { readonly before: Colour; readonly endPoint: Colour };
  };
  /** Parts that are there in any case. */
  readonly always: readonly Part[];
  /** Parts that are there together; of several cases the one holds in which none is less than nothing. */
  readonly cases: readonly (readonly Part[])[];
}

/** What goes into a flask of a sample: weighed, or a volume. */
type TestPortion =
  | { readonly kind: 'weighed'; readonly massG: readonly [low: number, high: number] }
  | { readonly kind: 'aliquot'; readonly volumeMl: readonly [low: number, high: number] };

/** What a laboratory knows of how well it does an analysis, from its own data; null where it does not know. */
export interface Performance {
  /** Standard uncertainty of the method, % of the content: long-term scatter, bias or recovery, sub-sampling. Source: ISO 11352. */
  readonly methodUncertaintyPercent: number | null;
  /** Repeatability limit r, % of the content. Source: ISO 5725-6:1994. */
  readonly repeatabilityPercent: number | null;
  /** In the usual unit, as what is usual. */
  readonly detectionLimit: number | null;
  readonly quantificationLimit: number | null;
}

/** How a content of a sample is determined with a titrant of known molarity, which is in the burette. */
export interface Analysis extends Procedure {
  /** The species that reacts, of what the sample holds. */
  readonly analyte: string;
  /** As what it may be stated, the usual first; none where what the sample holds is to be found out. */
  readonly statedAs: readonly StatedAs[];
  /** In which units, the usual first. */
  readonly units: readonly ResultUnit[];
  readonly portions: readonly TestPortion[];
  /** Absent where there is one end. What an analysis states, and expects, is the whole, by the last end. */
  readonly twoEnds?: TwoEnds;
  /** What such samples usually hold, in the usual unit: what a plan begins with where nobody expects anything. */
  readonly typical: number;
  /** The expanded uncertainty that is wanted, % of the content. */
  readonly targetUPercent: number;
  /** Absent where the laboratory has not entered its own data. */
  readonly performance?: Performance;
  readonly remark: string;
}

/** A piece of work in a preparation; the interface gives each its place, a timer where one waits. */
export interface PreparationStep {
  readonly work:
    | 'dry'
    | 'cool'
    /** Water, against carbon dioxide. */
    | 'boil'
    | 'draw'
    | 'weigh'
    | 'measure'
    | 'transfer'
    | 'dissolve'
    | 'add'
    /** What is being made. */
    | 'heat'
    | 'to-room-temperature'
    | 'to-mark'
    | 'mix'
    | 'stand'
    | 'filter'
    | 'procedure'
    | 'bottle'
    | 'label';
  readonly text: string;
  /** Null when nobody has to wait, or the substance says how long. */
  readonly waitMinutes: number | null;
}

/** Something that goes into a solution beside what it is named for. */
export type Addition = {
  readonly what: string;
  /** Whether a stronger solution takes more of it; a weaker one takes no less. */
  readonly growsWithSolute: boolean;
} & ({ readonly volumeMl: number } | { readonly massG: number });

/** How a solution is made up, with the molarity and volume that are usual. */
export interface Preparation {
  readonly id: string;
  readonly name: string;
  readonly soluteId: string;
  readonly route: 'weighed' | 'from-solution' | 'volumes-added';
  /** Exact: balance, pipette, volumetric flask. Approximate: cylinder and beaker, the molarity is nominal. */
  readonly exactness: 'exact' | 'approximate';
  readonly molarityMolPerL: number;
  readonly volumeMl: number;
  /** Null when a solid is weighed. */
  readonly from:
    | { readonly kind: 'concentrate'; readonly concentrateId: string }
    | { readonly kind: 'stock'; readonly molarityMolPerL: number }
    | null;
  /** What goes in beside it, before the mark, for the usual molarity and volume. */
  readonly additions: readonly Addition[];
  readonly solventId: string;
  readonly steps: readonly PreparationStep[];
  readonly cautions: readonly string[];
  /** Since which edition of the recipes it is there. A preparation follows the recipes of its own edition. */
  readonly sinceEdition: number;
  readonly source: string;
}

/** What a bottle is made of; its drawing follows. */
export type Container = 'plastic' | 'brown-glass' | 'clear-glass';

/** How a solution keeps: starting values that a laboratory may change. */
export interface Keeping {
  readonly substanceId: string;
  /** Until it is standardized again, or renewed; no days when it is made for the day. */
  readonly interval: CalendarDuration;
  /** A weaker solution than this keeps for less; null where it makes no difference. */
  readonly dilute: { readonly belowMolPerL: number; readonly interval: CalendarDuration } | null;
  /** Since it was made, however often it is standardized; null where that renews it. */
  readonly lastsFor: CalendarDuration | null;
  /** A solution at least that strong is clear only some time after it was made; null where none waits. */
  readonly settles: {
    readonly fromMolPerL: number;
    readonly interval: CalendarDuration;
  } | null;
  readonly container: Container;
  readonly remark: string;
  /** What one sees of a bottle that is no longer good, whatever its date, as a noun; empty where nothing shows. */
  readonly endedBy: string;
  readonly source: string;
}

/** All entries together. */
export interface Catalogue {
  readonly substances: readonly Substance[];
  readonly concentrates: readonly Concentrate[];
  readonly solvents: readonly Solvent[];
  readonly indicators: readonly Indicator[];
  readonly methods: readonly Method[];
  readonly analyses: readonly Analysis[];
  readonly preparations: readonly Preparation[];
  readonly keeping: readonly Keeping[];
}

/** An entry that a laboratory has written itself, beside those that ship; a substance with how its solutions keep. */
export type OwnEntry =
  | {
      readonly kind: 'substance';
      readonly substance: Substance;
      readonly keeping: Keeping | null;
    }
  | { readonly kind: 'indicator'; readonly indicator: Indicator }
  | { readonly kind: 'recipe'; readonly recipe: Preparation }
  | { readonly kind: 'analysis'; readonly analysis: Analysis };

/** An entry of the laboratory's own, of a version of its record. */
export interface NamedEntry extends RecordVersion {
  readonly entry: OwnEntry;
}

/**
 * The entries of the laboratory's own that a record names, as they were when it was written: what is computed from the record stays
 * as it was. Absent where all that it names ships.
 */
export type Own = readonly NamedEntry[];
