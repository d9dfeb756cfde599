import type { ReactNode } from 'react';
import type { Withdrawal } from '#core/record';
import { endOfSentence } from '#core/wording';
import { usePersonName } from '../app/records';
import { useSession } from '../app/session';
import { instantText } from '../ui/typeset';

interface WithdrawnStatusProps {
  readonly why: Withdrawal;
  /** What took its place, where anything did. */
  readonly children: ReactNode;
}

/** That a paper was withdrawn, by whom and why. */
export function WithdrawnStatus({ why, children }: WithdrawnStatusProps) {
  const { laboratory } = useSession();
  const nameOf = usePersonName();
  return (
    <div className="border-l-4 border-blush bg-blush-wash px-3 py-2 text-lg">
      <p>
        <b>Withdrawn</b> by {nameOf(why.by)}, {instantText(why.at, laboratory.timeZone, true)}:{' '}
        {endOfSentence(why.reason)}
      </p>
      {children}
    </div>
  );
}
