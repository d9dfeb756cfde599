import type { Analysis, EntryState } from '../chemistry';
import { checkOwn, findAnalysis, partsOf, refersToOwn, RESULT_UNITS } from '../chemistry';
import type { PlainDate } from '../grammar';
import { checkTypedDate } from '../laboratory';
import { figureText } from '../measurement';
import type { EquipmentState } from '../metrology';
import { isPipette } from '../metrology';
import type { Around, Finding } from '../record';
import {
  atHand,
  corrected,
  defineRecord,
  impossible,
  lasting,
  provenance,
  unlikely,
} from '../record';
import type {
  DilutionState,
  Requirement,
  Sample,
  SampleFactBodies,
  SampleRequest,
  SampleState,
  Stated,
} from './sample';
import { requestFor } from './sample';

/** What is around a sample. */
export interface AroundSample extends Around<{
  readonly equipment: EquipmentState;
  readonly entry: EntryState;
}> {
  /** The sample that has a code, as far as that is known here; the database lets no two have the same. */
  readonly sampleCoded: (code: string) => string | null;
}

/** A sample: received, diluted, disposed of. */
export const SAMPLE_RECORD = defineRecord<
  'sample',
  SampleFactBodies,
  SampleState,
  AroundSample,
  'sample.reported' | 'sample.report-withdrawn' | 'sample.labelled'
>({
  kind: 'sample',
  first: 'sample.received',
  closed: ({ disposed }) => (disposed ? [impossible('disposed-of', 'sample')] : []),
  begin: (fact) =>
    fact.kind === 'sample.received'
      ? {
          received: provenance(fact),
          sample: fact.body,
          dilutions: [],
          struck: [],
          corrections: [],
          disposed: null,
          takenOver: [],
          reported: [],
        }
      : null,
  listed: ({ sample, disposed, reported }) => ({
    name: sample.code,
    words: [
      sample.description,
      sample.source,
      sample.customer,
      ...sample.requests.map(
        ({ analysisId }) => findAnalysis(analysisId, sample.own)?.name ?? analysisId,
      ),
    ],
    aboutId: null,
    ...(disposed
      ? { standing: lasting('disposed'), atHandUntil: 'over' as const }
      : atHand(
          {
            now: isReported(sample, reported) ? 'reported' : 'received',
            lastDay: sample.keepUntil,
            after: 'to-dispose-of',
            warningDays: null,
          },
          false,
        )),
  }),
  facts: {
    'sample.received': {
      nature: 'observation',
      refersTo: refersToOwn,
      check: ({ body }, _state, around) => [
        ...checkOwn(body, around),
        ...checkSample(body, null, around),
      ],
      apply: () => ({}),
      sentence: ({ code, description }) => `sample ${code}, ${description}.`,
    },
    'sample.corrected': {
      nature: 'decision',
      refersTo: ({ sample }) => refersToOwn(sample),
      check: ({ body: { sample } }, state, around) => [
        ...checkOwn(sample, around, state.sample),
        ...checkSample(sample, state.id, around),
      ],
      apply: (state, fact) => ({
        sample: fact.body.sample,
        corrections: corrected(state, fact, state.sample),
      }),
      sentence: ({ sample: { code }, reason }) => `sample ${code} corrected: ${reason}.`,
    },
    'sample.diluted': {
      nature: 'observation',
      refersTo: ({ pipette, flask }) => [
        { field: 'pipette', kind: 'equipment', ...pipette },
        { field: 'flask', kind: 'equipment', ...flask },
      ],
      check: ({ body }, state, around) => checkDilution(body, state, around),
      apply: ({ dilutions }, fact) => {
        const { pipette, flask } = fact.body;
        return { dilutions: [...dilutions, { ...provenance(fact), pipette, flask }] };
      },
      sentence: () => 'diluted.',
    },
    'sample.dilution-struck': {
      nature: 'decision',
      names: ({ dilutionId }) => [dilutionId],
      check: ({ body: { dilutionId } }, { dilutions }) =>
        dilutions.at(-1)?.factId === dilutionId ? [] : [impossible('not-last-dilution', 'sample')],
      apply: ({ dilutions, struck }, { body: { dilutionId, reason } }) => {
        const gone = dilutions.filter(({ factId }) => factId === dilutionId);
        return {
          dilutions: dilutions.filter((one) => !gone.includes(one)),
          struck: [...struck, ...gone.map((one) => ({ ...one, because: reason }))],
        };
      },
      sentence: ({ reason }) => `dilution struck out: ${reason}.`,
    },
    'sample.disposed': {
      nature: 'decision',
      check: () => [],
      apply: (_state, fact) => ({ disposed: { ...provenance(fact), how: fact.body.how } }),
      sentence: ({ how }) => `disposed of: ${how}.`,
    },
    'sample.points-taken-over': {
      nature: 'observation',
      check: ({ body }, { sample }, { today }) => checkTakenOver(body, sample, today),
      apply: ({ takenOver }, fact) => ({
        takenOver: [...takenOver, { ...provenance(fact), ...fact.body }],
      }),
      sentence: ({ points, source }) =>
        `${String(points.length)} earlier points taken over from ${source}.`,
    },
    'sample.labelled': {
      nature: 'observation',
      needsServer: true,
      check: () => [],
      apply: () => ({}),
      sentence: ({ sheet }) => `label made: ${sheet}.`,
    },
    'sample.reported': {
      nature: 'decision',
      needsServer: true,
      // What was measured in time is reported whenever it is ready.
      comesAlways: true,
      refersTo: ({ runId }) => [{ field: 'runId', kind: 'run', id: runId, version: null }],
      check: () => [],
      apply: ({ reported }, { body }) => ({
        reported: [...reported, { ...body, withdrawn: null }],
      }),
      sentence: ({ reportNumber, stated }) => `reported in ${reportNumber}: ${stated}.`,
    },
    'sample.report-withdrawn': {
      nature: 'decision',
      needsServer: true,
      comesAlways: true,
      check: () => [],
      apply: ({ reported }, fact) => ({
        reported: reported.map((one) =>
          one.reportNumber === fact.body.reportNumber
            ? { ...one, withdrawn: { ...provenance(fact), reason: fact.body.reason } }
            : one,
        ),
      }),
      sentence: ({ reportNumber, reason }) => `report ${reportNumber} withdrawn: ${reason}.`,
    },
  },
});

