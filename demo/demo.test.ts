import { expect, test } from 'vitest';
import { plainDateAt } from '#core/grammar';
import { freshnessOf } from '#core/reagent';
import { createTestDatabase } from '../server/test-support/database';
import { listAll } from '../server/test-support/lists';
import { BOTTLES, FURTHER_SERIES, LABORATORY } from './cooperative';
import { loadDemo } from './play';

/** Its certificates are printed elsewhere. */
const UNPRINTED = { print: () => Promise.resolve(Buffer.from('%PDF-1.7')) };

test.each([
  [1, new Date()],
  [417, new Date()],
  // A day has begun here that has not in Greenwich; and the last minutes before.
  [417, new Date('2026-11-27T23:06:00Z')],
  [417, new Date('2026-11-27T22:54:00Z')],
  [417, new Date('2026-06-30T22:06:00Z')],
])(
  'seed %i gives a shelf with every standing and a run half done, at %s',
  async (seed, present) => {
    const { db, drop } = await createTestDatabase();
    await loadDemo({ db, printer: UNPRINTED, baseUrl: 'http://localhost' }, present, seed);
    const today = plainDateAt(present.toISOString(), LABORATORY.timeZone);
    const bottles = await listAll(db, 'bottle');
    const kinds = new Set(bottles.map((bottle) => freshnessOf(bottle, today).kind));
    expect([...kinds].toSorted()).toEqual(['certified', 'due-soon', 'not-standardized', 'overdue']);
    const overdue = bottles.filter((bottle) => freshnessOf(bottle, today).kind === 'overdue');
    expect(overdue.map(({ code }) => code)).toEqual(['0398', '0404']);
    const preparations = await listAll(db, 'preparation');
    expect(preparations.map(({ status }) => status).toSorted()).toEqual([
      'bottled',
      'bottled',
      'bottled',
      'bottled',
      'discarded',
      'open',
    ]);
    const standard = bottles.find(({ code }) => code === 'S021');
    expect(Number(standard?.made?.molarity)).toBeCloseTo(0.05, 3);
    for (const { certified, nominalMolarity } of bottles) {
      for (const { molarity } of certified) {
        expect(Math.abs(Number(molarity) / Number(nominalMolarity) - 1)).toBeLessThan(0.03);
      }
    }
    const runs = await listAll(db, 'run');
    expect(runs.filter((run) => run.status === 'open')).toMatchObject([{ titrationsMade: 2 }]);
    expect(runs.filter((run) => run.status === 'abandoned')).toEqual([]);
    // Each arrangement of the bench was worked through to a certificate.
    expect(runs.filter((run) => run.status === 'certified')).toHaveLength(
      BOTTLES.flatMap(({ series }) => series).length + FURTHER_SERIES.length - 1,
    );
    await drop();
  },
);
