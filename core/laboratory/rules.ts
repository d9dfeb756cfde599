import type { NamedRule } from './rule';
import { choice, count, figure, grouped, yesOrNo } from './rule';

const SETTING_UP = {
  /** Which choice the set-up shows first. */
  standardBy: choice({
    question: 'A standard is first offered',
    choices: {
      weighed: 'weighed into each flask',
      aliquot: 'as aliquots of its solution',
    },
    default: 'weighed',
    before: 'weighed',
    why: 'Three weighings average the error of weighing; aliquots share it.',
  }),
  /** Which of two solutions the burette holds in the arrangement that is offered first. */
  inBurette: choice({
    question: 'Of two solutions, the burette first holds',
    choices: {
      titrant: 'the one to be standardized',
      standard: 'the one of known molarity',
      more: 'the one of which there is more',
    },
    default: 'titrant',
    before: 'titrant',
    since: 1,
    why: 'As it is used later, with fewer transfers. Every arrangement stays possible.',
  }),
  /** Whether a titrant that is a primary standard, as dichromate is, is made up by weight or standardized by another. */
  primaryTitrants: choice({
    question: 'Dichromate is',
    choices: {
      weighed: 'itself the primary standard, weighed',
      titrated: 'standardized by ammonium iron(II) sulfate',
    },
    default: 'weighed',
    before: 'weighed',
    since: 1,
    why: 'The iron(II) salt keeps badly. Both stay possible.',
  }),
  weighing: choice({
    question: 'A mass is weighed',
    choices: {
      tared: 'into a tared boat',
      'by-difference': 'by difference',
    },
    default: 'tared',
    before: 'tared',
    why: 'Weighing by difference loses nothing on the boat; taring is quicker. Both stay possible.',
  }),
  /** In what a titrant is made up that will be standardized; a standard always is in a flask. */
  titrantsMadeUpIn: choice({
    question: 'A titrant is made up in',
    choices: {
      cylinder: 'a beaker, by cylinder',
      flask: 'a volumetric flask',
    },
    default: 'cylinder',
    before: 'cylinder',
    since: 2,
    why: 'Only what enters the equation must be exact. A standard always goes into a flask.',
  }),
  rinses: count({
    question: 'Rinses of the burette with the titrant',
    unit: 'times',
    least: 0,
    most: 10,
    default: 3,
    before: 3,
    why: 'More wastes titrant, fewer leave water.',
  }),
  rinseMl: figure({
    question: 'Titrant for each rinse',
    unit: 'mL',
    least: 0,
    most: 100,
    default: '4',
    before: '4',
    why: 'Counted in the volume needed.',
  }),
  carbonDioxide: choice({
    question: 'Water for bases is freed of carbon dioxide',
    choices: {
      boiled: 'by boiling five minutes',
      fresh: 'by taking it fresh from the deionizer',
      nothing: 'not at all',
    },
    default: 'boiled',
    before: 'boiled',
    why: 'Carbon dioxide takes base at the end point of phenolphthalein.',
  }),
  washDown: choice({
    question: 'Walls and tip are washed down with',
    choices: {
      distilled: 'distilled water',
      tap: 'tap water',
    },
    default: 'distilled',
    before: 'distilled',
    why: 'Tap water carries alkalinity.',
  }),
};

