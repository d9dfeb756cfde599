export { calculatedMolarity } from './calculated';
export type { CertificateStatus } from './certificateStatus';
export { certificateStatus } from './certificateStatus';
export { differenceOf } from './difference';
export type { Figures } from './figuresOf';
export type { CertifiedFigures, ReportedFigures } from './issuedFigures';
export { certifiedFigures, reportedFigures } from './issuedFigures';
export { certificationFindings, percentFromNominal } from './certificationChecks';
export type { SeriesScatter } from './earlierSeries';
export { earlierSeriesOf, scatterOf } from './earlierSeries';
export { outlierText, repeatabilityText, VERDICT_WORDS } from './inWords';
export { assessFlaskIncident, incidentsOf } from './incidents';
export { comesToTheSame, issueCertificate, SAME_WITHIN } from './issueCertificate';
export type { Found } from './found';
export { contentText, coverageText, DETECTIONS, foundIn, molarMassCandidates } from './found';
export { issueReport, judgedSeries, nextReportNumber, reportedParts } from './issueReport';
export type { ReportDecision } from './issueReport';
export type { FoundPart, FoundParts } from './parts';
export { answerText, heldOf, partsFound, statedText } from './parts';
export { reportFindings } from './reportChecks';
export { deviationsOf } from './resultChecks';
export type { JudgedSeries, Judgement, Replicate, Result } from './judge';
export { judgeRun } from './judge';
export type { CorrectedSince, RecordsNow } from './recordsNow';
export { correctedSince, outOfUse, outOfUseFindings, restatedTitrant } from './recordsNow';
export { restated } from './restated';
export { reviewOf } from './review';
export type { Recomputed } from './recomputed';
export { recompute } from './recomputed';
export { seriesFault } from './seriesFault';
export type { Signatories, Signing } from './signing';
export {
  draftDigest,
  signatoriesOf,
  signaturesWith,
  signedSoFar,
  signingFindings,
  signingOf,
} from './signing';
export { unitsText } from './units';
export { indicatorIdOf } from './work';
