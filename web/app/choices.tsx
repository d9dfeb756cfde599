import { shortNameOf } from '#core/chemistry';
import type { PlainDate } from '#core/grammar';
import { figureText, roundHalfEven } from '#core/measurement';
import type { EquipmentState } from '#core/metrology';
import type { BottleState, LotState } from '#core/reagent';
import {
  freshnessOf,
  isLotExpired,
  knownMolarity,
  mayBeUsed,
  purityText,
  unitOfLot,
} from '#core/reagent';
import type { Choice } from '../ui/ChoiceField';
import { ShortName } from '../ui/ShortName';

/** What a record is told apart by beside its name. */
interface Around {
  readonly today: PlainDate;
  /** What is left of it, g of a solid, mL of a solution; not there for those of which it is not known. */
  readonly left: ReadonlyMap<string, number>;
}

/** A bottle to choose: its code and content; its molarity, what is left, whether it may be used. */
export function bottleChoice(bottle: BottleState, { today, left }: Around): Choice {
  const { id, code, nominalMolarity } = bottle;
  const nominal = nominalMolarity === null ? '' : ` ${figureText(nominalMolarity)} mol/L`;
  const known = knownMolarity(bottle);
  return {
    id,
    name: (
      <>
        {code}, <ShortName of={bottle.substanceId} own={bottle.own} />
        {nominal}
      </>
    ),
    text: `${code}, ${shortNameOf(bottle)}${nominal}`,
    words: said(
      known
        ? `${figureText(known.molarity)} ± ${figureText(known.expandedUncertainty)} mol/L`
        : 'molarity not known yet',
      leftText(left.get(id), 'mL'),
      known && !mayBeUsed(freshnessOf(bottle, today)) && 'past its use-by date',
    ),
  };
}

/** A lot to choose: what it is and its number; its purity, what is left, whether its use-by date has passed. */
export function lotChoice(record: LotState, { today, left }: Around): Choice {
  const { id, lot } = record;
  return {
    id,
    name: (
      <>
        <ShortName of={lot.substanceId} own={lot.own} />, lot {lot.lotNumber}
      </>
    ),
    text: `${shortNameOf(lot)}, lot ${lot.lotNumber}`,
    words: said(
      purityText(lot),
      leftText(left.get(id), unitOfLot(lot)),
      isLotExpired(lot, today) && 'past its use-by date',
    ),
  };
}

/** An instrument to choose, and what it shows or holds. */
export function equipmentChoice({ id, equipment }: EquipmentState): Choice {
  return { id, name: equipment.name, text: equipment.name, words: rangeOf(equipment) };
}

function rangeOf(equipment: EquipmentState['equipment']): string {
  switch (equipment.type) {
    case 'balance':
      return `shows ${figureText(equipment.readabilityG)} g, up to ${figureText(equipment.maxLoadG)} g`;
    case 'burette':
      return `${figureText(equipment.capacityMl)} mL, ± ${figureText(equipment.toleranceMl)} mL`;
    case 'glassware':
      return `${figureText(equipment.volumeMl)} mL, ± ${figureText(equipment.toleranceMl)} mL`;
    case 'thermometer':
      return `shows ${figureText(equipment.resolutionK)} K, ± ${figureText(equipment.toleranceK)} K`;
    case 'heater':
      return '';
  }
}

function leftText(left: number | undefined, unit: string): string | false {
  if (left === undefined) return false;
  return left <= 0
    ? 'used up'
    : `${figureText(roundHalfEven(left, left < 10 ? 1 : 0))} ${unit} left`;
}

function said(...parts: readonly (string | false | null)[]): string {
  return parts.filter((part) => typeof part === 'string').join(' · ');
}
