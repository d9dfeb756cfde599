import type { Knex } from 'knex';
import type { MethodFactBodies } from '#core/chemistry';
import {
  CATALOGUE,
  checkCatalogue,
  extendCatalogue,
  findSubstance,
  NO_ENTRIES,
} from '#core/chemistry';
import { suspectForm } from '#core/slip';
import type { LaboratoryFactBodies } from '#core/laboratory';
import { checkRules, checkTypedDate, describeDeviations, plainDateAt } from '#core/laboratory';
import { roundSignificant } from '#core/measurement';
import type { Calibration, Equipment, EquipmentState } from '#core/metrology';
import { calibrationPoints } from '#core/metrology';
import type { PlainRecordKind, PlainStates, StockRecords } from '#core/ledger';
import { foldRecord, stockLeft } from '#core/ledger';
import type { PreparationFact, PreparationPlan } from '#core/preparation';
import {
  checkPreparationFact,
  checkPreparationStart,
  missingFor,
  recipeOf,
} from '#core/preparation';
import type { Lot, LotFact, LotState, PreparedBottle } from '#core/reagent';
import type { Fact, Finding, Withdrawal } from '#core/record';
import { enteredAt, impossible } from '#core/record';
import type { RunFact, RunReferences, RunSetUp } from '#core/titration';
import { checkRunFact, checkRunStart, factsSeenBy, isObservation, partsOf } from '#core/titration';
import { AppError } from '../http/appError';
import { findPerson } from '../people/queries';
import type { Services } from '../services';
import { findLaboratory, findProjection, listFactsOf, listProjections } from './queries';
import type { LoadedRecord } from './references';
import { foldLoaded, loadReferences, unknownReference } from './references';

/**
 * What core has against a fact, given the records that it touches. The body has passed its schema, so its
 * type follows from the kind.
 *
 * @throws AppError `unknown-reference` when it names something that is not there.
 */
export async function admit(
  tx: Knex,
  services: Services,
  fact: Fact,
  record: LoadedRecord,
): Promise<readonly Finding[]> {
  switch (fact.kind) {
    case 'lot.registered':
      return [...onlyFirst(fact), ...checkLot(fact.body as Lot, await today(tx, services))];
    case 'equipment.registered':
      return [
        ...onlyFirst(fact),
        ...checkEquipment(fact.body as Equipment, await today(tx, services)),
      ];
    case 'bottle.prepared':
      return [
        ...onlyFirst(fact),
        ...(await checkBottle(tx, fact.body as PreparedBottle, await today(tx, services))),
      ];
    case 'run.started': {
      const setUp = fact.body as RunSetUp;
      const references = await loadReferences(tx, fact);
      return [
        ...onlyFirst(fact),
        ...(await checkDeviations(tx, fact.authorId, setUp, references)),
        ...(await withdrawnOf(tx, setUp)),
        ...(await supersededOf(tx, fact, setUp)),
        ...checkRunStart(references, await today(tx, services)),
      ];
    }
    case 'laboratory.rules-set':
      await requireManager(tx, fact.authorId);
      requireState('laboratory', record);
      return checkRules((fact.body as LaboratoryFactBodies['laboratory.rules-set']).rules);
    case 'method.written': {
      await requireManager(tx, fact.authorId);
      const { method } = fact.body as MethodFactBodies['method.written'];
      return [
        ...checkCatalogue(extendCatalogue(CATALOGUE, { ...NO_ENTRIES, methods: [method] })),
        ...checkRules(method.rules),
      ];
    }
    case 'preparation.started': {
      const records = await loadShelf(tx);
      const plan = fact.body as PreparationPlan;
      const missing = missingFor(plan, records);
      if (missing !== null) throw unknownReference('source', missing);
      if (plan.recipeId !== null && !recipeOf(plan)) {
        throw unknownReference('recipeId', 'The catalogue has no such recipe.');
      }
      return [
        ...onlyFirst(fact),
        ...checkPreparationStart(plan, records, stockLeft(records), await today(tx, services)),
      ];
    }
    default:
      switch (fact.recordKind) {
        case 'run':
          return checkAgainstRun(record, fact as RunFact);
        case 'preparation': {
          const state = requireState('preparation', record);
          const equipment = await listProjections(tx, 'equipment');
          return checkPreparationFact(state, fact as PreparationFact, equipment);
        }
        case 'lot':
          return checkLotFact(
            requireState('lot', record),
            fact as LotFact,
            await today(tx, services),
          );
        case 'equipment':
          return fact.kind === 'equipment.calibrated'
            ? checkCalibration(
                requireState('equipment', record),
                fact.body as Calibration,
                await today(tx, services),
              )
            : checkUse(requireState('equipment', record), fact);
        case 'bottle':
          return checkUse(requireState('bottle', record), fact);
        case 'method':
          await requireManager(tx, fact.authorId);
          return checkUse(requireState('method', record), fact);
        case 'laboratory':
          throw new RangeError('only the server founds the laboratory');
      }
  }
}

