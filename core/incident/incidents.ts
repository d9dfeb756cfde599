/** What an incident's effect on the titre depends on, on this run's own numbers. */
export interface RunNumbers {
  readonly titreMl: number;
  readonly titrantMolarityMolPerL: number;
  /** What was measured into the flask. */
  readonly portion: { readonly massG: number } | { readonly aliquotMl: number };
  readonly buretteCapacityMl: number;
  readonly dropMl: number;
  /** Standard uncertainty of one reading. */
  readonly readingUncertaintyMl: number;
  /** Water in the flask, about. */
  readonly waterMl: number;
  /** Flask in which the standard solution was made up, if there is one. */
  readonly volumetricFlaskMl: number | null;
}

/** What is known of the incident itself; each only where it was measured or counted. */
export interface IncidentDetails {
  /** Of the bubble, the lost drops, the extra volume. */
  readonly volumeMl?: number;
  /** Of what was lost. */
  readonly massG?: number;
  /** Drops of indicator beyond the usual. */
  readonly drops?: number;
  /** Hydrogencarbonate in the tap water. */
  readonly alkalinityMmolPerL?: number;
}

/** What of the circumstances an incident's size hangs on, where the run does not know it. */
export type Circumstance = 'waterMl' | 'volumetricFlaskMl';

export type Verdict = 'void' | 'discard-solution' | 'correct' | 'note' | 'act-now' | 'carry-on';

/** Kinds of run to which some incidents are confined. */
export type RunFeature =
  | 'hydroxide-titrant'
  | 'weighed'
  | 'aliquot'
  | 'standard-solution'
  | 'hot'
  | 'permanganate-oxalate'
  | 'iron-ii'
  | 'indicator'
  | 'hydrate';

/** Titre against what it would be for the amounts as recorded, with the standard in the flask: `high`, `low`, `none`, or either way. */
type Shift = 'high' | 'low' | 'none' | 'either' | 'unknown';

/** A range of volumes in mL by which the titre is off; null when nobody can say. */
type Size = (
  numbers: RunNumbers,
  details: IncidentDetails,
) => readonly [least: number, most: number] | null;

export interface Incident {
  readonly id: string;
  readonly name: string;
  /** Empty when it can happen in any run. */
  readonly onlyIn: readonly RunFeature[];
  /** What is not as it should be: what was measured into the flask, the standard itself, or the titration. */
  readonly concerns: 'portion' | 'standard' | 'titration';
  readonly shift: Shift;
  readonly size: Size;
  readonly verdict: Verdict;
  /** The verdict once its size is measured, where that changes it. */
  readonly verdictWhenMeasured?: Verdict;
  /** What is asked beside its own size. */
  readonly asks?: Circumstance;
  /** What corrects it where its size was not measured: a blank with the same, a reading before the last drop, a corrected entry. */
  readonly putRightBy?: 'blank' | 'bracket' | 'correction';
  readonly reason: string;
  readonly action: string;
}

const none: Size = () => [0, 0];
const unknown: Size = () => null;

/** The volume stated, or a usual range. */
function volume(least: number, most: number): Size {
  return (_, { volumeMl }) => statedOr(volumeMl, [least, most]);
}

/** Up to a drop. */
const aDrop: Size = ({ dropMl }, { volumeMl }) => statedOr(volumeMl, [0, dropMl]);

/** A part of the titre as read. */
function partOfTitre(least: number, most: number): Size {
  return ({ titreMl }) => [least * titreMl, most * titreMl];
}

/** The volume or mass stated, else a usual range. */
function statedOr(
  stated: number | undefined,
  usual: readonly [number, number],
): readonly [number, number] {
  return stated === undefined ? usual : [stated, stated];
}

/** Titre that belongs to what a portion lost: too little by x / (whole - x) of what was titrated. */
function lostFrom(
  whole: number,
  parts: readonly [number, number],
  titreMl: number,
): readonly [number, number] {
  return [(parts[0] / (whole - parts[0])) * titreMl, (parts[1] / (whole - parts[1])) * titreMl];
}

/** Titre that belongs to what a portion gained: too much by x / (whole + x) of what was titrated. */
function gainedBy(
  whole: number,
  parts: readonly [number, number],
  titreMl: number,
): readonly [number, number] {
  return [(parts[0] / (whole + parts[0])) * titreMl, (parts[1] / (whole + parts[1])) * titreMl];
}

