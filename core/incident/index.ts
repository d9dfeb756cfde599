export type { Assessment } from './assess';
export { assessIncident, featuresOf, findIncident, incidentsFor } from './assess';
export type {
  Circumstance,
  Incident,
  IncidentDetails,
  RunFeature,
  RunNumbers,
  Verdict,
} from './incidents';
export { INCIDENTS } from './incidents';
