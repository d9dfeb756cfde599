import type { AroundEntries } from '../chemistry';
import { checkOwn, findSubstance, refersToOwn } from '../chemistry';
import { checkTypedDate } from '../laboratory';
import type { AroundStock, Finding } from '../record';
import {
  atHand,
  checkMay,
  corrected,
  defineRecord,
  impossible,
  provenance,
  restedOn,
  RETURNED,
  takes,
  WITHDRAWN,
} from '../record';
import { figureText, percentOfFraction } from '../measurement';
import { suspectForm } from '../slip';
import type { Lot, LotFactBodies, LotState } from './lot';

/** Lots were solids of which nobody counted how much there was. */
function toLotWithAmount(body: unknown): unknown {
  return { ...(body as object), dissolved: null, amountReceived: null, store: '', openedOn: null };
}

/** Whether the lot lies in the oven. */
function isInOven({ drying }: LotState): boolean {
  return drying.at(-1)?.takenOut === null;
}

/** A lot: registered, opened, counted, dried, its certificate attached, in and out of use. */
export const LOT_RECORD = defineRecord<
  'lot',
  LotFactBodies,
  LotState,
  AroundStock & AroundEntries,
  'lot.certificate-attached'
>({
  kind: 'lot',
  first: 'lot.registered',
  begin: (fact) =>
    fact.kind === 'lot.registered'
      ? {
          registered: provenance(fact),
          lot: fact.body,
          counted: null,
          classified: null,
          drying: [],
          certificates: [],
          corrections: [],
          withdrawn: null,
        }
      : null,
  listed: ({ lot, withdrawn }) => {
    const { substanceId, lotNumber, supplier, certificateNumber, store, useBy } = lot;
    const substance = findSubstance(substanceId, lot.own);
    const standing = { now: 'in-use', lastDay: useBy, after: 'expired', warningDays: null };
    return {
      name: lotNumber,
      words: [
        substance?.name,
        substance?.shortName,
        substance?.formula,
        supplier,
        certificateNumber,
        store,
      ].filter((word) => word !== undefined),
      aboutId: null,
      ...atHand(standing, withdrawn !== null),
    };
  },
  counted: ({ lot, counted }) => {
    const amount = counted?.amountLeft ?? lot.amountReceived;
    return amount === null ? null : { amount: Number(amount), at: counted?.at ?? null };
  },
  facts: {
    'lot.registered': {
      nature: 'observation',
      earlier: [toLotWithAmount],
      refersTo: refersToOwn,
      check: ({ body }, _state, around) => [
        ...checkMay(around.author, 'register'),
        ...checkLot(body, around),
      ],
      apply: () => ({}),
      sentence: ({ lotNumber }) => `lot ${lotNumber}.`,
    },
    'lot.opened': {
      nature: 'observation',
      check: ({ body: { openedOn } }, { lot }, { today }) =>
        openedOn < lot.receivedOn
          ? [openedBeforeReceived]
          : checkTypedDate('openedOn', openedOn, 'happened', today),
      apply: ({ lot }, { body: { openedOn } }) => ({ lot: { ...lot, openedOn } }),
      sentence: ({ openedOn }) => `opened on ${openedOn}.`,
    },
    'lot.corrected': {
      nature: 'decision',
      asks: 'use',
      // A device may know only the version of today of what the lot has carried since it was registered.
      refersTo: ({ lot }) => refersToOwn(lot).map((named) => ({ ...named, version: null })),
      check: ({ body }, state, around) => [
        ...checkMay(around.author, 'register'),
        ...checkLot(body.lot, around, state.lot),
        ...(isOtherThing(body.lot, state.lot) && around.isUsed(state.id)
          ? [restedOn('substanceId')]
          : []),
      ],
      apply: (state, fact) => ({
        lot: fact.body.lot,
        corrections: corrected(state, fact, state.lot),
      }),
      sentence: ({ reason }) => `corrected: ${reason}.`,
    },
    'lot.counted': {
      nature: 'decision',
      check: () => [],
      apply: (_state, fact) => ({
        counted: { ...provenance(fact), amountLeft: fact.body.amountLeft },
      }),
      sentence: ({ amountLeft }) => `counted: ${figureText(amountLeft)} left.`,
    },
    'lot.classified': {
      nature: 'decision',
      check: (_fact, _state, { author }) => checkMay(author, 'register'),
      apply: (_state, fact) => ({ classified: { ...provenance(fact), ...fact.body } }),
      sentence: ({ sheet }) => `hazards by its safety data sheet, ${sheet}.`,
    },
    'lot.put-to-dry': {
      nature: 'observation',
      check: (_fact, lot) => (isInOven(lot) ? [impossible('in-already', 'temperatureC')] : []),
      // Two devices may have put it in without knowing of each other: it lies there once.
      apply: (lot, fact) =>
        isInOven(lot)
          ? {}
          : {
              drying: [
                ...lot.drying,
                {
                  temperatureC: fact.body.temperatureC,
                  putIn: provenance(fact),
                  takenOut: null,
                },
              ],
            },
      sentence: ({ temperatureC }) => `put to dry at ${figureText(temperatureC)} °C.`,
    },
    'lot.taken-out': {
      nature: 'observation',
      check: (_fact, lot) => (isInOven(lot) ? [] : [impossible('not-in', 'lot')]),
      apply: ({ drying }, fact) => ({
        drying: drying.map((spell) =>
          spell.takenOut === null ? { ...spell, takenOut: provenance(fact) } : spell,
        ),
      }),
      sentence: () => 'taken out of the oven.',
    },
    'lot.certificate-attached': {
      nature: 'observation',
      needsServer: true,
      file: (body) => body,
      check: () => [],
      apply: ({ certificates }, { body }) => ({ certificates: [...certificates, body] }),
      sentence: ({ name }) => `certificate ${name}.`,
    },
    'lot.withdrawn': WITHDRAWN,
    'lot.returned': takes(RETURNED, 'register'),
  },
});

