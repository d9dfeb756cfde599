import type { Blank, Dilution } from '../../determination';
import type { Part } from '../../chemistry';
import type { HouseRules } from '../../laboratory';
import type { Expression, Input, Term } from '../../measurement';
import {
  combineComponents,
  commonInput,
  define,
  exact,
  figureText,
  input,
  mean,
  minus,
  plus,
  product,
  sum,
  UNITS,
} from '../../measurement';
import type {
  Burette,
  CalibratedBalance,
  CalibratedBurette,
  EquipmentState,
  Glassware,
} from '../../metrology';
import {
  buretteReading,
  calibratedPointOf,
  calibrationComponents,
  deliveryRepeatability,
  endPointWithin,
  volumeTolerance,
  weighingDeviation,
  weighingRepeatability,
} from '../../metrology';
import type { RecordVersion } from '../../record';
import type { Flask, Reading, RunState } from '../run';
import {
  endsDelivery,
  placeKey,
  placeName,
  readingsOf,
  stretchesOf,
  stretchesToFirstEnd,
} from '../run';
import type { Portioning, RunSetUp, RunStandard } from '../setUp';
import { isAnalysis, pipetteVolumeMl, sampleOf } from '../setUp';
import { volumeFactorOf } from './corrections';
import { endPointOf, lastAdditionMl } from './endOfTitration';
import { incidentCorrections } from './incidentCorrections';
import { amountIn } from './portions';
import { blankOf, blanksOf, buretteCorrections } from './volumes';

/** Inputs that all readings of a burette share. */
interface BuretteInputs {
  readonly calibration: Expression;
  /** Of what ran in up to the first of two ends; null where there is one. */
  readonly calibrationToFirst: Expression | null;
  readonly thermalFactor: Expression;
  readonly blank: Blank;
  /** Where the eye sees the end, of all that it judged alike; null where an electrode did. */
  readonly shade: Expression | null;
  /** The facts that are readings of a blank, also where one of them is carried over to the next flask. */
  readonly ofBlanks: ReadonlySet<string>;
}

export function buretteInputs(run: RunState, flasks: readonly Flask[]): BuretteInputs {
  const blanks = blanksOf(run);
  const ofBlanks = new Set(
    blanks.flatMap((flask) => readingsOf(flask).map(({ entry }) => entry.factId)),
  );
  const shade = shadeInput(run, flasks);
  return {
    calibration: buretteCalibration(run, flasks, 'last'),
    calibrationToFirst: flasks.some(({ firstEnd }) => firstEnd)
      ? buretteCalibration(run, flasks, 'first')
      : null,
    thermalFactor: volumeFactorOf(run),
    blank: blankInput(run, blanks, { ofBlanks, shade }),
    shade,
    ofBlanks,
  };
}

function isJudgedByEye(run: RunState, flask: Flask): boolean {
  return endPointOf(run, flask).by !== 'curve';
}

/**
 * The shade at which all titrations are stopped may lie half the last addition off the end, the same way each time: no number of
 * titrations averages it. Where a blank is titrated to that shade, it is one input of both and cancels.
 */
function shadeInput(run: RunState, flasks: readonly Flask[]): Expression | null {
  const additionsMl = flasks
    .filter((flask) => isJudgedByEye(run, flask))
    .map((flask) => lastAdditionMl(run, flask));
  if (additionsMl.length === 0) return null;
  const widestMl = Math.max(...additionsMl);
  return commonInput({
    id: `run:${run.id}/end-point`,
    symbol: 'δV_shade',
    name: 'shade at which all titrations are stopped',
    effect: 'End point, common',
    value: 0,
    unit: UNITS.millilitre,
    components: [
      { name: 'half the last addition', distribution: 'rectangular', halfWidth: widestMl / 2 },
    ],
    source: `last addition of ${figureText(widestMl)} mL`,
  });
}

function shadeTerm(
  run: RunState,
  flask: Flask,
  { shade }: Pick<BuretteInputs, 'shade'>,
): readonly Term[] {
  return shade && isJudgedByEye(run, flask) ? [plus(shade)] : [];
}

