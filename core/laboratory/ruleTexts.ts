import type { HouseRules } from './houseRules';
import { deviatingRules } from './houseRules';

/** A rule as its page shows it: what is asked, what may be answered, and why the default is what it is. */
export interface RuleText {
  readonly key: keyof HouseRules;
  readonly question: string;
  readonly answer:
    | { readonly kind: 'figure'; readonly unit: string }
    | {
        readonly kind: 'choice';
        readonly choices: readonly (readonly [value: string | boolean, words: string])[];
      };
  readonly why: string;
}

function rule(
  key: keyof HouseRules,
  question: string,
  answer: RuleText['answer'],
  why: string,
): RuleText {
  return { key, question, answer, why };
}

const figure = (unit: string) => ({ kind: 'figure', unit }) as const;
const choice = (...choices: readonly (readonly [value: string | boolean, words: string])[]) =>
  ({ kind: 'choice', choices }) as const;

/** Every house rule in the order of the work, under the heading it belongs to. */
export const RULE_TEXTS: readonly {
  readonly heading: string;
  readonly rules: readonly RuleText[];
}[] = [
  {
    heading: 'Setting up',
    rules: [
      rule(
        'standardBy',
        'A standard is first offered',
        choice(['weighed', 'weighed into each flask'], ['aliquot', 'as aliquots of its solution']),
        'Three weighings average the error of weighing; aliquots share it.',
      ),
      rule(
        'inBurette',
        'Of two solutions, the burette first holds',
        choice(
          ['titrant', 'the one to be standardized'],
          ['standard', 'the one of known molarity'],
          ['more', 'the one of which there is more'],
        ),
        'As it is used later, with fewer transfers. Every arrangement stays possible.',
      ),
      rule(
        'primaryTitrants',
        'Dichromate is',
        choice(
          ['weighed', 'itself the primary standard, weighed'],
          ['titrated', 'standardized by ammonium iron(II) sulfate'],
        ),
        'The iron(II) salt keeps badly. Both stay possible.',
      ),
      rule(
        'weighing',
        'A mass is weighed',
        choice(['tared', 'into a tared boat'], ['by-difference', 'by difference']),
        'By difference nothing is lost on the boat; the other is quicker. Both stay possible.',
      ),
      rule(
        'titrantsMadeUpIn',
        'A titrant is made up in',
        choice(['cylinder', 'a beaker, by cylinder'], ['flask', 'a volumetric flask']),
        'Only what enters the equation must be exact. A standard always goes into a flask.',
      ),
      rule(
        'rinses',
        'Rinses of the burette with the titrant',
        figure('times'),
        'More wastes titrant, fewer leave water.',
      ),
      rule('rinseMl', 'Titrant for each rinse', figure('mL'), 'Counted in the volume needed.'),
      rule(
        'carbonDioxide',
        'Water for bases is freed of carbon dioxide',
        choice(
          ['boiled', 'by boiling five minutes'],
          ['fresh', 'by taking it fresh from the deionizer'],
          ['nothing', 'not at all'],
        ),
        'Carbon dioxide takes base at the end point of phenolphthalein.',
      ),
      rule(
        'washDown',
        'Walls and tip are washed down with',
        choice(['distilled', 'distilled water'], ['tap', 'tap water']),
        'Tap water carries alkalinity.',
      ),
    ],
  },
  {
    heading: 'Titrating',
    rules: [
      rule(
        'firstIsRough',
        'The first titration',
        choice([true, 'is rough and left out'], [false, 'counts if it agrees']),
        'Leaving it out by rule removes the temptation to choose.',
      ),
      rule(
        'startOfTitration',
        'The next titration starts',
        choice(['carry-on', 'where the last one ended'], ['refill', 'after a refill, near zero']),
        'It saves titrant; a zero set by eye is no better than a reading.',
      ),
      rule(
        'readingResolutionMl',
        'The burette is read to',
        choice(['0.01', '0.01 mL'], ['0.02', '0.02 mL'], ['0.05', '0.05 mL'], ['0.1', '0.1 mL']),
        'A tenth of a division can be estimated; its uncertainty is in the budget.',
      ),
      rule(
        'darkMeniscus',
        'The meniscus of a dark titrant is read at the',
        choice(['top', 'top, both times'], ['bottom', 'bottom']),
        'The bottom cannot be seen.',
      ),
      rule(
        'persistenceS',
        'The end point lasts at least',
        figure('s'),
        'Carbon dioxide fades phenolphthalein. A method may say otherwise.',
      ),
      rule(
        'indicatorDrops',
        'Drops of indicator, where the method gives none',
        figure('drops'),
        'An indicator takes titrant itself; the same number every time.',
      ),
      rule(
        'oxalateHeating',
        'Oxalate is titrated with permanganate',
        choice(
          ['to-75-80', 'heated to 75 to 80 °C first'],
          ['until-steaming', 'heated until it steams first'],
          ['after-most', 'cold for most of the titrant, then at 60 °C'],
        ),
        'Heating first is simple; air then takes some oxalate, a few tenths of a per cent at worst. The third way gives the smallest U.',
      ),
      rule(
        'overshotCounts',
        'A titration beyond its end point',
        choice(
          ['within-a-drop', 'counts if a drop over, no further'],
          ['always', 'counts, with a note'],
          ['never', 'does not count'],
        ),
        'The grade is recorded either way. One read before the last drop counts, with the bracket in its uncertainty.',
      ),
      rule(
        'endPointOfCurve',
        'Of a curve from an electrode, the end point is',
        choice(
          ['second-derivative', 'where the second derivative is zero'],
          ['first-derivative', 'the middle of the steepest step'],
          ['gran', 'the zero of Gran’s line'],
        ),
        'It lies between the points, not on one of them. The others are shown beside it.',
      ),
    ],
  },
  {
    heading: 'Judging',
    rules: [
      rule(
        'concordanceRangeMl',
        'Titres of equal aliquots agree within',
        figure('mL'),
        'Highest minus lowest: two drops of scatter. One drop, 0.05, can be reached with readings to 0.01.',
      ),
      rule(
        'weighedConcordance',
        'Weighed portions are judged by',
        choice(
          ['relative-range', 'the relative range of their molarities'],
          ['rsd', 'the relative standard deviation of their molarities'],
          ['none', 'nothing'],
        ),
        'Their titres differ by design.',
      ),
      rule(
        'concordanceRelativeRangePercent',
        'Limit of the relative range',
        figure('%'),
        'Reached by a practised hand.',
      ),
      rule('concordanceRsdPercent', 'Limit of the RSD', figure('%'), 'That of the strict school.'),
      rule(
        'agreeAtLeast',
        'How many must agree',
        figure('titrations'),
        'A standard deviation needs three.',
      ),
      rule(
        'titrationsAtMost',
        'Titrations at most',
        figure('titrations'),
        'Until they agree; for a fixed number give the same figure twice.',
      ),
      rule(
        'outlierTest',
        'A titration that stands out is tested',
        choice(
          ['grubbs', 'by Grubbs, 95 %, from four on'],
          ['dixon', 'by Dixon’s Q, 95 %, from three on'],
          ['none', 'by nothing'],
        ),
        'The verdict is shown and leaves nothing out by itself.',
      ),
      rule(
        'coverage',
        'The coverage factor is',
        choice(['effective-degrees', 'from the degrees of freedom'], ['two', '2']),
        'Few replicates, larger k.',
      ),
      rule(
        'toleranceAs',
        'A tolerance of glassware counts as',
        choice(
          ['as-registered', 'its record says'],
          ['triangular', 'triangular, always'],
          ['rectangular', 'rectangular, always'],
        ),
        'Class A is registered as triangular: the maker aims at the mark.',
      ),
      rule(
        'testedBy',
        'A result is tested by',
        choice(
          ['concordance', 'the agreement of its titrations'],
          ['accepted-value', 'the value accepted before'],
          ['label', 'the molarity on the label'],
        ),
        'Agreement is needed to certify; the label is compared whatever is chosen. An accepted value suits checks and practice.',
      ),
      rule(
        'certificateStates',
        'A certificate states',
        choice(['uncertainty', 'the expanded uncertainty, and the RSD'], ['rsd', 'the RSD alone']),
        'The RSD hides purity, calibration and molar mass.',
      ),
      rule(
        'statesNormality',
        'The normality is given',
        choice([false, 'on no certificate'], [true, 'beside the molarity']),
        'An equivalent depends on the reaction; a molarity does not.',
      ),
      rule(
        'paperUnits',
        'Labels, certificates and sheets are in',
        choice(['litre', 'mL and mol/L'], ['decimetre', 'cm³ and mol/dm³'], ['molar', 'mL and M']),
        'A preference, the figures are the same. The bench keeps mL and mol/L.',
      ),
      rule(
        'nominalTolerancePercent',
        'A fresh titrant is within its label by',
        figure('%'),
        'The first forecast is that wide.',
      ),
      rule(
        'farFromNominalAskPercent',
        'Explanations are looked for beyond',
        figure('%'),
        'So far from the label it is more likely a slip.',
      ),
      rule(
        'farFromNominalReasonPercent',
        'A certificate needs a reason beyond',
        figure('%'),
        'More likely a slip than a discovery.',
      ),
    ],
  },
  {
    heading: 'Cleaning up',
    rules: [
      rule(
        'cleaning',
        'Glassware is cleaned with',
        choice(['detergent', 'detergent (hydroxide: water only)'], ['water', 'water only']),
        'Six rinses after it: drops that cling falsify a delivery, and a film of soap is basic.',
      ),
      rule(
        'waste',
        'Waste goes',
        choice(
          ['container', 'to containers: Cr, Mn, Ag and iodine'],
          ['sink', 'down the sink, chromium apart'],
        ),
        'Chromium, manganese, silver, iodine; the local codes decide. Chromium(VI) is always collected.',
      ),
    ],
  },
];

/** What a rule says, in words: `30 s`, `by difference`. */
export function ruleWords({ key, answer }: RuleText, rules: HouseRules): string {
  const value = rules[key];
  return answer.kind === 'figure'
    ? `${String(value)} ${answer.unit}`
    : (answer.choices.find(([choice]) => choice === value)?.[1] ?? String(value));
}

/** Where rules are not those in force, in a sentence each, in the order of the work. */
export function describeDeviations(rules: HouseRules, inForce: HouseRules): readonly string[] {
  const keys = new Set(deviatingRules(rules, inForce));
  return RULE_TEXTS.flatMap((group) => group.rules)
    .filter(({ key }) => keys.has(key))
    .map(
      (text) =>
        `${text.question}: ${ruleWords(text, rules)} (house rule: ${ruleWords(text, inForce)}).`,
    );
}
