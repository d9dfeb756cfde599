import type { Knex } from 'knex';
import { findSubstance } from '#core/chemistry';
import { suspectForm } from '#core/slip';
import { plainDateAt } from '#core/laboratory';
import type { Equipment } from '#core/metrology';
import type { Lot, PreparedBottle } from '#core/reagent';
import type { Fact, Finding } from '#core/record';
import { impossible } from '#core/record';
import type { RunFact, RunSetUp } from '#core/titration';
import { checkRunFact, checkRunStart, factsSeenBy, isObservation } from '#core/titration';
import { AppError } from '../http/appError';
import { findPerson } from '../people/queries';
import type { Services } from '../services';
import { findLaboratory, findProjection } from './queries';
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
      return [...onlyFirst(fact), ...checkLot(fact.body as Lot)];
    case 'equipment.registered':
      return [...onlyFirst(fact), ...checkEquipment(fact.body as Equipment)];
    case 'bottle.prepared':
      return [
        ...onlyFirst(fact),
        ...(await checkBottle(tx, fact.body as PreparedBottle, await today(tx, services))),
      ];
    case 'run.started': {
      const references = await loadReferences(tx, fact.body as RunSetUp);
      return [...onlyFirst(fact), ...checkRunStart(references, await today(tx, services))];
    }
    default:
      return checkAgainstRun(record, fact as RunFact);
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

function checkLot(lot: Lot): readonly Finding[] {
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
  return [];
}

function checkEquipment(equipment: Equipment): readonly Finding[] {
  if (equipment.type === 'balance') {
    return Number(equipment.readabilityG) < Number(equipment.maxLoadG)
      ? []
      : [impossible('no-range', 'readabilityG', 'The readability must be below the maximum load.')];
  }
  if (equipment.type === 'glassware') {
    return Number(equipment.toleranceMl) < Number(equipment.volumeMl) / 10
      ? []
      : [impossible('no-range', 'toleranceMl', 'A tolerance is a small part of the volume.')];
  }
  return Number(equipment.divisionMl) < Number(equipment.capacityMl)
    ? []
    : [impossible('no-range', 'divisionMl', 'A division must be smaller than the burette.')];
}

async function checkBottle(
  tx: Knex,
  bottle: PreparedBottle,
  todayDate: string,
): Promise<readonly Finding[]> {
  const lot = await findProjection(tx, 'lot', bottle.lotId);
  if (!lot) throw unknownReference('lotId', 'There is no such lot.');
  if (!(await findPerson(tx, bottle.preparedBy))) {
    throw unknownReference('preparedBy', 'There is no such person.');
  }
  const findings: Finding[] = [];
  if (lot.lot.substanceId !== bottle.substanceId) {
    const message = `Lot ${lot.lot.lotNumber} is another substance than the one in the bottle.`;
    findings.push(impossible('wrong-lot', 'lotId', message));
  }
  if (bottle.preparedOn > todayDate) {
    const message = 'A bottle cannot have been made up in the future.';
    findings.push(impossible('in-the-future', 'preparedOn', message));
  }
  return findings;
}