/** A volume of solution that an aliquot gained, or lost to water. */
function ofAliquot(change: typeof lostFrom, least: number, most: number): Size {
  return ({ titreMl, portion }, { volumeMl }) =>
    'aliquotMl' in portion
      ? change(portion.aliquotMl, statedOr(volumeMl, [least, most]), titreMl)
      : null;
}

/** A mass that a weighed portion has more, or less, than was written down. */
function ofMass(change: typeof lostFrom, leastG: number, mostG: number): Size {
  return ({ titreMl, portion }, { massG }) =>
    'massG' in portion ? change(portion.massG, statedOr(massG, [leastG, mostG]), titreMl) : null;
}

/** Dissolved carbon dioxide of water in balance with air, mol/L. Source: Henry's law at 25 °C, 420 ppm. */
const CARBON_DIOXIDE_IN_WATER_MOL_PER_L = 1.4e-5;

/** Gassier water, such as fresh from a pressed supply, holds ten times as much and more. */
const GASSY = 10;

/** Amount of titrant that an indicator takes, mol for each drop: 0.05 mL of a 0.5 % solution, molar mass near 320. */
const INDICATOR_MOL_PER_DROP = (0.05 * 5) / 320 / 1000;

/** Hydrogencarbonate in tap water, usual range, mmol/L. */
const TAP_ALKALINITY = [1, 6] as const;

/**
 * What happens at the bench, and what it does to the titre. Sizes are usual ones; what was measured takes their place.
 * Source: common practice of volumetric analysis.
 */
