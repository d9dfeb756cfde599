export type { Hazards, Label, LabelContext } from './label';
export { hazardsOf, hazardsOfLot, hazardsOfSolution, labelOf } from './label';
export { PICTOGRAM_NAMES, pictogramSvg } from './pictograms';
export type { LabelSheet } from './sheets';
export { fitsOnPage, LABEL_SHEETS, placeOnSheet } from './sheets';
