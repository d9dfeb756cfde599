import { DropdownMenu } from 'radix-ui';
import { Link, useLocation } from 'react-router';
import { OutboxMark } from '../outbox/OutboxMark';
import { useSession, useSignOut } from './session';
import { NotSignedOut } from './SignedIn';
import { KEPT_BELOW, stageOf, STAGES } from './stages';
import { useFinder } from './useFinder';

/** The way through the work where there is no room for the spine: the same scale lying down, its liquid up to where one is. */
export function Bar() {
  const signOut = useSignOut();
  const { pathname } = useLocation();
  const here = stageOf(pathname);
  const { open, finder } = useFinder();
  return (
    <header className="sticky top-0 z-10 border-b border-rule bg-paper print:hidden">
      <div className="flex items-stretch">
        <nav aria-label="Stages of the work" className="relative flex min-w-0 flex-1">
          {STAGES.map((stage) => (
            <Link
              key={stage.name}
              to={stage.to}
              aria-current={stage.name === here ? 'step' : undefined}
              className={`flex min-h-14 flex-1 items-center justify-center pb-2 text-base hover:bg-shade ${stage.name === here ? 'font-bold text-violet' : 'text-ink'}`}
            >
              {stage.name}
            </Link>
          ))}
          <Scale at={STAGES.findIndex((stage) => stage.name === here)} />
        </nav>
        <More onSignOut={signOut.mutate} onFind={open} />
        {finder}
      </div>
      <div className="border-t border-rule px-4 py-1 text-sm">
        <OutboxMark />
        <NotSignedOut error={signOut.error} />
      </div>
    </header>
  );
}

/** A graduated edge: a major mark at each stage, liquid from the left up to the one that is shown. */
function Scale({ at }: { readonly at: number }) {
  const parts = 10 * STAGES.length;
  return (
    <svg
      viewBox={`0 0 ${String(parts)} 10`}
      preserveAspectRatio="none"
      aria-hidden="true"
      className="pointer-events-none absolute inset-x-0 bottom-0 h-2 w-full"
    >
      {at >= 0 && <path d={`M0 0H${String(10 * at + 5)}v10H0z`} fill="var(--color-titrant)" />}
      {Array.from({ length: parts }, (_, i) => {
        const isMajor = i % 10 === 5;
        const colour = isMajor && (i - 5) / 10 === at ? 'violet' : isMajor ? 'ink' : 'rule-strong';
        return (
          <path
            key={i}
            d={`M${String(i)} ${isMajor ? '0' : '5'}V10`}
            stroke={`var(--color-${colour})`}
            strokeWidth={isMajor ? 2 : 1}
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
    </svg>
  );
}

interface MoreProps {
  readonly onSignOut: () => void;
  readonly onFind: () => void;
}

/** What a laboratory keeps, one's own account, and the way out. */
function More({ onSignOut, onFind }: MoreProps) {
  const { person } = useSession();
  const item =
    'flex min-h-12 items-center rounded px-4 text-base outline-none data-highlighted:bg-shade';
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="min-h-14 min-w-16 border-l border-rule px-3 font-semibold text-violet">
        More
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-20 min-w-60 rounded-md border border-rule-strong bg-sheet p-1 shadow-xl"
        >
          <DropdownMenu.Item className={`${item} font-semibold text-violet`} onSelect={onFind}>
            Find…
          </DropdownMenu.Item>
          {KEPT_BELOW.map(({ name, to }) => (
            <DropdownMenu.Item key={to} asChild>
              <Link to={to} className={item}>
                {name}
              </Link>
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          <DropdownMenu.Item asChild>
            <Link to="/account" className={item}>
              {person.name}
            </Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={`${item} text-violet`}
            onSelect={() => {
              onSignOut();
            }}
          >
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
