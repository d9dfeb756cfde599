import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import type { FactRow } from './frozen';
import { canonicalText, digestOf, factOf } from './frozen';

/**
 * Frozen: the rules that were in force where nobody had set any. A laboratory of that kind gets them as a fact, so that
 * no later version of the program, which may ship others, rewrites them.
 */
const SHIPPED = {
  concordanceRangeMl: '0.10',
  weighedConcordance: 'relative-range',
  concordanceRelativeRangePercent: '0.3',
  concordanceRsdPercent: '0.1',
  agreeAtLeast: 3,
  titrationsAtMost: 6,
  firstIsRough: true,
  standardBy: 'weighed',
  inBurette: 'titrant',
  primaryTitrants: 'weighed',
  weighing: 'tared',
  titrantsMadeUpIn: 'cylinder',
  startOfTitration: 'carry-on',
  readingResolutionMl: '0.01',
  darkMeniscus: 'top',
  persistenceS: 30,
  indicatorDrops: 2,
  overshotCounts: 'within-a-drop',
  endPointOfCurve: 'second-derivative',
  oxalateHeating: 'to-75-80',
  rinses: 3,
  rinseMl: '4',
  washDown: 'distilled',
  carbonDioxide: 'boiled',
  outlierTest: 'grubbs',
  coverage: 'effective-degrees',
  toleranceAs: 'as-registered',
  testedBy: 'concordance',
  certificateStates: 'uncertainty',
  statesNormality: false,
  paperUnits: 'litre',
  farFromNominalAskPercent: '5',
  farFromNominalReasonPercent: '10',
  nominalTolerancePercent: '5',
  cleaning: 'detergent',
  waste: 'container',
};

export async function up(db: Knex): Promise<void> {
  const founded = await db<FactRow>('facts').where({ kind: 'laboratory.founded' }).first();
  const set = await db<FactRow>('facts').where({ kind: 'laboratory.rules-set' }).first();
  if (!founded || set) return;
  const now = new Date();
  const row: FactRow = {
    id: uuidv7(),
    record_id: founded.record_id,
    record_kind: 'laboratory',
    sequence: 2,
    kind: 'laboratory.rules-set',
    schema_version: 3,
    body: { rules: SHIPPED, reason: 'The rules that were in force without having been written.' },
    author_id: founded.author_id,
    device_id: null,
    device_time: now,
    clock_offset_ms: null,
    based_on: null,
    recorded_at: now,
  };
  const { record_kind: _kind, ...columns } = row;
  await db('facts').insert({ ...columns, body: JSON.stringify(row.body) });
  await db('records').where({ id: founded.record_id }).update({ version: 2 });
  await db('projections')
    .where({ record_id: founded.record_id })
    .update({ version: 2, state: db.raw(`jsonb_set(state, '{version}', '2')`) });
  const fact = factOf(row);
  const entry = {
    ...{ kind: 'fact', at: fact.recordedAt, by: fact.authorId, factId: fact.id },
    ...{ factKind: fact.kind, recordId: fact.recordId, recordKind: fact.recordKind },
    ...{ version: fact.sequence, digest: digestOf(fact), digestVersion: 2 },
  };
  await db.raw('SELECT append_audit(?::text[])', [[canonicalText(entry)]]);
}

export function down(): Promise<void> {
  return Promise.reject(new Error('facts are appended, never taken away'));
}
