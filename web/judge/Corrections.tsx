import { findIncident } from '#core/incident';
import { enteredAt } from '#core/record';
import { netMassG } from '#core/metrology';
import type { Entry, Observation, Portion, RunState } from '#core/titration';
import { buretteChecks, placeName, portionText, readingsOf } from '#core/titration';
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
function remarkOnLate(fact: Observation): Remark {
  const [where, value] = sayingOf(fact);
  return {
    where,
    was: null,
    reason: `${value} arrived after the run was closed and is not counted.`,
    by: fact.authorId,
    at: enteredAt(fact),
  };
}

/** What an observation is about, and what it says. */
function sayingOf(fact: Observation): readonly [where: string, value: string] {
  const flask = (place: string): string =>
    'flask' in fact.body ? `Flask ${String(fact.body.flask)}, ${place}` : place;
  switch (fact.kind) {
    case 'run.flask-weighed':
      return [flask(placeName('portion')), `${netMassG(fact.body.weighing)} g`];
    case 'run.flask-pipetted':
      return [flask(placeName('portion')), `${fact.body.volumeMl} mL`];
    case 'run.blank-made':
      return [flask('blank'), 'It'];
    case 'run.burette-refilled':
      return [flask('refill'), `${fact.body.readingMl} mL`];
    case 'run.provisional-read':
      return [flask('provisional reading'), `${fact.body.readingMl} mL`];
    case 'run.electrode-read': {
      const { quantity, value, readingMl } = fact.body;
      return [flask(`electrode at ${readingMl} mL`), `${quantity} ${value}`];
    }
    case 'run.temperature-taken':
      return [flask('temperature'), `${fact.body.temperatureC} °C`];
    case 'run.end-point-graded':
      return [flask('end point'), 'How it was met'];
    case 'run.reading-confirmed':
      return ['A reading', 'Its confirmation'];
    case 'run.burette-read':
      return [flask(placeName(fact.body.moment)), `${fact.body.readingMl} mL`];
    case 'run.burette-checked':
      return ['Burette', 'A check of it'];
    case 'run.incident-noted': {
      const { incidentId } = fact.body;
      return [flask('incident'), findIncident(incidentId)?.name ?? incidentId];
    }
  }
}

/** What was off when the burette was looked over. */
function remarksOnBurette({ buretteChecked, references, setUp }: RunState): readonly Remark[] {
  const checks = buretteChecks(references.method, setUp.rules);
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
        name: `reading ${entry.value} before the end`,
        entry,
      })),
    ];
    const struckOut = flask.electrode.flatMap(({ readingMl, quantity, value, struck }): Remark[] =>
      struck
        ? [
            {
              where: `Flask ${String(flask.number)}, electrode at ${readingMl} mL`,
              was: `${quantity} ${value}`,
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
        was: old.value,
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
