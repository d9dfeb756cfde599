import type { RunFactBodies } from '#core/titration/record';
import type { RunState } from '#core/titration/run';
import { readingToCarryOver } from '#core/titration/run';
import fc from 'fast-check';
import { aliquots, bottleOf, made, pipetteOf, references, RunScript } from './runs';

/** Something that an analyst, careful or not, might enter next. */
export interface Attempt {
  readonly kind: keyof RunFactBodies;
  readonly body: Readonly<Record<string, unknown>>;
  /** Which earlier fact it names, and as what; by its place among them. */
  readonly names: { readonly as: 'corrects' | 'keeps' | 'confirms'; readonly which: number } | null;
  /** The last final reading is carried over. */
  readonly carries: boolean;
}

const reason = 'tried by the test';
const flask = fc.integer({ min: 1, max: 5 });
// Readings in hundredths, from a little above the scale to a little below it.
const readingMl = fc.integer({ min: -100, max: 5200 }).map((cl) => (cl / 100).toFixed(2));
const massG = fc.integer({ min: -10, max: 900 }).map((mg) => (mg / 1000).toFixed(4));
const volumeMl = fc.constantFrom('25', '25.00', '20', '0', '-1', '60');

function attempt(
  kind: keyof RunFactBodies,
  body: fc.Arbitrary<Readonly<Record<string, unknown>>>,
  as: 'corrects' | 'keeps' | 'confirms' | null = null,
): fc.Arbitrary<Attempt> {
  return fc.record({
    kind: fc.constant(kind),
    body,
    names: as === null ? fc.constant(null) : fc.record({ as: fc.constant(as), which: fc.nat(40) }),
    carries: fc.constant(false),
  });
}

const tared = massG.map((given) => ({ mode: 'tared', massG: given }));
const byDifference = massG.map((given) => ({
  mode: 'by-difference',
  beforeG: '20.1234',
  afterG: (20.1234 - Number(given)).toFixed(4),
}));
const why = fc.constant(reason);
const none = fc.constant(null);

/** Every kind of entry that a client may send of a run; what is done often comes often. */
export const attempts: fc.Arbitrary<Attempt> = fc.oneof(
  {
    weight: 5,
    arbitrary: attempt(
      'run.flask-weighed',
      fc.record({ flask, weighing: fc.oneof(tared, byDifference), reason: why }),
    ),
  },
  {
    weight: 5,
    arbitrary: attempt('run.flask-pipetted', fc.record({ flask, volumeMl, reason: why })),
  },
  { weight: 2, arbitrary: attempt('run.blank-made', fc.record({ flask })) },
  {
    weight: 12,
    arbitrary: attempt(
      'run.burette-read',
      fc.record({
        flask,
        moment: fc.constantFrom('initial', 'final'),
        readingMl,
        carriedFrom: none,
        reason: why,
      }),
    ),
  },
  {
    weight: 3,
    arbitrary: attempt(
      'run.burette-read',
      fc.record({
        flask,
        moment: fc.constant('initial'),
        readingMl,
        carriedFrom: none,
        reason: why,
      }),
    ).map((given) => ({ ...given, carries: true })),
  },
  {
    weight: 5,
    arbitrary: attempt(
      'run.burette-refilled',
      fc.record({
        flask,
        refill: fc.integer({ min: 1, max: 2 }),
        moment: fc.constantFrom('stop', 'restart'),
        readingMl,
        reason: why,
      }),
    ),
  },
  { weight: 2, arbitrary: attempt('run.provisional-read', fc.record({ flask, readingMl })) },
  {
    weight: 3,
    arbitrary: attempt(
      'run.end-point-graded',
      fc.record({ flask, grade: fc.constantFrom('good', 'drop-over', 'far-over') }),
    ),
  },
  {
    weight: 2,
    arbitrary: attempt('run.end-point-taken-back', fc.record({ flask, reason: why })),
  },
  {
    weight: 1,
    arbitrary: attempt(
      'run.temperature-taken',
      fc.record({ flask, temperatureC: fc.constantFrom('20', '78', '99', '300'), reason: why }),
    ),
  },
  {
    weight: 3,
    arbitrary: attempt(
      'run.electrode-read',
      fc.record({
        flask,
        refill: fc.constantFrom(0, 0, 1),
        readingMl,
        quantity: fc.constantFrom('pH', 'mV'),
        value: fc.constantFrom('3.1', '4.2', '7', '10.4', '300'),
        flaskVolumeMl: fc.constantFrom('100', null),
      }),
    ),
  },
  { weight: 1, arbitrary: attempt('run.reading-confirmed', fc.record({}), 'confirms') },
  {
    weight: 1,
    arbitrary: attempt(
      'run.incident-noted',
      fc.record({
        flask,
        incidentId: fc.constantFrom('stopcock-leaks', 'oxalate-boiled', 'none-such'),
        measured: none,
        waterMl: none,
        volumetricFlaskMl: none,
        remark: fc.constant(''),
      }),
    ),
  },
  {
    weight: 3,
    arbitrary: attempt('run.reading-corrected', fc.record({ readingMl, reason: why }), 'corrects'),
  },
  {
    weight: 2,
    arbitrary: attempt(
      'run.weighing-corrected',
      fc.record({ weighing: tared, reason: why }),
      'corrects',
    ),
  },
  {
    weight: 2,
    arbitrary: attempt('run.volume-corrected', fc.record({ volumeMl, reason: why }), 'corrects'),
  },
  {
    weight: 1,
    arbitrary: attempt('run.conflict-settled', fc.record({ reason: why }), 'keeps'),
  },
  { weight: 1, arbitrary: attempt('run.flask-voided', fc.record({ flask, reason: why })) },
  {
    weight: 1,
    arbitrary: attempt('run.paused', fc.record({ toId: none, remark: fc.constant('') })),
  },
  { weight: 2, arbitrary: attempt('run.resumed', fc.record({ remark: fc.constant('') })) },
  { weight: 1, arbitrary: attempt('run.abandoned', fc.record({ reason: why })) },
);

/** The body of an attempt on a run as it is, with the earlier facts that it names. */
export function bodyOf(
  { body, names, carries }: Attempt,
  run: RunState,
  factIds: readonly string[],
): Readonly<Record<string, unknown>> {
  const last = carries ? readingToCarryOver(run) : null;
  return {
    ...body,
    ...(last && { readingMl: last.value, carriedFrom: last.factId }),
    ...(names && { [names.as]: factIds[names.which % factIds.length] ?? '' }),
  };
}

/** A run of each arrangement: weighed, aliquots in the flask, standard in the burette. */
export const SCRIPTS: readonly (() => RunScript)[] = [
  () => new RunScript(references()),
  () =>
    aliquots('naoh-by-oxalic-acid', bottleOf('oxalic-acid-dihydrate', made('0.05012')), {
      substanceId: 'sodium-hydroxide',
      nominalMolarity: '0.1',
    }),
  () =>
    aliquots('carbonate-into-hydrochloric-acid', bottleOf('sodium-carbonate', made('0.05')), {
      substanceId: 'hydrochloric-acid',
      nominalMolarity: '0.1',
    }),
  () =>
    aliquots(
      'chloride-by-excess-of-silver',
      bottleOf('ammonium-thiocyanate', made('0.0998')),
      { substanceId: 'sodium-chloride', nominalMolarity: '0.1' },
      { bottle: bottleOf('silver-nitrate', made('0.1002')), vessel: pipetteOf('50') },
    ),
];