const openedBeforeReceived = impossible('opened-first', 'openedOn');

/** Whether a lot would be another substance, or in another form. */
function isOtherThing(lot: Lot, was: Lot): boolean {
  return lot.substanceId !== was.substanceId || lot.dissolved?.meaning !== was.dissolved?.meaning;
}

/** No solid that is sold holds less; who wrote that gave a mass fraction in per cent. */
const LEAST_PURITY_OF_SOLID = 0.02;

function checkLot(
  lot: Lot,
  around: Pick<AroundStock, 'today'> & AroundEntries,
  was: Lot | null = null,
): readonly Finding[] {
  const { today } = around;
  const entries = checkOwn(lot, around, was);
  if (entries.length > 0) return entries;
  const substance = findSubstance(lot.substanceId, lot.own);
  if (!substance) {
    return [impossible('not-in-catalogue', 'substanceId', { kind: 'substance' })];
  }
  const stated = lot.statedMolarMass?.valueGPerMol;
  const other = stated === undefined ? null : suspectForm(Number(stated), substance, lot.own);
  if (stated !== undefined && other) {
    return [impossible('other-form', 'substanceId', { stated, name: other.name })];
  }
  if (lot.useBy !== null && lot.useBy < lot.receivedOn) {
    return [impossible('use-by-first', 'useBy')];
  }
  if (lot.openedOn !== null && lot.openedOn < lot.receivedOn) return [openedBeforeReceived];
  if (lot.dissolved?.meaning === 'by-molarity' && Number(lot.purity) !== 1) {
    return [impossible('content-twice', 'purity')];
  }
  if (!lot.dissolved && Number(lot.purity) < LEAST_PURITY_OF_SOLID) {
    return [impossible('purity-as-fraction', 'purity', { percent: percentOfFraction(lot.purity) })];
  }
  if (Number(lot.purityHalfWidth) > Number(lot.purity) / 2) {
    return [impossible('purity-too-vague', 'purityHalfWidth')];
  }
  return [
    ...checkTypedDate('receivedOn', lot.receivedOn, 'happened', today),
    ...checkTypedDate('openedOn', lot.openedOn, 'happened', today),
    ...checkTypedDate('useBy', lot.useBy, 'to-come', today),
  ];
}
