import { Link, NavLink, useLocation } from 'react-router';
import { OutboxMark } from '../outbox/OutboxMark';
import { useRecordsOf, useRuns } from './records';
import { KeyHint } from '../ui/Button';
import { SignedIn } from './SignedIn';
import type { Stage } from './stages';
import { KEPT_BELOW, stageOf, STAGES } from './stages';
import { useFinder } from './useFinder';

/** Height of the scale between two major marks, px. */
const STEP = 88;
const TOP = 26;
const WIDTH = 148;

/** The way through the work: a graduated scale read downwards, with a meniscus where one is. */
export function Spine() {
  const { pathname } = useLocation();
  const here = stageOf(pathname);
  const { open, finder } = useFinder();
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
        <OpenRuns top={TOP + 2 * STEP + 24} />
      </nav>
      <nav aria-label="Laboratory" className="mx-5 mt-2 border-t border-rule pt-2 text-[15px]">
        <button
          type="button"
          className="flex min-h-8 w-full items-center gap-2 rounded-md font-semibold text-violet hover:bg-shade"
          onClick={open}
        >
          Find <KeyHint>/</KeyHint>
        </button>
        {finder}
        {KEPT_BELOW.map(({ name, to }) => (
          <NavLink
            key={to}
            to={to}
            className={({ isActive }) =>
              `flex min-h-6 items-center rounded-md hover:bg-shade pointer-coarse:min-h-8 ${isActive ? 'font-bold text-violet' : 'text-ink-soft'}`
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

/** The bottles of the newest runs on the bench, below Titrate. */
function OpenRuns({ top }: { readonly top: number }) {
  const open = (useRuns() ?? []).slice(-2);
  const bottles = useRecordsOf(
    'bottle',
    open.map(({ bottleId }) => bottleId),
  );
  return (
    <ul className="absolute left-8 flex gap-0.5" style={{ top }}>
      {open.map((run) => {
        const code = bottles.find((bottle) => bottle.id === run.bottleId)?.code ?? '…';
        return (
          <li key={run.id}>
            <Link
              to={`/runs/${run.id}`}
              aria-label={`bottle ${code}`}
              className="flex h-10 min-w-11 items-center rounded px-2 text-sm text-ink-soft hover:bg-shade"
            >
              {open.length === 1 && 'bottle '}
              {code}
            </Link>
          </li>
        );
      })}
    </ul>
  );
}