const TITRATING = {
  firstIsRough: yesOrNo({
    question: 'The first titration',
    yes: 'is rough and left out',
    no: 'counts if it agrees',
    default: true,
    before: true,
    why: 'Leaving it out by rule removes the temptation to choose.',
  }),
  /** Whether the last final reading is offered as the next initial one. */
  startOfTitration: choice({
    question: 'The next titration starts',
    choices: {
      'carry-on': 'where the last one ended',
      refill: 'after a refill, near zero',
    },
    default: 'carry-on',
    before: 'carry-on',
    why: 'It saves titrant; a zero set by eye is no better than a reading.',
  }),
  readingResolutionMl: choice({
    question: 'The burette is read to',
    choices: {
      '0.01': '0.01 mL',
      '0.02': '0.02 mL',
      '0.05': '0.05 mL',
      '0.1': '0.1 mL',
    },
    default: '0.01',
    before: '0.01',
    why: 'A tenth of a division can be estimated; its uncertainty is in the budget.',
  }),
  darkMeniscus: choice({
    question: 'The meniscus of a dark titrant is read at the',
    choices: {
      top: 'top, both times',
      bottom: 'bottom',
    },
    default: 'top',
    before: 'top',
    why: 'The bottom cannot be seen.',
  }),
  persistenceS: count({
    question: 'The end point lasts at least',
    unit: 's',
    least: 1,
    most: 600,
    default: 30,
    before: 30,
    why: 'Carbon dioxide fades phenolphthalein. A method may say otherwise.',
  }),
  /** Where the method says nothing else. */
  indicatorDrops: count({
    question: 'Drops of indicator, where the method gives none',
    unit: 'drops',
    least: 1,
    most: 50,
    default: 2,
    before: 2,
    why: 'An indicator takes titrant itself; the same number every time.',
  }),
  oxalateHeating: choice({
    question: 'Oxalate is titrated with permanganate',
    choices: {
      'to-75-80': 'heated to 75 to 80 °C first',
      'until-steaming': 'heated until it steams first',
      'after-most': 'cold for most of the titrant, then at 60 °C',
    },
    default: 'to-75-80',
    before: 'to-75-80',
    why: 'Heating first is simple; air then takes some oxalate, a few tenths of a per cent at worst. The third way gives the smallest U.',
  }),
  /** Whether a titration beyond its end point is averaged: one with a drop too much, all, or none. */
  overshotCounts: choice({
    question: 'A titration beyond its end point',
    choices: {
      'within-a-drop': 'counts if a drop over, no further',
      always: 'counts, with a note',
      never: 'does not count',
    },
    default: 'within-a-drop',
    before: 'within-a-drop',
    why: 'The grade is recorded either way. One read before the last drop counts, with the bracket in its uncertainty.',
  }),
  /** Where an electrode followed the titration: which of the end points of its curve counts. */
  endPointOfCurve: choice({
    question: 'Of a curve from an electrode, the end point is',
    choices: {
      'second-derivative': 'where the second derivative is zero',
      'first-derivative': 'the middle of the steepest step',
      gran: 'the zero of Gran’s line',
    },
    default: 'second-derivative',
    before: 'second-derivative',
    since: 2,
    why: 'It lies between the points, not on one of them. The others are shown beside it.',
  }),
};

const CORRECTING = {
  /** Volumes of solutions that were measured with a thermometer; all others are as read. */
  volumeCorrection: choice({
    question: 'Volumes away from the reference temperature are',
    choices: {
      corrected: 'corrected, where it was measured',
      carried: 'as read; the shift is carried in U',
    },
    default: 'corrected',
    before: 'carried',
    since: 3,
    why: 'At 25 °C a molarity is 0.11 % low. Correct it here and where it is used, or nowhere. Other solvents than water always are.',
  }),
  /** At which temperature the molarity of a solution is stated, °C. */
  referenceTemperatureC: choice({
    question: 'Molarities are stated at',
    choices: { '20': '20 °C', '25': '25 °C', '27': '27 °C' },
    default: '20',
    before: '20',
    since: 3,
    why: 'Glassware is calibrated for 20 °C; warm countries choose 27 °C.',
  }),
  /** Of a standard that is weighed and whose density is known. */
  buoyancyCorrection: choice({
    question: 'The lift of the air on a weighed standard is',
    choices: {
      corrected: 'corrected',
      carried: 'not corrected, but carried in U',
      'left-out': 'left out, as before it could be set',
    },
    default: 'corrected',
    before: 'left-out',
    since: 3,
    why: 'It makes phthalate 0.06 % lighter than it is, carbonate 0.03 %.',
  }),
};