/** What the blanks take is taken off every flask alike: no scatter among the flasks shows it. */
function blankInput(
  run: RunState,
  blanks: readonly Flask[],
  { ofBlanks, shade }: Pick<BuretteInputs, 'ofBlanks' | 'shade'>,
): Blank {
  const { kind } = blankOf(run);
  if (kind === 'none') return { kind };
  const { burette } = run.references;
  const titres = blanks.map((flask) =>
    sum([
      ...readingTerms(burette, flask, ofBlanks, 'last'),
      plus(endPointInput(run, flask, 'common')),
      ...shadeTerm(run, flask, { shade }),
      ...incidentTerms(run, flask),
    ]),
  );
  return {
    kind,
    volume: define('V_blank', 'volume that a blank takes', UNITS.millilitre, mean(titres)),
  };
}

/** An end of a titration. */
type End = 'first' | 'last';

/** The stretches that ran in up to an end. */
function stretchesTo(end: End, flask: Flask): ReturnType<typeof stretchesOf> {
  return end === 'first' ? stretchesToFirstEnd(flask) : stretchesOf(flask);
}

/**
 * What is not known of all that a burette delivers up to an end: what its certificate leaves open, or its tolerance. Where two ends lie
 * on the scale its graduation errs by as much, the one way or the other: nothing says that it errs alike, so that they are two inputs.
 */
function buretteCalibration(
  { setUp, references: { burette } }: RunState,
  flasks: readonly Flask[],
  end: End,
): Expression {
  const [symbol, to] = end === 'first' ? ['δV_cal,1', ' at the first end'] : ['δV_cal', ''];
  const given = {
    symbol,
    name: `calibration of the burette${to}`,
    value: 0,
    unit: UNITS.millilitre,
  };
  const id = `equipment:${setUp.burette.id}`;
  const version = `${String(setUp.burette.version)}${end === 'first' ? '/first-end' : ''}`;
  if (!burette.calibration) {
    return commonInput({
      ...given,
      id: `${id}/tolerance@${version}`,
      effect: 'Burette tolerance',
      components: toleranceOf(burette, setUp.rules),
      source: `burette ${burette.name}, ± ${figureText(burette.toleranceMl)} mL`,
    });
  }
  // One input for all flasks: that of the flask for which the certificate leaves most open. What it leaves open of a blank
  // is next to nothing: both its readings lie close together.
  const expandedUncertainty = Math.max(
    ...flasks.map((flask) =>
      Math.hypot(
        ...buretteCorrections(burette, stretchesTo(end, flask)).map(
          (one) => one.expandedUncertaintyMl,
        ),
      ),
    ),
  );
  return commonInput({
    ...given,
    id: `${id}/calibration@${version}`,
    effect: 'Burette calibration',
    components: calibrationComponents({ expandedUncertainty }),
    source: `burette ${burette.name}, calibrated`,
  });
}

/** What was measured into each flask: a mass, or an aliquot. */
export function portionInputs(
  run: RunState,
  flasks: readonly Flask[],
  atReference: Expression,
): (flask: Flask) => Expression {
  const measured = measuringOf(run);
  if (measured.with === 'balance') return weighedInputs(flasks, measured);
  const portion = { symbol: 'V_a', name: 'aliquot', effect: 'Aliquot' };
  return pipettedInputs(run.setUp, measured.vessel, portion, amountIn, atReference);
}

/** The volume of the excess in each flask; null without one. */
export function excessInputs(
  { setUp, references: { excess } }: RunState,
  atReference: Expression,
): (flask: Flask) => Expression | null {
  if (!excess) return () => null;
  const added = { symbol: 'V_e', name: 'excess', effect: 'Excess' };
  const nominalMl = pipetteVolumeMl(excess.vessel);
  return pipettedInputs(setUp, excess.vessel, added, () => nominalMl, atReference);
}

type Measuring =
  | {
      readonly with: 'balance';
      readonly balance: CalibratedBalance;
      readonly at: RecordVersion;
      /** What is weighed. */
      readonly what: 'standard' | 'sample';
    }
  | { readonly with: 'vessel'; readonly vessel: EquipmentState };

/** With what portions are measured, of a standard or of samples. */
function measuringOf({ setUp, references }: RunState): Measuring {
  if (isAnalysis(setUp) && isAnalysis(references)) {
    const [chosen, record] = [setUp.portioning, references.portioning];
    return chosen.kind === 'weighed' && record.kind === 'weighed'
      ? { with: 'balance', balance: record.balance, at: chosen.balance, what: 'sample' }
      : { with: 'vessel', vessel: vesselIn(record) };
  }
  if (isAnalysis(setUp) || isAnalysis(references))
    throw new RangeError('a run is one or the other');
  const [chosen, record] = [setUp.standard, references.standard];
  return chosen.kind === 'lot' && record.kind === 'lot'
    ? { with: 'balance', balance: record.balance, at: chosen.balance, what: 'standard' }
    : { with: 'vessel', vessel: vesselIn(record) };
}

