import { findSubstance, solventOf } from '../../chemistry';
import type { PlainDate } from '../../grammar';
import type { HouseRules } from '../../laboratory';
import { isCalibrationOverdue } from '../../metrology';
import type { BottleState } from '../../reagent';
import { freshnessOf, isLotExpired, mayBeUsed } from '../../reagent';
import type { Finding } from '../../record';
import { impossible, unlikely } from '../../record';
import { plainDeterminationOf } from '../figures';
import type { RunReferences } from '../setUp';
import { arrangementOf, soughtOf, standardSubstanceId } from '../setUp';

/**
 * What a house rule recommends instead of a run: a titrant that is itself a primary standard, as dichromate is, is made up by
 * weight. Null where it has nothing to say.
 */
export function adviceAgainst(
  { bottle, method }: Pick<RunReferences, 'bottle' | 'method'>,
  { primaryTitrants }: HouseRules,
): string | null {
  const substance = findSubstance(bottle.substanceId, bottle.own);
  const isItself = substance?.role === 'primary-standard' && method.inBurette === 'titrant';
  if (primaryTitrants !== 'weighed' || !isItself) return null;
  return `By the house rule ${substance.name} is itself the standard: made up by weight in a volumetric flask, it needs no titration.`;
}

/** What speaks against starting a run with these records today. */
export function checkRunStart(references: RunReferences, today: PlainDate): readonly Finding[] {
  const { method, bottle, standard, burette, thermometer } = references;
  const findings: Finding[] = [];
  if (!method.titrantIds.includes(bottle.substanceId)) {
    findings.push(impossible('wrong-titrant', 'bottle'));
  }
  if (method.standardId !== standardSubstanceId(standard)) {
    findings.push(impossible('wrong-standard', 'standard'));
  }
  findings.push(...checkStandard(references, today), ...checkExcess(references, today));
  const { portion, excess } = arrangementOf(references);
  const instruments = [
    ['instrument', portion.measuredWith] as const,
    ...(excess ? [['pipette', excess.measuredWith] as const] : []),
    ['burette', burette] as const,
    ...(thermometer ? [['thermometer', thermometer] as const] : []),
  ];
  for (const [field, item] of instruments) {
    if (isCalibrationOverdue(item, today)) {
      findings.push(
        unlikely('calibration-overdue', field, { name: item.name, due: item.calibrationDue ?? '' }),
      );
    }
  }
  const solvent = solventOf(method.solventId);
  if (!solvent.isWater && !thermometer && standard.kind === 'lot') {
    const percentPerK = 100 * solvent.cubicExpansionPerK;
    findings.push(
      unlikely('other-solvent-not-measured', 'thermometer', { solvent: solvent.name, percentPerK }),
    );
  }
  return findings;
}

function checkStandard(
  { method, bottle, standard }: RunReferences,
  today: PlainDate,
): readonly Finding[] {
  const takes = standard.kind === 'lot' ? 'weighed' : 'aliquot';
  if (!method.portions.some(({ kind }) => kind === takes)) {
    return [impossible('wrong-portion', 'standard', { takes })];
  }
  if (standard.kind === 'lot') {
    const { lot } = standard.lot;
    if (lot.dissolved) {
      return [impossible('not-solid', 'standard', { lotNumber: lot.lotNumber })];
    }
    const values = { name: `Lot ${lot.lotNumber}`, useBy: lot.useBy ?? '' };
    return isLotExpired(lot, today) ? [unlikely('lot-expired', 'standard', values)] : [];
  }
  return checkKnownSolution(standard.bottle, bottle, 'standard', today);
}

/** What speaks against a solution whose molarity the run takes for granted. */
function checkKnownSolution(
  solution: BottleState,
  titrant: BottleState,
  field: 'standard' | 'excess',
  today: PlainDate,
): readonly Finding[] {
  const { code, id } = solution;
  if (id === titrant.id) {
    return [impossible('same-bottle', field)];
  }
  const freshness = freshnessOf(solution, today);
  if (!('known' in freshness)) {
    return [impossible('not-standardized', field, { code })];
  }
  if (mayBeUsed(freshness)) return [];
  return [unlikely('standard-overdue', field, { code, until: freshness.known.until ?? '' })];
}

/** What speaks against the excess of a back-titration: that there is none, or that it does not suffice. */
function checkExcess(references: RunReferences, today: PlainDate): readonly Finding[] {
  const { method, bottle, excess } = references;
  if (method.excess === null) {
    return excess ? [impossible('no-excess-wanted', 'excess')] : [];
  }
  const { substanceId } = method.excess;
  const name = findSubstance(substanceId, method.own)?.name ?? substanceId;
  if (excess?.bottle.substanceId !== method.excess.substanceId) {
    return [impossible('wrong-excess', 'excess', { name })];
  }
  const found = checkKnownSolution(excess.bottle, bottle, 'excess', today);
  const aliquotMl = arrangementOf(references).portion.fixedMl;
  if (aliquotMl === null || found.some(({ severity }) => severity === 'impossible')) return found;
  const left = plainDeterminationOf(references).titreMl(aliquotMl, soughtOf(references).expected);
  if (left > 0) return found;
  return [
    ...found,
    impossible('no-excess', 'excess', {
      vessel: excess.vessel.equipment.name,
      excessCode: excess.bottle.code,
      aliquotMl,
      code: bottle.code,
    }),
  ];
}
