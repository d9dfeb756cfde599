import { figureText } from '../measurement';
import type { EntryState } from '../chemistry';
import { checkOwn, findContent, refersToOwn } from '../chemistry';
import { checkTypedDate } from '../laboratory';
import type { Around, Finding } from '../record';
import {
  atHand,
  corrected,
  defineRecord,
  impossible,
  provenance,
  RETURNED,
  WITHDRAWN,
} from '../record';
import type {
  BottleFactBodies,
  BottleState,
  CertifiedMolarity,
  CorrectedBottle,
  PreparedBottle,
  UnroundedMolarity,
} from './bottle';
import { correctable } from './bottle';
import { bottleStanding } from './freshness';
import type { LotState } from './lot';

/** Bottles were titrants, written down with the one lot that they were made from. */
function toBottleWithParents(body: unknown): unknown {
  const { lotId, ...rest } = body as { readonly lotId: string };
  return {
    ...rest,
    purpose: 'titrant',
    parents: [{ kind: 'lot', id: lotId }],
    preparationId: null,
    made: null,
    plausibleMolarity: null,
    dilutionFactor: null,
    useBy: null,
  };
}

/** A molarity that follows from how a bottle was made was kept as its label states it. */
function toMadeAsStated(body: unknown): unknown {
  const bottle = body as { readonly made: object | null };
  return { ...bottle, made: bottle.made && { ...bottle.made, unrounded: null } };
}

/** So was one that a standardization found. What its run had computed is with the run's certificate (`takeFromRun`). */
function toCertifiedAsStated(body: unknown): unknown {
  return { ...(body as object), unrounded: null, corrections: null };
}

/** The certificate on a bottle with what its run had computed, for one that was kept as its label states it. */
export function takeFromRun(
  certified: CertifiedMolarity,
  {
    number,
    unrounded,
    effectiveDegreesOfFreedom,
    restsOn,
    corrections,
  }: {
    readonly number: string;
    readonly unrounded: Pick<UnroundedMolarity, 'molarity' | 'standardUncertainty'>;
  } & Pick<UnroundedMolarity, 'effectiveDegreesOfFreedom' | 'restsOn'> &
    Pick<CertifiedMolarity, 'corrections'>,
): CertifiedMolarity {
  return certified.unrounded || certified.certificateNumber !== number
    ? certified
    : {
        ...certified,
        unrounded: { ...unrounded, effectiveDegreesOfFreedom, restsOn },
        corrections,
      };
}

/** What a bottle that is written down rests on. */
export interface AroundBottle extends Around<{
  readonly lot: LotState;
  readonly person: unknown;
  readonly entry: EntryState;
}> {
  /** The bottle that has a code, as far as that is known here; the database lets no two have the same. */
  readonly bottleCoded: (code: string) => string | null;
}

/** A bottle: prepared, certified, labelled, in and out of use. */
export const BOTTLE_RECORD = defineRecord<
  'bottle',
  BottleFactBodies,
  BottleState,
  AroundBottle,
  'bottle.certified' | 'bottle.certificate-withdrawn' | 'bottle.labelled'
