import type { EquipmentState } from '#core/metrology';
import type { Limits } from '#core/preparation';

/** Working hours that a day is planned in, minutes of the day. */
const WORKDAY = [7 * 60, 17 * 60] as const;

/** What limits the laboratory's day: people, and the hot plates and ovens in service; one of each where none is registered. */
export function limitsOf(equipment: readonly EquipmentState[], people = 1): Limits {
  const count = (kind: 'hot-plate' | 'oven'): number =>
    equipment.filter(
      ({ equipment: item, withdrawn }) =>
        item.type === 'heater' && item.kind === kind && withdrawn === null,
    ).length;
  return {
    people,
    hotPlates: Math.max(1, count('hot-plate')),
    ovens: Math.max(1, count('oven')),
    workday: WORKDAY,
  };
}
