import type { NamedEntry, OwnEntry } from '#core/chemistry';
import { findAnalysis } from '#core/chemistry';
import type { Id } from '#core/grammar';

const SOURCE = 'laboratory file 12, and the safety data sheet of the cellar';

/** Cream of tartar, which falls out of every tank: a standard for bases of the laboratory's own. */
export function creamOfTartar(id: Id): OwnEntry {
  return {
    kind: 'substance',
    substance: {
      id,
      name: 'potassium hydrogen tartrate',
      shortName: 'KHT',
      formula: 'KC4H5O6',
      role: 'primary-standard',
      form: 'crystals, recrystallized twice',
      densityGPerCm3: 1.98,
      drying: { kind: 'oven', temperatureC: [105, 110], hours: 3, remark: 'not hygroscopic' },
      solubilityMolPerL: 0.03,
      needs: null,
      solutionColour: null,
      solution: { solventId: 'water', additions: [] },
      hazards: [],
      cautions: [],
      waste: 'acid-base',
      mistakenFor: [],
      source: SOURCE,
    },
    keeping: {
      substanceId: id,
      interval: { days: 3 },
      dilute: null,
      lastsFor: null,
      settles: null,
      container: 'clear-glass',
      remark: 'a refrigerator, and no longer than that',
      endedBy: 'mould',
      source: SOURCE,
    },
  };
}

/** How its solution is made: it dissolves in hot water only. */
export function tartarRecipe(id: Id, { entry }: NamedEntry): OwnEntry {
  return {
    kind: 'recipe',
    recipe: {
      id,
      name: 'cream of tartar in hot water',
      soluteId: entry.kind === 'substance' ? entry.substance.id : '',
      route: 'weighed',
      exactness: 'exact',
      molarityMolPerL: 0.02,
      volumeMl: 250,
      from: null,
      additions: [],
      solventId: 'water',
      steps: [
        { work: 'dry', text: 'Dry it.', waitMinutes: null },
        { work: 'cool', text: 'Cool in the desiccator.', waitMinutes: 30 },
        { work: 'weigh', text: 'Weigh into a beaker; write every digit.', waitMinutes: null },
        {
          work: 'heat',
          text: 'Add 150 mL of water and warm it, stirring, until nothing glitters. Dissolved?',
          waitMinutes: null,
        },
        {
          work: 'transfer',
          text: 'Rinse it warm into the flask, all of it; keep the flask below two thirds.',
          waitMinutes: null,
        },
        { work: 'to-room-temperature', text: 'Let it cool, stoppered.', waitMinutes: 60 },
        { work: 'to-mark', text: 'Fill to the mark, drop by drop.', waitMinutes: null },
        { work: 'mix', text: 'Turn it over many times. Mixed?', waitMinutes: null },
        {
          work: 'bottle',
          text: 'Rinse its bottle with a little of it, then fill.',
          waitMinutes: null,
        },
        { work: 'label', text: 'Label it at once: it keeps for three days.', waitMinutes: null },
      ],
      cautions: ['Hot glass looks cold.'],
      sinceEdition: 1,
      source: SOURCE,
    },
  };
}

/** An analysis that ships under a name of the laboratory's own, with what it knows of the method. */
export function ownAnalysis(
  id: Id,
  from: string,
  {
    name,
    methodUncertaintyPercent,
  }: { readonly name: string; readonly methodUncertaintyPercent: number },
): OwnEntry {
  const shipped = findAnalysis(from);
  if (!shipped) throw new RangeError(`the catalogue lacks ${from}`);
  return {
    kind: 'analysis',
    analysis: {
      ...{ ...shipped, id, name },
      performance: {
        ...{ methodUncertaintyPercent, repeatabilityPercent: null },
        ...{ detectionLimit: null, quantificationLimit: null },
      },
    },
  };
}
