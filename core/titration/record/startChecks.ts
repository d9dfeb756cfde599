import { findIndicator, findSubstance, RESULT_UNITS, solventOf } from '../../chemistry';
import type { PlainDate } from '../../grammar';
import type { HouseRules } from '../../laboratory';
import { correctingThermometer, isCalibrationOverdue } from '../../metrology';
import type { BottleState, CertifiedCorrections } from '../../reagent';
import { certificateInForce, freshnessOf, isLotExpired, mayBeUsed } from '../../reagent';
import type { Finding } from '../../record';
import { impossible, unlikely } from '../../record';
import { plainDeterminationOf } from '../figures';
import { needsOf } from '../../sample';
import type {
  AnalysisReferences,
  RunReferences,
  RunSample,
  StandardizationReferences,
} from '../setUp';
import {
  arrangementOf,
  isAnalysis,
  soughtOf,
  standardSubstanceId,
  statedBy,
  takesWholeUnits,
} from '../setUp';

/**
 * What a house rule recommends instead of a run: a titrant that is itself a primary standard, as dichromate is, is made up by
 * weight. Null where it has nothing to say.
 */
export function adviceAgainst(
  { bottle, method }: Pick<StandardizationReferences, 'bottle' | 'method'>,
  { primaryTitrants }: HouseRules,
): string | null {
  const substance = findSubstance(bottle.substanceId, bottle.own);
  const isItself = substance?.role === 'primary-standard' && method.inBurette === 'titrant';
  if (primaryTitrants !== 'weighed' || !isItself) return null;
  return `By the house rule ${substance.name} is itself the standard: made up by weight in a volumetric flask, it needs no titration.`;
}

/** What speaks against starting a run with these records today. */
export function checkRunStart(references: RunReferences, today: PlainDate): readonly Finding[] {
  const { burette, thermometer } = references;
  const { portion, excess } = arrangementOf(references);
  const instruments = [
    ['instrument', portion.measuredWith] as const,
    ...(excess ? [['pipette', excess.measuredWith] as const] : []),
    ['burette', burette] as const,
    ...(thermometer ? [['thermometer', thermometer] as const] : []),
  ];
  return [
    ...(isAnalysis(references)
      ? checkAnalysisStart(references, today)
      : checkStandardizationStart(references, today)),
    ...instruments
      .filter(([, item]) => isCalibrationOverdue(item, today))
      .map(([field, item]) =>
        unlikely('calibration-overdue', field, { name: item.name, due: item.calibrationDue ?? '' }),
      ),
    ...checkSolvent(references),
  ];
}

/** In a solvent that expands much, a volume against a mass needs the temperature. */
function checkSolvent(references: RunReferences): readonly Finding[] {
  const solvent = solventOf(references.method.solventId);
  const isAgainstMass = arrangementOf(references).portion.unit === 'g';
  if (solvent.isWater || references.thermometer || !isAgainstMass) return [];
  const percentPerK = 100 * solvent.cubicExpansionPerK;
  return [
    unlikely('other-solvent-not-measured', 'thermometer', { solvent: solvent.name, percentPerK }),
  ];
}

function checkStandardizationStart(
  references: StandardizationReferences,
  today: PlainDate,
): readonly Finding[] {
  const { method, bottle, standard } = references;
  return [
    ...(method.titrantIds.includes(bottle.substanceId)
      ? []
      : [impossible('wrong-titrant', 'bottle')]),
    ...(method.standardId === standardSubstanceId(standard)
      ? []
      : [impossible('wrong-standard', 'standard')]),
    ...checkStandard(references, today),
    ...checkExcess(references, bottle, today),
  ];
}

