import { useState } from 'react';
import type { PreparationPlan } from '#core/preparation';
import { checkPreparationStart } from '#core/preparation';
import { findingText } from '#core/wording';
import { useSession } from '../app/session';
import type { Stock } from '../app/stock';
import { Button } from '../ui/Button';
import { ReasonDialog } from '../ui/ReasonDialog';
import { useBeginPreparation } from './beginning';

interface BeginButtonProps {
  readonly plan: PreparationPlan;
  readonly stock: Stock;
  readonly isPrimary: boolean;
}

/** Begins a guided preparation; asks for a reason first where something speaks against it. */
export function BeginButton({ plan, stock, isPrimary }: BeginButtonProps) {
  const { today } = useSession();
  const { begin, isBusy } = useBeginPreparation();
  const [isAsking, setAsking] = useState(false);
  const [failure, setFailure] = useState<string | null>(null);
  const findings = checkPreparationStart(plan, stock, (id) => stock.left.get(id), today);
  const impossible = findings.find(({ severity }) => severity === 'impossible');
  const go = (reason: string | null): Promise<void> =>
    begin({ ...plan, reason }).catch((error: unknown) => {
      setFailure(error instanceof Error ? error.message : 'It could not be begun.');
    });
  return (
    <div className="flex max-w-[300px] flex-col items-end gap-1">
      <Button
        look={isPrimary ? 'primary' : 'plain'}
        disabled={isBusy || impossible !== undefined}
        onClick={() => {
          if (findings.length > 0) setAsking(true);
          else void go(null);
        }}
      >
        Prepare it
      </Button>
      {(impossible ?? failure) !== null && (
        <p role="alert" className="text-right text-sm font-semibold text-blush">
          {impossible ? findingText(impossible) : failure}
        </p>
      )}
      {isAsking && (
        <ReasonDialog
          title="Prepare it all the same?"
          description={findings.map(findingText).join(' ')}
          confirm="Prepare it"
          onConfirm={go}
          onClose={() => {
            setAsking(false);
          }}
        />
      )}
    </div>
  );
}
