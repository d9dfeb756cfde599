import type { EquipmentState } from '#core/metrology';
import type { Settings } from '#core/laboratory';
import type { Limits } from '#core/preparation';

/** What limits the laboratory's day: its hours, people, and the hot plates and ovens in service; one of each where none is registered. */
export function limitsOf(
  { workdayBegins, workdayEnds }: Settings,
  equipment: readonly EquipmentState[],
  people = 1,
): Limits {
  const count = (kind: 'hot-plate' | 'oven'): number =>
    equipment.filter(
      ({ equipment: item, withdrawn }) =>
        item.type === 'heater' && item.kind === kind && withdrawn === null,
    ).length;
  return {
    people,
    hotPlates: Math.max(1, count('hot-plate')),
    ovens: Math.max(1, count('oven')),
    workday: [60 * workdayBegins, 60 * workdayEnds],
  };
}
