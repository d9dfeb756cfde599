import { figureText } from '#core/measurement';
import { sentenceOf } from '#core/ledger';
import type { Fact } from '#core/record';
import { enteredAt } from '#core/record';
import type { Entry, Portion, RunState } from '#core/titration/run';
import { placeName, portionText, readingsOf } from '#core/titration/run';
import { buretteChecks } from '#core/titration/setUp';
import { usePersonName } from '../app/records';
import { useSession } from '../app/session';
import { instantText } from '../ui/typeset';

interface Remark {
  readonly where: string;
  readonly was: string | null;
  readonly reason: string;
  readonly by: string;
  readonly at: string;
}

/** Everything that was corrected, or kept in spite of a warning, with who, when and why. */
export function Corrections({ run }: { readonly run: RunState }) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const remarks = collectRemarks(run);
  if (remarks.length === 0) return null;
  return (
    <section className="mt-4">
      <h2 className="font-bold">On record</h2>
      <ul className="mt-1 space-y-1 text-[15px]">
        {remarks.map((remark) => (
          <li key={`${remark.where}${remark.at}`}>
            {remark.where}:{' '}
            {remark.was !== null && (
              <>
                <s className="font-mono text-blush">{remark.was}</s>{' '}
              </>
            )}
            {remark.reason}{' '}
            <span className="text-ink-soft">
              ({nameOf(remark.by)}, {instantText(remark.at, laboratory.timeZone)})
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function collectRemarks(run: RunState): readonly Remark[] {
  return [...remarksOnBurette(run), ...remarksOnFlasks(run), ...run.late.map(remarkOnLate)];
}

/** What arrived when the run was closed: on record, in no figure. */
function remarkOnLate(fact: Fact): Remark {
  return {
    where: 'Arrived late',
    was: null,
    reason: `${sentenceOf(fact)} It came after the run was closed and is not counted.`,
    by: fact.authorId,
    at: enteredAt(fact),
  };
}

/** What was off when the burette was looked over. */
function remarksOnBurette({ buretteChecked, references, setUp }: RunState): readonly Remark[] {
  const checks = buretteChecks(references, setUp.rules);
  return buretteChecked.flatMap(({ faults, by, at }) =>
    faults.map(({ checkId, remark }) => {
      const text = checks.find(({ id }) => id === checkId)?.text ?? checkId;
      const reason = `Not so: “${text}” ${remark}`.trim();
      return { where: 'Burette', was: null, reason, by, at };
    }),
  );
}

function remarksOnFlasks(run: RunState): readonly Remark[] {
  return run.flasks.flatMap((flask) => {
    const { portion } = flask;
    const entries: readonly { readonly name: string; readonly entry: Entry<string> }[] = [
      { name: 'portion', entry: { ...portion, ...portionTexts(portion) } },
      // A carried-over reading is told once, where it was read.
      ...readingsOf(flask)
        .filter(({ entry }) => entry.carriedFromFlask === null)
        .map(({ place, entry }) => ({ name: placeName(place), entry })),
      ...flask.provisional.map((entry) => ({
        name: `reading ${figureText(entry.value)} before the end`,
        entry,
      })),
    ];
    const struckOut = flask.electrode.flatMap(({ readingMl, quantity, value, struck }): Remark[] =>
      struck
        ? [
            {
              where: `Flask ${String(flask.number)}, electrode at ${figureText(readingMl)} mL`,
              was: `${quantity} ${figureText(value)}`,
              reason: struck.reason,
              by: struck.by,
              at: struck.at,
            },
          ]
        : [],
    );
    const changed = entries.flatMap(({ name, entry }): Remark[] => {
      const where = `Flask ${String(flask.number)}, ${name}`;
      const corrected = entry.superseded.map((old) => ({
        where,
        was: figureText(old.value),
        reason: old.reason,
        by: old.by,
        at: old.at,
      }));
      const kept =
        entry.reason === null
          ? []
          : [{ where, was: null, reason: entry.reason, by: entry.by, at: entry.at }];
      return [...corrected, ...kept];
    });
    return [...changed, ...struckOut];
  });
}

/** A portion's entry in words. */
function portionTexts({
  value,
  superseded,
}: Entry<Portion>): Pick<Entry<string>, 'value' | 'superseded'> {
  return {
    value: portionText(value),
    superseded: superseded.map((old) => ({ ...old, value: portionText(old.value) })),
  };
}