/** Rules and methods bind everybody. @throws AppError `not-allowed` for who may not set them. */
async function requireManager(tx: Knex, personId: string): Promise<void> {
  const person = await findPerson(tx, personId);
  if (person?.mayManage) return;
  const message = 'House rules and methods are set by those who may manage the laboratory.';
  throw new AppError('not-allowed', message);
}

/**
 * A run follows the house rules in force; by other ones, within bounds, it is begun by those who may set them.
 *
 * @throws AppError `not-allowed` for anybody else
 */
async function checkDeviations(
  tx: Knex,
  personId: string,
  { rules }: RunSetUp,
  { rulesInForce }: RunReferences,
): Promise<readonly Finding[]> {
  const deviations = describeDeviations(rules, rulesInForce);
  if (deviations.length === 0) return [];
  const mayDeviate = (await findPerson(tx, personId))?.mayManage ?? false;
  if (mayDeviate) return checkRules(rules);
  const message = `This run would not follow the house rules. ${deviations.join(' ')} Only those who may manage the laboratory begin such a run.`;
  throw new AppError('not-allowed', message);
}

/** The state of a record that a later fact adds to. @throws AppError `not-found` before its first fact. */
function requireState<K extends PlainRecordKind>(kind: K, record: LoadedRecord): PlainStates[K] {
  const state = foldRecord(kind, record.facts);
  if (!state) throw new AppError('not-found', 'There is no such record.');
  return state;
}

/** What plans and stock are reckoned from. */
export async function loadShelf(tx: Knex): Promise<StockRecords> {
  return {
    lots: await listProjections(tx, 'lot'),
    bottles: await listProjections(tx, 'bottle'),
    equipment: await listProjections(tx, 'equipment'),
    preparations: await listProjections(tx, 'preparation'),
    runs: await listProjections(tx, 'run'),
  };
}

/** What of a set-up has been taken out of use, as its record says now. */
async function withdrawnOf(tx: Knex, setUp: RunSetUp): Promise<readonly Finding[]> {
  const found: Finding[] = [];
  for (const { field, kind, at } of partsOf(setUp)) {
    const withdrawn = withdrawalIn(await findProjection(tx, kind, at.id));
    if (withdrawn) {
      const message = `This ${field} is out of use: ${withdrawn.reason}`;
      found.push(impossible('withdrawn', field, message));
    }
  }
  return found;
}

/** What of a set-up had been changed when the run began: an instrument calibrated anew, a method written anew. */
async function supersededOf(tx: Knex, fact: Fact, setUp: RunSetUp): Promise<readonly Finding[]> {
  const began = enteredAt(fact);
  const parts = partsOf(setUp).filter(({ kind }) => kind === 'equipment' || kind === 'method');
  const streams = await listFactsOf(
    tx,
    parts.map(({ at }) => at.id),
  );
  return parts
    .filter(({ at }) => {
      const there = (streams.get(at.id) ?? []).filter(
        ({ recordedAt }) => (recordedAt ?? '') <= began,
      );
      return at.version < there.length;
    })
    .map(({ field }) => {
      const message = `This ${field} has been changed since: choose it again.`;
      return impossible('superseded', field, message);
    });
}