/** Whether every request has a result in a report that holds. */
function isReported({ requests }: Sample, reported: SampleState['reported']): boolean {
  const holding = reported.filter(({ withdrawn }) => withdrawn === null);
  return (
    requests.length > 0 &&
    requests.every(({ analysisId }) => holding.some((one) => one.analysisId === analysisId))
  );
}

/** Points are of a control, of an analysis that it is asked for, and lie in the past. */
function checkTakenOver(
  { analysisId, unit, points }: SampleFactBodies['sample.points-taken-over'],
  sample: Sample,
  today: PlainDate,
): readonly Finding[] {
  const request = requestFor(sample, analysisId);
  return [
    ...(sample.isControl === true ? [] : [impossible('no-control', 'sample')]),
    ...(request?.unit === unit ? [] : [impossible('not-asked-for', 'analysisId')]),
    ...points.flatMap(({ on }, i) =>
      checkTypedDate(`points.${String(i)}.on`, on, 'happened', today),
    ),
  ];
}

function checkSample(
  sample: Sample,
  ownId: string | null,
  { today, sampleCoded }: AroundSample,
): readonly Finding[] {
  const { code, sampledOn, receivedOn, keepUntil, requests } = sample;
  const other = sampleCoded(code);
  const asked = requests.map(({ analysisId }) => analysisId);
  return [
    ...(other === null || other === ownId ? [] : [impossible('sample-code-taken', 'code')]),
    ...checkTypedDate('sampledOn', sampledOn, 'happened', today),
    ...checkTypedDate('receivedOn', receivedOn, 'happened', today),
    ...checkTypedDate('keepUntil', keepUntil, 'to-come', today),
    ...(sampledOn !== null && sampledOn > receivedOn
      ? [impossible('received-before-sampled', 'receivedOn')]
      : []),
    ...(new Set(asked).size < asked.length ? [impossible('asked-twice', 'requests')] : []),
    ...requests.flatMap((request, i) => checkRequest(request, `requests.${String(i)}`, sample)),
  ];
}

/** What speaks against a request: an analysis that states no such thing, or a sample that cannot be asked for it. */
function checkRequest(request: SampleRequest, field: string, sample: Sample): readonly Finding[] {
  const { analysisId, unit, as, requirement, part: partId } = request;
  const analysis = findAnalysis(analysisId, sample.own);
  if (!analysis) return [impossible('not-in-catalogue', `${field}.analysisId`, { kind: 'method' })];
  const part = partsOf(analysis).find(({ id }) => id === partId);
  const { statedAs } = part ?? analysis;
  const isStated =
    statedAs.length === 0 ? as === null : statedAs.some(({ formula }) => formula === as);
  return [
    ...(analysis.units.includes(unit)
      ? []
      : [impossible('other-unit', `${field}.unit`, { units: analysis.units })]),
    ...(partId === undefined || part ? [] : [impossible('no-such-part', `${field}.part`)]),
    ...(isStated ? [] : [impossible('not-stated-as', `${field}.as`)]),
    ...checkDryMatter(request, sample, field),
    ...neededByAny(analysis, unit, sample).map((need) => impossible(need, 'sample')),
    ...checkLimits(requirement, `${field}.requirement`),
  ];
}

