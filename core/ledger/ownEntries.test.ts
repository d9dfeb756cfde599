import { describe, expect, test } from 'vitest';
import type { OwnEntry } from '#core/chemistry';
import {
  CATALOGUE,
  describeEndPoint,
  headOfEntry,
  keepingOf,
  molarMass,
  otherForms,
  waterMoreThan,
} from '#core/chemistry';
import { hazardsOfBottle, hazardsOfLot, labelOf } from '#core/label';
import { paperUnitsOf } from '#core/laboratory';
import { bottleOf as bottled, plannerShelf, stepsOf } from '#core/preparation';
import { lotMolarMass, suggestValidUntil } from '#core/reagent';
import type { Fact } from '#core/record';
import { correctionsOf } from '#core/titration/figures';
import { aroundWith } from '../test-support/around';
import { factOf } from '../test-support/facts';
import {
  CREAM_OF_TARTAR,
  entryState,
  namedEntry,
  RED_CABBAGE,
  TARTRATE_RECIPE,
} from '../test-support/ownEntries';
import { EQUIPMENT, lotOf, planOf, PreparationScript } from '../test-support/preparations';
import { analysisOf, analysisScript } from '../test-support/analyses';
import {
  bottleOf,
  burette,
  methodOf,
  pipetteOf,
  references,
  RunScript,
} from '../test-support/runs';
import { idOf, stored } from '../test-support/stored';
import { resolveRun } from '../titration/record/start';
import type { AroundFact } from './index';
import { checkFact } from './index';

const { substance } = CREAM_OF_TARTAR;
const OWN = [namedEntry(CREAM_OF_TARTAR, substance.id)];
const RECIPE = { kind: 'recipe', recipe: TARTRATE_RECIPE } as const;
const tartrate = lotOf(substance.id, { own: OWN });

function codes(given: Fact, around: AroundFact, state: object | null = null): readonly string[] {
  return checkFact(given, state, around).map(({ code }) => code);
}

test.each([
  ['H2C2O4·2H2O', 'H2C2O4', 2],
  ['H2C2O4', 'H2C2O4·2H2O', -2],
  ['KC4H5O6', 'C4H5KO6', 0],
  ['Na2CO3', 'NaHCO3', null],
  ['Na2S2O3·5H2O', 'Na2S2O3', 5],
  // Half a molecule: the hemihydrate of plaster.
  ['CaSO4·½H2O', 'CaSO4', 0.5],
  ['H2O2', 'H2O', null],
])('%s has beside %s this much more water: %s', (formula, other, more) => {
  expect(waterMoreThan(formula, other)).toBe(more);
});

test('a formula finds its hydrates among what ships, and each of those finds itself', () => {
  const forms = otherForms('H2C2O4', CATALOGUE.substances);
  expect(forms.map(({ substance: { id }, waterMore }) => [id, waterMore])).toContainEqual([
    'oxalic-acid-dihydrate',
    2,
  ]);
  for (const { id, formula } of CATALOGUE.substances) {
    const same = otherForms(formula, CATALOGUE.substances).filter(({ waterMore }) => !waterMore);
    expect(same.map((form) => form.substance.id)).toContain(id);
  }
});

