import * as v from 'valibot';
import {
  balance,
  CATALOGUE,
  chainMoleRatio,
  checkCatalogue,
  extendCatalogue,
  molarMass,
  moleRatioOf,
  moleRatioOfMethod,
  parseEquation,
  parseFormula,
  ratiosOfAnalysis,
  statedAsOf,
} from '#core/chemistry';
import type { BalancedReaction, MoleRatio, Reaction } from '#core/chemistry';
import { Unanswerable } from '#core/problem';
import { catalogueSchema } from '#contract';
import { findingText } from '#core/wording';
import type { Json } from './task';
import { task } from './task';

const species = v.array(v.string());

function ratioKeys(ratio: MoleRatio): Json {
  return { analyte_mol: ratio.analyte, titrant_mol: ratio.titrant };
}

function coefficientKeys(balanced: BalancedReaction): Json {
  return { reactants: balanced.reactantCoefficients, products: balanced.productCoefficients };
}

const molarMassTask = task(
  'molar-mass',
  {
    formula: v.string(),
    atomic_weights: v.optional(v.picklist(['standard', 'abridged']), 'standard'),
  },
  ({ formula, atomic_weights }) => {
    const { counts, charge } = parseFormula(formula);
    const { valueGPerMol, standardUncertaintyGPerMol } = molarMass(formula, atomic_weights);
    if (counts.size === 0) {
      throw new Unanswerable('syntax', 'formula', 'An electron has no molar mass here.');
    }
    return {
      molar_mass_g_per_mol: valueGPerMol,
      standard_uncertainty_g_per_mol: standardUncertaintyGPerMol,
      charge,
      element_counts: Object.fromEntries(
        [...counts].map(([element, count]) => [element, count.valueOf()]),
      ),
    };
  },
);

const balanceTask = task(
  'balance',
  {
    reactants: v.optional(species),
    products: v.optional(species),
    equation: v.optional(v.string()),
    analyte: v.optional(v.string()),
    titrant: v.optional(v.string()),
  },
  (given) => {
    const balanced = balance(reactionOf(given));
    const { analyte, titrant } = given;
    return {
      coefficients: coefficientKeys(balanced),
      ...(analyte !== undefined &&
        titrant !== undefined && {
          mole_ratio: ratioKeys(moleRatioOf(balanced, analyte, titrant)),
        }),
    };
  },
);

function reactionOf(given: {
  equation?: string | undefined;
  reactants?: string[] | undefined;
  products?: string[] | undefined;
}): Reaction {
  if (given.equation !== undefined) return parseEquation(given.equation);
  const { reactants = [], products = [] } = given;
  if (reactants.length === 0 || products.length === 0) {
    throw new Unanswerable('empty', 'reactants', 'An equation needs reactants and products.');
  }
  return { reactants, products };
}

const chainRatioTask = task(
  'chain-ratio',
  {
    steps: v.pipe(v.array(v.object({ reactants: species, products: species })), v.minLength(1)),
    links: species,
    analyte: v.optional(v.string()),
    titrant: v.optional(v.string()),
  },
  ({ steps, links, analyte, titrant }) => {
    const balanced = steps.map(balance);
    const first = analyte ?? steps[0]?.reactants[0] ?? '';
    // The titrant of the last step is what reacts there with the species handed on.
    const last = titrant ?? steps.at(-1)?.reactants.find((one) => !links.includes(one)) ?? '';
    return {
      steps: balanced.map((step) => ({ coefficients: coefficientKeys(step) })),
      mole_ratio: ratioKeys(chainMoleRatio(balanced, links, first, last)),
    };
  },
);

/** A laboratory's own entries, tried together with those that ship. */
const catalogueTask = task('catalogue', { entries: catalogueSchema }, ({ entries }) => {
  const [problem] = checkCatalogue(extendCatalogue(CATALOGUE, entries));
  if (problem) throw new Unanswerable('syntax', problem.field, findingText(problem));
  return {
    substances: entries.substances.map(({ id, formula }) => ({
      id,
      molar_mass_g_per_mol: molarMass(formula).valueGPerMol,
    })),
    methods: entries.methods.map((method) => ({
      id: method.id,
      titrant_mol_per_mol_standard: moleRatioOfMethod(method),
    })),
    analyses: entries.analyses.map((analysis) => ({
      id: analysis.id,
      titrant_mol_per_mol_analyte:
        1 / ratiosOfAnalysis(analysis, statedAsOf(analysis, null)).perTitrant,
    })),
  };
});

export const CHEMISTRY_TASKS = [molarMassTask, balanceTask, chainRatioTask, catalogueTask];
