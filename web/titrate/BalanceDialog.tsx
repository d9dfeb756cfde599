import type { RefObject } from 'react';
import type { Balance } from '#core/metrology';
import { BalancePanel } from '../devices/BalancePanel';
import { Dialog } from '../ui/Dialog';

/** The balance beside the bench; a reading that stands still goes into the entry. */
export function BalanceDialog({
  balance,
  targetG,
  wanted,
  onTake,
  onClose,
  returnTo,
}: {
  readonly balance: Balance;
  readonly targetG: number;
  /** What is taken next: `net mass, flask 1`. */
  readonly wanted: string;
  readonly onTake: (massG: string) => void;
  readonly onClose: () => void;
  /** The entry that the reading goes into. */
  readonly returnTo: RefObject<HTMLElement | null>;
}) {
  return (
    <Dialog
      title={balance.name}
      description={
        <p>
          For: <b>{wanted}</b>
        </p>
      }
      onClose={onClose}
      returnTo={returnTo}
    >
      <BalancePanel balance={balance} targetG={targetG} onTake={onTake} />
    </Dialog>
  );
}