describe('an entry of the laboratory’s own is written', () => {
  const around = aroundWith();
  const changed = (changes: object): OwnEntry => ({
    ...CREAM_OF_TARTAR,
    substance: { ...substance, ...changes },
  });
  const recipe = (changes: object): OwnEntry => ({
    kind: 'recipe',
    recipe: { ...TARTRATE_RECIPE, soluteId: 'sodium-chloride', ...changes },
  });
  const indicator = (changes: object): OwnEntry => ({
    kind: 'indicator',
    indicator: { ...RED_CABBAGE, ...changes },
  });
  const without = (work: string) => TARTRATE_RECIPE.steps.filter((one) => one.work !== work);

  test.each<[string, OwnEntry, readonly string[]]>([
    ['a substance', CREAM_OF_TARTAR, []],
    ['of a formula that nobody can read', changed({ formula: 'KC4H5O6(' }), ['bad-entry']],
    ['of an ion', changed({ formula: 'C4H5O6^-' }), ['bad-entry']],
    ['of an element that does not exist', changed({ formula: 'Xx2O' }), ['bad-entry']],
    ['mistaken for what is not there', changed({ mistakenFor: ['dust'] }), ['no-such-entry']],
    [
      'in no solvent',
      changed({ solution: { solventId: 'ice', additions: [] } }),
      ['no-such-entry'],
    ],
    ['called like one that ships', changed({ name: 'tartaric acid' }), ['name-taken-by-entry']],
    ['a recipe', recipe({}), []],
    ['of a solute that is not carried along', RECIPE, ['no-such-entry']],
    ['that weighs nothing', recipe({ steps: without('weigh') }), ['step-lacking']],
    ['exact without a mark', recipe({ steps: without('to-mark') }), ['step-lacking']],
    ['rough without a mark', recipe({ steps: without('to-mark'), exactness: 'approximate' }), []],
    ['that fills no bottle', recipe({ steps: without('bottle') }), ['step-lacking']],
    ['without a label', recipe({ steps: without('label') }), ['step-lacking']],
    ['labelled first', recipe({ steps: TARTRATE_RECIPE.steps.toReversed() }), ['label-not-last']],
    [
      'that adds what no step adds',
      recipe({ additions: [{ what: 'acid', growsWithSolute: false, volumeMl: 2 }] }),
      ['step-lacking'],
    ],
    ['an indicator', indicator({}), []],
    ['with a colour short', indicator({ colours: [['red', 'violet']] }), ['colours-do-not-fit']],
    [
      'turning downwards',
      indicator({ changes: [{ by: 'pH', range: [7, 5] }], colours: [['red', 'violet']] }),
      ['range-downwards'],
    ],
    [
      'in nothing known',
      indicator({ madeUp: { ownPercent: 1, holds: [{ id: 'oil', massPercent: 9 }] } }),
      ['no-such-entry'],
    ],
  ])('%s', (_, entry, expected) => {
    const { id } = headOfEntry(entry);
    expect(codes(factOf('entry.written', id, { entry, reason: 'new' }), around)).toEqual(expected);
  });

  test('under the id of its own record, by those who may, with the entries that it names', () => {
    const written = (id: string, own: typeof OWN) =>
      factOf('entry.written', id, { entry: RECIPE, own, reason: 'new' });
    const there = aroundWith({ entry: [entryState(CREAM_OF_TARTAR, substance.id)] });
    expect(codes(written(RECIPE.recipe.id, OWN), there)).toEqual([]);
    expect(codes(written('another', OWN), there)).toEqual(['id-not-of-record']);
    const trainee = { ...there, author: { id: idOf('theo'), roles: [] } };
    expect(codes(written(RECIPE.recipe.id, OWN), trainee)).toEqual(['not-allowed']);
  });

  test('its formula stays once something rests on it; all else may change', () => {
    const state = entryState(CREAM_OF_TARTAR, substance.id);
    const again = (changes: object) =>
      factOf('entry.written', substance.id, { entry: changed(changes), reason: 'misread' });
    const used = aroundWith({ entry: [state] }, { isUsed: () => true });
    expect(codes(again({ formula: 'NaC4H5O6' }), used, state)).toEqual(['rested-on']);
    expect(codes(again({ form: 'powder' }), used, state)).toEqual([]);
    const unused = aroundWith({ entry: [state] });
    expect(codes(again({ formula: 'NaC4H5O6' }), unused, state)).toEqual([]);
  });
});

