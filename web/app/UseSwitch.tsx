import type { Id } from '#core/grammar';
import type { Withdrawal } from '#core/record';
import { useAddToRecord } from './entering';
import { usePersonName } from './records';
import { useSession } from './session';
import { Asking } from '../ui/Asking';
import { ReasonDialog } from '../ui/ReasonDialog';
import { instantText } from '../ui/typeset';

interface UseSwitchProps {
  readonly kind: 'lot' | 'bottle' | 'equipment';
  readonly id: Id;
  readonly version: number;
  readonly withdrawn: Withdrawal | null;
}

/** Takes something out of use, or back into it, with a reason. */
export function UseSwitch({ kind, id, version, withdrawn }: UseSwitchProps) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  const add = useAddToRecord();
  const fact = `${kind}.${withdrawn ? 'returned' : 'withdrawn'}` as const;
  const { button, ...words } = withdrawn ? USE_AGAIN : TAKE_OUT;
  return (
    <>
      {withdrawn && (
        <p className="mb-2 border-l-4 border-blush bg-blush-wash px-3 py-2">
          <b>Out of use</b> since {instantText(withdrawn.at, laboratory.timeZone)} by{' '}
          {nameOf(withdrawn.by)}: {withdrawn.reason}
        </p>
      )}
      <Asking button={button} className="px-4 text-[15px]">
        {(close) => (
          <ReasonDialog
            {...words}
            onConfirm={(reason) =>
              add.mutateAsync({
                recordId: id,
                basedOn: version,
                fact: { kind: fact, body: { reason } },
              })
            }
            onClose={close}
          />
        )}
      </Asking>
    </>
  );
}

const USE_AGAIN = {
  button: 'Use it again…',
  title: 'Use it again?',
  description: 'From then on it may be used again.',
  confirm: 'Use it again',
};

const TAKE_OUT = {
  button: 'Take out of use…',
  title: 'Take it out of use?',
  description: 'Nothing can be planned or prepared with it until it is returned.',
  confirm: 'Take it out of use',
};
