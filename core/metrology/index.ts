export {
  buretteReading,
  buretteTolerance,
  endPointDrop,
  weighingLinearity,
  weighingRepeatability,
} from './effects';
export type { Balance, Burette, Equipment, EquipmentState } from './equipment';
export { foldEquipment, isCalibrationOverdue } from './equipment';
export { temperatureDeviation, WATER_CUBIC_EXPANSION_PER_K } from './temperature';
