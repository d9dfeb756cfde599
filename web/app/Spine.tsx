import { Link, NavLink, useLocation } from 'react-router';
import { OutboxMark } from '../outbox/OutboxMark';
import { useReadAhead, useRecordsOf, useRuns } from './records';
import { useSession, useSignOut } from './session';

/** The stages of the work in the order in which they are done. */
const STAGES = [
  { name: 'Shelf', to: '/' },
  { name: 'Prepare', to: '/prepare' },
  { name: 'Titrate', to: '/titrate' },
  { name: 'Judge', to: '/judge' },
] as const;
type Stage = (typeof STAGES)[number]['name'];

const KEPT_BELOW = [
  { name: 'Substances', to: '/lots' },
  { name: 'Equipment', to: '/equipment' },
  { name: 'Methods', to: '/methods' },
  { name: 'House rules', to: '/rules' },
  { name: 'People', to: '/people' },
  { name: 'Verification', to: '/verification' },
] as const;

/** Height of the scale between two major marks, px. */
const STEP = 88;
const TOP = 26;
const WIDTH = 148;

function stageOf(path: string): Stage | null {
  if (path === '/' || path.startsWith('/bottles')) return 'Shelf';
  if (path.startsWith('/prepar')) return 'Prepare';
  if (path.endsWith('/judge')) return 'Judge';
  if (path.startsWith('/titrate') || path.startsWith('/runs')) return 'Titrate';
  return null;
}

/** The way through the work: a graduated scale read downwards, with a meniscus where one is. */
export function Spine() {
  useReadAhead();
  const { pathname } = useLocation();
  const here = stageOf(pathname);
  return (
    <div
      className="sticky top-0 flex h-screen shrink-0 flex-col overflow-x-hidden overflow-y-auto border-r border-rule bg-paper print:hidden"
      style={{ width: WIDTH }}
    >
      <Link to="/" className="px-5 pt-5 pb-1 text-[17px] font-bold whitespace-nowrap">
        <span className="text-leaf">Vine</span> Measure
      </Link>
      <nav
        aria-label="Stages of the work"
        className="relative shrink-0"
        style={{ height: TOP + 3 * STEP + 34 }}
      >
        <Scale here={here} />
        {STAGES.map((stage, i) => (
          <Link
            key={stage.name}
            to={stage.to}
            aria-current={stage.name === here ? 'step' : undefined}
            className={`absolute left-8 flex h-12 w-[104px] items-center rounded-md pl-2 text-[17px] hover:bg-shade ${stage.name === here ? 'font-bold text-violet' : 'text-ink'}`}
            style={{ top: TOP + i * STEP - 24 }}
          >
            {stage.name}
          </Link>
        ))}
        <OpenRuns top={TOP + 2 * STEP + 17} />
      </nav>
      <nav aria-label="Laboratory" className="mx-5 mt-2 border-t border-rule pt-2 text-[15px]">
        {KEPT_BELOW.map(({ name, to }) => (
          <NavLink
            key={to}
            to={to}
            className={({ isActive }) =>
              `flex min-h-8 items-center rounded-md hover:bg-shade ${isActive ? 'font-bold text-violet' : 'text-ink-soft'}`
            }
          >
            {name}
          </NavLink>
        ))}
      </nav>
      <div className="mt-auto px-5 pb-4 text-sm">
        <OutboxMark />
        <SignedIn />
      </div>
    </div>
  );
}

/** The graduated scale; liquid stands from the meniscus downwards. */
function Scale({ here }: { readonly here: Stage | null }) {
  const height = TOP + 3 * STEP + 34;
  const index = STAGES.findIndex((stage) => stage.name === here);
  const level = TOP + index * STEP;
  const ticks = Array.from({ length: 37 }, (_, i) => TOP - 10 + i * (STEP / 10));
  return (
    <svg width={WIDTH} height={height} aria-hidden="true" className="absolute inset-0">
      {index >= 0 && (
        <path
          d={`M0 ${String(level)}q12 9 24 0V${String(height)}H0z`}
          fill="var(--color-titrant)"
          stroke="var(--color-titrant-edge)"
        />
      )}
      {ticks.map((y) => (
        <path key={y} d={`M0 ${String(y)}h7`} stroke="var(--color-rule-strong)" />
      ))}
      {STAGES.map((stage, i) => (
        <path
          key={stage.name}
          d={`M0 ${String(TOP + i * STEP)}h24`}
          stroke={stage.name === here ? 'var(--color-violet)' : 'var(--color-ink)'}
          strokeWidth={2}
        />
      ))}
      <path d={`M24 0V${String(height)}`} stroke="var(--color-rule-strong)" />
    </svg>
  );
}

/** The runs on the bench, as minor marks below Titrate. */
function OpenRuns({ top }: { readonly top: number }) {
  const open = (useRuns() ?? []).slice(-2);
  const bottles = useRecordsOf(
    'bottle',
    open.map(({ bottleId }) => bottleId),
  );
  return (
    <ul className="absolute left-8" style={{ top }}>
      {open.map((run) => (
        <li key={run.id}>
          <Link
            to={`/runs/${run.id}`}
            className="flex min-h-6 items-center rounded px-2 text-sm text-ink-soft hover:bg-shade"
          >
            bottle {bottles.find((bottle) => bottle.id === run.bottleId)?.code ?? '…'}
          </Link>
        </li>
      ))}
    </ul>
  );
}

function SignedIn() {
  const { person, laboratory } = useSession();
  const signOut = useSignOut();
  return (
    <div className="mt-3 border-t border-rule pt-2">
      <Link to="/account" className="flex min-h-8 items-center font-semibold hover:underline">
        {person.name}
      </Link>
      <p className="text-xs text-ink-soft">{laboratory.name}</p>
      <button
        type="button"
        className="mt-1 min-h-9 text-violet underline underline-offset-4"
        onClick={() => {
          signOut.mutate();
        }}
      >
        Sign out
      </button>
      {signOut.isError && (
        <p role="alert" className="text-blush">
          Not signed out: {signOut.error.message}
        </p>
      )}
    </div>
  );
}
