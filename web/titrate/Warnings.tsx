import type { CorrectedSince } from '#core/titration/judging';
import type { RunState } from '#core/titration/run';
import { correctedSince, outOfUse, restatedTitrant } from '#core/titration/judging';
import { pauseOf } from '#core/titration/run';
import { findingText } from '#core/wording';
import { clockOffsetMs } from '../app/device';
import { usePersonName, useRecordsNow } from '../app/records';
import { useSession } from '../app/session';
import { FormError } from '../ui/FormError';
import { instantText } from '../ui/typeset';
import { useEntering } from './useRun';

/** A clock this far off is told; the times of entries are set right all the same. */
const CLOCK_MS = 5 * 60_000;

/** What has come up since the run began: something out of use, a pause, a device whose clock is wrong. */
export function Warnings({ run }: { readonly run: RunState }) {
  const records = useRecordsNow(run.setUp);
  const warnings = outOfUse(run.setUp, records).map((values) =>
    findingText({ code: 'out-of-use', values }),
  );
  const offset = clockOffsetMs() ?? 0;
  if (Math.abs(offset) > CLOCK_MS) {
    const minutes = Math.round(Math.abs(offset) / 60_000);
    const off = minutes < 90 ? `${String(minutes)} min` : `${String(Math.round(minutes / 60))} h`;
    warnings.push(
      `The clock of this device is ${off} ${offset > 0 ? 'slow' : 'fast'}. Entries get the true time; set the clock right.`,
    );
  }
  return (
    <>
      {run.status === 'open' &&
        [...correctedSince(run.setUp, records), ...restatedTitrant(run, records)].map((since) => (
          <Corrected key={since.adopt.id} run={run} since={since} />
        ))}
      {run.status === 'open' &&
        warnings.map((text) => (
          <p
            key={text}
            role="alert"
            className="mt-2 rounded border-l-4 border-blush bg-blush-wash px-3 py-1.5 font-semibold"
          >
            {text}
          </p>
        ))}
      <Paused run={run} />
    </>
  );
}

/** That the run waits, since when, and for whom. */
function Paused({ run }: { readonly run: RunState }) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const pause = pauseOf(run);
  return (
    pause && (
      <p className="mt-2 rounded border-l-4 border-straw bg-straw-wash px-3 py-1.5">
        Paused by {nameOf(pause.by)}, {instantText(pause.at, laboratory.timeZone)}
        {pause.toId !== null && <>, for {nameOf(pause.toId)}</>}
        {pause.remark !== '' && <>: {pause.remark}</>}
      </p>
    )
  );
}

/** Something that the run rests on has been put right: the run may go on with it. */
function Corrected({
  run,
  since: { adopt, name, reason },
}: {
  readonly run: RunState;
  readonly since: CorrectedSince;
}) {
  const adopting = useEntering(run);
  return (
    <p
      role="status"
      className="mt-2 flex flex-wrap items-center justify-between gap-x-4 rounded border-l-4 border-straw bg-straw-wash px-3 py-0.5 text-[15px]"
    >
      <span>
        <b>{name}</b> was corrected since: {reason}
      </span>
      <button
        type="button"
        className="min-h-12 font-semibold text-violet underline underline-offset-4 lg:min-h-8"
        onClick={() => {
          const body = { ...adopt, reason: `corrected: ${reason}` };
          adopting.mutate([{ kind: 'run.record-adopted', body }]);
        }}
      >
        Go on with it as corrected
      </button>
      <FormError message={adopting.error?.message} />
    </p>
  );
}
