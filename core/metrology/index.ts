export type { Buoyancy } from './buoyancy';
export {
  AIR_DENSITY_KG_PER_M3,
  airDensityKgPerM3,
  buoyancyFactor,
  WEIGHTS_DENSITY_KG_PER_M3,
} from './buoyancy';
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
  volumeTolerance,
  weighingDeviation,
  weighingLinearity,
  weighingRepeatability,
} from './effects';
export type { MeasuredLiquid } from './corrections';
export { correctingThermometer, massFactor, thermalFactor } from './corrections';
export type {
  Balance,
  Burette,
  CalibratedBalance,
  CalibratedBurette,
  CalibratedThermometer,
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
  calibratedBalance,
  calibratedBurette,
  calibratedPointOf,
  calibratedThermometer,
  calibrationPoints,
  deliveryCorrection,
  isPipette,
  isCalibrationOverdue,
} from './equipment';
export { EQUIPMENT_RECORD } from './equipmentRecord';
export type { GlasswareClass, GlasswareKind, GlasswareSize } from './glassware';
export { glasswareOf, TOLERANCE_DISTRIBUTION } from './glassware';
export type { Liquid } from './temperature';
export { correctedTemperatureC, volumeAtReference } from './temperature';
export {
  GLASS_CUBIC_EXPANSION_PER_K,
  glassVolumeMl,
  REFERENCE_TEMPERATURE_C,
  solutionVolumeAt20Ml,
  waterDensityKgPerM3,
} from './water';
export type { Weighing } from './weighing';
export { checkShownDecimals, checkWeighing, netMassG, weighingText } from './weighing';