describe('what names an entry', () => {
  const state = entryState(CREAM_OF_TARTAR, substance.id);
  const registered = (own: readonly unknown[] | undefined) =>
    factOf('lot.registered', 'lot', {
      ...tartrate.lot,
      ...(own ? { own: own as typeof OWN } : {}),
    });

  test('carries it as its record has it, while it is in use', () => {
    const around = aroundWith({ entry: [state] });
    const { own: _, ...bare } = tartrate.lot;
    expect(codes(registered(OWN), around)).toEqual([]);
    expect(codes(factOf('lot.registered', 'lot', bare), around)).toEqual(['not-in-catalogue']);
    const forged = [
      namedEntry({ ...CREAM_OF_TARTAR, substance: { ...substance, formula: 'KCl' } }, substance.id),
    ];
    expect(codes(registered(forged), around)).toEqual(['entry-differs']);
    expect(codes(registered(OWN), aroundWith())).toEqual(['unknown-reference']);
    const withdrawn = { factId: idOf('w'), by: idOf('ines'), at: 'then', reason: 'an error in it' };
    const out = aroundWith({ entry: [{ ...state, withdrawn }] });
    expect(codes(registered(OWN), out)).toEqual(['out-of-use']);
  });

  test('a bottle is written down with what its lot holds, and not without it', () => {
    const around = aroundWith({
      entry: [state],
      lot: [tartrate],
      ...({ person: [{ id: 'ines' }] } as unknown as Parameters<typeof aroundWith>[0]),
    });
    const written = (own: typeof OWN) =>
      factOf('bottle.prepared', 'b', {
        ...{ code: '0501', purpose: 'titrant', substanceId: substance.id, own },
        ...{ nominalMolarity: '0.02', volumeMl: '250', preparationId: null, made: null },
        ...{ parents: [{ kind: 'lot', id: tartrate.id }], plausibleMolarity: null },
        ...{ dilutionFactor: null, preparedOn: '2026-03-02', preparedBy: 'ines', useBy: null },
        ...{ container: 'clear-glass', note: '' },
      });
    expect(codes(written(OWN), around)).toEqual([]);
    expect(codes(written([]), around)).toEqual(['not-in-catalogue']);
  });

  test('a lot is put right as the substance that it was, also once that is out of use', () => {
    const withdrawn = { factId: idOf('w'), by: idOf('ines'), at: 'then', reason: 'an error in it' };
    const out = aroundWith({ entry: [{ ...state, version: 2, withdrawn }] });
    const corrected = (own: typeof OWN) =>
      factOf('lot.corrected', tartrate.id, {
        lot: { ...tartrate.lot, lotNumber: 'KT-2', own },
        reason: 'misread',
      });
    expect(codes(corrected(OWN), out, tartrate)).toEqual([]);
    const newer = OWN.map((named) => ({ ...named, version: 2 }));
    expect(codes(corrected(newer), out, tartrate)).toEqual(['out-of-use']);
  });

  test('a method of its own titrates with it and turns its own indicator', () => {
    const own = [...OWN, namedEntry({ kind: 'indicator', indicator: RED_CABBAGE }, RED_CABBAGE.id)];
    const around = aroundWith({
      entry: [state, entryState({ kind: 'indicator', indicator: RED_CABBAGE }, RED_CABBAGE.id)],
    });
    const method = {
      ...methodOf('naoh-by-khp'),
      ...{ id: 'by-tartrate', standardId: substance.id, indicatorId: RED_CABBAGE.id },
      equations: ['C4H5O6^- + OH^- -> C4H4O6^2- + H2O'],
      standard: { species: 'C4H5O6^-', perFormulaUnit: 1 },
    };
    const written = (changes: object) =>
      factOf('method.written', 'm', { method: { ...method, ...changes }, reason: 'our way' });
    expect(codes(written({ own }), around)).toEqual([]);
    expect(codes(written({}), around)).toEqual(['no-such-entry', 'no-such-entry']);
    expect(describeEndPoint({ ...method, own }, { indicatorDrops: 3 })).toBe(
      'red cabbage, 2 drops',
    );
  });
});

describe('an analysis of its own', () => {
  const analysis = {
    ...analysisOf('titratable-acidity'),
    ...{ id: 'our-acidity', name: 'titratable acidity, ours' },
    performance: {
      ...{ methodUncertaintyPercent: 1.5, repeatabilityPercent: 2 },
      ...{ detectionLimit: 0.1, quantificationLimit: 0.3 },
    },
  };
  const entry: OwnEntry = { kind: 'analysis', analysis };
  const around = aroundWith({ entry: [entryState(entry, analysis.id)] });

  test('passes the checks of those that ship; what is quantified has been detected', () => {
    const written = (changes: object) =>
      factOf('entry.written', analysis.id, {
        entry: { kind: 'analysis', analysis: { ...analysis, ...changes } },
        reason: 'from two years of controls',
      });
    expect(codes(written({}), around)).toEqual([]);
    expect(codes(written({ name: analysisOf('khp-purity').name }), around)).toEqual([
      'name-taken-by-entry',
    ]);
    const crossed = { ...analysis.performance, quantificationLimit: 0.05 };
    expect(codes(written({ performance: crossed }), around)).toEqual([
      'limits-of-detection-crossed',
    ]);
  });

  test('is asked of a sample that carries it, and of none that does not', () => {
    const wine = (own: typeof OWN) =>
      factOf('sample.received', 'w', {
        ...{ code: 'W-1', description: 'wine', source: '', customer: '', sampledBy: '' },
        ...{ sampledOn: null, receivedOn: '2026-03-02', condition: '', amount: null, store: '' },
        ...{ density: null, unitMass: null, keepUntil: null },
        requests: [
          {
            ...{ analysisId: analysis.id, unit: 'g/L', as: 'C4H6O6', expected: null },
            requirement: { kind: 'none' },
          },
        ],
        ...(own.length > 0 && { own }),
      });
    expect(codes(wine([namedEntry(entry, analysis.id)]), around)).toEqual([]);
    expect(codes(wine([]), around)).toEqual(['not-in-catalogue']);
  });

  test('titrates at the version that the run names', () => {
    const script = analysisScript(
      analysis,
      { substanceId: 'sodium-hydroxide', molarity: '0.1' },
      { pipetteMl: '10' },
      { unit: 'g/L', as: 'C4H6O6' },
    );
    const { setUp, references } = script.state;
    if (!('samples' in references) || !('samples' in setUp)) throw new Error('it analyses samples');
    const known = aroundWith({
      entry: [entryState(entry, analysis.id)],
      bottle: [references.titrant],
      sample: references.samples.map((one) => one.state),
      equipment: [
        { ...pipetteOf('10'), id: idOf('burette-1'), equipment: burette },
        pipetteOf('10'),
      ],
    });
    const started = (version: number) =>
      factOf('run.started', 'r', {
        ...setUp,
        method: { kind: 'own', id: analysis.id, version },
      }) as Parameters<typeof resolveRun>[0];
    expect(resolveRun(started(1), known)).toMatchObject({ method: { id: 'our-acidity' } });
    expect(resolveRun(started(2), known)).toMatchObject({ code: 'unknown-reference' });
  });
});

