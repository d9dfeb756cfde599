/** A substance of the catalogue. */
export interface Substance {
  readonly id: string;
  readonly name: string;
  /** Short name on labels and in tables. */
  readonly shortName: string;
  readonly formula: string;
  /** What laboratories keep it for. */
  readonly role: 'primary-standard' | 'titrant-material';
  /** Form in which a lot is received. */
  readonly form: string;
  /** How a standard is dried before it is weighed. */
  readonly drying: string | null;
  readonly cautions: readonly string[];
}

/**
 * The catalogue. Sources: drying and cautions from common analytical-chemistry references and the usual
 * safety data; molar masses follow from the formulas.
 */
export const SUBSTANCES = [
  {
    id: 'potassium-hydrogen-phthalate',
    name: 'potassium hydrogen phthalate',
    shortName: 'KHP',
    formula: 'C8H5KO4',
    role: 'primary-standard',
    form: 'crystals',
    drying: '110 to 120 °C for 2 h, cooled in a desiccator; not hygroscopic',
    cautions: [],
  },
  {
    id: 'sodium-hydroxide',
    name: 'sodium hydroxide',
    shortName: 'NaOH',
    formula: 'NaOH',
    role: 'titrant-material',
    form: 'pellets, or concentrated solution',
    drying: null,
    cautions: [
      'Causes severe burns to skin and eyes: goggles, gloves and coat.',
      'Dissolves with much heat: add it to water in small portions, never water to it.',
      'It cements glass stoppers and stopcocks: plastic bottle, rinse the burette afterwards.',
    ],
  },
] as const satisfies readonly Substance[];

/** The substance of that id, if the catalogue has it. */
export function findSubstance(id: string): Substance | undefined {
  return SUBSTANCES.find((substance) => substance.id === id);
}