>({
  kind: 'bottle',
  first: 'bottle.prepared',
  begin: (fact) =>
    fact.kind === 'bottle.prepared'
      ? {
          ...fact.body,
          prepared: provenance(fact),
          certified: [],
          certificatesWithdrawn: [],
          corrections: [],
          withdrawn: null,
          labels: [],
        }
      : null,
  listed: (bottle) => {
    const content = findContent(bottle.substanceId, bottle.own);
    const words = [content?.name, content?.shortName, content?.formula, bottle.nominalMolarity];
    return {
      name: bottle.code,
      words: [...words, bottle.purpose].filter((word) => typeof word === 'string'),
      aboutId: null,
      ...atHand(bottleStanding(bottle), bottle.withdrawn !== null),
    };
  },
  counted: ({ volumeMl }) => ({ amount: Number(volumeMl), at: null }),
  facts: {
    'bottle.prepared': {
      nature: 'observation',
      earlier: [toBottleWithParents, toMadeAsStated],
      refersTo: ({ parents, preparationId, preparedBy, own }) => [
        ...refersToOwn(own ? { own } : {}),
        ...parents.map(({ kind, id }) => ({ field: 'parents', kind, id, version: null })),
        { field: 'preparedBy', kind: 'person', id: preparedBy, version: null },
        ...(preparationId === null
          ? []
          : [{ field: 'preparationId', kind: 'preparation', id: preparationId, version: null }]),
      ],
      check: ({ body }, _state, around) => checkBottle(body, around),
      apply: () => ({}),
      sentence: ({ code }) => `bottle ${code}.`,
    },
    'bottle.corrected': {
      nature: 'decision',
      refersTo: ({ preparedBy }) => [
        { field: 'preparedBy', kind: 'person', id: preparedBy, version: null },
      ],
      check: ({ body }, state, around) => [
        ...checkCode(body.code, state.id, around),
        ...checkTypedDate('preparedOn', body.preparedOn, 'happened', around.today),
        ...checkTypedDate('useBy', body.useBy, 'to-come', around.today),
        ...(state.preparationId !== null ? computed(body, state) : []),
      ],
      apply: (state, fact) => {
        const { reason: _reason, ...body } = fact.body;
        return { ...body, corrections: corrected(state, fact, correctable(state)) };
      },
      sentence: ({ code, reason }) => `bottle ${code} corrected: ${reason}.`,
    },
    'bottle.certified': {
      nature: 'decision',
      earlier: [toCertifiedAsStated],
      needsServer: true,
      refersTo: ({ runId }) => [{ field: 'runId', kind: 'run', id: runId, version: null }],
      check: () => [],
      apply: ({ certified }, { body }) => ({ certified: [...certified, body] }),
      sentence: ({ certificateNumber, molarity }) =>
        `certified: ${certificateNumber}, ${figureText(molarity)} mol/L.`,
    },
    'bottle.certificate-withdrawn': {
      nature: 'decision',
      needsServer: true,
      check: () => [],
      apply: ({ certificatesWithdrawn: before }, fact) => ({
        certificatesWithdrawn: [...before, { ...provenance(fact), ...fact.body }],
      }),
      sentence: ({ certificateNumber, reason }) =>
        `certificate ${certificateNumber} withdrawn: ${reason}.`,
    },
    'bottle.labelled': {
      nature: 'observation',
      needsServer: true,
      check: () => [],
      apply: ({ labels }, fact) => ({ labels: [...labels, { ...provenance(fact), ...fact.body }] }),
      sentence: ({ sheet }) => `label made on ${sheet}.`,
    },
    'bottle.withdrawn': WITHDRAWN,
    'bottle.returned': RETURNED,
  },
});

function checkCode(
  code: string,
  ownId: string | null,
  { bottleCoded }: AroundBottle,
): readonly Finding[] {
  const other = bottleCoded(code);
  return other === null || other === ownId ? [] : [impossible('code-taken', 'code')];
}

/** The figures of a preparation follow from what was measured in it. */
function computed(
  { nominalMolarity, volumeMl }: CorrectedBottle,
  was: PreparedBottle,
): readonly Finding[] {
  const isSame = nominalMolarity === was.nominalMolarity && volumeMl === was.volumeMl;
  return isSame ? [] : [impossible('computed', 'nominalMolarity')];
}

/** What comes from a preparation is computed by the server, which has checked it. */
function checkBottle(bottle: PreparedBottle, around: AroundBottle): readonly Finding[] {
  if (bottle.preparationId !== null) return [];
  const lot = around.now('lot', bottle.parents[0]?.id ?? '');
  if (!lot)
    return [impossible('unknown-reference', 'parents', { kind: 'lot', isAtVersion: false })];
  if (!around.now('person', bottle.preparedBy)) {
    return [impossible('unknown-reference', 'preparedBy', { kind: 'person', isAtVersion: false })];
  }
  const findings: Finding[] = [
    ...checkCode(bottle.code, null, around),
    ...checkOwn(bottle, around),
    ...(findContent(bottle.substanceId, bottle.own)
      ? []
      : [impossible('not-in-catalogue', 'substanceId', { kind: 'substance' })]),
  ];
  const { lotNumber, substanceId } = lot.lot;
  if (substanceId !== bottle.substanceId) {
    findings.push(impossible('wrong-lot', 'parents', { lotNumber }));
  }
  if ((bottle.purpose === 'standard') !== (bottle.made !== null)) {
    findings.push(impossible('not-certified', 'made'));
  }
  if (bottle.made && !lot.lot.dissolved) {
    findings.push(impossible('not-dissolved', 'parents', { lotNumber }));
  }
  findings.push(
    ...checkTypedDate('preparedOn', bottle.preparedOn, 'happened', around.today),
    ...checkTypedDate('useBy', bottle.useBy, 'to-come', around.today),
  );
  if (lot.withdrawn) {
    const { reason } = lot.withdrawn;
    findings.push(impossible('out-of-use', 'parents', { name: `Lot ${lotNumber}`, reason }));
  }
  return findings;
}