function vesselIn(measured: Portioning | RunStandard): EquipmentState {
  if ('vessel' in measured) return measured.vessel;
  throw new RangeError('portions are weighed');
}

function weighedInputs(
  flasks: readonly Flask[],
  { balance, at, what }: Extract<Measuring, { with: 'balance' }>,
): (flask: Flask) => Expression {
  // One input for all flasks, as for the burette: that of the one of which least is known.
  const [widest] = flasks
    .map((flask) => weighingDeviation(balance, amountIn(flask)))
    .toSorted((a, b) => combineComponents(b.components) - combineComponents(a.components));
  if (!widest) throw new RangeError('a result needs a flask');
  const deviation = commonInput({
    // What one balance shows wrong is the same in every run that weighs on it.
    id: `equipment:${at.id}/linearity@${String(at.version)}`,
    symbol: 'δm_lin',
    name: widest.isCertified ? 'calibration of the balance' : 'linearity of the balance',
    effect: 'Balance',
    value: 0,
    unit: UNITS.gram,
    components: widest.components,
    source: widest.isCertified ? `balance ${balance.name}, calibrated` : `balance ${balance.name}`,
  });
  return (flask) => {
    const i = String(flask.number);
    const mass = ownInput({
      id: `fact:${flask.portion.factId}/mass`,
      symbol: `m_${i}`,
      name: `mass of ${what} in flask ${i}`,
      effect: 'Balance',
      value: amountIn(flask),
      unit: UNITS.gram,
      components: weighingRepeatability(balance),
      source: `balance ${balance.name}`,
    });
    const { correctionG } = weighingDeviation(balance, amountIn(flask));
    const correction = define(
      `C_m,${i}`,
      `correction of the balance for flask ${i}`,
      UNITS.gram,
      exact(correctionG, UNITS.gram),
    );
    return sum([plus(mass), ...(correctionG === 0 ? [] : [plus(correction)]), plus(deviation)]);
  };
}

/** How a volume that is pipetted into every flask appears in the equation and the budget. */
interface PipettedVolume {
  readonly symbol: string;
  readonly name: string;
  readonly effect: string;
}

/** A volume in each flask: what the vessel delivers, as calibrated where it was, and how well it was filled. */
function pipettedInputs(
  { rules }: RunSetUp,
  vessel: EquipmentState,
  { symbol, name, effect }: PipettedVolume,
  volumeMlIn: (flask: Flask) => number,
  atReference: Expression,
): (flask: Flask) => Expression {
  const { equipment } = vessel;
  if (equipment.type !== 'glassware' && equipment.type !== 'burette') {
    throw new RangeError(`${equipment.name} measures no volume`);
  }
  const point = calibratedPointOf(vessel);
  const deviation = vesselDeviation(vessel, rules, { symbol, effect });
  return (flask) => {
    const i = String(flask.number);
    const read = ownInput({
      id: `fact:${flask.portion.factId}/${name}`,
      symbol: `${symbol},${i}`,
      name: `${name} in flask ${i}`,
      effect,
      value: volumeMlIn(flask),
      unit: UNITS.millilitre,
      components: deliveryRepeatability(equipment, point),
      source: equipment.name,
    });
    return product([sum([plus(read), plus(deviation)]), atReference]);
  };
}

/**
 * What is not known of a vessel, or was found by its calibration: one and the same wherever that vessel measures, in flasks, in a
 * dilution, or as a burette that serves for both aliquot and titre.
 */
function vesselDeviation(
  vessel: EquipmentState,
  rules: HouseRules,
  { symbol, effect }: Pick<PipettedVolume, 'symbol' | 'effect'>,
): Expression {
  const { equipment, id, version } = vessel;
  if (equipment.type !== 'glassware' && equipment.type !== 'burette') {
    throw new RangeError(`${equipment.name} measures no volume`);
  }
  const point = calibratedPointOf(vessel);
  return commonInput({
    id: `equipment:${id}/tolerance@${String(version)}`,
    symbol: `δ${symbol}`,
    name: `calibration of ${equipment.name}`,
    effect,
    value: point?.deviation ?? 0,
    unit: UNITS.millilitre,
    components: point ? calibrationComponents(point) : toleranceOf(equipment, rules),
    source: point
      ? `${equipment.name}, calibrated`
      : `${equipment.name}, ± ${figureText(equipment.toleranceMl)} mL`,
  });
}