/** What speaks against samples and the titrant that is to measure them. */
function checkAnalysisStart(references: AnalysisReferences, today: PlainDate): readonly Finding[] {
  const { method, titrant, samples, portioning } = references;
  const ids = samples.map(({ state }) => state.id);
  return [
    ...(method.titrantIds.includes(titrant.substanceId)
      ? [...checkKnownSolution(titrant, null, 'titrant', today), ...checkSameWay(references)]
      : [impossible('other-titrant', 'titrant')]),
    ...(samples.length === 0 ? [impossible('no-sample', 'samples')] : []),
    ...(new Set(ids).size < ids.length ? [impossible('sample-twice', 'samples')] : []),
    ...(method.portions.some(({ kind }) => kind === portioning.kind)
      ? []
      : [impossible('wrong-test-portion', 'instrument', { takes: portioning.kind })]),
    ...samples.flatMap((sample) => checkSampleStart(references, sample)),
    ...checkExcess(references, titrant, today),
  ];
}

/** Small errors that the standardization and the analysis have in common cancel where both end and are corrected the same way. */
function checkSameWay(references: AnalysisReferences): readonly Finding[] {
  const { method, titrant } = references;
  const certificate = certificateInForce(titrant);
  if (!certificate) return [];
  const { certificateNumber: number, indicatorId, corrections } = certificate;
  const isOtherEnd = indicatorId !== undefined && indicatorId !== method.indicatorId;
  const isOtherTemperature = corrections !== null && isCorrectedOtherwise(corrections, references);
  return [
    ...(isOtherEnd
      ? [
          unlikely('other-indicator', 'titrant', {
            number,
            there: nameOfEnd(indicatorId, method),
            here: nameOfEnd(method.indicatorId, method),
          }),
        ]
      : []),
    ...(isOtherTemperature ? [unlikely('other-temperature-rule', 'titrant', { number })] : []),
  ];
}

function nameOfEnd(indicatorId: string | null, { own }: AnalysisReferences['method']): string {
  if (indicatorId === null) return 'an electrode or the titrant itself';
  return findIndicator(indicatorId, own)?.name ?? indicatorId;
}

/** Only against a mass does a correction of the volume count: against another volume it cancels. */
function isCorrectedOtherwise(
  { referenceC, temperature }: CertifiedCorrections,
  references: AnalysisReferences,
): boolean {
  const { method, portioning, thermometer, rulesInForce } = references;
  if (portioning.kind !== 'weighed' || temperature === null) return false;
  const liquid = solventOf(method.solventId);
  const isCorrected = correctingThermometer({ liquid, thermometer }, rulesInForce) !== null;
  return (
    isCorrected !== (temperature.how === 'corrected') ||
    Number(referenceC) !== Number(rulesInForce.referenceTemperatureC)
  );
}

function checkSampleStart(
  { method, portioning }: AnalysisReferences,
  { state, dilutions }: RunSample,
): readonly Finding[] {
  const { code } = state.sample;
  const { unit } = statedBy(method, state);
  const isWhole = takesWholeUnits(portioning);
  if (state.disposed) return [impossible('sample-disposed-of', 'samples', { code })];
  const isAsMade = dilutions.every(
    ({ pipette, flask }, i) =>
      pipette.id === state.dilutions[i]?.pipette.id && flask.id === state.dilutions[i].flask.id,
  );
  return [
    ...(isAsMade ? [] : [impossible('other-dilutions', 'samples', { code })]),
    ...(portioning.kind === 'weighed' && dilutions.length > 0
      ? [impossible('dilution-weighed', 'samples', { code })]
      : []),
    ...(isWhole && RESULT_UNITS[unit].quantity !== 'mass-per-unit'
      ? [impossible('whole-units-by-unit', 'samples', { code })]
      : []),
    ...needsOf(unit, state.sample, isWhole ? 'whole' : portioning.kind).map((need) =>
      impossible(need, need === 'volume-needed' ? 'instrument' : 'samples'),
    ),
  ];
}

function checkStandard(
  { method, bottle, standard }: StandardizationReferences,
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
  titrant: BottleState | null,
  field: 'standard' | 'excess' | 'titrant',
  today: PlainDate,
): readonly Finding[] {
  const { code, id } = solution;
  if (id === titrant?.id) {
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
function checkExcess(
  references: RunReferences,
  bottle: BottleState,
  today: PlainDate,
): readonly Finding[] {
  const { method, excess } = references;
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
  // A content is not known beforehand: what is left of the excess, the bench tells.
  if (isAnalysis(references)) return found;
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