function withdrawalIn(state: PlainStates[PlainRecordKind] | null): Withdrawal | null {
  return state && 'withdrawn' in state ? state.withdrawn : null;
}

function checkUse(
  { withdrawn }: { readonly withdrawn: Withdrawal | null },
  { kind }: Fact,
): readonly Finding[] {
  if (kind.endsWith('.withdrawn') === (withdrawn === null)) return [];
  const message = withdrawn ? 'It is out of use already.' : 'It is in use already.';
  return [impossible('so-already', 'reason', message)];
}

function checkLotFact(lot: LotState, fact: LotFact, todayDate: string): readonly Finding[] {
  switch (fact.kind) {
    case 'lot.opened':
      return fact.body.openedOn < lot.lot.receivedOn
        ? [impossible('opened-first', 'openedOn', 'It cannot be opened before it was received.')]
        : checkTypedDate('openedOn', fact.body.openedOn, 'happened', todayDate);
    case 'lot.put-to-dry':
      return lot.drying.at(-1)?.takenOut === null
        ? [impossible('in-already', 'temperatureC', 'It is in the oven already.')]
        : [];
    case 'lot.taken-out':
      return lot.drying.at(-1)?.takenOut === null
        ? []
        : [impossible('not-in', 'lot', 'It is not in the oven.')];
    case 'lot.withdrawn':
    case 'lot.returned':
      return checkUse(lot, fact);
    case 'lot.registered':
    case 'lot.counted':
    case 'lot.certificate-attached':
      return [];
  }
}

/**
 * A decision is checked against the run as it is. An observation is taken when it made sense to its author, whatever
 * somebody else has entered meanwhile, or when it makes sense now.
 */
function checkAgainstRun(record: LoadedRecord, fact: RunFact): readonly Finding[] {
  const run = foldLoaded(record);
  if (!run) throw new AppError('not-found', 'There is no such run.');
  const findings = checkRunFact(run.state, fact);
  if (findings.length === 0 || !isObservation(fact)) return findings;
  const seen = foldLoaded({ ...record, facts: factsSeenBy(fact, run.facts) });
  return seen && seen.facts.length < run.facts.length ? checkRunFact(seen.state, fact) : findings;
}

/** Today's date in the laboratory. @throws AppError `not-found` before the laboratory is founded. */
export async function today(tx: Knex, services: Services): Promise<string> {
  const laboratory = await findLaboratory(tx);
  if (!laboratory) throw new AppError('not-found', 'The laboratory has not been founded yet.');
  return plainDateAt(services.now().toISOString(), laboratory.timeZone);
}

function onlyFirst(fact: Fact): readonly Finding[] {
  return fact.sequence === 1
    ? []
    : [impossible('exists-already', 'id', 'This record exists already.')];
}

function checkLot(lot: Lot, todayDate: string): readonly Finding[] {
  const substance = findSubstance(lot.substanceId);
  if (!substance) throw unknownReference('substanceId', 'The catalogue has no such substance.');
  const stated = lot.statedMolarMass?.valueGPerMol;
  const other = stated === undefined ? null : suspectForm(Number(stated), substance);
  if (stated !== undefined && other) {
    const message = `${stated} g/mol is the molar mass of ${other.name}: choose that substance, or correct the figure.`;
    return [impossible('other-form', 'substanceId', message)];
  }
  if (lot.useBy !== null && lot.useBy < lot.receivedOn) {
    return [impossible('use-by-first', 'useBy', 'It would have expired before it was received.')];
  }
  if (lot.openedOn !== null && lot.openedOn < lot.receivedOn) {
    return [impossible('opened-first', 'openedOn', 'It cannot be opened before it was received.')];
  }
  if (Number(lot.purityHalfWidth) > Number(lot.purity) / 2) {
    const message = 'A purity is known better than to half of itself.';
    return [impossible('no-range', 'purityHalfWidth', message)];
  }
  return [
    ...checkTypedDate('receivedOn', lot.receivedOn, 'happened', todayDate),
    ...checkTypedDate('openedOn', lot.openedOn, 'happened', todayDate),
    ...checkTypedDate('useBy', lot.useBy, 'to-come', todayDate),
  ];
}

