export type { HazardousThing } from './atHand';
export { hazardsAtHand, substancesOf, WASTE_CONTAINERS, waysOut } from './atHand';
export type { Hazards } from './classification';
export { hazardsOf, hazardsOfBottle, hazardsOfLot, hazardsOfSolution } from './classification';
export type { Label, LabelContext } from './label';
export { labelOf } from './label';
export { PICTOGRAM_NAMES, pictogramSvg } from './pictograms';
export type { LabelSheet } from './sheets';
export { fitsOnPage, LABEL_SHEETS, placeOnSheet } from './sheets';