const JUDGING = {
  /** Of equal aliquots: highest minus lowest titre, mL. */
  concordanceRangeMl: figure({
    question: 'Titres of equal aliquots agree within',
    unit: 'mL',
    least: 0.005,
    most: 1,
    default: '0.10',
    before: '0.10',
    why: 'Highest minus lowest: two drops of scatter. One drop, 0.05, can be reached with readings to 0.01.',
  }),
  /** How weighed portions must agree: by the range of their molarities, by their RSD, or not at all. */
  weighedConcordance: choice({
    question: 'Weighed portions are judged by',
    choices: {
      'relative-range': 'the relative range of their molarities',
      rsd: 'the relative standard deviation of their molarities',
      none: 'nothing',
    },
    default: 'relative-range',
    before: 'relative-range',
    why: 'Their titres differ by design.',
  }),
  /** Highest minus lowest molarity, relative to their mean. */
  concordanceRelativeRangePercent: figure({
    question: 'Limit of the relative range',
    unit: '%',
    least: 0.01,
    most: 5,
    default: '0.3',
    before: '0.3',
    why: 'Reached by a practised hand.',
  }),
  concordanceRsdPercent: figure({
    question: 'Limit of the RSD',
    unit: '%',
    least: 0.01,
    most: 5,
    default: '0.1',
    before: '0.1',
    why: 'The limit of the strict school.',
  }),
  agreeAtLeast: count({
    question: 'How many must agree',
    unit: 'titrations',
    least: 2,
    most: 10,
    default: 3,
    before: 3,
    why: 'A standard deviation needs three.',
  }),
  titrationsAtMost: count({
    question: 'Titrations at most',
    unit: 'titrations',
    least: 1,
    most: 20,
    default: 6,
    before: 6,
    why: 'Until they agree; for a fixed number give the same figure twice.',
  }),
  outlierTest: choice({
    question: 'A titration that stands out is tested',
    choices: {
      grubbs: 'by Grubbs, 95 %, from four titrations',
      dixon: 'by Dixon’s Q, 95 %, from three titrations',
      none: 'by no test',
    },
    default: 'grubbs',
    before: 'grubbs',
    why: 'The verdict is shown and leaves nothing out by itself.',
  }),
  coverage: choice({
    question: 'The coverage factor is',
    choices: {
      'effective-degrees': 'from the degrees of freedom',
      two: '2',
    },
    default: 'effective-degrees',
    before: 'effective-degrees',
    why: 'Few replicates, larger k.',
  }),
  /** What the repeatability of a titration rests on where there are few of them. */
  pooling: choice({
    question: 'The scatter of a series is',
    choices: {
      pooled: 'pooled with what the method usually shows',
      own: 'taken by itself, or its inputs where they are larger',
    },
    default: 'pooled',
    before: 'own',
    since: 3,
    why: 'Three titrations tell little: alone they need k = 4.3. A scatter that is too large is not pooled.',
  }),
  /** How the tolerance of glassware that has not been calibrated is distributed. */
  toleranceAs: choice({
    question: 'A tolerance of glassware counts as',
    choices: {
      'as-registered': 'its record says',
      triangular: 'triangular, always',
      rectangular: 'rectangular, always',
    },
    default: 'as-registered',
    before: 'as-registered',
    since: 1,
    why: 'Class A is registered as triangular: the maker aims at the mark.',
  }),
  /** What a result has to meet to be certified without a reason. */
  testedBy: choice({
    question: 'A result is tested by',
    choices: {
      concordance: 'the agreement of its titrations',
      'accepted-value': 'the value accepted before',
      label: 'the molarity on the label',
    },
    default: 'concordance',
    before: 'concordance',
    since: 1,
    why: 'Agreement is needed to certify; the label is compared whatever is chosen. An accepted value suits checks and practice.',
  }),
  /** What a certificate states of how sure it is. */
  certificateStates: choice({
    question: 'A certificate states',
    choices: {
      uncertainty: 'the expanded uncertainty, and the RSD',
      rsd: 'the RSD alone',
    },
    default: 'uncertainty',
    before: 'uncertainty',
    since: 1,
    why: 'The RSD hides purity, calibration and molar mass.',
  }),
  /** Whether plans, labels and certificates give the normality for the reaction beside the molarity, and forms take one. */
  statesNormality: yesOrNo({
    question: 'The normality is given',
    no: 'nowhere',
    yes: 'beside the molarity',
    default: false,
    before: false,
    since: 1,
    why: 'An equivalent depends on the reaction; a molarity does not.',
  }),
  /** Units of labels, certificates and run sheets. The bench and the figures behind keep mL and mol/L. */
  paperUnits: choice({
    question: 'Labels, certificates and sheets are in',
    choices: {
      litre: 'mL and mol/L',
      decimetre: 'cm³ and mol/dm³',
      molar: 'mL and M',
    },
    default: 'litre',
    before: 'litre',
    since: 1,
    why: 'A preference, the figures are the same. The bench keeps mL and mol/L.',
  }),
  /** What a freshly made titrant may differ from its label. */
  nominalTolerancePercent: figure({
    question: 'A fresh titrant is within its label by',
    unit: '%',
    least: 0.1,
    most: 50,
    default: '5',
    before: '5',
    why: 'The first forecast is that wide.',
  }),
  /** A molarity this far from nominal is asked about at certification. */
  farFromNominalAskPercent: figure({
    question: 'Explanations are looked for beyond',
    unit: '%',
    least: 0.1,
    most: 50,
    default: '5',
    before: '5',
    why: 'So far from the label it is more likely a slip.',
  }),
  /** This far, it needs a reason. */
  farFromNominalReasonPercent: figure({
    question: 'A certificate needs a reason beyond',
    unit: '%',
    least: 0.1,
    most: 50,
    default: '10',
    before: '10',
    why: 'More likely a slip than a discovery.',
  }),
};

