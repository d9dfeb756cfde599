export { certificationFindings, deviationsOf, percentFromNominal } from './certificationChecks';
export { assessFlaskIncident, incidentsOf } from './incidents';
export { comesToTheSame, issueCertificate } from './issueCertificate';
export type { Judgement, Replicate, Result } from './judge';
export { judgeRun } from './judge';
export type { CorrectedSince, RecordsNow } from './recordsNow';
export { correctedSince, outOfUse, outOfUseFindings } from './recordsNow';
export { seriesFault } from './seriesFault';
