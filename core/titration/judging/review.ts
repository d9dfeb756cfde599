import type { PlainDate } from '../../grammar';
import { findIncident } from '../../incident';
import { isCalibrationOverdue } from '../../metrology';
import { isLotExpired, knownMolarity } from '../../reagent';
import { figureText } from '../../measurement';
import { endOfSentence, outcomeText } from '../../wording';
import type { RunState } from '../run';
import { isStandardization, placeName, portionText, readingsOf, seriesOf } from '../run';
import { deviationsOf } from './resultChecks';
import type { Replicate } from './judge';
import { judgeRun } from './judge';
import type { RecordsNow } from './recordsNow';
import { isPartOf, outOfUse } from './recordsNow';

/** What somebody who looks a run through should look at, a sentence each. */
export interface ReviewPoint {
  readonly about:
    'entry' | 'reason' | 'incident' | 'left-out' | 'time' | 'equipment' | 'rule' | 'parent';
  readonly text: string;
}

/** Verdicts by which a titration that was made does not count; the rough one and blanks are as planned. */
const LEFT_OUT: ReadonlySet<Replicate['verdict']> = new Set([
  'void',
  'disputed',
  'overshot',
  'set-aside',
]);

/**
 * What in a run is out of the ordinary, made from its entries: for whoever checks or authorizes it.
 *
 * @param now what it rests on, as it is now
 * @param day on which it was titrated, in the laboratory
 */
export function reviewOf(run: RunState, now: RecordsNow, day: PlainDate): readonly ReviewPoint[] {
  return [
    ...ofEntries(run),
    ...run.flasks.flatMap(({ number, incidents }) =>
      incidents.map(({ incidentId, remark }) => ({
        about: 'incident' as const,
        text: `Flask ${String(number)}: ${endOfSentence([findIncident(incidentId)?.name ?? incidentId, remark].filter((one) => one !== '').join('; '))}`,
      })),
    ),
    ...seriesOf(run)
      .flatMap((series) => judgeRun(series).replicates)
      .filter(({ verdict }) => LEFT_OUT.has(verdict))
      .map(({ flask, why }) => ({
        about: 'left-out' as const,
        text: `Flask ${String(flask.number)} is left out: ${endOfSentence(why ? outcomeText(why) : '')}`,
      })),
    ...(run.doubtfulTimes.length === 0
      ? []
      : [
          {
            about: 'time' as const,
            text: `The time of ${String(run.doubtfulTimes.length)} ${run.doubtfulTimes.length === 1 ? 'entry' : 'entries'} is doubtful.`,
          },
        ]),
    ...overdue(run, now, day),
    ...deviationsOf(run).map((text) => ({ about: 'rule' as const, text })),
    ...ofParents(run, now, day),
  ];
}

/** What was put right, and what was kept for a reason. */
function ofEntries(run: RunState): readonly ReviewPoint[] {
  return run.flasks.flatMap((flask) => {
    const portion = {
      name: 'portion',
      superseded: flask.portion.superseded.map(({ value, reason }) => ({
        was: portionText(value),
        reason,
      })),
      reason: flask.portion.reason,
    };
    const readings = readingsOf(flask)
      // A carried-over reading is told once, where it was read.
      .filter(({ entry }) => entry.carriedFromFlask === null)
      .map(({ place, entry }) => ({
        name: placeName(place),
        superseded: entry.superseded.map(({ value, reason }) => ({
          was: `${figureText(value)} mL`,
          reason,
        })),
        reason: entry.reason,
      }));
    return [portion, ...readings].flatMap(
      ({ name, superseded, reason }): readonly ReviewPoint[] => {
        const where = `Flask ${String(flask.number)}, ${name}`;
        return [
          ...superseded.map((old) => ({
            about: 'entry' as const,
            text: `${where}: was ${old.was}. ${endOfSentence(old.reason)}`,
          })),
          ...(reason === null
            ? []
            : [{ about: 'reason' as const, text: `${where}, kept: ${endOfSentence(reason)}` }]),
        ];
      },
    );
  });
}

/** What it was measured with after its calibration had run out. */
function overdue(run: RunState, now: RecordsNow, day: PlainDate): readonly ReviewPoint[] {
  const isPart = isPartOf(run.setUp);
  return now.equipment
    .filter((one) => isPart(one) && isCalibrationOverdue(one.equipment, day))
    .map(({ equipment }) => ({
      about: 'equipment',
      text: `The calibration of ${equipment.name} had run out.`,
    }));
}

/** What it rests on that is out of use, or had run out. */
function ofParents(run: RunState, now: RecordsNow, day: PlainDate): readonly ReviewPoint[] {
  const isPart = isPartOf(run.setUp);
  const isSought = (id: string) => isStandardization(run) && run.setUp.bottle.id === id;
  const isParent = (one: { readonly id: string }) => isPart(one) && !isSought(one.id);
  const lots = now.lots
    .filter((one) => isParent(one) && isLotExpired(one.lot, day))
    .map(({ lot }) => `Lot ${lot.lotNumber} had run out.`);
  const bottles = now.bottles.filter(isParent).flatMap((one) => {
    const until = knownMolarity(one)?.until ?? null;
    return until !== null && until < day ? [`The molarity of bottle ${one.code} had run out.`] : [];
  });
  const withdrawn = outOfUse(run.setUp, now).map(
    ({ name, reason }) => `${name} is out of use: ${endOfSentence(reason)}`,
  );
  return [...lots, ...bottles, ...withdrawn].map((text) => ({ about: 'parent', text }));
}
