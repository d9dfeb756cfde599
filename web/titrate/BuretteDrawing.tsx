import { figureText, roundHalfEven } from '#core/measurement';
import type { Burette } from '#core/metrology';
import type { Forecast } from '#core/titration/figures';
import type { BuretteLiquid } from '#core/titration/setUp';

const WIDTH = 268;
const HEIGHT = 800;
/** Where the first and the last mark stand. */
const ZERO_Y = 44;
const LAST_Y = 700;
const TUBE = { left: 62, right: 106 };

interface BuretteDrawingProps {
  readonly burette: Burette;
  readonly liquid: BuretteLiquid;
  /** Where the liquid stands, as last read or as typed just now; null before the first reading. */
  readonly levelMl: number | null;
  /** The initial reading of the flask under the burette. */
  readonly startedMl: number | null;
  readonly forecast: Forecast['onBurette'];
  /** Whether that is the first of two ends. */
  readonly isFirstEnd?: boolean;
}

/** The burette to scale: graduations, level, where to run to and where the end point is expected. */
export function BuretteDrawing(props: BuretteDrawingProps) {
  const { burette, liquid, levelMl, startedMl, forecast, isFirstEnd = false } = props;
  const endName = isFirstEnd ? 'first end' : 'end expected';
  const capacityMl = Number(burette.capacityMl);
  const y = (ml: number): number => ZERO_Y + (ml / capacityMl) * (LAST_Y - ZERO_Y);
  const level = levelMl === null ? LAST_Y + 14 : y(levelMl);
  return (
    <svg
      viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`}
      className="block h-full w-full"
      role="img"
      aria-label={describe(props)}
    >
      <Tube level={level} liquid={liquid} />
      <Graduations capacityMl={capacityMl} y={y} inkAt={inkAbove(liquid, level)} />
      {forecast && (
        <ExpectedEnd forecast={forecast} endName={endName} capacityMl={capacityMl} y={y} />
      )}
      {startedMl !== null && <StartMark startedMl={startedMl} y={y(startedMl)} />}
      {levelMl !== null && (
        <Loupe
          burette={burette}
          liquid={liquid}
          readingMl={levelMl}
          levelY={level}
          avoid={[
            ...(forecast ? [y(forecast.expected), y(forecast.runFreelyTo)] : []),
            ...(startedMl === null ? [] : [y(startedMl)]),
          ]}
        />
      )}
    </svg>
  );
}

function describe({ burette, liquid, levelMl, forecast }: BuretteDrawingProps): string {
  const seen = liquid.word === null ? '' : `, ${liquid.word}`;
  const edge = liquid.readAt === 'top' ? ', read at the top of the meniscus' : '';
  const level =
    levelMl === null ? 'not read yet' : `level at ${figureText(roundHalfEven(levelMl, 2))} mL`;
  const end = forecast
    ? `, end point expected at ${figureText(roundHalfEven(forecast.expected, 2))} mL`
    : '';
  return `${burette.name}, ${figureText(burette.capacityMl)} mL${seen}, ${level}${edge}${end}`;
}

/** What the liquid is drawn with. */
function fillOf({ css }: BuretteLiquid): string {
  return css ?? 'var(--color-titrant)';
}

/** Marks and figures in ink, but light on a liquid that would swallow them. */
function inkAbove({ readAt }: BuretteLiquid, levelY: number): (y: number) => string {
  return (y) => (readAt === 'top' && y > levelY ? 'var(--color-label)' : 'var(--color-mark)');
}

/**
 * Heights of the two points that draw a meniscus, its edges at the glass and what pulls it down between them, so that the edge that is
 * read stands at the level: the bottom of the curve lies half way between the two.
 */
function meniscus({ readAt }: BuretteLiquid, levelY: number, depth: number): [number, number] {
  return readAt === 'top' ? [levelY, levelY + 2 * depth] : [levelY - depth, levelY + depth];
}

/** Glass, liquid with its meniscus, stopcock and tip. */
function Tube({ level, liquid }: { readonly level: number; readonly liquid: BuretteLiquid }) {
  const [edge, pull] = meniscus(liquid, level, 4);
  const { left, right } = TUBE;
  const middle = (left + right) / 2;
  const width = right - left;
  return (
    <g>
      <path
        d={`M${String(left)} 16V${String(LAST_Y + 16)}q0 14 ${String(width / 2 - 5)} 20h10q${String(width / 2 - 5)}-6 ${String(width / 2 - 5)}-20V16z`}
        fill="var(--color-glass)"
        stroke="var(--color-titrant-edge)"
        strokeWidth="1.6"
      />
      <path
        d={`M${String(left + 1)} ${String(edge)}Q${String(middle)} ${String(pull)} ${String(right - 1)} ${String(edge)}V${String(LAST_Y + 16)}q0 13 -${String(width / 2 - 5)} 19h-8q-${String(width / 2 - 5)}-6 -${String(width / 2 - 5)}-19z`}
        fill={fillOf(liquid)}
      />
      <path
        d={`M${String(left + 1)} ${String(edge)}Q${String(middle)} ${String(pull)} ${String(right - 1)} ${String(edge)}`}
        fill="none"
        stroke="var(--color-titrant-edge)"
        strokeWidth="2"
      />
      <path
        d={`M${String(left + 6)} 22V${String(LAST_Y)}`}
        stroke="#fff"
        strokeWidth="3"
        opacity="0.7"
      />
      <Stopcock x={middle} liquid={liquid} />
    </g>
  );
}

/** What lies below the scale: outlet, stopcock and tip. */
function Stopcock({ x, liquid }: { readonly x: number; readonly liquid: BuretteLiquid }) {
  return (
    <g stroke="var(--color-ink)" strokeWidth="1.4">
      <path d={`M${String(x - 5)} ${String(LAST_Y + 36)}v10h10v-10`} fill={fillOf(liquid)} />
      <rect x={x - 14} y={LAST_Y + 46} width="28" height="13" rx="3" fill="var(--color-glass)" />
      <rect x={x - 26} y={LAST_Y + 49} width="52" height="7" rx="3.5" fill="var(--color-leaf)" />
      <path d={`M${String(x - 4)} ${String(LAST_Y + 59)}l2.5 34h3l2.5-34z`} fill={fillOf(liquid)} />
    </g>
  );
}

interface GraduationsProps {
  readonly capacityMl: number;
  readonly y: (ml: number) => number;
  readonly inkAt: (y: number) => string;
}

/** Marks for every half millilitre or finer where there is room, longer ones for 1 and 5 mL. */
function Graduations({ capacityMl, y, inkAt }: GraduationsProps) {
  const stepMl = capacityMl > 30 ? 0.5 : 0.2;
  const marks = Array.from({ length: Math.round(capacityMl / stepMl) + 1 }, (_, i) => i * stepMl);
  const labelEvery = capacityMl > 30 ? 5 : 2;
  return (
    <g>
      {marks.map((ml) => {
        const isWhole = Math.abs(ml - Math.round(ml)) < 1e-6;
        const isLabelled = isWhole && Math.round(ml) % labelEvery === 0;
        const length = isLabelled ? 26 : isWhole ? 19 : 10;
        return (
          <path
            key={ml}
            d={`M${String(TUBE.right)} ${String(y(ml))}h-${String(length)}`}
            stroke={inkAt(y(ml))}
            strokeWidth={isLabelled ? 1.8 : isWhole ? 1.1 : 0.7}
          />
        );
      })}
      {marks
        .filter((ml) => Math.abs(ml / labelEvery - Math.round(ml / labelEvery)) < 1e-6)
        .map((ml) => (
          <text
            key={ml}
            x={TUBE.left - 10}
            y={y(ml) + 6}
            textAnchor="end"
            fontSize="18"
            fontFamily="var(--font-mono)"
            fill="var(--color-ink)"
          >
            {Math.round(ml)}
          </text>
        ))}
    </g>
  );
}

interface ExpectedEndProps {
  readonly forecast: NonNullable<Forecast['onBurette']>;
  readonly endName: string;
  readonly capacityMl: number;
  readonly y: (ml: number) => number;
}

/** The band where the end point is expected, and the mark to which one may run freely. */
function ExpectedEnd({ forecast, endName, capacityMl, y }: ExpectedEndProps) {
  const from = y(forecast.from);
  const to = y(Math.min(forecast.to, capacityMl));
  const freely = y(forecast.runFreelyTo);
  const x = TUBE.right;
  return (
    <g>
      <rect
        x={TUBE.left - 3}
        y={from}
        width={TUBE.right - TUBE.left + 6}
        height={Math.max(5, to - from)}
        fill="var(--color-blush)"
        fillOpacity="0.32"
        stroke="var(--color-blush)"
      />
      <path
        d={`M${String(TUBE.left - 6)} ${String(freely)}H${String(x + 26)}`}
        stroke="var(--color-ink)"
        strokeWidth="1.6"
        strokeDasharray="5 3"
      />
      <ExpectedEndWords
        forecast={forecast}
        endName={endName}
        freelyY={freely}
        bandY={(from + to) / 2}
      />
    </g>
  );
}

interface ExpectedEndWordsProps {
  readonly forecast: NonNullable<Forecast['onBurette']>;
  readonly endName: string;
  readonly freelyY: number;
  /** The middle of the band. */
  readonly bandY: number;
}

function ExpectedEndWords({ forecast, endName, freelyY, bandY }: ExpectedEndWordsProps) {
  // Two lines of writing need some room between them.
  const endY = Math.max(bandY, freelyY + 26);
  const x = TUBE.right;
  return (
    <g fontSize="15">
      <text x={x + 30} y={freelyY - 1} fill="var(--color-ink)">
        run freely to
      </text>
      <text
        x={x + 30}
        y={freelyY + 16}
        fontWeight="700"
        fontFamily="var(--font-mono)"
        fill="var(--color-ink)"
      >
        {figureText(roundHalfEven(forecast.runFreelyTo, 1))}
      </text>
      <path
        d={`M${String(x + 4)} ${String(bandY)}L${String(x + 26)} ${String(endY + 10)}`}
        stroke="var(--color-blush)"
        strokeWidth="1.6"
      />
      <text x={x + 30} y={endY + 9} fill="var(--color-blush)" fontWeight="700">
        {endName}
      </text>
      <text
        x={x + 30}
        y={endY + 26}
        fontSize="14"
        fill="var(--color-blush)"
        fontFamily="var(--font-mono)"
      >
        {figureText(roundHalfEven(forecast.from, 2))} to {figureText(roundHalfEven(forecast.to, 2))}
      </text>
    </g>
  );
}

function StartMark({ startedMl, y }: { readonly startedMl: number; readonly y: number }) {
  return (
    <g>
      <path
        d={`M${String(TUBE.right + 2)} ${String(y)}h22`}
        stroke="var(--color-ink-soft)"
        strokeWidth="1.4"
      />
      <text x={TUBE.right + 30} y={y + 5} fontSize="15" fill="var(--color-ink-soft)">
        began at{' '}
        <tspan fontFamily="var(--font-mono)" fontWeight="600">
          {figureText(roundHalfEven(startedMl, 2))}
        </tspan>
      </text>
    </g>
  );
}

const LOUPE = { x: 206, radius: 56, pxPerMl: 150 };

/** A mark right at the edge still lies on the glass above the liquid. */
const MARK_ABOVE = 4;

interface LoupeProps {
  readonly burette: Burette;
  readonly liquid: BuretteLiquid;
  readonly readingMl: number;
  readonly levelY: number;
  /** Heights of other writing. */
  readonly avoid: readonly number[];
}

/** The tenths between two graduations, large: where the meniscus stands for the figure that is typed. */
function Loupe({ burette, liquid, readingMl, levelY, avoid }: LoupeProps) {
  const centre = quietHeight(avoid, levelY);
  const [edge, pull] = meniscus(liquid, centre, 9);
  const inkAt = inkAbove(liquid, centre);
  const isDark = liquid.readAt === 'top';
  const divisionMl = burette.construction === 'glass' ? Number(burette.divisionMl) : 0.1;
  const first = Math.ceil((readingMl - 0.4) / divisionMl);
  const ticks = Array.from(
    { length: Math.floor(0.8 / divisionMl) + 1 },
    (_, i) => (first + i) * divisionMl,
    // Glass bears no marks above zero or below the last one.
  ).filter((ml) => ml > -1e-9 && ml < Number(burette.capacityMl) + 1e-9);
  const yOf = (ml: number): number => centre + (ml - readingMl) * LOUPE.pxPerMl;
  const left = LOUPE.x - LOUPE.radius;
  return (
    <g>
      <path
        d={`M${String(TUBE.right - 2)} ${String(levelY)}L${String(left + 2)} ${String(centre)}`}
        stroke="var(--color-ink-soft)"
      />
      <clipPath id="loupe">
        <circle cx={LOUPE.x} cy={centre} r={LOUPE.radius} />
      </clipPath>
      <g clipPath="url(#loupe)">
        <rect x={left} y={centre - 60} width="112" height="120" fill="var(--color-glass)" />
        <path
          d={`M${String(left)} ${String(edge)}Q${String(LOUPE.x)} ${String(pull)} ${String(left + 112)} ${String(edge)}V${String(centre + 60)}H${String(left)}z`}
          fill={fillOf(liquid)}
        />
        {ticks.map((ml) => (
          <g key={ml}>
            <path
              d={`M${String(LOUPE.x + 4)} ${String(yOf(ml))}h60`}
              stroke={inkAt(yOf(ml) - MARK_ABOVE)}
              strokeWidth="1.5"
            />
            <text
              x={LOUPE.x - 2}
              y={yOf(ml) + 5}
              textAnchor="end"
              fontSize="14"
              fontFamily="var(--font-mono)"
              fill={inkAt(yOf(ml) - MARK_ABOVE)}
              // Where a figure lies across the edge of a dark liquid, it is read by its outline.
              stroke={isDark && yOf(ml) > centre ? fillOf(liquid) : 'none'}
              strokeWidth="3"
              paintOrder="stroke"
            >
              {figureText(roundHalfEven(ml, 1))}
            </text>
          </g>
        ))}
        <path
          d={`M${String(left)} ${String(edge)}Q${String(LOUPE.x)} ${String(pull)} ${String(left + 112)} ${String(edge)}`}
          fill="none"
          stroke="var(--color-titrant-edge)"
          strokeWidth="2.5"
        />
      </g>
      <circle
        cx={LOUPE.x}
        cy={centre}
        r={LOUPE.radius}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth="2.5"
      />
      {liquid.readAt === 'top' && (
        <text
          x={LOUPE.x}
          y={centre + LOUPE.radius + 18}
          textAnchor="middle"
          fontSize="14"
          fontWeight="700"
          fill="var(--color-ink)"
        >
          read the top edge
        </text>
      )}
    </g>
  );
}

/** The height nearest to the level where the loupe covers no writing. */
function quietHeight(avoid: readonly number[], levelY: number): number {
  const candidates = Array.from({ length: 33 }, (_, i) => 76 + i * 20);
  const isQuiet = (at: number): boolean => avoid.every((other) => Math.abs(other + 8 - at) > 92);
  return (
    candidates.filter(isQuiet).toSorted((a, b) => Math.abs(a - levelY) - Math.abs(b - levelY))[0] ??
    76
  );
}