const CLEANING_UP = {
  cleaning: choice({
    question: 'Glassware is cleaned with',
    choices: {
      detergent: 'detergent (hydroxide: water only)',
      water: 'water only',
    },
    default: 'detergent',
    before: 'detergent',
    why: 'Six rinses after it: drops that cling falsify a delivery, and a film of soap is basic.',
  }),
  waste: choice({
    question: 'Waste goes',
    choices: {
      container: 'to containers: Cr, Mn, Ag and iodine',
      sink: 'down the sink, chromium apart',
    },
    default: 'container',
    before: 'container',
    why: 'Chromium, manganese, silver, iodine; the local codes decide. Chromium(VI) is always collected.',
  }),
};

const SIGNING = {
  /** Whose signatures a certificate takes; whoever authorizes it signs last, and issues it. */
  signatures: choice({
    question: 'A certificate is signed by',
    choices: {
      'performed-authorized': 'whoever did the work, and who authorizes it',
      'performed-checked-authorized': 'whoever did the work, a reviewer, and who authorizes it',
      authorized: 'who authorizes it, alone',
    },
    default: 'performed-authorized',
    before: 'authorized',
    since: 4,
    why: 'Two pairs of eyes, by two people where there are two. What a trainee did is always checked.',
  }),
};

/** Every house rule in the order of the work, under the heading that it belongs to. */
const GROUPS = {
  'Setting up': SETTING_UP,
  Titrating: TITRATING,
  Correcting: CORRECTING,
  Judging: JUDGING,
  Signing: SIGNING,
  'Cleaning up': CLEANING_UP,
};

type Rules = typeof SETTING_UP &
  typeof TITRATING &
  typeof CORRECTING &
  typeof JUDGING &
  typeof SIGNING &
  typeof CLEANING_UP;

export type RuleKey = keyof Rules;

/**
 * The conventions of a laboratory. The laboratory sets them, a method may override them, and a run records the ones it followed.
 */
export type HouseRules = {
  readonly [K in RuleKey]: Rules[K]['default'];
};

/** A rule with its name. */
export type HouseRule = NamedRule<RuleKey, HouseRules[RuleKey]>;

/** Every house rule in the order of the work. */
export const RULE_GROUPS = grouped<RuleKey, HouseRules[RuleKey]>(GROUPS);

export const HOUSE_RULES: readonly HouseRule[] = RULE_GROUPS.flatMap(({ rules }) => rules);
