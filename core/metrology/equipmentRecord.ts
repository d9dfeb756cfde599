import type { PlainDate } from '../grammar';
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
  MOST_WARNING_DAYS,
  WITHDRAWN,
} from '../record';
import type { Calibration, Equipment, EquipmentFactBodies, EquipmentState } from './equipment';
import { calibrationPoints } from './equipment';

/** A piece of equipment: registered, calibrated, in and out of use. */
export const EQUIPMENT_RECORD = defineRecord<
  'equipment',
  EquipmentFactBodies,
  EquipmentState,
  AroundStock
>({
  kind: 'equipment',
  first: 'equipment.registered',
  begin: (fact) =>
    fact.kind === 'equipment.registered'
      ? {
          registered: provenance(fact),
          equipment: fact.body,
          calibrations: [],
          corrections: [],
          withdrawn: null,
        }
      : null,
  listed: ({ equipment, withdrawn }) => {
    const { name, type, calibrationDue: lastDay } = equipment;
    return {
      name,
      words: [type, ...(equipment.type === 'glassware' ? [equipment.kind] : [])],
      aboutId: null,
      ...atHand(
        { now: 'in-use', lastDay, after: 'overdue', warningDays: MOST_WARNING_DAYS },
        withdrawn !== null,
        { isUsedUp: false },
      ),
    };
  },
  facts: {
    'equipment.registered': {
      nature: 'observation',
      check: ({ body }, _state, { author, today }) => [
        ...checkMay(author, 'register'),
        ...checkRange(body),
        ...checkTypedDate('calibrationDue', body.calibrationDue, 'to-come', today),
      ],
      apply: () => ({}),
      sentence: ({ name }) => `${name}.`,
    },
    'equipment.calibrated': {
      nature: 'observation',
      check: ({ body }, state, { author, today }) => [
        ...checkMay(author, 'register'),
        ...checkCalibration(state, body, today),
      ],
      apply: ({ equipment, calibrations }, fact) => ({
        equipment: { ...equipment, calibrationDue: fact.body.due },
        calibrations: [...calibrations, { ...provenance(fact), ...fact.body }],
      }),
      sentence: ({ certificate, calibratedOn }) => `calibrated on ${calibratedOn}, ${certificate}.`,
    },
    'equipment.corrected': {
      nature: 'decision',
      asks: 'use',
      check: ({ body: { equipment } }, state, { author, isUsed, today }) => [
        ...checkMay(author, 'register'),
        ...checkRange(equipment),
        ...checkTypedDate('calibrationDue', equipment.calibrationDue, 'to-come', today),
        ...(sortOf(equipment) !== sortOf(state.equipment) && isUsed(state.id)
          ? [restedOn('type')]
          : []),
      ],
      // A calibration says when the next one is due.
      apply: (state, fact) => {
        const last = state.calibrations.at(-1);
        const { equipment } = fact.body;
        return {
          equipment: last ? { ...equipment, calibrationDue: last.due } : equipment,
          corrections: corrected(state, fact, state.equipment),
        };
      },
      sentence: ({ equipment, reason }) => `${equipment.name} corrected: ${reason}.`,
    },
    'equipment.withdrawn': WITHDRAWN,
    'equipment.returned': takes(RETURNED, 'register'),
  },
});

/** What sort of thing it is: a flask never becomes a pipette. */
function sortOf(equipment: Equipment): string {
  return 'kind' in equipment ? `${equipment.type} ${equipment.kind}` : equipment.type;
}

/** What an instrument says of itself that makes no instrument. */
function checkRange(equipment: Equipment): readonly Finding[] {
  switch (equipment.type) {
    case 'balance': {
      const most = Number(equipment.maxLoadG);
      const tooLarge = (['readabilityG', 'repeatabilityG', 'linearityG'] as const).find(
        (field) => Number(equipment[field]) >= (field === 'readabilityG' ? most : most / 100),
      );
      return tooLarge ? [impossible('beyond-max-load', tooLarge)] : [];
    }
    case 'glassware':
      return Number(equipment.toleranceMl) < Number(equipment.volumeMl) / 10
        ? []
        : [impossible('tolerance-too-wide', 'toleranceMl')];
    case 'burette':
      if (Number(equipment.divisionMl) >= Number(equipment.capacityMl)) {
        return [impossible('division-too-wide', 'divisionMl')];
      }
      return Number(equipment.toleranceMl) < Number(equipment.capacityMl) / 10
        ? []
        : [impossible('tolerance-too-wide', 'toleranceMl')];
    case 'thermometer':
    case 'heater':
      return [];
  }
}

function checkCalibration(
  { equipment }: EquipmentState,
  calibration: Calibration,
  today: PlainDate,
): readonly Finding[] {
  const { calibratedOn, due, found } = calibration;
  const mistyped = [
    ...checkTypedDate('calibratedOn', calibratedOn, 'happened', today),
    ...checkTypedDate('due', due, 'to-come', today),
  ];
  if (mistyped.length > 0) return mistyped;
  if (due !== null && due < calibratedOn) {
    return [impossible('due-first', 'due')];
  }
  const holdsWater = equipment.type === 'glassware' || equipment.type === 'burette';
  if (found.kind === 'weighings' && !holdsWater) {
    return [impossible('holds-no-volume', 'found')];
  }
  const stray = calibrationPoints(calibration).find(
    ({ nominal, deviation }) => nominal > 0 && Math.abs(deviation) > STRAY_CALIBRATION * nominal,
  );
  if (!stray) return [];
  return [impossible('far-off', 'found', { nominal: stray.nominal, deviation: stray.deviation })];
}

/** No instrument that is of any use is off by more than this part. */
const STRAY_CALIBRATION = 0.1;
