import type { DecimalMark } from '../measurement';
import type { Finding } from '../record';
import { impossible, MOST_WARNING_DAYS, WARNING_DAYS } from '../record';
import type { NamedRule } from './rule';
import { checkBounds, choice, count, figure, grouped } from './rule';

const THE_DAY = {
  workdayBegins: count({
    question: 'Hands work from',
    unit: 'h',
    least: 0,
    most: 23,
    default: 7,
    before: 7,
    why: 'A day is planned backwards within these hours. Drying and standing go on through the night.',
  }),
  workdayEnds: count({
    question: 'until',
    unit: 'h',
    least: 1,
    most: 24,
    default: 17,
    before: 17,
    why: 'What cannot be finished by then begins a day earlier.',
  }),
  weighMinutes: count({
    question: 'A weighing takes',
    unit: 'min',
    least: 1,
    most: 120,
    default: 10,
    before: 10,
    why: 'With taring, closing the doors and waiting for the display.',
  }),
  dissolveMinutes: count({
    question: 'Dissolving takes',
    unit: 'min',
    least: 1,
    most: 240,
    default: 10,
    before: 10,
    why: 'Of somebody’s hands; longer by a stirrer is a wait.',
  }),
  filterMinutes: count({
    question: 'Filtering takes',
    unit: 'min',
    least: 1,
    most: 240,
    default: 15,
    before: 15,
    why: 'Through sintered glass, with rinsing.',
  }),
  procedureMinutes: count({
    question: 'A procedure of several steps takes',
    unit: 'min',
    least: 1,
    most: 480,
    default: 30,
    before: 30,
    why: 'Such as an indicator that is ground, dissolved and filtered.',
  }),
  seriesMinutes: count({
    question: 'A series of titrations takes',
    unit: 'min',
    least: 10,
    most: 480,
    default: 90,
    before: 90,
    why: 'With setting up, judging and certifying.',
  }),
};

const AT_THE_BENCH = {
  roomTemperatureC: figure({
    question: 'A run is set up at a room temperature of',
    unit: '°C',
    least: 5,
    most: 40,
    default: '20',
    before: '20',
    why: 'It stands in the set-up until somebody reads a thermometer.',
  }),
  flaskTimerMinutes: count({
    question: 'The timer of a flask runs',
    unit: 'min',
    least: 1,
    most: 120,
    default: 5,
    before: 5,
    why: 'Dissolving, boiling, iodine in the dark.',
  }),
  decimalMark: choice({
    question: 'Figures are written with a decimal',
    choices: { point: 'point: 23.46', comma: 'comma: 23,46' },
    default: 'point',
    before: 'point',
    why: 'On screens, labels and the number pad. Both are understood wherever a figure is typed; files keep the point.',
  }),
};

const DATES_AND_PAPER = {
  warningDays: count({
    question: 'What runs out is said to be due',
    unit: 'days before',
    least: 1,
    most: MOST_WARNING_DAYS,
    default: WARNING_DAYS,
    before: WARNING_DAYS,
    why: 'A week is enough to order a standard or to find an hour. What keeps for less is due from half its time on.',
  }),
  dateFormat: choice({
    question: 'Dates on the screen are written',
    choices: { words: '2 Mar 2026', iso: '2026-03-02', dots: '02.03.2026' },
    default: 'words',
    before: 'words',
    why: 'A month in words is not taken for a day.',
  }),
  labelSheet: choice({
    question: 'Labels are printed on',
    choices: {
      single: 'single labels, 90 × 54 mm',
      'two-by-five': 'A4, 2 × 5 labels',
      'three-by-eight': 'A4, 3 × 8 labels',
    },
    default: 'single',
    before: 'single',
    why: 'Chosen first where a label is made; any other sheet can be given there.',
  }),
};

const GROUPS = {
  'The day’s work': THE_DAY,
  'At the bench': AT_THE_BENCH,
  'Dates and paper': DATES_AND_PAPER,
};

type Entries = typeof THE_DAY & typeof AT_THE_BENCH & typeof DATES_AND_PAPER;

export type SettingKey = keyof Entries;

/** How long a solution of a substance keeps in this laboratory, days, instead of what the catalogue says. */
export interface OwnKeeping {
  readonly substanceId: string;
  readonly days: number;
}

/** What a laboratory sets of how the program works for it. No result follows from it, so no run keeps it. */
export type Settings = { readonly [K in SettingKey]: Entries[K]['default'] } & {
  readonly keeping: readonly OwnKeeping[];
};

/** A setting with its name. */
export type Setting = NamedRule<SettingKey, Settings[SettingKey]>;

/** Every setting, under the heading that it belongs to. */
export const SETTING_GROUPS = grouped<SettingKey, Settings[SettingKey]>(GROUPS);

export const SETTINGS: readonly Setting[] = SETTING_GROUPS.flatMap(({ rules }) => rules);

/** What we ship. */
export const DEFAULT_SETTINGS: Settings = {
  // The entry of each gives the value its type.
  ...(Object.fromEntries(SETTINGS.map((entry) => [entry.key, entry.default])) as Omit<
    Settings,
    'keeping'
  >),
  keeping: [],
};

/** What makes settings impossible to follow. */
export function checkSettings(settings: Settings): readonly Finding[] {
  const findings: Finding[] = [...checkBounds(SETTINGS, settings)];
  if (settings.workdayEnds <= settings.workdayBegins) {
    findings.push(impossible('workday-without-hours', 'workdayEnds'));
  }
  const named = settings.keeping.map(({ substanceId }) => substanceId);
  if (new Set(named).size < named.length) findings.push(impossible('kept-twice', 'keeping'));
  return findings;
}

/** What figures are written with in this laboratory. */
export function decimalMarkOf({ decimalMark }: Settings): DecimalMark {
  return decimalMark === 'comma' ? ',' : '.';
}

/** How many days solutions of a substance keep by what the laboratory has set; null where it follows the catalogue. */
export function ownKeepingDays({ keeping }: Settings, substanceId: string): number | null {
  return keeping.find((one) => one.substanceId === substanceId)?.days ?? null;
}
