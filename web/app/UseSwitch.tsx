import { useState } from 'react';
import type { Id } from '#core/grammar';
import type { Withdrawal } from '#core/record';
import { useAddToRecord } from './entering';
import { usePersonName } from './records';
import { useSession } from './session';
import { Button } from '../ui/Button';
import { ReasonDialog } from '../ui/ReasonDialog';
import { instantText } from '../ui/typeset';

/** Takes something out of use, or back into it, with a reason. */
export function UseSwitch({
  kind,
  id,
  version,
  withdrawn,
}: {
  readonly kind: 'lot' | 'bottle' | 'equipment';
  readonly id: Id;
  readonly version: number;
  readonly withdrawn: Withdrawal | null;
}) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const add = useAddToRecord();
  const [isAsking, setAsking] = useState(false);
  const fact = `${kind}.${withdrawn ? 'returned' : 'withdrawn'}` as const;
  return (
    <>
      {withdrawn && (
        <p className="mb-2 border-l-4 border-blush bg-blush-wash px-3 py-2">
          <b>Out of use</b> since {instantText(withdrawn.at, laboratory.timeZone)} by{' '}
          {nameOf(withdrawn.by)}: {withdrawn.reason}
        </p>
      )}
      <Button
        className="px-4 text-[15px]"
        onClick={() => {
          setAsking(true);
        }}
      >
        {withdrawn ? 'Use it again…' : 'Take out of use…'}
      </Button>
      {isAsking && (
        <ReasonDialog
          title={withdrawn ? 'Use it again?' : 'Take it out of use?'}
          description={
            withdrawn
              ? 'From then on it may be used again.'
              : 'Nothing can be planned or prepared with it until it is returned.'
          }
          confirm={withdrawn ? 'Use it again' : 'Take it out of use'}
          onConfirm={async (reason) => {
            await add.mutateAsync({
              recordId: id,
              basedOn: version,
              fact: { kind: fact, body: { reason } },
            });
          }}
          onClose={() => {
            setAsking(false);
          }}
        />
      )}
    </>
  );
}