function checkEquipment(equipment: Equipment, todayDate: string): readonly Finding[] {
  return [
    ...checkRange(equipment),
    ...checkTypedDate('calibrationDue', equipment.calibrationDue, 'to-come', todayDate),
  ];
}

/** What an instrument says of itself that makes no instrument. */
function checkRange(equipment: Equipment): readonly Finding[] {
  switch (equipment.type) {
    case 'balance': {
      const most = Number(equipment.maxLoadG);
      const tooLarge = (['readabilityG', 'repeatabilityG', 'linearityG'] as const).find(
        (field) => Number(equipment[field]) >= (field === 'readabilityG' ? most : most / 100),
      );
      const message = 'It must be a small part of the maximum load.';
      return tooLarge ? [impossible('no-range', tooLarge, message)] : [];
    }
    case 'glassware':
      return Number(equipment.toleranceMl) < Number(equipment.volumeMl) / 10
        ? []
        : [impossible('no-range', 'toleranceMl', 'A tolerance is a small part of the volume.')];
    case 'burette':
      if (Number(equipment.divisionMl) >= Number(equipment.capacityMl)) {
        return [
          impossible('no-range', 'divisionMl', 'A division must be smaller than the burette.'),
        ];
      }
      return Number(equipment.toleranceMl) < Number(equipment.capacityMl) / 10
        ? []
        : [impossible('no-range', 'toleranceMl', 'A tolerance is a small part of the volume.')];
    case 'thermometer':
    case 'heater':
      return [];
  }
}

function checkCalibration(
  { equipment }: EquipmentState,
  calibration: Calibration,
  todayDate: string,
): readonly Finding[] {
  const { calibratedOn, due, found } = calibration;
  const mistyped = [
    ...checkTypedDate('calibratedOn', calibratedOn, 'happened', todayDate),
    ...checkTypedDate('due', due, 'to-come', todayDate),
  ];
  if (mistyped.length > 0) return mistyped;
  if (due !== null && due < calibratedOn) {
    return [impossible('due-first', 'due', 'It would be due before it was made.')];
  }
  const holdsWater = equipment.type === 'glassware' || equipment.type === 'burette';
  if (found.kind === 'weighings' && !holdsWater) {
    return [impossible('no-volume', 'found', 'Only what holds a volume is calibrated with water.')];
  }
  const stray = calibrationPoints(calibration).find(
    ({ nominal, deviation }) => nominal > 0 && Math.abs(deviation) > STRAY_CALIBRATION * nominal,
  );
  if (!stray) return [];
  const message = `At ${String(stray.nominal)} it would be off by ${roundSignificant(stray.deviation, 2)}: another vessel, a figure mistyped, or air in it?`;
  return [impossible('far-off', 'found', message)];
}

/** No instrument that is of any use is off by more than this part. */
const STRAY_CALIBRATION = 0.1;

async function checkBottle(
  tx: Knex,
  bottle: PreparedBottle,
  todayDate: string,
): Promise<readonly Finding[]> {
  const lot = await findProjection(tx, 'lot', bottle.parents[0]?.id ?? '');
  if (!lot) throw unknownReference('parents', 'There is no such lot.');
  if (!(await findPerson(tx, bottle.preparedBy))) {
    throw unknownReference('preparedBy', 'There is no such person.');
  }
  const findings: Finding[] = [];
  if (lot.lot.substanceId !== bottle.substanceId) {
    const message = `Lot ${lot.lot.lotNumber} is another substance than the one in the bottle.`;
    findings.push(impossible('wrong-lot', 'parents', message));
  }
  findings.push(
    ...checkTypedDate('preparedOn', bottle.preparedOn, 'happened', todayDate),
    ...checkTypedDate('useBy', bottle.useBy, 'to-come', todayDate),
  );
  if (lot.withdrawn) {
    const message = `Lot ${lot.lot.lotNumber} is in quarantine: ${lot.withdrawn.reason}`;
    findings.push(impossible('withdrawn', 'parents', message));
  }
  return findings;
}
