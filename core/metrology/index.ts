export type { Buoyancy } from './buoyancy';
export { airDensityKgPerM3, buoyancyFactor } from './buoyancy';
export type { CalibrationResult, CorrectionPoint, GravimetricCalibration } from './calibration';
export { calibrateGravimetrically, correctionAtMl, isWithinTolerance } from './calibration';
export {
  buretteReading,
  buretteTolerance,
  endPointDrop,
  weighingLinearity,
  weighingRepeatability,
} from './effects';
export type { Balance, Burette, Equipment, EquipmentState, Glassware } from './equipment';
export { foldEquipment, isCalibrationOverdue } from './equipment';
export type { GlasswareClass, GlasswareKind, GlasswareSize } from './glassware';
export { glasswareOf, TOLERANCE_DISTRIBUTION } from './glassware';
export { temperatureDeviation } from './temperature';
export {
  GLASS_CUBIC_EXPANSION_PER_K,
  glassVolumeMl,
  solutionVolumeAt20Ml,
  waterDensityKgPerM3,
} from './water';