describe('what is computed from it', () => {
  const weighed = planOf(
    { kind: 'weigh', lotId: tartrate.id, massG: '0.9409', balanceId: 'balance', flaskId: 'F250' },
    { soluteId: substance.id, targetMolarity: '0.02', own: OWN },
  );

  test('its lot has its molar mass and hazards, and is a standard in the planner', () => {
    expect(lotMolarMass(tartrate.lot)).toEqual(molarMass('KC4H5O6'));
    expect(hazardsOfLot(tartrate).statements.map(({ code }) => code)).toEqual(['H319']);
    const shelf = { lots: [tartrate], bottles: [], equipment: EQUIPMENT };
    const { solids } = plannerShelf(substance.id, shelf, () => undefined, aroundWith().today);
    expect(solids).toMatchObject([{ name: 'KHT, lot K-22', isStandard: true }]);
  });

  test('a plan dries it as its entry says, and follows the recipe that it carries', () => {
    const [dry] = stepsOf(weighed);
    expect(dry?.text).toContain('105 to 110 °C for 3 h');
    const ours = { ...weighed, own: [...OWN, namedEntry(RECIPE, RECIPE.recipe.id)] };
    expect(stepsOf(ours).map(({ work }) => work)).toEqual(
      TARTRATE_RECIPE.steps.map(({ work }) => work),
    );
  });

  test('a plan is refused above its solubility, and where its recipe makes it otherwise', () => {
    const around = aroundWith({
      entry: [entryState(CREAM_OF_TARTAR, substance.id), entryState(RECIPE, RECIPE.recipe.id)],
      lot: [tartrate],
      equipment: EQUIPMENT,
    });
    const own = [...OWN, namedEntry(RECIPE, RECIPE.recipe.id)];
    const started = (changes: object) =>
      codes(factOf('preparation.started', 'p', { ...weighed, own, ...changes }), around);
    expect(started({})).toEqual([]);
    expect(started({ targetMolarity: '0.03' })).toEqual([]);
    expect(started({ targetMolarity: '0.0301' })).toContain('does-not-dissolve');
    expect(started({ recipeId: RECIPE.recipe.id })).toEqual([]);
    expect(started({ recipeId: 'calcium-carbonate-in-acid' })).toEqual(['not-in-catalogue']);
    const byBeaker = { source: { ...weighed.source, flaskId: null } };
    expect(started({ ...byBeaker, recipeId: RECIPE.recipe.id })).toEqual(['recipe-does-not-fit']);
  });

  test('its bottle carries it, without the recipe: name, hazards, how long it keeps', () => {
    const plan = { ...weighed, own: [...OWN, namedEntry(RECIPE, RECIPE.recipe.id)] };
    const preparation = new PreparationScript(plan).state;
    const records = { lots: [tartrate], bottles: [], equipment: EQUIPMENT };
    const bottle = bottled(
      preparation,
      { kind: 'none' } as unknown as Parameters<typeof bottled>[1],
      records,
      stored({
        code: '0500',
        container: 'clear-glass',
        useBy: null,
        preparedBy: 'ines',
        preparedOn: '2026-03-02',
      }),
    );
    expect(bottle.own).toEqual(OWN);
    const onShelf = bottleOf(substance.id, { ...bottle, nominalMolarity: '0.02' });
    const label = labelOf(onShelf, {
      ...{ maker: 'Ines', parents: [], dateText: (date: string) => date },
      units: paperUnitsOf({ paperUnits: 'litre', statesNormality: false }),
    });
    expect(label).toMatchObject({ name: 'potassium hydrogen tartrate', formula: 'KC4H5O6' });
    expect(hazardsOfBottle(onShelf).statements).toEqual([]);
    expect(keepingOf(substance.id, OWN)?.endedBy).toBe('mould');
    expect(suggestValidUntil(onShelf, aroundWith().today)).toBe('2026-03-05');
  });

  test('a run is corrected for its density, which its lot carries', () => {
    const run = new RunScript(references({ lot: { substanceId: substance.id, own: OWN } })).state;
    const { buoyancy } = correctionsOf(run, 0.1);
    expect(buoyancy?.percent).toBeCloseTo(100 * (1.2 / 1980 - 1.2 / 8000), 3);
  });
});
