import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { expect, test } from 'vitest';
import type { BottleState } from '#core/reagent';
import type { Certificate } from '#core/titration/run';
import { issueCertificate, judgeRun } from '#core/titration/judging';
import { verifyAudit } from '../audit/verify';
import { findStrayFile } from '../files/queries';
import { listStrayProjections } from '../ledger/project';
import { findRun } from '../ledger/references';
import { createTestDatabase } from '../test-support/database';
import { GOLDENS, keepGolden, listGoldens, loadGolden } from '../test-support/golden';
import { foundTestLaboratory } from '../test-support/laboratory';
import { listAll } from '../test-support/lists';
import { playTinyLaboratory } from '../test-support/tinyLaboratory';
import { migrate, MIGRATION_NAMES } from './migrate';

/** What a certificate states. */
type Stated = Pick<
  Certificate,
  'number' | 'molarity' | 'expandedUncertainty' | 'coverageFactor' | 'normality'
>;

function statedBy(certificate: Certificate): Stated {
  const { number, molarity, expandedUncertainty, coverageFactor, normality } = certificate;
  return { number, molarity, expandedUncertainty, coverageFactor, normality };
}

function statedOf({
  molarity,
  expandedUncertainty,
  coverageFactor,
}: NonNullable<BottleState['made']>): object {
  return { molarity, expandedUncertainty, coverageFactor };
}

/** What the certificates state, as they are kept and as this program computes them, and what bottles were made to be. */
async function figuresOf(db: Knex) {
  const services = { db, now: () => new Date() };
  const runs = await listAll(db, 'run');
  const kept: Stated[] = [];
  const recomputed: Stated[] = [];
  for (const { id } of runs) {
    const state = (await findRun(services, id))?.state;
    if (!state?.certificate) continue;
    kept.push(statedBy(state.certificate));
    recomputed.push(statedBy(issueCertificate(state, judgeRun(state), state.certificate)));
  }
  const states = await listAll(db, 'bottle');
  const bottles = states.map(({ code, made, certified }) => ({
    code,
    made: made && statedOf(made),
    certified: certified.map(({ certificateNumber, molarity, validUntil }) => ({
      ...{ certificateNumber, molarity, validUntil },
    })),
  }));
  const passedOn = states.flatMap(({ certified }) => certified.map(({ unrounded }) => unrounded));
  return { kept, recomputed, bottles, passedOn };
}

/** What a golden must come to: what was kept when it was made, and what each version of core computes from its facts. */
interface Expectation {
  readonly kept: unknown;
  readonly bottles: unknown;
  readonly recomputed: Readonly<Record<string, unknown>>;
}

const CORE = 'core 4';

const newest = MIGRATION_NAMES.at(-1) ?? '';

// Made once for each shape that is landed: WRITE_GOLDEN=yes npm test -- server
if (process.env.WRITE_GOLDEN && !existsSync(join(GOLDENS, newest))) {
  test('the newest shape is kept', async () => {
    const laboratory = await foundTestLaboratory();
    await playTinyLaboratory(laboratory);
    const { db, owner } = laboratory.database;
    await keepGolden(owner, newest);
    const { kept, recomputed, bottles } = await figuresOf(db);
    const expectation: Expectation = { kept, bottles, recomputed: { [CORE]: recomputed } };
    writeFileSync(
      join(GOLDENS, newest, 'expected.json'),
      `${JSON.stringify(expectation, null, 2)}\n`,
    );
    await laboratory.close();
  });
}

test('the newest shape has its golden', () => {
  expect(listGoldens()).toContain(newest);
});

test.each(listGoldens())(
  'what %s left is whole: its audit holds, its figures are what they were',
  async (migration) => {
    const old = await createTestDatabase(migration);
    await loadGolden(old.owner, migration);
    await migrate(old.owner);
    expect(await verifyAudit(old.db)).toMatchObject({ kind: 'whole', acceptedBreaks: 0 });
    expect(await listStrayProjections(old.db)).toEqual([]);
    expect(await findStrayFile(old.db)).toBeNull();
    const expected = JSON.parse(
      readFileSync(join(GOLDENS, migration, 'expected.json'), 'utf8'),
    ) as Expectation;
    const { kept, recomputed, bottles, passedOn } = await figuresOf(old.db);
    // Whatever shape the bottle keeps its certificate in, what its run computed is passed on.
    expect(passedOn).toHaveLength(kept.length);
    expect(passedOn).not.toContain(null);
    expect(kept.length).toBeGreaterThan(0);
    expect({ kept, bottles }).toEqual({ kept: expected.kept, bottles: expected.bottles });
    expect(recomputed).toEqual(expected.recomputed[CORE]);
    await old.drop();
  },
);
