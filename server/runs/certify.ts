import { ownKeepingDays } from '#core/laboratory';
import type { Knex } from 'knex';
import type { PlainStates } from '#core/ledger';
import type { Fact } from '#core/record';
import type { RunFact } from '#core/titration/record';
import type { Certificate, RunState } from '#core/titration/run';
import type { RunSetUp } from '#core/titration/setUp';
import {
  certificationFindings,
  issueCertificate,
  judgeRun,
  outOfUseFindings,
  signaturesWith,
} from '#core/titration/judging';
import { namedRecords } from '#core/titration/setUp';
import type { PersonState } from '#core/people';
import { authorOf } from '#core/people';
import type { CertifyRequest } from '#contract';
import { durably } from '../database/durably';
import { AppError, factIdReused } from '../http/appError';
import {
  lockAndOpen,
  makeServerFact,
  refuseStale,
  refuseUnexplained,
  storeNext,
} from '../ledger/append';
import { laboratoryNow } from '../ledger/around';
import { findProjection } from '../ledger/queries';
import { findRun, foldLoaded, recordOf } from '../ledger/references';
import { confirmSigner } from '../people/accounts';
import type { Services } from '../services';
import { signingNow } from './sign';

/**
 * Certifies a run: freezes its result in the run and writes the molarity on the bottle, both or neither. The
 * figures are computed here from the facts; the client sends only its decision.
 *
 * @throws AppError when the password is wrong, the person may not sign, the run has moved on, or core has something against it.
 */
export async function certifyRun(
  services: Services,
  person: PersonState,
  runId: string,
  request: CertifyRequest,
): Promise<Certificate> {
  const author = authorOf(person);
  await confirmSigner(services, person, request.password);
  return durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    // What a run rests on never changes, so its bottle is known before either is locked.
    const before = await findRun(inside, runId);
    if (!before) throw new AppError('not-found', 'There is no such run.');
    const bottleId = before.state.setUp.bottle.id;
    const opened = await lockAndOpen(inside, [
      { id: runId, kind: 'run' },
      { id: bottleId, kind: 'bottle' },
    ]);
    const run = foldLoaded(recordOf(opened.records, runId));
    if (!run) throw new RangeError(`run ${runId} vanished while it was being locked`);
    const sentBefore = run.facts.find((fact) => fact.id === request.factId);
    if (sentBefore) return sameCertificate(sentBefore, person, request);
    refuseStale(request.basedOn, run.state.version);
    const certificate = await decide(tx, services, person, run.state, request);
    const facts = certifiedFacts(services, person, run.state, request, certificate);
    await storeNext(inside, author, facts, opened);
    return certificate;
  });
}

/** The certificate that was issued on this very decision. @throws AppError `fact-id-reused` when it was another one */
function sameCertificate(
  known: RunFact,
  person: PersonState,
  request: CertifyRequest,
): Certificate {
  if (known.kind === 'run.certified') {
    const { certificate } = known.body;
    const isSame =
      known.authorId === person.id &&
      known.basedOn === request.basedOn &&
      certificate.validUntil === request.validUntil &&
      certificate.reason === request.reason;
    if (isSame) return certificate;
  }
  throw factIdReused();
}

async function decide(
  tx: Knex,
  services: Services,
  person: PersonState,
  run: RunState,
  request: CertifyRequest,
): Promise<Certificate> {
  const bottle = await findProjection(tx, 'bottle', run.setUp.bottle.id);
  const { today, settings } = await laboratoryNow(tx, services);
  const ownDays = ownKeepingDays(settings, run.references.bottle.substanceId);
  const judgement = judgeRun(run);
  const { draft } = request;
  const author = authorOf(person);
  const signing = await signingNow(tx, run, judgement, { means: 'authorized', draft, author });
  const at = services.now().toISOString();
  const decision = {
    ...signaturesWith(run, signing, { by: person.id, at }),
    number: `${run.references.bottle.code}-${String((bottle?.certified.length ?? 0) + 1)}`,
    certifiedById: person.id,
    certifiedOn: today,
    validUntil: request.validUntil,
    reason: request.reason,
  };
  const now = {
    bottles: await partsNow(tx, run.setUp, 'bottle'),
    lots: await partsNow(tx, run.setUp, 'lot'),
    equipment: await partsNow(tx, run.setUp, 'equipment'),
  };
  const findings = [
    ...certificationFindings(run, judgement, decision, ownDays),
    ...outOfUseFindings(run.setUp, now),
  ];
  refuseUnexplained(findings, decision);
  return issueCertificate(run, judgement, decision);
}

/** What a run rests on of one kind, as it is now. */
async function partsNow<K extends 'bottle' | 'lot' | 'equipment'>(
  tx: Knex,
  setUp: RunSetUp,
  kind: K,
): Promise<PlainStates[K][]> {
  const found: PlainStates[K][] = [];
  for (const part of namedRecords(setUp).filter((one) => one.kind === kind)) {
    const state = await findProjection(tx, kind, part.at.id);
    if (state) found.push(state);
  }
  return found;
}

/** What a certificate writes into the run and on its bottle; not numbered yet. */
function certifiedFacts(
  services: Services,
  person: PersonState,
  run: RunState,
  request: CertifyRequest,
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