/** A content of dry matter is one by mass, and needs to know how much that is. */
function checkDryMatter(
  { onDryMatter, unit }: SampleRequest,
  { dryMatter }: Sample,
  field: string,
): readonly Finding[] {
  if (onDryMatter !== true) return [];
  if (RESULT_UNITS[unit].quantity !== 'mass-fraction') {
    return [impossible('dry-matter-by-mass', `${field}.unit`)];
  }
  return dryMatter ? [] : [impossible('dry-matter-missing', 'sample')];
}

type Need = 'density-missing' | 'unit-mass-missing' | 'volume-needed';

/** What lacks whichever portion the analysis takes: nothing, as long as one kind of them answers. */
function neededByAny(
  { portions }: Analysis,
  unit: SampleRequest['unit'],
  sample: Sample,
): readonly Need[] {
  const needs = portions.flatMap(({ kind }) =>
    kind === 'weighed'
      ? [needsOf(unit, sample, kind), needsOf(unit, sample, 'whole')]
      : [needsOf(unit, sample, kind)],
  );
  return needs.find((one) => one.length === 0) ?? needs[0] ?? [];
}

/** What a result in a unit needs of the sample or of its portion, and does not have. */
export function needsOf(
  unit: SampleRequest['unit'],
  { density, unitMass }: Pick<Sample, 'density' | 'unitMass'>,
  portion: 'weighed' | 'aliquot' | 'whole',
): readonly Need[] {
  switch (RESULT_UNITS[unit].quantity) {
    case 'mass-fraction':
      return portion === 'aliquot' && !density ? ['density-missing'] : [];
    case 'mass-per-unit':
      return unitMass || portion === 'whole' ? [] : ['unit-mass-missing'];
    case 'molarity':
    case 'equivalents':
    case 'mass-concentration':
    case 'volume-fraction':
      return portion === 'aliquot' ? [] : ['volume-needed'];
    case 'equivalent-mass':
      return [];
  }
}

function checkLimits(requirement: Requirement, field: string): readonly Finding[] {
  if (requirement.kind !== 'limits') return [];
  const { lower, upper } = requirement;
  if (lower === null && upper === null) return [impossible('no-limit', field)];
  return lower !== null && upper !== null && Number(lower) > Number(upper)
    ? [impossible('limits-crossed', field)]
    : [];
}

/** Below this volume the tolerance of a pipette weighs heavily. */
export const SMALL_ALIQUOT_ML = 5;

function checkDilution(
  { pipette, flask }: SampleFactBodies['sample.diluted'],
  { sample, dilutions }: SampleState,
  around: AroundSample,
): readonly Finding[] {
  const from = around.at('equipment', pipette)?.equipment;
  const into = around.at('equipment', flask)?.equipment;
  if (!from || !isPipette(from)) return [impossible('not-a', 'pipette', { kind: 'pipette' })];
  if (into?.type !== 'glassware' || into.kind !== 'volumetric-flask') {
    return [impossible('not-a', 'flask', { kind: 'volumetric-flask' })];
  }
  const [aliquotMl, flaskMl] = [Number(from.volumeMl), Number(into.volumeMl)];
  if (aliquotMl >= flaskMl) return [impossible('aliquot-fills-flask', 'flask')];
  const { amount } = sample;
  const isMoreThanThere =
    dilutions.length === 0 && amount?.unit === 'mL' && aliquotMl > Number(amount.value);
  return [
    ...(isMoreThanThere
      ? [impossible('aliquot-over-sample', 'pipette', { amountMl: amount.value })]
      : []),
    ...(aliquotMl < SMALL_ALIQUOT_ML
      ? [unlikely('small-aliquot', 'pipette', { aliquotMl: from.volumeMl })]
      : []),
  ];
}

/** Who took it and when; `not by this laboratory` where neither is known. */
export function takenText(
  { sampledBy, sampledOn }: Pick<Sample, 'sampledBy' | 'sampledOn'>,
  dateText: (date: PlainDate) => string,
): string {
  const taken = [sampledBy, sampledOn === null ? '' : dateText(sampledOn)];
  return taken.filter((one) => one !== '').join(', ') || 'not by this laboratory';
}

/** A stated value with its limits: `1.012 ± 0.002 g/mL`. */
export function statedWithin({ value, plusMinus }: Stated, unit: string): string {
  return `${figureText(value)} ± ${figureText(plusMinus)} ${unit}`;
}

/** A dilution as it is told: `10 mL to 250 mL`. */
export function dilutionText(
  { pipette, flask }: Pick<DilutionState, 'pipette' | 'flask'>,
  equipment: (id: string) => EquipmentState | undefined,
): string {
  const volume = (id: string): string => {
    const one = equipment(id)?.equipment;
    return one?.type === 'glassware' ? `${figureText(one.volumeMl)} mL` : '…';
  };
  return `${volume(pipette.id)} to ${volume(flask.id)}`;
}
