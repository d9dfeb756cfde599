import { Link } from 'react-router';
import { roundHalfEven } from '#core/measurement';
import { Loading } from '../app/Loading';
import { usePersonName, useRecords, useRuns } from '../app/records';
import { useSession } from '../app/session';
import { ButtonLink } from '../ui/Button';
import { Page } from '../ui/Page';
import { Table } from '../ui/Table';
import { instantText, Molarity } from '../ui/typeset';

/** Every run with what it came to, newest first. */
export function JudgeListPage() {
  const { laboratory } = useSession();
  const runs = useRuns();
  const bottles = useRecords('bottle');
  const nameOf = usePersonName();
  if (!runs || !bottles) return <Loading />;
  return (
    <Page title="Judge" tabTitle="Judge" lead="Every series of titrations and what it came to">
      {runs.length === 0 && (
        <div>
          <p className="mb-5 text-lg text-ink-soft">Nothing has been titrated yet.</p>
          <ButtonLink to="/titrate" look="primary">
            To the bench
          </ButtonLink>
        </div>
      )}
      {runs.length > 0 && (
        <Table
          caption="Runs"
          heads={['Bottle', 'Begun', 'Analyst', 'Titrations', 'Result', '']}
          rows={runs.toReversed().map((run) => {
            const bottle = bottles.find(({ id }) => id === run.bottleId);
            const certified = bottle?.certified.find(({ runId }) => runId === run.id);
            return {
              key: run.id,
              cells: [
                <b key="b" className="font-mono">
                  {bottle?.code}
                </b>,
                instantText(run.startedAt, laboratory.timeZone),
                nameOf(run.startedBy),
                run.titrationsMade,
                certified ? (
                  <Molarity
                    key="m"
                    value={certified.molarity}
                    uncertainty={certified.expandedUncertainty}
                  />
                ) : run.molarity === null ? (
                  'none yet'
                ) : (
                  `${roundHalfEven(run.molarity, 4)} mol/L so far`
                ),
                <Link
                  key="l"
                  to={`/runs/${run.id}/judge`}
                  className="inline-flex min-h-8 items-center font-semibold text-violet underline underline-offset-4"
                >
                  {run.status === 'certified'
                    ? `certificate ${run.certificateNumber ?? ''}`
                    : run.status === 'abandoned'
                      ? 'abandoned'
                      : 'judge it'}
                </Link>,
              ],
            };
          })}
        />
      )}
    </Page>
  );
}
