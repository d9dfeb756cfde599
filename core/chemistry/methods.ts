/** How a titrant is standardized: the reaction and what the analyst looks for. Catalogue data. */
export interface Method {
  readonly id: string;
  readonly titrantId: string;
  readonly standardId: string;
  /** The net reaction, for display. */
  readonly equation: string;
  /** Coefficients of titrant and standard in the balanced equation. */
  readonly titrantCoefficient: number;
  readonly standardCoefficient: number;
  readonly indicator: string;
  readonly colours: {
    readonly before: Colour;
    readonly endPoint: Colour;
    readonly overshot: Colour;
  };
  readonly medium: string;
  readonly persistenceS: number;
  readonly cautions: readonly string[];
}

/** A colour of the flask with its word. */
export interface Colour {
  readonly word: string;
  /** sRGB. */
  readonly css: string;
}

const METHODS = [
  {
    id: 'naoh-by-khp',
    titrantId: 'sodium-hydroxide',
    standardId: 'potassium-hydrogen-phthalate',
    equation: 'C8H5O4- + OH- -> C8H4O4^2- + H2O',
    titrantCoefficient: 1,
    standardCoefficient: 1,
    indicator: 'phenolphthalein, 2 drops',
    colours: {
      before: { word: 'colourless', css: '#f6f8f7' },
      endPoint: { word: 'faintest pink', css: '#f9dbe4' },
      overshot: { word: 'strong pink', css: '#ee7fa8' },
    },
    medium: 'about 50 mL water free of carbon dioxide',
    persistenceS: 30,
    cautions: [
      'Fill the burette below eye level, over a basin; take the funnel out.',
      'Phenolphthalein in ethanol is flammable: no flame, no open hot plate.',
    ],
  },
] as const satisfies readonly Method[];

/** The method of that id, if the catalogue has it. */
export function findMethod(id: string): Method | undefined {
  return METHODS.find((method) => method.id === id);
}

/** The methods that standardize a titrant. */
export function methodsForTitrant(titrantId: string): readonly Method[] {
  return METHODS.filter((method) => method.titrantId === titrantId);
}
