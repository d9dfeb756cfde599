import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import { may } from '#core/rights';
import type { RunState } from '#core/titration/run';
import { pauseOf } from '#core/titration/run';
import { useSession } from '../app/session';
import { KeyHint } from '../ui/Button';
import { Menu, MenuItem } from '../ui/Menu';
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

/** What is seldom wanted at the bench, behind one button. */
export function BenchMenu({ run, isLarge, onLarge, onAsk, onIncident }: BenchMenuProps) {
  const { person } = useSession();
  const ask = (kind: BenchQuestion) => () => {
    onAsk(kind);
  };
  return (
    <Menu button="More…" className="text-[15px] whitespace-nowrap">
      <DropdownMenu.Label className="max-w-[300px] p-3 text-sm text-ink-soft md:hidden">
        <RunLine run={run} />
      </DropdownMenu.Label>
      {onIncident && (
        <MenuItem className="lg:hidden" onSelect={onIncident}>
          Does it matter?
        </MenuItem>
      )}
      <MenuItem asChild>
        <Link to={`/runs/${run.id}/sheet`}>Run sheet, to print</Link>
      </MenuItem>
      <MenuItem onSelect={onLarge}>
        {isLarge ? 'All figures' : 'Large figures'} <KeyHint>L</KeyHint>
      </MenuItem>
      <MenuItem onSelect={ask('hazards')}>Hazards and waste</MenuItem>
      <MenuItem onSelect={ask('keys')}>
        List of keys <KeyHint>?</KeyHint>
      </MenuItem>
      {run.status === 'open' && (
        <>
          {run.flasks.some(({ final, voided }) => final && !voided) && (
            <MenuItem onSelect={ask('photograph')}>Photograph a flask…</MenuItem>
          )}
          <DropdownMenu.Separator className="my-1 border-t border-rule" />
          {!pauseOf(run) && <MenuItem onSelect={ask('pause')}>Pause, or hand over…</MenuItem>}
          {may(person, 'abandon-anothers-run', { startedBy: run.started.by }) && (
            <MenuItem className="text-blush" onSelect={ask('abandon')}>
              Abandon…
            </MenuItem>
          )}
        </>
      )}
    </Menu>
  );
}
