import { ownKeepingDays } from '#core/laboratory';
import { authorOf } from '#core/people';
import type { Fact } from '#core/record';
import type { Certificate, StandardizationRun } from '#core/titration/run';
import {
  certificationFindings,
  issueCertificate,
  judgeRun,
  outOfUseFindings,
  signaturesWith,
} from '#core/titration/judging';
import type { CertifyRequest } from '#contract';
import { makeServerFact, refuseStale, refuseUnexplained } from '../ledger/append';
import { laboratoryNow } from '../ledger/around';
import { findProjection } from '../ledger/queries';
import { makeDocuments } from './documents';
import type { Deciding, Issue } from './issue';
import { certifiable } from './openRun';
import { partsNow } from './partsNow';
import { signingNow } from './sign';

/** A certificate of the titrant of a run: its molarity is written on the bottle. */
export const CERTIFICATE: Issue<StandardizationRun, Certificate, CertifyRequest> = {
  of: certifiable,
  also: ({ setUp }) => [{ id: setUp.bottle.id, kind: 'bottle' }],
  issuedBy: (fact, person, { basedOn, validUntil, reason }) => {
    if (fact.kind !== 'run.certified') return null;
    const { certificate } = fact.body;
    const isSame =
      fact.authorId === person.id &&
      fact.basedOn === basedOn &&
      certificate.validUntil === validUntil &&
      certificate.reason === reason;
    return isSame ? certificate : null;
  },
  decide,
  documents: makeDocuments,
  facts: certifiedFacts,
};

async function decide({
  services,
  person,
  run,
  request,
  at,
}: Deciding<StandardizationRun, CertifyRequest>): Promise<Certificate> {
  const tx = services.db;
  refuseStale(request.basedOn, run.version);
  const bottle = await findProjection(tx, 'bottle', run.setUp.bottle.id);
  const { today, settings } = await laboratoryNow(tx, services);
  const ownDays = ownKeepingDays(settings, run.references.bottle.substanceId);
  const judgement = judgeRun(run);
  const { draft } = request;
  const signing = await signingNow(tx, run, {
    ...{ means: 'authorized', draft, author: authorOf(person) },
  });
  const decision = {
    ...signaturesWith(run, signing, { by: person.id, at }),
    number: `${run.references.bottle.code}-${String((bottle?.certified.length ?? 0) + 1)}`,
    certifiedById: person.id,
    certifiedOn: today,
    validUntil: request.validUntil,
    reason: request.reason,
  };
  const findings = [
    ...certificationFindings(run, judgement, decision, ownDays),
    ...outOfUseFindings(run.setUp, await partsNow(tx, run.setUp)),
  ];
  refuseUnexplained(findings, decision);
  return issueCertificate(run, judgement, decision);
}

/** What a certificate writes into the run and on its bottle. */
function certifiedFacts(
  { services, person, run, request }: Deciding<StandardizationRun, CertifyRequest>,
  certificate: Certificate,
): readonly Fact[] {
  const { deviceId, deviceTime, clockOffsetMs, basedOn } = request;
  const device = { deviceId, deviceTime, clockOffsetMs };
  const { number, molarity, expandedUncertainty, coverageFactor, certifiedOn, validUntil } =
    certificate;
  const { unrounded, effectiveDegreesOfFreedom, restsOn } = certificate;
  return [
    makeServerFact(services, person.id, {
      ...device,
      id: request.factId,
      recordId: run.id,
      recordKind: 'run',
      kind: 'run.certified',
      body: { certificate },
      basedOn,
    }),
    makeServerFact(services, person.id, {
      ...device,
      id: request.bottleFactId,
      recordId: run.setUp.bottle.id,
      recordKind: 'bottle',
      kind: 'bottle.certified',
      body: {
        runId: run.id,
        certificateNumber: number,
        molarity,
        expandedUncertainty,
        coverageFactor,
        unrounded: { ...unrounded, effectiveDegreesOfFreedom, restsOn },
        certifiedOn,
        validUntil,
        corrections: certificate.corrections,
      },
    }),
  ];
}
