import type { Method, Own, Substance } from '../../chemistry';
import { findSubstance, lookalikesOf } from '../../chemistry';
import type { Determination } from '../../determination';
import type { Id } from '../../grammar';
import type { Equipment, EquipmentState } from '../../metrology';
import type { BottleState } from '../../reagent';
import { knownMolarity } from '../../reagent';
import type { AnalysisReferences, RunStandard, StandardizationReferences } from './references';
import { isAnalysis } from './references';

/** Something that every flask gets: what of, from which record, and with what it is measured. */
interface Ingredient {
  /** Null for a sample: what it holds is to be found out. */
  readonly substanceId: string | null;
  readonly own: Own;
  /** Of the lot, bottle or sample; null where the samples of a run take turns. */
  readonly recordId: Id | null;
  /** Its code; null for a lot. */
  readonly bottleCode: string | null;
  readonly unit: 'g' | 'mL';
  readonly measuredWith: Equipment;
  /** The volume of the pipette, which leaves no choice; null where it is weighed, or read off a burette. */
  readonly fixedMl: number | null;
}

/** How a run is arranged: what is in the burette, what goes into every flask, and in which of the two is what is sought. */
export interface Arrangement {
  readonly soughtIn: Determination['soughtIn'];
  readonly inBurette: BottleState;
  readonly portion: Ingredient;
  /** Goes in before the portion, so that nothing of that escapes; null without one. */
  readonly excess:
    | (Ingredient & {
        readonly substanceId: string;
        readonly recordId: Id;
        readonly fixedMl: number;
      })
    | null;
}

/** Where what is sought is: a weighed standard is always in the flask, a solution where the method says. */
export function soughtIn(
  standard: Pick<RunStandard, 'kind'>,
  { inBurette }: Pick<Method, 'inBurette'>,
): Determination['soughtIn'] {
  return standard.kind === 'lot' || inBurette === 'titrant' ? 'burette' : 'flask';
}

/** How the records of a run are arranged. */
export function arrangementOf(
  references: Pick<StandardizationReferences, Arranged> | Pick<AnalysisReferences, ArrangedSamples>,
): Arrangement {
  const { excess } = references;
  const added = excess && {
    ...aliquotOf(excess.bottle, excess.vessel),
    fixedMl: pipetteVolumeMl(excess.vessel),
  };
  if (isAnalysis(references)) return { ...samplesIn(references), excess: added };
  const { method, bottle, standard } = references;
  const place = soughtIn(standard, method);
  return { soughtIn: place, ...placesOf(place, bottle, standard), excess: added };
}

type Arranged = 'method' | 'bottle' | 'standard' | 'excess';
type ArrangedSamples = 'titrant' | 'samples' | 'portioning' | 'excess';

/** Samples in the flasks, the titrant in the burette. */
function samplesIn({
  titrant,
  samples,
  portioning,
}: Pick<AnalysisReferences, ArrangedSamples>): Omit<Arrangement, 'excess'> {
  const [only, ...others] = samples;
  const isOne = only !== undefined && others.length === 0;
  const source = {
    ...{ substanceId: null, own: [] },
    recordId: isOne ? only.state.id : null,
    bottleCode: isOne ? only.state.sample.code : null,
  };
  const portion: Ingredient =
    portioning.kind === 'weighed'
      ? { ...source, unit: 'g', measuredWith: portioning.balance, fixedMl: null }
      : { ...source, unit: 'mL', ...measuredIn(portioning.vessel) };
  return { soughtIn: 'flask', inBurette: titrant, portion };
}

/** With what a volume is measured, and the volume where it leaves no choice. */
function measuredIn({ equipment }: EquipmentState): Pick<Ingredient, 'measuredWith' | 'fixedMl'> {
  return {
    measuredWith: equipment,
    fixedMl: equipment.type === 'glassware' ? Number(equipment.volumeMl) : null,
  };
}

function placesOf(
  place: Determination['soughtIn'],
  bottle: BottleState,
  standard: RunStandard,
): Pick<Arrangement, 'inBurette' | 'portion'> {
  if (standard.kind === 'lot') {
    const { lot, balance } = standard;
    const { substanceId, own = [] } = lot.lot;
    const source = { substanceId, own, recordId: lot.id, bottleCode: null };
    const portion: Ingredient = { ...source, unit: 'g', measuredWith: balance, fixedMl: null };
    return { inBurette: bottle, portion };
  }
  const [inBurette, inFlask] =
    place === 'burette' ? [bottle, standard.bottle] : [standard.bottle, bottle];
  return { inBurette, portion: aliquotOf(inFlask, standard.vessel) };
}

function aliquotOf(
  { id, code, substanceId, own = [] }: BottleState,
  vessel: EquipmentState,
): Ingredient & { readonly substanceId: string; readonly recordId: Id } {
  return {
    ...{ substanceId, own, recordId: id, bottleCode: code, unit: 'mL' },
    ...measuredIn(vessel),
  };
}

/** What is done to a flask before it is titrated. */
export function fillVerb({ portion }: Arrangement): 'Weigh' | 'Fill' {
  return portion.unit === 'g' ? 'Weigh' : 'Fill';
}

/** Nominal volume of a pipette, mL. @throws RangeError for a vessel that has no single volume */
export function pipetteVolumeMl({ equipment }: EquipmentState): number {
  if (equipment.type !== 'glassware') throw new RangeError(`${equipment.name} is no pipette`);
  return Number(equipment.volumeMl);
}

/** The id of the substance of a standard. */
export function standardSubstanceId(standard: RunStandard): string {
  return whatNames(standard).substanceId;
}

/** The substance of a standard, as its lot or bottle names it. */
export function standardSubstance(standard: RunStandard): Substance | undefined {
  const { substanceId, own } = whatNames(standard);
  return findSubstance(substanceId, own);
}

/** What a standard is easily taken for. */
export function standardLookalikes(standard: RunStandard): readonly Substance[] {
  const substance = standardSubstance(standard);
  return substance ? lookalikesOf(substance, whatNames(standard).own) : [];
}

function whatNames(standard: RunStandard): Pick<BottleState, 'substanceId' | 'own'> {
  return standard.kind === 'lot' ? standard.lot.lot : standard.bottle;
}

/** A standard as a run or certificate names it: `lot K-22`, `bottle 0419 (0419-1)`; of two solutions, both. */
export function describeStandard({
  standard,
  excess,
}: Pick<StandardizationReferences, 'standard' | 'excess'>): string {
  if (standard.kind === 'lot') return `lot ${standard.lot.lot.lotNumber}`;
  return `${describeBottle(standard.bottle)}${describeExcess(excess)}`;
}

/** What samples are titrated with: `bottle 0416 (0416-2)`, and an excess. */
export function describeTitrant({
  titrant,
  excess,
}: Pick<AnalysisReferences, 'titrant' | 'excess'>): string {
  return `${describeBottle(titrant)}${describeExcess(excess)}`;
}

function describeExcess(excess: AnalysisReferences['excess']): string {
  return excess
    ? `, excess of ${String(pipetteVolumeMl(excess.vessel))} mL of ${describeBottle(excess.bottle)}`
    : '';
}

function describeBottle(bottle: BottleState): string {
  return `bottle ${bottle.code} (${knownMolarity(bottle)?.certificateNumber ?? 'as made'})`;
}

/** What measures into the flasks, by name: the portions, and the excess of a back-titration. */
export function describeInstruments({ portion, excess }: Arrangement): string {
  const names = [portion, ...(excess ? [excess] : [])].map(({ measuredWith }) => measuredWith.name);
  return names.join(', ');
}
