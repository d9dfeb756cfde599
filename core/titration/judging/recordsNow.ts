import type { EquipmentState } from '../../metrology';
import type { BottleState, LotState } from '../../reagent';
import { certificateInForce } from '../../reagent';
import type { Finding } from '../../record';
import { unlikely } from '../../record';
import { endOfSentence } from '../../wording';
import type { AnalysisRun, RunState } from '../run';
import { isAnalysisRun } from '../run';
import type { Adopted, AnalysisReferences, RunSetUp } from '../setUp';
import { namedRecords } from '../setUp';

/** Records as they are now; those that a run does not rest on may be among them. */
export interface RecordsNow {
  readonly bottles: readonly BottleState[];
  readonly lots: readonly LotState[];
  readonly equipment: readonly EquipmentState[];
}

/** Something that has been taken out of use: `Lot K-22`, and why. */
export interface OutOfUse {
  readonly name: string;
  readonly reason: string;
}

/** Whether a run rests on a record, by its id. */
export function isPartOf(setUp: RunSetUp): (one: { readonly id: string }) => boolean {
  const parts = new Set<string>(namedRecords(setUp).map(({ at }) => at.id));
  return ({ id }) => parts.has(id);
}

/** What a run rests on and what has been taken out of use since it began. */
export function outOfUse(
  setUp: RunSetUp,
  { bottles, lots, equipment }: RecordsNow,
): readonly OutOfUse[] {
  const isPart = isPartOf(setUp);
  const since = (
    name: string,
    { withdrawn }: Pick<BottleState, 'withdrawn'>,
  ): readonly OutOfUse[] => (withdrawn ? [{ name, reason: withdrawn.reason }] : []);
  return [
    ...bottles.filter(isPart).flatMap((one) => since(`Bottle ${one.code}`, one)),
    ...lots.filter(isPart).flatMap((one) => since(`Lot ${one.lot.lotNumber}`, one)),
    ...equipment.filter(isPart).flatMap((one) => since(one.equipment.name, one)),
  ];
}

/** What speaks against certifying with something that is out of use; it gives way to a reason. */
export function outOfUseFindings(setUp: RunSetUp, now: RecordsNow): readonly Finding[] {
  return outOfUse(setUp, now).map((one) => unlikely('out-of-use-since', 'run', one));
}

/** A record that was put right after a run had begun. */
export interface CorrectedSince {
  readonly adopt: Adopted;
  /** What it is called: `Lot K-22`. */
  readonly name: string;
  /** Why it was corrected, the last time. */
  readonly reason: string;
}

/** What a run rests on and what has been corrected since the version that it goes by. */
export function correctedSince(
  setUp: RunSetUp,
  { bottles, lots, equipment }: RecordsNow,
): readonly CorrectedSince[] {
  return namedRecords(setUp).flatMap(({ kind, at }) => {
    const named =
      kind === 'lot'
        ? nameOf(lots, at.id, ({ lot }) => `Lot ${lot.lotNumber}`)
        : kind === 'bottle'
          ? nameOf(bottles, at.id, ({ code }) => `Bottle ${code}`)
          : nameOf(equipment, at.id, (one) => one.equipment.name);
    const last = named?.state.corrections.findLast(({ version }) => version > at.version);
    if (!named || !last) return [];
    const { version } = named.state;
    return [{ adopt: { kind, id: at.id, version }, name: named.name, reason: last.reason }];
  });
}

/** The certificate by which the titrant of a run of samples is known, if that was withdrawn, and the bottle as it is now; else null. */
export function titrantWithdrawn(
  { references: { titrant } }: { readonly references: Pick<AnalysisReferences, 'titrant'> },
  { bottles }: Pick<RecordsNow, 'bottles'>,
) {
  const used = certificateInForce(titrant)?.certificateNumber;
  const bottle = bottles.find(({ id }) => id === titrant.id);
  const certificate = bottle?.certificatesWithdrawn.find(
    ({ certificateNumber }) => certificateNumber === used,
  );
  return bottle && certificate ? { bottle, certificate } : null;
}

/** Whether the molarity of the titrant was calculated before anybody authorized it, and the run still goes by that. */
export function awaitsAuthorization({ setUp, references }: AnalysisRun): boolean {
  return setUp.calculated !== undefined && certificateInForce(references.titrant) === null;
}

/** Why a run of samples goes on with another certificate of its titrant, and its results are computed anew. */
export function restatedTitrant(
  run: RunState,
  now: Pick<RecordsNow, 'bottles'>,
): readonly CorrectedSince[] {
  if (!isAnalysisRun(run)) return [];
  const bottle = now.bottles.find(({ id }) => id === run.references.titrant.id);
  const current = bottle && certificateInForce(bottle);
  const withdrawn = titrantWithdrawn(run, now)?.certificate;
  if (!current || !(withdrawn ?? awaitsAuthorization(run))) return [];
  const { certificateNumber } = current;
  return [
    {
      adopt: { kind: 'bottle', id: bottle.id, version: bottle.version },
      name: `Bottle ${bottle.code}`,
      reason: withdrawn
        ? `${endOfSentence(withdrawn.reason)} Certificate ${certificateNumber} takes the place of ${withdrawn.certificateNumber}.`
        : `It is certified now: ${certificateNumber}.`,
    },
  ];
}

function nameOf<S extends { readonly id: string }>(
  states: readonly S[],
  id: string,
  name: (state: S) => string,
): { readonly state: S; readonly name: string } | null {
  const state = states.find((one) => one.id === id);
  return state ? { state, name: name(state) } : null;
}
