/** A word of the craft, as it is used on the screens. Terms of VIM and of the IUPAC recommendations, in our own words. */
export interface GlossaryEntry {
  readonly word: string;
  /** By which letter formulas call it, in italics. */
  readonly symbol?: string;
  readonly meaning: string;
}

/** In the order of the work. */
export const GLOSSARY = {
  titrant: {
    word: 'titrant',
    meaning: 'The solution that runs out of the burette and reacts with what is in the flask.',
  },
  'primary-standard': {
    word: 'primary standard',
    meaning:
      'A substance so pure, so stable and so well defined that its mass alone says how many moles there are.',
  },
  standardize: {
    word: 'standardize',
    meaning:
      'To find out the exact molarity of a titrant by titrating a known amount of a standard.',
  },
  nominal: {
    word: 'nominal',
    meaning:
      'As the label was meant when the solution was made. Not measured yet, so not to be used.',
  },
  aliquot: {
    word: 'aliquot',
    meaning: 'An exactly known part of a solution, taken with a pipette.',
  },
  blank: {
    word: 'blank',
    meaning:
      'A flask with everything in it but the standard. The little titrant that it takes is subtracted from every titre.',
  },
  titre: {
    word: 'titre',
    meaning: 'The volume of titrant that a flask took: the final reading minus the initial one.',
  },
  'equivalence-point': {
    word: 'equivalence point',
    meaning:
      'Where exactly as much titrant has been added as the reaction needs. Nobody can see it.',
  },
  'end-point': {
    word: 'end point',
    meaning:
      'Where the indicator or the electrode shows that one should stop. A good indicator shows it within a drop of the equivalence point.',
  },
  rough: {
    word: 'rough',
    meaning:
      'The first titration, done quickly to learn where the end point lies. It is overshot on purpose and left out of the mean.',
  },
  concordant: {
    word: 'concordant',
    meaning: 'Titrations that agree within what the house rule allows. Only those are averaged.',
  },
  'standard-uncertainty': {
    word: 'standard uncertainty',
    symbol: 'u',
    meaning: 'How far a figure may be off, given as a standard deviation.',
  },
  'expanded-uncertainty': {
    word: 'expanded uncertainty',
    symbol: 'U',
    meaning:
      'The half width of an interval that holds the true value with about 95 % probability: the standard uncertainty times the coverage factor.',
  },
  'coverage-factor': {
    word: 'coverage factor',
    symbol: 'k',
    meaning:
      'By what the standard uncertainty is multiplied to give the expanded one. 2 where much is known; more where few titrations were made.',
  },
  budget: {
    word: 'budget',
    meaning:
      'What each input (mass, purity, volume, end point ...) adds to the uncertainty of a result.',
  },
  buoyancy: {
    word: 'buoyancy',
    meaning:
      'The lift of the air on what is weighed. A light solid shows about 0.1 % less than its mass.',
  },
} as const satisfies Readonly<Record<string, GlossaryEntry>>;

/** By what a word of the glossary is known. */
export type GlossaryKey = keyof typeof GLOSSARY;

/** A piece of a sentence, and of which word of the glossary it is a form. */
export interface Worded {
  readonly text: string;
  readonly of: GlossaryKey | null;
}

/** The forms that a word has in sentences: titre, titres, standardized. */
const FORMS: ReadonlyMap<string, GlossaryKey> = new Map(
  (Object.keys(GLOSSARY) as readonly GlossaryKey[]).flatMap((key) =>
    ['', 's', 'd'].map((end) => [GLOSSARY[key].word + end, key] as const),
  ),
);

/** Any of them; longer ones first, as one may begin another. */
const FORM = new RegExp(
  `\\b(${[...FORMS.keys()].toSorted((a, b) => b.length - a.length).join('|')})\\b`,
  'i',
);

/** A sentence in pieces, so that each word of the glossary in it can say what it means; once is enough. */
export function wordsIn(sentence: string): readonly Worded[] {
  const told = new Set<GlossaryKey>();
  // Split by a group, every second piece is a form of a word.
  return sentence.split(FORM).map((text, i): Worded => {
    const found = i % 2 === 1 ? FORMS.get(text.toLowerCase()) : undefined;
    if (found === undefined || told.has(found)) return { text, of: null };
    told.add(found);
    return { text, of: found };
  });
}