/** The volumes of the dilutions of a sample, each made once and the same for all flasks; none in a standardization. */
export function dilutionInputs({ setUp: { rules }, references }: RunState): readonly Dilution[] {
  if (!isAnalysis(references)) return [];
  return sampleOf(references).dilutions.map(({ pipette, flask }, i) => {
    const step = String(i + 1);
    const measured = (vessel: EquipmentState, symbol: string, name: string): Expression => {
      const { equipment } = vessel;
      if (equipment.type !== 'glassware') throw new RangeError(`${equipment.name} holds no volume`);
      const filled = commonInput({
        id: `sample:${sampleOf(references).state.id}/dilution-${step}/${symbol}`,
        symbol,
        name: `${name} of dilution ${step}`,
        effect: 'Dilution',
        value: Number(equipment.volumeMl),
        unit: UNITS.millilitre,
        components: deliveryRepeatability(equipment, calibratedPointOf(vessel)),
        source: equipment.name,
      });
      const deviation = vesselDeviation(vessel, rules, { symbol, effect: 'Dilution' });
      return sum([plus(filled), plus(deviation)]);
    };
    return {
      aliquot: measured(pipette, `V_p,${step}`, 'aliquot'),
      flask: measured(flask, `V_f,${step}`, 'flask'),
    };
  });
}

/** The tolerance of what measures a volume, distributed as the house rule takes it. */
function toleranceOf(vessel: Burette | Glassware, { toleranceAs }: HouseRules) {
  return volumeTolerance(
    toleranceAs === 'as-registered' ? vessel : { ...vessel, toleranceDistribution: toleranceAs },
  );
}

function ownInput(
  given: Omit<Input, 'degreesOfFreedom' | 'variation'>,
  variation: Input['variation'] = 'by-replicate',
): Expression {
  return input({ ...given, degreesOfFreedom: Number.POSITIVE_INFINITY, variation });
}

/** The readings of a titration up to an end with their signs, and what the certificate of the burette corrects in them. */
function readingTerms(
  burette: CalibratedBurette,
  flask: Flask,
  ofBlanks: BuretteInputs['ofBlanks'],
  end: End,
): readonly Term[] {
  const reading = (entry: Reading, symbol: string, name: string): Expression =>
    ownInput(
      {
        id: `fact:${entry.factId}/reading`,
        symbol: `R_${symbol},${String(flask.number)}`,
        name: `${name} of flask ${String(flask.number)}`,
        effect: 'Readings',
        value: Number(entry.value),
        unit: UNITS.millilitre,
        components: buretteReading(burette),
        source: `burette ${burette.name}`,
      },
      ofBlanks.has(entry.factId) ? 'common' : 'by-replicate',
    );
  const readings = readingsTo(end, flask)
    .map(({ place, entry }) => {
      const expression = reading(entry, placeKey(place), placeName(place));
      return endsDelivery(place) ? plus(expression) : minus(expression);
    })
    .toReversed();
  const corrections = buretteCorrections(burette, stretchesTo(end, flask)).map(
    ({ correctionMl }) => correctionMl,
  );
  if (corrections.length === 0) return readings;
  const i = String(flask.number);
  const correction = define(
    end === 'first' ? `C_${i},1` : `C_${i}`,
    `correction of the burette for flask ${i}${end === 'first' ? ', first end' : ''}`,
    UNITS.millilitre,
    exact(
      corrections.reduce((total, one) => total + one, 0),
      UNITS.millilitre,
    ),
  );
  return [...readings, plus(correction)];
}

/** The readings that make the titre to an end. */
function readingsTo(end: End, flask: Flask): ReturnType<typeof readingsOf> {
  const readings = readingsOf(flask);
  const first = readings.findIndex(({ place }) => place.at === 'first-end');
  return end === 'first'
    ? readings.slice(0, first + 1)
    : readings.filter(({ place }) => place.at !== 'first-end');
}

