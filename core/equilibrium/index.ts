export type {
  AcidBaseFlask,
  AcidBasePoint,
  AcidBaseTitrant,
  AcidBaseTitration,
  AcidSystem,
  ActivityModel,
} from './acidBase';
export { AcidBaseCurve, distinctSteps, midpointVolumesMl, titrationErrorPercent } from './acidBase';
export type { ColouredForm, Srgb } from './colour';
export { basicFraction, mixColours, oxidizedFraction } from './colour';
export { cssOf, layerColour, luminanceOf, srgbOf } from './layer';
export type { RedoxCouple, RedoxTitration } from './redox';
export { RedoxCurve } from './redox';
