import { figureText } from '#core/measurement';
import { findContent } from '#core/chemistry';
import type { PreparationPlan, PreparationState, Quantity, Step } from '#core/preparation';
import { netMassG } from '#core/metrology';

/** The work of a step in a word or two. */
export const WORKS: Readonly<Record<Step['work'], string>> = {
  dry: 'Dry',
  cool: 'Cool',
  boil: 'Boil',
  draw: 'Draw water',
  weigh: 'Weigh',
  measure: 'Measure',
  transfer: 'Transfer and rinse',
  dissolve: 'Dissolve',
  add: 'Add',
  heat: 'Heat',
  'to-room-temperature': 'To room temperature',
  'to-mark': 'To the mark',
  mix: 'Mix',
  stand: 'Let it stand',
  filter: 'Filter',
  procedure: 'By your procedure',
  bottle: 'Bottle',
  label: 'Label',
};

/** What one says when a step is done; the question that it answers is in its text. */
export const DONE_WORDS: Readonly<Partial<Record<Step['work'], string>>> = {
  dissolve: 'Yes, dissolved',
  mix: 'Yes, mixed',
  'to-mark': 'At the mark',
  procedure: 'Made as it says',
  dry: 'It is dry',
  cool: 'It is cool',
};

/** What a preparation makes: `NaOH 0.1 mol/L, 1000 mL`. */
export function planTitle(plan: PreparationPlan): string {
  return `${findContent(plan.soluteId, plan.own)?.shortName ?? plan.soluteId}${strengthText(plan)}`;
}

/** Molarity and volume of what is made, to follow its name. */
export function strengthText({ targetMolarity, volumeMl }: PreparationPlan): string {
  return `${targetMolarity === null ? '' : ` ${figureText(targetMolarity)} mol/L`}, ${figureText(volumeMl)} mL`;
}

/** A measured figure with its unit. */
export function quantityText(quantity: Quantity): string {
  switch (quantity.kind) {
    case 'mass':
      return `${figureText(netMassG(quantity.weighing))} g`;
    case 'volume':
      return `${figureText(quantity.volumeMl)} mL`;
    case 'temperature':
      return `${figureText(quantity.temperatureC)} °C`;
  }
}

/** How many of the steps are behind one, 0 to 1. */
export function progressOf({ steps }: PreparationState): number {
  return steps.filter(({ done }) => done).length / Math.max(1, steps.length);
}
