import { ownKeepingDays } from '#core/laboratory';
import type { Knex } from 'knex';
import type { PlainStates } from '#core/ledger';
import type { Fact, StoredFile } from '#core/record';
import type { RunFact } from '#core/titration/record';
import type { Certificate, RunState, StandardizationRun } from '#core/titration/run';
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
import { canonicalText } from '../audit/text';
import { durably } from '../database/durably';
import { insertFile } from '../files/queries';
import { AppError, factIdReused } from '../http/appError';
import {
  makeServerFact,
  refuseStale,
  refuseUnexplained,
  staleVersion,
  storeNext,
} from '../ledger/append';
import { laboratoryNow } from '../ledger/around';
import { findProjection } from '../ledger/queries';
import { confirmSigner } from '../people/accounts';
import type { Printer } from '../print/printer';
import type { Services } from '../services';
import { makeDocuments } from './documents';
import { certifiable, lockWithBottle, openRun } from './openRun';
import { signingNow } from './sign';

/** What certifying takes beside the database. */
export interface Issuing {
  readonly services: Services;
  readonly printer: Pick<Printer, 'print'>;
  /** Under which its page is found. */
  readonly baseUrl: string;
}

/**
 * Certifies a run: freezes its result in the run, with the documents that say so, and writes the molarity on the bottle, all or
 * nothing. The figures are computed here from the facts; the client sends only its decision. The documents are made before the
 * records are locked, and the decision is taken again then: it must come to the same certificate.
 *
 * @throws AppError when the password is wrong, the person may not sign, the run has moved on, or core has something against it.
 */
export async function certifyRun(
  { services, printer, baseUrl }: Issuing,
  person: PersonState,
  runId: string,
  request: CertifyRequest,
): Promise<Certificate> {
  const author = authorOf(person);
  await confirmSigner(services, person, request.password);
  const before = await openRun(services, runId);
  if (!before) throw new AppError('not-found', 'There is no such run.');
  const known = issuedBefore(before, person, request);
  if (known) return known;
  const at = services.now().toISOString();
  const drafted = await decide(services, person, certifiable(before.state), request, at);
  const documents = await makeDocuments({ services, printer }, person, before, drafted, baseUrl);
  return durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    const { run, opened } = await lockWithBottle(inside, certifiable(before.state));
    const sentBefore = issuedBefore(run, person, request);
    if (sentBefore) return sentBefore;
    const certificate = await decide(inside, person, certifiable(run.state), request, at);
    if (canonicalText(certificate) !== canonicalText(drafted)) throw staleVersion();
    for (const { stored, content } of documents) {
      const { fileId: id, name, type, sha256 } = stored;
      await insertFile(tx, { id, record_id: runId, name, type, sha256, content });
    }
    const files = documents.map(({ stored }) => stored);
    const facts = certifiedFacts(services, person, run.state, request, certificate, files);
    await storeNext(inside, author, facts, opened);
    return certificate;
  });
}

/** The certificate that was issued on this very decision; null before. @throws AppError `fact-id-reused` when it was another one */
function issuedBefore(
  { facts }: { readonly facts: readonly RunFact[] },
  person: PersonState,
  request: CertifyRequest,
): Certificate | null {
  const known = facts.find(({ id }) => id === request.factId);
  if (!known) return null;
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

/** @param at when it is signed, ISO 8601 */
async function decide(
  services: Services,
  person: PersonState,
  run: StandardizationRun,
  request: CertifyRequest,
  at: string,
): Promise<Certificate> {
  const tx = services.db;
  refuseStale(request.basedOn, run.version);
  const bottle = await findProjection(tx, 'bottle', run.setUp.bottle.id);
  const { today, settings } = await laboratoryNow(tx, services);
  const ownDays = ownKeepingDays(settings, run.references.bottle.substanceId);
  const judgement = judgeRun(run);
  const { draft } = request;
  const author = authorOf(person);
  const signing = await signingNow(tx, run, judgement, { means: 'authorized', draft, author });
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

/** What a certificate writes into the run, its documents first, and on its bottle; not numbered yet. */
function certifiedFacts(
  services: Services,
  person: PersonState,
  run: RunState,
  request: CertifyRequest,
  certificate: Certificate,
  files: readonly StoredFile[],
): readonly Fact[] {
  const { deviceId, deviceTime, clockOffsetMs, basedOn } = request;
  const device = { deviceId, deviceTime, clockOffsetMs };
  const { number, molarity, expandedUncertainty, coverageFactor, certifiedOn, validUntil } =
    certificate;
  const { unrounded, effectiveDegreesOfFreedom, restsOn } = certificate;
  return [
    ...files.map((body) =>
      makeServerFact(services, person.id, {
        recordId: run.id,
        recordKind: 'run',
        kind: 'run.document-issued',
        body,
      }),
    ),
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
      recordId: certifiable(run).setUp.bottle.id,
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
