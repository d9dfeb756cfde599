import type { Id } from '#core/grammar';
import type { Withdrawal } from '#core/record';
import { useAddToRecord } from './entering';
import { usePersonName } from './records';
import { useSession } from './session';
import { AskingWhy } from '../ui/AskingWhy';
import { instantText } from '../ui/typeset';

interface UseSwitchProps {
  readonly kind: 'lot' | 'bottle' | 'equipment' | 'entry';
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
  const { out, back, state } = WORDS[kind];
  const { button, ...words } = withdrawn ? back : out;
  return (
    <>
      {withdrawn && (
        <p className="mb-2 border-l-4 border-blush bg-blush-wash px-3 py-2">
          <b>{state}</b> since {instantText(withdrawn.at, laboratory.timeZone)} by{' '}
          {nameOf(withdrawn.by)}: {withdrawn.reason}
        </p>
      )}
      <AskingWhy
        button={button}
        className="px-4 text-[15px]"
        question={{
          ...words,
          onConfirm: (reason) =>
            add.mutateAsync({
              recordId: id,
              basedOn: version,
              fact: { kind: fact, body: { reason } },
            }),
        }}
      />
    </>
  );
}

interface SwitchWords {
  readonly button: string;
  readonly title: string;
  readonly description: string;
  readonly confirm: string;
}

const INTO_USE: SwitchWords = {
  button: 'Release it…',
  title: 'Release it?',
  description: 'It may be used again from then on.',
  confirm: 'Release it',
};

const ON_HOLD: SwitchWords = {
  button: 'Put on hold…',
  title: 'Put it on hold?',
  description: 'Nothing can be planned or prepared with it until it is released.',
  confirm: 'Put it on hold',
};

/** What is done with a kind of thing: out of use first, then into use again. */
const WORDS: Readonly<
  Record<
    UseSwitchProps['kind'],
    { readonly out: SwitchWords; readonly back: SwitchWords; readonly state: string }
  >
> = {
  lot: { out: ON_HOLD, back: INTO_USE, state: 'On hold' },
  bottle: { out: ON_HOLD, back: INTO_USE, state: 'On hold' },
  entry: {
    out: {
      button: 'Take out of use…',
      title: 'Take it out of use?',
      description:
        'Nothing new can be begun with it until it is back in use. What was begun keeps it.',
      confirm: 'Take it out of use',
    },
    back: {
      button: 'Return to use…',
      title: 'Return it to use?',
      description: 'It may be chosen again from then on.',
      confirm: 'Return it to use',
    },
    state: 'Out of use',
  },
  equipment: {
    out: {
      button: 'Take out of service…',
      title: 'Take it out of service?',
      description: 'Nothing can be planned or titrated with it until it is back in service.',
      confirm: 'Take it out of service',
    },
    back: {
      button: 'Return to service…',
      title: 'Return it to service?',
      description: 'It may be used again from then on.',
      confirm: 'Return it to service',
    },
    state: 'Out of service',
  },
};
