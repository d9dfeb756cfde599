import type { Analysis, ResultUnit } from '#core/chemistry';
import { findAnalysis } from '#core/chemistry';
import type { Plain } from '#core/grammar';
import { DEFAULT_HOUSE_RULES, withOverrides } from '#core/laboratory';
import type { EquipmentState, Glassware } from '#core/metrology';
import type { BottleState } from '#core/reagent';
import type { Requirement, Sample, SampleState } from '#core/sample';
import type { AnalysisReferences, RunSample } from '#core/titration/setUp';
import { balance, bottleOf, burette, made, pipetteOf, RunScript } from './runs';
import { stored } from './stored';

/** An analysis of the catalogue. */
export function analysisOf(id: string): Analysis {
  const analysis = findAnalysis(id);
  if (!analysis) throw new Error(`the catalogue lacks ${id}`);
  return analysis;
}

/** What a sample is asked for by one analysis, and what belongs to it. */
export interface GivenSample {
  readonly code?: string;
  readonly unit: ResultUnit;
  readonly as: string | null;
  readonly part?: string;
  readonly expected?: string;
  readonly requirement?: Plain<Requirement>;
  readonly density?: string;
  readonly unitMass?: string;
  /** %; the content is stated of it where it is known. */
  readonly dryMatter?: string;
  /** mL to mL. */
  readonly dilutions?: readonly (readonly [aliquotMl: string, flaskMl: string])[];
}

function volumetricFlask(volumeMl: string): EquipmentState {
  const pipette = pipetteOf(volumeMl);
  return stored({
    ...pipette,
    id: `flask-${volumeMl}`,
    // A pipette of ours is glassware, and so is a flask.
    equipment: {
      ...(pipette.equipment as Glassware),
      ...{ kind: 'volumetric-flask', name: `F${volumeMl}` },
    },
  });
}

function sampleFor(analysisId: string, given: GivenSample): RunSample {
  const {
    code = 'W-1',
    unit,
    as,
    part,
    expected,
    requirement,
    density,
    unitMass,
    dryMatter,
    dilutions = [],
  } = given;
  const ware = dilutions.map(([aliquotMl, flaskMl]) => ({
    pipette: pipetteOf(aliquotMl),
    flask: volumetricFlask(flaskMl),
  }));
  const at = ({ id, version }: EquipmentState) => ({ id, version });
  const sample: Plain<Sample> = {
    ...{ code, description: 'made up', source: '', customer: '', sampledBy: '', sampledOn: null },
    ...{ receivedOn: '2026-03-02', condition: '', amount: null, store: '', keepUntil: null },
    density: density === undefined ? null : { value: density, plusMinus: '0.001' },
    unitMass: unitMass === undefined ? null : { value: unitMass, plusMinus: '0.001' },
    dryMatter: dryMatter === undefined ? null : { value: dryMatter, plusMinus: '0.1' },
    requests: [
      {
        ...{ analysisId, unit, as, expected: expected ?? null },
        requirement: requirement ?? { kind: 'none' },
        ...(dryMatter !== undefined && { onDryMatter: true }),
        ...(part !== undefined && { part }),
      },
    ],
  };
  const said = { factId: 'f0', by: 'ines', at: '2026-03-02T07:00:00.000Z' };
  return stored({
    state: {
      ...{ id: `sample-${code}`, version: 1, factIds: ['f0'], received: said, sample },
      dilutions: ware.map(({ pipette, flask }) => ({
        ...said,
        pipette: at(pipette),
        flask: at(flask),
      })),
      ...{ struck: [], corrections: [], disposed: null, takenOver: [], reported: [] },
    } satisfies Plain<SampleState>,
    dilutions: ware,
  });
}

/** A run that analyses samples with a titrant of exactly known molarity, portions weighed or from a pipette. */
export function analysisScript(
  analysis: string | Analysis,
  titrant: { readonly substanceId: string; readonly molarity: string },
  portioning: 'weighed' | 'whole' | { readonly pipetteMl: string },
  ...given: readonly GivenSample[]
): RunScript {
  const method = typeof analysis === 'string' ? analysisOf(analysis) : analysis;
  const analysisId = method.id;
  const bottle: BottleState = bottleOf(titrant.substanceId, made(titrant.molarity));
  const samples = given.map((one) => sampleFor(analysisId, one));
  const vessel = typeof portioning === 'string' ? null : pipetteOf(portioning.pipetteMl);
  const whole = portioning === 'whole' ? ({ whole: true } as const) : {};
  const rules = withOverrides(DEFAULT_HOUSE_RULES, method.rules);
  const references: AnalysisReferences = {
    ...{ method, titrant: bottle, samples, burette, excess: null, thermometer: null },
    portioning: vessel ? { kind: 'aliquot', vessel } : { kind: 'weighed', balance, ...whole },
    rulesInForce: rules,
  };
  return new RunScript(
    references,
    {},
    {
      method: { kind: 'catalogue', id: analysisId },
      titrant: { id: bottle.id, version: 1 },
      samples: samples.map(({ state }) => ({
        sample: { id: state.id, version: 1 },
        dilutions: state.dilutions.map(({ pipette, flask }) => ({ pipette, flask })),
      })),
      portioning: vessel
        ? { kind: 'aliquot', vessel: { id: vessel.id, version: 1 } }
        : { kind: 'weighed', balance: { id: 'balance-1', version: 1 }, ...whole },
      excess: null,
      burette: { id: 'burette-1', version: 1 },
      rules,
      temperatureC: '20',
      temperatureVariationK: '3',
      thermometer: null,
      airDensityKgPerM3: null,
      methodRepeatabilityPercent: null,
      earlierSeries: null,
      reason: null,
    },
  );
}
