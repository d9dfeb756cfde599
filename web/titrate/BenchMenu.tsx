import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import { may } from '#core/rights';
import type { RunState } from '#core/titration/run';
import { pauseOf } from '#core/titration/run';
import { useSession } from '../app/session';
import { Button, KeyHint } from '../ui/Button';
import { RunLine } from './BenchHeader';

/** What the menu asks for in a dialog. */
export type BenchQuestion = 'photograph' | 'pause' | 'abandon' | 'keys' | 'hazards';

interface BenchMenuProps {
  readonly run: RunState;
  readonly isLarge: boolean;
  readonly onLarge: () => void;
  readonly onAsk: (kind: BenchQuestion) => void;
  /** Asks whether something that happened matters; null while nothing can have. */
  readonly onIncident: (() => void) | null;
}

const ITEM =
  'flex min-h-12 cursor-pointer items-center justify-between gap-6 rounded px-3 data-highlighted:bg-violet-wash data-highlighted:outline-none';

/** What is seldom wanted at the bench, behind one button. */
export function BenchMenu({ run, isLarge, onLarge, onAsk, onIncident }: BenchMenuProps) {
  const { person } = useSession();
  const ask = (kind: BenchQuestion) => () => {
    onAsk(kind);
  };
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button className="text-[15px] whitespace-nowrap">More…</Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="min-w-[250px] rounded-md border border-rule-strong bg-sheet p-1 shadow-xl"
        >
          <DropdownMenu.Label className="max-w-[300px] p-3 text-sm text-ink-soft md:hidden">
            <RunLine run={run} />
          </DropdownMenu.Label>
          {onIncident && (
            <DropdownMenu.Item className={`${ITEM} lg:hidden`} onSelect={onIncident}>
              Does it matter?
            </DropdownMenu.Item>
          )}
          <DropdownMenu.Item asChild className={ITEM}>
            <Link to={`/runs/${run.id}/sheet`}>Run sheet, to print</Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={onLarge}>
            {isLarge ? 'All figures' : 'Large figures'} <KeyHint>L</KeyHint>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={ask('hazards')}>
            Hazards and waste
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={ask('keys')}>
            List of keys <KeyHint>?</KeyHint>
          </DropdownMenu.Item>
          {run.status === 'open' && (
            <>
              {run.flasks.some(({ final, voided }) => final && !voided) && (
                <DropdownMenu.Item className={ITEM} onSelect={ask('photograph')}>
                  Photograph a flask…
                </DropdownMenu.Item>
              )}
              <DropdownMenu.Separator className="my-1 border-t border-rule" />
              {!pauseOf(run) && (
                <DropdownMenu.Item className={ITEM} onSelect={ask('pause')}>
                  Pause, or hand over…
                </DropdownMenu.Item>
              )}
              {may(person, 'abandon-anothers-run', { startedBy: run.started.by }) && (
                <DropdownMenu.Item className={`${ITEM} text-blush`} onSelect={ask('abandon')}>
                  Abandon…
                </DropdownMenu.Item>
              )}
            </>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