export const INCIDENTS: readonly Incident[] = [
  {
    id: 'bubble-in-tip',
    name: 'A bubble in the tip at the start, gone at the end',
    onlyIn: [],
    concerns: 'titration',
    shift: 'high',
    size: volume(0.05, 0.3),
    verdict: 'void',
    verdictWhenMeasured: 'correct',
    reason: 'The bubble was counted as titrant.',
    action: 'Void this titration, unless the volume of the bubble is known. Clear the tip first.',
  },
  {
    id: 'burette-rinsed-with-water-only',
    name: 'Burette rinsed with water but not with titrant',
    onlyIn: [],
    concerns: 'titration',
    shift: 'high',
    size: ({ titreMl, buretteCapacityMl }, { volumeMl }) => {
      const [least, most] = statedOr(volumeMl, [0.2, 0.5]);
      return [(least / buretteCapacityMl) * titreMl, (most / buretteCapacityMl) * titreMl];
    },
    verdict: 'void',
    reason: 'The water left behind dilutes the titrant.',
    action: 'Void what came from this filling. Empty the burette, rinse three times, refill.',
  },
  {
    id: 'pipette-rinsed-with-water-only',
    name: 'Pipette rinsed with water only',
    onlyIn: ['aliquot'],
    concerns: 'portion',
    shift: 'low',
    size: ofAliquot(lostFrom, 0.05, 0.2),
    verdict: 'void',
    reason: 'The aliquot was diluted by what clung to the glass.',
    action: 'Void. Rinse the pipette two or three times with the solution.',
  },
  {
    id: 'flask-rinsed-with-solution',
    name: 'Flask rinsed with the solution that it receives',
    onlyIn: ['aliquot'],
    concerns: 'portion',
    shift: 'high',
    size: ofAliquot(gainedBy, 0.1, 0.5),
    verdict: 'void',
    reason: 'What clung to the glass was added to the aliquot.',
    action: 'Void. Flasks are rinsed with water only.',
  },
  {
    id: 'flask-wet-with-water',
    name: 'Flask wet with water, or more or less water to dissolve',
    onlyIn: [],
    concerns: 'titration',
    shift: 'none',
    size: none,
    verdict: 'carry-on',
    reason: 'The amount in the flask is unchanged.',
    action: 'Carry on.',
  },
  {
    id: 'walls-rinsed-down',
    name: 'Walls or tip washed down with distilled water',
    onlyIn: [],
    concerns: 'titration',
    shift: 'none',
    size: none,
    verdict: 'carry-on',
    reason: 'It dilutes, and no more; what clung to the wall comes into the flask.',
    action: 'Carry on. It is good practice just before the end.',
  },
  {
    id: 'tap-water',
    name: 'Tap water instead of distilled water',
    onlyIn: [],
    concerns: 'titration',
    shift: 'either',
    size: ({ waterMl, titrantMolarityMolPerL }, { alkalinityMmolPerL }) => {
      const [low, high] = statedOr(alkalinityMmolPerL, TAP_ALKALINITY);
      const toMl = waterMl / 1000 / titrantMolarityMolPerL;
      return [low * toMl, high * toMl];
    },
    asks: 'waterMl',
    verdict: 'void',
    verdictWhenMeasured: 'note',
    reason: 'Its hardness and alkalinity react; which way depends on the system.',
    action: 'Estimate it from the alkalinity and note it, or void.',
  },
  {
    id: 'aliquot-not-round',
    name: 'An aliquot taken by burette missed the round number',
    onlyIn: ['aliquot'],
    concerns: 'titration',
    shift: 'none',
    size: none,
    verdict: 'carry-on',
    reason: 'Nothing is lost when the readings are recorded.',
    action: 'Carry on with the real volume.',
  },
  {
    id: 'started-away-from-zero',
    name: 'Started away from 0.00',
    onlyIn: [],
    concerns: 'titration',
    shift: 'none',
    size: none,
    verdict: 'carry-on',
    reason: 'The level need not be zero; it must be known.',
    action: 'Carry on.',
  },
  {
    id: 'initial-reading-not-taken',
    name: 'Initial reading not taken',
    onlyIn: [],
    concerns: 'titration',
    shift: 'unknown',
    size: unknown,
    verdict: 'void',
    reason: 'The titre is unknown, and a level cannot be read afterwards.',
    action: 'Void.',
  },
  {
    id: 'past-last-mark',
    name: 'Ran past the last mark',
    onlyIn: [],
    concerns: 'titration',
    shift: 'unknown',
    size: unknown,
    verdict: 'void',
    reason: 'Below the last mark the volume is unknown.',
    action: 'Void. Refill before the end is due beyond the last mark.',
  },
  {
    id: 'refilled-in-mid-run',
    name: 'Refilled in mid-run',
    onlyIn: [],
    concerns: 'titration',
    shift: 'either',
    size: ({ readingUncertaintyMl }) => [0, 2 * Math.SQRT2 * readingUncertaintyMl],
    verdict: 'note',
    reason: 'Two more readings bring their own uncertainty.',
    action: 'Keep it, and record both readings of the refill.',
  },
  {
    id: 'other-bottle',
    name: 'The burette was refilled from another bottle',
    onlyIn: [],
    concerns: 'titration',
    shift: 'unknown',
    size: unknown,
    verdict: 'void',
    reason: 'Two solutions are mixed in it, and neither molarity is that of the mixture.',
    action:
      'Void what was titrated since. Empty the burette, rinse three times, and begin a run on the other bottle if that is the one to be used.',
  },
  {
    id: 'overshot-bracketed',
    name: 'Overshot, and the reading before the last drop was written down',
    onlyIn: [],
    concerns: 'titration',
    shift: 'high',
    size: aDrop,
    putRightBy: 'bracket',
    verdict: 'correct',
    reason: 'The end point lies between the two readings.',
    action: 'Keep the earlier reading as the lower end of the bracket, or void.',
  },
  {
    id: 'overshot',
    name: 'Overshot, and nothing was written down before',
    onlyIn: [],
    concerns: 'titration',
    shift: 'high',
    size: ({ dropMl }, { volumeMl }) => statedOr(volumeMl, [dropMl, 10 * dropMl]),
    verdict: 'void',
    verdictWhenMeasured: 'correct',
    reason: 'The titre is high by an unknown amount.',
    action: 'Void, or titrate back with a known volume.',
  },
  {
    id: 'colour-faded',
    name: 'The colour faded before the set time',
    onlyIn: [],
    concerns: 'titration',
    shift: 'low',
    size: aDrop,
    verdict: 'act-now',
    reason: 'This was not yet the end point.',
    action: 'Add the next half drop.',
  },
  {
    id: 'indicator-forgotten',
    name: 'Indicator forgotten',
    onlyIn: ['indicator'],
    concerns: 'titration',
    shift: 'unknown',
    size: unknown,
    verdict: 'act-now',
    reason: 'The end point cannot be seen, and may have been passed.',
    action: 'Add it now if the end point cannot have been passed; otherwise void.',
  },
  {
    id: 'too-much-indicator',
    name: 'Far too much indicator',
    onlyIn: ['indicator'],
    concerns: 'titration',
    shift: 'high',
    size: ({ titrantMolarityMolPerL }, { drops = 10 }) => {
      const volumeMl = (1000 * drops * INDICATOR_MOL_PER_DROP) / titrantMolarityMolPerL;
      return [volumeMl / 2, volumeMl];
    },
    putRightBy: 'blank',
    verdict: 'correct',
    reason: 'An indicator is an acid, a base or an oxidant itself and takes titrant.',
    action: 'Make a blank with the same number of drops and take it off.',
  },
  {
    id: 'pipette-blown-out',
    name: 'Pipette blown out',
    onlyIn: ['aliquot'],
    concerns: 'portion',
    shift: 'high',
    size: ofAliquot(gainedBy, 0.02, 0.05),
    verdict: 'void',
    verdictWhenMeasured: 'correct',
    reason: 'A pipette delivers its volume with the last drop kept back.',
    action: 'Void, or estimate the drop.',
  },
  {
    id: 'drop-hanging',
    name: 'A drop left hanging on the tip',
    onlyIn: [],
    concerns: 'titration',
    shift: 'high',
    size: aDrop,
    verdict: 'act-now',
    reason: 'The drop was read but is not in the flask.',
    action: 'Rinse it in before the reading; after it, note it.',
  },
  {
    id: 'funnel-left',
    name: 'Funnel left in the burette',
    onlyIn: [],
    concerns: 'titration',
    shift: 'low',
    size: volume(0.05, 0.2),
    verdict: 'void',
    reason: 'It drips: more was delivered than the readings say.',
    action: 'Take it out. Void if it dripped.',
  },
  {
    id: 'solid-left-behind',
    name: 'Solid left on the boat, the funnel or the wall',
    onlyIn: ['weighed'],
    concerns: 'portion',
    shift: 'low',
    size: ofMass(lostFrom, 0.0005, 0.005),
    verdict: 'act-now',
    verdictWhenMeasured: 'correct',
    reason: 'Less is in the flask than was weighed.',
    action: 'Rinse it in. If it is lost, void.',
  },
  {
    id: 'standard-not-dried',
    name: 'Standard not dried, or wet',
    onlyIn: [],
    concerns: 'standard',
    shift: 'low',
    size: partOfTitre(0.001, 0.02),
    verdict: 'void',
    reason: 'Part of what was weighed is water.',
    action: 'Void, dry and repeat.',
  },
  {
    id: 'hydrate-lost-water',
    name: 'A hydrate that has lost water',
    onlyIn: ['hydrate'],
    concerns: 'standard',
    shift: 'high',
    size: partOfTitre(0.001, 0.05),
    verdict: 'void',
    reason: 'More of the substance was weighed than its formula says.',
    action: 'Void. Take a fresh bottle; never heat a hydrate.',
  },
  {
    id: 'filled-past-mark',
    name: 'Standard solution filled past the mark',
    onlyIn: ['standard-solution'],
    concerns: 'standard',
    shift: 'low',
    size: ({ titreMl, volumetricFlaskMl }, { volumeMl }) => {
      if (volumetricFlaskMl === null) return null;
      const [least, most] = statedOr(volumeMl, [0.2, 2]);
      return [(least / volumetricFlaskMl) * titreMl, (most / volumetricFlaskMl) * titreMl];
    },
    asks: 'volumetricFlaskMl',
    verdict: 'discard-solution',
    reason:
      'The standard is too dilute by an unknown amount; taking some out does not put that right.',
    action: 'Discard the solution and start again.',
  },
  {
    id: 'stopcock-leaks',
    name: 'The stopcock leaks',
    onlyIn: [],
    concerns: 'titration',
    shift: 'high',
    size: volume(0.02, 1),
    verdict: 'void',
    reason: 'What leaked past the flask was read as titrant.',
    action: 'Void. Clean and grease the stopcock, or take another burette.',
  },
  {
    id: 'cooled-below-window',
    name: 'A hot titration cooled below its window',
    onlyIn: ['hot'],
    concerns: 'titration',
    shift: 'low',
    size: partOfTitre(0.001, 0.05),
    verdict: 'act-now',
    reason: 'The reaction is slow: the colour lasts before the end.',
    action: 'Reheat at once, do not boil, and go on.',
  },
  {
    id: 'brown-turbidity',
    name: 'Brown turbidity in the oxalate flask',
    onlyIn: ['permanganate-oxalate'],
    concerns: 'titration',
    shift: 'high',
    // Three electrons instead of five take five thirds of the titrant: at most two fifths of the titre are too much.
    size: partOfTitre(0.005, 2 / 5),
    verdict: 'void',
    reason: 'Manganese dioxide: permanganate takes up three electrons there, not five.',
    action: 'Void. More acid, hotter, slower at the start.',
  },
  {
    id: 'oxalate-boiled',
    name: 'The oxalate flask boiled',
    onlyIn: ['permanganate-oxalate'],
    concerns: 'titration',
    shift: 'low',
    size: partOfTitre(0.001, 0.03),
    verdict: 'void',
    reason: 'Hot acid decomposes oxalic acid.',
    action: 'Void. Heat to 80 °C at most.',
  },
  {
    id: 'carbon-dioxide-in-water',
    name: 'Water not freed of carbon dioxide',
    onlyIn: ['hydroxide-titrant'],
    concerns: 'titration',
    shift: 'high',
    size: ({ waterMl, titrantMolarityMolPerL }) => {
      const inBalance = (waterMl * CARBON_DIOXIDE_IN_WATER_MOL_PER_L) / titrantMolarityMolPerL;
      return [inBalance, GASSY * inBalance];
    },
    asks: 'waterMl',
    putRightBy: 'blank',
    verdict: 'correct',
    reason: 'Carbon dioxide takes up hydroxide at the end point of phenolphthalein.',
    action: 'Make a blank with the same water and take it off.',
  },
  {
    id: 'greasy-burette',
    name: 'Drops cling to the wall of the burette',
    onlyIn: [],
    concerns: 'titration',
    shift: 'high',
    size: volume(0.02, 0.2),
    verdict: 'void',
    reason: 'Less was delivered than was read.',
    action: 'Clean the burette. Void if the drops can be seen.',
  },
  {
    id: 'read-at-once',
    name: 'Read at once after running fast',
    onlyIn: [],
    concerns: 'titration',
    shift: 'high',
    size: volume(0.01, 0.05),
    verdict: 'act-now',
    reason: 'The film on the wall is still draining.',
    action: 'Wait half a minute and read again.',
  },
  {
    id: 'weighed-warm',
    name: 'Standard weighed warm',
    onlyIn: ['weighed'],
    concerns: 'portion',
    shift: 'high',
    size: ofMass(gainedBy, 0.0002, 0.002),
    verdict: 'act-now',
    reason: 'Rising air and buoyancy make a warm vessel weigh too little.',
    action: 'Let it cool in the desiccator and weigh again.',
  },
  {
    id: 'iron-left-in-air',
    name: 'Iron(II) left standing in air',
    onlyIn: ['iron-ii'],
    concerns: 'standard',
    shift: 'low',
    size: partOfTitre(0.002, 0.02),
    verdict: 'void',
    reason: 'Part of it was oxidized.',
    action: 'Void. Take a fresh, acidified solution.',
  },
  {
    id: 'parallax',
    name: 'Eye above or below the meniscus',
    onlyIn: [],
    concerns: 'titration',
    shift: 'either',
    size: volume(0.02, 0.05),
    verdict: 'note',
    reason: 'It cancels only if the eye was at the same height both times.',
    action: 'Read again at eye level; if it is too late for that, note it.',
  },
  {
    id: 'wrong-figure',
    name: 'Wrong ratio, wrong hydrate, wrong digit',
    onlyIn: [],
    concerns: 'titration',
    shift: 'unknown',
    size: unknown,
    putRightBy: 'correction',
    verdict: 'correct',
    reason: 'Nothing happened at the bench.',
    action: 'Correct the entry; the record keeps both.',
  },
];