function endPointInput(run: RunState, flask: Flask, variation?: Input['variation']): Expression {
  const { correctionMl, halfWidthMl, by } = endPointOf(run, flask);
  const i = String(flask.number);
  const given = {
    id: `run:${run.id}/end-point/${i}`,
    symbol: `δV_end,${i}`,
    name: `end point of flask ${i}`,
    effect: 'End point',
    value: correctionMl,
    unit: UNITS.millilitre,
    components: endPointWithin(halfWidthMl),
    source: {
      drop: `drop of ${figureText(run.references.burette.dropMl)} mL`,
      bracket: 'between two readings',
      curve: 'curve of the electrode',
    }[by],
  };
  return ownInput(given, variation);
}

/** What incidents of measured size correct: of one flask, so that no scatter shows how sure it is. */
function incidentTerms(run: RunState, flask: Flask): readonly Term[] {
  const i = String(flask.number);
  return incidentCorrections(run, flask).map(
    ({ factId, name, correctionMl, standardUncertaintyMl }) =>
      plus(
        commonInput({
          id: `fact:${factId}/correction`,
          symbol: `C_inc,${i}`,
          name: `flask ${i}, “${name}”, as measured`,
          effect: 'Incidents',
          value: correctionMl,
          unit: UNITS.millilitre,
          components: [{ name: 'measured size', standardUncertainty: standardUncertaintyMl }],
          source: 'noted at the bench',
        }),
      ),
  );
}

/** Volume of a titration at the reference temperature, as it stands in the balance. */
export function titreInput(
  run: RunState,
  flask: Flask,
  { calibration, thermalFactor: atReference, blank, shade, ofBlanks }: BuretteInputs,
): Expression {
  const i = String(flask.number);
  if (!flask.initial || !flask.final) throw new RangeError(`flask ${i} has not been titrated`);
  const readings = readingTerms(run.references.burette, flask, ofBlanks, 'last');
  const endPoints = [
    plus(endPointInput(run, flask)),
    ...shadeTerm(run, flask, { shade }),
    ...incidentTerms(run, flask),
  ];
  const net =
    blank.kind === 'gives-the-excess'
      ? [plus(blank.volume), minus(sum([...readings, ...endPoints])), plus(calibration)]
      : [
          ...readings,
          ...(blank.kind === 'subtracted' ? [minus(blank.volume)] : []),
          plus(calibration),
          ...endPoints,
        ];
  return define(
    `V_${i}`,
    `volume for flask ${i} at ${run.setUp.rules.referenceTemperatureC} °C`,
    UNITS.millilitre,
    product([sum(net), atReference]),
  );
}

/**
 * Titre of a part of what a flask holds, at the reference temperature: so many times what ran in up to the first end, and so many times
 * what ran in up to the last.
 */
export function partTitreInput(
  run: RunState,
  flask: Flask,
  burette: BuretteInputs,
  { toFirst, toLast }: Part['titre'],
): Expression {
  return sum([
    plus(product([exact(toFirst), titreToFirstInput(run, flask, burette)])),
    plus(product([exact(toLast), titreInput(run, flask, burette)])),
  ]);
}

/** Where the eye sees the first end is not known to within a drop: the same way each time, and of each flask by itself. */
function titreToFirstInput(
  run: RunState,
  flask: Flask,
  { calibrationToFirst, thermalFactor, ofBlanks }: BuretteInputs,
): Expression {
  const i = String(flask.number);
  if (!flask.firstEnd || !calibrationToFirst) throw new RangeError(`flask ${i} has no first end`);
  const { burette } = run.references;
  const halfWidthMl = Number(burette.dropMl) / 2;
  const given = {
    ...{ value: 0, unit: UNITS.millilitre, components: endPointWithin(halfWidthMl) },
    source: `drop of ${figureText(burette.dropMl)} mL`,
  };
  const shade = commonInput({
    ...given,
    id: `run:${run.id}/end-point/first`,
    symbol: 'δV_shade,1',
    name: 'shade at which all are read at the first end',
    effect: 'End point, common',
  });
  const end = ownInput({
    ...given,
    id: `run:${run.id}/end-point/${i}/first`,
    symbol: `δV_end,${i},1`,
    name: `first end of flask ${i}`,
    effect: 'End point',
  });
  return define(
    `V_${i},1`,
    `volume to the first end of flask ${i} at ${run.setUp.rules.referenceTemperatureC} °C`,
    UNITS.millilitre,
    product([
      sum([
        ...readingTerms(burette, flask, ofBlanks, 'first'),
        plus(calibrationToFirst),
        plus(end),
        plus(shade),
      ]),
      thermalFactor,
    ]),
  );
}
