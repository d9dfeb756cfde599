import type { Knex } from 'knex';
import type { Fact } from '#core/record';
import { currentSchemaVersion } from '#core/record';
import type { Certificate, RunState } from '#core/titration';
import { certificationFindings, issueCertificate, judgeRun } from '#core/titration';
import type { CertifyRequest, Person } from '#contract';
import { durably } from '../database/durably';
import { AppError } from '../http/appError';
import { today } from '../ledger/admit';
import { refuseStale, refuseUnexplained, store } from '../ledger/append';
import { findProjection, lockRecord } from '../ledger/queries';
import type { LoadedRecord } from '../ledger/references';
import { foldLoaded, loadRecord } from '../ledger/references';
import type { Services } from '../services';

/**
 * Certifies a run: freezes its result in the run and writes the molarity on the bottle, both or neither. The
 * figures are computed here from the facts; the client sends only its decision.
 *
 * @throws AppError when the person may not certify, the run has moved on, or core has something against it.
 */
export async function certifyRun(
  services: Services,
  person: Person,
  runId: string,
  request: CertifyRequest,
): Promise<Certificate> {
  if (!person.mayCertify) {
    throw new AppError(
      'not-allowed',
      'You may titrate and judge, but not certify. Ask somebody who may.',
    );
  }
  return durably(services.db, async (tx) => {
    const { version } = await lockRecord(tx, runId, 'run');
    const record = await loadRecord(tx, runId, 'run');
    const run = foldLoaded(record);
    if (!run) throw new AppError('not-found', 'There is no such run.');
    const sentBefore = run.facts.find((fact) => fact.id === request.factId);
    if (sentBefore?.kind === 'run.certified') return sentBefore.body.certificate;
    refuseStale(request.basedOn, version);
    const certificate = await decide(tx, services, person, run.state, request);
    await storeCertificate(tx, services, person, { record, run: run.state }, request, certificate);
    return certificate;
  });
}

async function decide(
  tx: Knex,
  services: Services,
  person: Person,
  run: RunState,
  request: CertifyRequest,
): Promise<Certificate> {
  const bottle = await findProjection(tx, 'bottle', run.setUp.bottle.id);
  const decision = {
    number: `${run.references.bottle.code}-${String((bottle?.certified.length ?? 0) + 1)}`,
    certifiedById: person.id,
    certifiedOn: await today(tx, services),
    validUntil: request.validUntil,
    reason: request.reason,
  };
  const judgement = judgeRun(run);
  refuseUnexplained(certificationFindings(run, judgement, decision), decision);
  return issueCertificate(run, judgement, decision);
}

async function storeCertificate(
  tx: Knex,
  services: Services,
  person: Person,
  { record, run }: { record: LoadedRecord; run: RunState },
  request: CertifyRequest,
  certificate: Certificate,
): Promise<void> {
  // Every lock is taken before the first entry in the audit log, which everybody else waits for.
  const bottleId = run.setUp.bottle.id;
  await lockRecord(tx, bottleId, 'bottle');
  const bottle = await loadRecord(tx, bottleId, 'bottle');
  const common = {
    authorId: person.id,
    deviceId: request.deviceId,
    clockOffsetMs: request.clockOffsetMs,
    deviceTime: request.deviceTime,
    recordedAt: services.now().toISOString(),
  };
  const certified: Fact = {
    ...common,
    id: request.factId,
    recordId: run.id,
    recordKind: 'run',
    kind: 'run.certified',
    schemaVersion: currentSchemaVersion('run.certified'),
    body: { certificate },
    basedOn: request.basedOn,
    sequence: run.version + 1,
  };
  await store(tx, certified, record);
  const { number, molarity, expandedUncertainty, coverageFactor, certifiedOn, validUntil } =
    certificate;
  const onBottle: Fact = {
    ...common,
    id: request.bottleFactId,
    recordId: bottleId,
    recordKind: 'bottle',
    kind: 'bottle.certified',
    schemaVersion: currentSchemaVersion('bottle.certified'),
    body: {
      runId: run.id,
      certificateNumber: number,
      molarity,
      expandedUncertainty,
      coverageFactor,
      certifiedOn,
      validUntil,
    },
    basedOn: null,
    sequence: bottle.facts.length + 1,
  };
  await store(tx, onBottle, bottle);
}
