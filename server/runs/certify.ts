import { ownKeepingDays } from '#core/laboratory';
import type { Fact } from '#core/record';
import type { Certificate, StandardizationRun } from '#core/titration/run';
import {
  certificationFindings,
  issueCertificate,
  indicatorIdOf,
  judgeRun,
  outOfUseFindings,
} from '#core/titration/judging';
import type { CertifyRequest } from '#contract';
import { deviceOf, makeServerFact, refuseUnexplained } from '../ledger/append';
import { findProjection } from '../ledger/queries';
import { makeDocuments } from './documents';
import type { Deciding, Issue } from './issue';
import { certifiable } from './openRun';
import { partsNow } from './partsNow';

/** A certificate of the titrant of a run: its molarity is written on the bottle. */
export const CERTIFICATE: Issue<StandardizationRun, Certificate, CertifyRequest> = {
  of: certifiable,
  also: ({ setUp }) => [{ id: setUp.bottle.id, kind: 'bottle' }],
  issuedBy: (fact, { validUntil, reason }) => {
    if (fact.kind !== 'run.certified') return null;
    const { certificate } = fact.body;
    const isSame = certificate.validUntil === validUntil && certificate.reason === reason;
    return isSame ? certificate : null;
  },
  decide,
  documents: makeDocuments,
  facts: certifiedFacts,
};

async function decide({
  services: { db },
  person,
  run,
  request,
  today,
  settings,
  signed,
}: Deciding<StandardizationRun, CertifyRequest>): Promise<Certificate> {
  const bottle = await findProjection(db, 'bottle', run.setUp.bottle.id);
  const ownDays = ownKeepingDays(settings, run.references.bottle.substanceId);
  const judgement = judgeRun(run);
  const decision = {
    ...signed,
    number: `${run.references.bottle.code}-${String((bottle?.certified.length ?? 0) + 1)}`,
    certifiedById: person.id,
    certifiedOn: today,
    validUntil: request.validUntil,
    reason: request.reason,
  };
  const findings = [
    ...certificationFindings(run, judgement, decision, ownDays),
    ...outOfUseFindings(run.setUp, await partsNow(db, run.setUp)),
  ];
  refuseUnexplained(findings, decision);
  return issueCertificate(run, judgement, decision);
}

/** What a certificate writes into the run and on its bottle. */
function certifiedFacts(
  { services, person, run, request }: Deciding<StandardizationRun, CertifyRequest>,
  certificate: Certificate,
): readonly Fact[] {
  const { basedOn } = request;
  const device = deviceOf(request);
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
        indicatorId: indicatorIdOf(run, judgeRun(run)),
      },
    }),
  ];
}
