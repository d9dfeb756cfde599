import { Unanswerable } from '../problem';
import type { Finding } from '../record';
import { impossible } from '../record';
import type { Analysis, Catalogue, Indicator, Preparation } from './catalogue/entries';
import { moleRatioOfMethod, partsOf, ratiosOfAnalysis } from './lookUp';
import { molarMass } from './molarMass';
import { substanceMass } from './otherForms';

/**
 * What is wrong with a catalogue: formulas that cannot be read, reactions that do not balance, names that lead nowhere.
 * The catalogue that ships passes it, and a laboratory's own entries must, together with it.
 */
export function checkCatalogue(catalogue: Catalogue): readonly Finding[] {
  const substances = new Set(catalogue.substances.map(({ id }) => id));
  const indicators = new Set(catalogue.indicators.map(({ id }) => id));
  const concentrates = new Set(catalogue.concentrates.map(({ id }) => id));
  const solvents = new Set(catalogue.solvents.map(({ id }) => id));
  return [
    ...doubled(catalogue),
    ...catalogue.substances.flatMap((entry) => [
      ...attempt(entry.name, 'formula', () => substanceMass(entry.formula)),
      ...missing(entry.name, 'mistakenFor', entry.mistakenFor, substances),
      ...missing(entry.name, 'solution', [entry.solution.solventId], solvents),
    ]),
    ...catalogue.concentrates.flatMap((entry) =>
      missing(entry.id, 'substanceId', [entry.substanceId], substances),
    ),
    ...catalogue.keeping.flatMap((entry) =>
      missing(entry.substanceId, 'substanceId', [entry.substanceId], substances),
    ),
    ...catalogue.indicators.flatMap((entry) => [
      ...missing(
        entry.name,
        'madeUp',
        entry.madeUp.holds.map(({ id }) => id),
        new Set([...substances, ...solvents]),
      ),
      ...checkChanges(entry),
    ]),
    ...catalogue.preparations.flatMap((entry) => [
      ...missing(entry.name, 'soluteId', [entry.soluteId], substances),
      ...missing(entry.name, 'solventId', [entry.solventId], solvents),
      ...checkSteps(entry),
      ...(entry.from?.kind === 'concentrate'
        ? missing(entry.name, 'from', [entry.from.concentrateId], concentrates)
        : []),
    ]),
    ...catalogue.methods.flatMap((entry) => [
      ...attempt(entry.name, 'equations', () => moleRatioOfMethod(entry)),
      ...missing(entry.name, 'titrantIds', [...entry.titrantIds, entry.standardId], substances),
      ...missing(entry.name, 'excess', entry.excess ? [entry.excess.substanceId] : [], substances),
      ...(entry.excess && entry.inBurette !== 'standard'
        ? [impossible('excess-not-left', 'excess', { entry: entry.name })]
        : []),
      ...missing(
        entry.name,
        'indicatorId',
        entry.indicatorId ? [entry.indicatorId] : [],
        indicators,
      ),
      ...missing(entry.name, 'solventId', [entry.solventId], solvents),
    ]),
    ...catalogue.analyses.flatMap((entry) => [
      ...attempt(entry.name, 'equations', () => ratiosOfAnalysis(entry, null)),
      ...entry.statedAs.flatMap(({ formula }) =>
        attempt(entry.name, 'statedAs', () => molarMass(formula)),
      ),
      ...checkPerformance(entry),
      ...missing(
        entry.name,
        'twoEnds',
        entry.twoEnds ? [entry.twoEnds.first.indicatorId] : [],
        indicators,
      ),
      ...partsOf(entry).flatMap(({ statedAs }) =>
        statedAs.flatMap(({ formula }) =>
          attempt(entry.name, 'statedAs', () => molarMass(formula)),
        ),
      ),
      ...missing(entry.name, 'titrantIds', entry.titrantIds, substances),
      ...missing(entry.name, 'excess', entry.excess ? [entry.excess.substanceId] : [], substances),
      ...missing(
        entry.name,
        'indicatorId',
        entry.indicatorId ? [entry.indicatorId] : [],
        indicators,
      ),
      ...missing(entry.name, 'solventId', [entry.solventId], solvents),
    ]),
  ];
}

/** What is quantified has been detected. */
function checkPerformance({ name, performance }: Analysis): readonly Finding[] {
  const { detectionLimit: lod = null, quantificationLimit: loq = null } = performance ?? {};
  return lod !== null && loq !== null && loq < lod
    ? [impossible('limits-of-detection-crossed', 'performance', { entry: name })]
    : [];
}

/** What each change of an indicator needs: two colours, and a range that goes upwards. */
function checkChanges({ name, changes, colours }: Indicator): readonly Finding[] {
  const isUpwards = changes.every(
    (change) => change.by === 'reagent' || change.range[0] <= change.range[1],
  );
  if (!isUpwards) return [impossible('range-downwards', 'changes', { entry: name })];
  return changes.length === colours.length
    ? []
    : [impossible('colours-do-not-fit', 'colours', { entry: name })];
}

/**
 * Steps without which a recipe does not make a bottle of what it is named for: its solute is measured, what is added has a step that
 * says how much, what is exact is made up to a mark, it is bottled, and labelled in the end.
 */
function checkSteps({ name, route, exactness, additions, steps }: Preparation): readonly Finding[] {
  const has = (work: string): boolean => steps.some((step) => step.work === work);
  const needed = [
    route === 'weighed' ? 'weigh' : 'measure',
    ...(additions.length > 0 ? ['add'] : []),
    ...(exactness === 'exact' ? ['to-mark'] : []),
    'bottle',
    'label',
  ];
  const lacking = needed.filter((work) => !has(work));
  if (lacking.length > 0) {
    return lacking.map((work) => impossible('step-lacking', 'steps', { entry: name, work }));
  }
  return steps.at(-1)?.work === 'label'
    ? []
    : [impossible('label-not-last', 'steps', { entry: name })];
}

function attempt(entry: string, field: string, what: () => unknown): readonly Finding[] {
  try {
    what();
    return [];
  } catch (error) {
    if (!(error instanceof Unanswerable)) throw error;
    return [impossible('bad-entry', field, { entry, why: error.message })];
  }
}

function missing(
  entry: string,
  field: string,
  wanted: readonly string[],
  known: ReadonlySet<string>,
): readonly Finding[] {
  return wanted
    .filter((id) => !known.has(id))
    .map((id) => impossible('no-such-entry', field, { entry, id }));
}

function doubled(catalogue: Catalogue): readonly Finding[] {
  const { keeping, ...lists } = catalogue;
  const ids = [keeping.map(({ substanceId }) => substanceId)];
  for (const entries of Object.values(lists)) ids.push(entries.map(({ id }) => id));
  return ids.flatMap((list) =>
    list
      .filter((id, i) => list.indexOf(id) !== i)
      .map((id) => impossible('id-twice', 'id', { id })),
  );
}
