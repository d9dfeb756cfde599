import { findIncident } from '#core/incident';
import { figureText } from '#core/measurement';
import type { Judgement } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { portionText, titreToFirstEndMl } from '#core/titration/run';
import { outcomeText } from '#core/wording';
import { foundHead, foundText } from '../titrate/found';
import { VERDICTS } from '../titrate/wording';
import { Table } from '../ui/Table';

/** The name of an incident, in the middle of a line. */
function nameOf(incidentId: string): string {
  const name = findIncident(incidentId)?.name ?? incidentId;
  return name.charAt(0).toLowerCase() + name.slice(1);
}

/** Which titrations count, and why the others do not. */
export function ReplicateTable({
  run,
  judgement,
}: {
  /** The series that was judged. */
  readonly run: RunState;
  readonly judgement: Judgement;
}) {
  const areTwoEnds = run.flasks.some(({ firstEnd }) => firstEnd);
  return (
    <Table
      caption="Titrations"
      heads={[
        ...['Flask', 'Portion'],
        ...(areTwoEnds ? ['First end / mL'] : []),
        ...['Titre / mL', foundHead(run), 'Verdict'],
      ]}
      rows={judgement.replicates.map(({ flask, titreMl, molarity, verdict, why }) => ({
        key: String(flask.number),
        cells: [
          flask.number,
          <span key="m" className="font-mono whitespace-nowrap">
            {portionText(flask.portion.value)}
          </span>,
          ...(areTwoEnds
            ? [
                <span key="f" className="font-mono">
                  {figureText(titreToFirstEndMl(flask) ?? '–')}
                </span>,
              ]
            : []),
          <span key="t" className="font-mono">
            {figureText(titreMl ?? '–')}
          </span>,
          <span
            key="c"
            className={`font-mono ${verdict === 'counts' ? 'font-semibold' : 'text-ink-soft'}`}
          >
            {molarity === null ? '–' : foundText(run, molarity)}
          </span>,
          <span key="v" className="flex flex-wrap items-baseline gap-2">
            <span
              className={`rounded-full px-2.5 py-0.5 text-sm font-semibold ${VERDICTS[verdict].className}`}
            >
              {VERDICTS[verdict].word}
            </span>
            {flask.incidents.map(({ factId, incidentId, remark }) => (
              <span key={factId} className="text-[15px] text-blush">
                {nameOf(incidentId)}
                {remark && ` (${remark})`}
              </span>
            ))}
            {why !== null && verdict !== 'open' && (
              <span className="text-[15px] text-ink-soft">{outcomeText(why)}</span>
            )}
          </span>,
        ],
      }))}
    />
  );
}
