export type { Buoyancy } from './buoyancy';
export { airDensityKgPerM3, buoyancyFactor } from './buoyancy';
export type {
  CalibratedVolume,
  CalibrationResult,
  CorrectionPoint,
  GravimetricCalibration,
} from './calibration';
export {
  calibratedVolume,
  calibrateGravimetrically,
  correctionAtMl,
  isWithinTolerance,
} from './calibration';
export {
  buretteReading,
  calibrationComponents,
  deliveryRepeatability,
  endPointWithin,
  volumeFactorAt20,
  volumeTolerance,
  weighingLinearity,
  weighingRepeatability,
} from './effects';
export type {
  Balance,
  Burette,
  CalibratedBurette,
  Calibration,
  CalibrationPoint,
  DeliveryCorrection,
  Equipment,
  EquipmentFactBodies,
  EquipmentState,
  Glassware,
  Heater,
  Thermometer,
} from './equipment';
export {
  calibratedBurette,
  calibratedPointOf,
  calibrationPoints,
  deliveryCorrection,
  isPipette,
  isCalibrationOverdue,
} from './equipment';
export { EQUIPMENT_RECORD } from './equipmentRecord';
export type { GlasswareClass, GlasswareKind, GlasswareSize } from './glassware';
export { glasswareOf, TOLERANCE_DISTRIBUTION } from './glassware';
export { temperatureDeviation } from './temperature';
export {
  GLASS_CUBIC_EXPANSION_PER_K,
  glassVolumeMl,
  solutionVolumeAt20Ml,
  waterDensityKgPerM3,
} from './water';
export type { Weighing } from './weighing';
export { checkShownDecimals, checkWeighing, netMassG, weighingText } from './weighing';
