import type { Id, PlainDate } from '#core/grammar';
import type { Settings } from '#core/laboratory';
import type { Fact, StoredFile } from '#core/record';
import type { PersonState } from '#core/people';
import { authorOf } from '#core/people';
import type { RecordKind } from '#core/ledger';
import { signaturesWith } from '#core/titration/judging';
import type { RunFact } from '#core/titration/record';
import type { RunState } from '#core/titration/run';
import type { CertifyRequest, ReportRequest } from '#contract';
import { canonicalText } from '../audit/text';
import { durably } from '../database/durably';
import { insertFile } from '../files/queries';
import { AppError, factIdReused } from '../http/appError';
import { makeServerFact, refuseStale, staleVersion, storeNext } from '../ledger/append';
import { laboratoryNow } from '../ledger/around';
import type { LoadedRun } from '../ledger/references';
import { confirmSigner } from '../people/accounts';
import type { Printer } from '../print/printer';
import type { Services } from '../services';
import type { RunAtHand } from './openRun';
import { lockWith, openRun } from './openRun';
import { signingNow } from './sign';

/** What issuing takes beside the database. */
export interface Issuing {
  readonly services: Services;
  readonly printer: Pick<Printer, 'print'>;
  /** Under which its page is found. */
  readonly baseUrl: string;
}

/** A file that is issued: what its fact says of it, and its bytes. */
export interface IssuedFile {
  readonly stored: StoredFile;
  readonly content: Buffer;
}

/** Who issues something of which run, and what is around it. */
export interface Deciding<Run, Request> {
  readonly services: Services;
  readonly person: PersonState;
  readonly run: Run;
  readonly request: Request;
  /** In the laboratory. */
  readonly today: PlainDate;
  readonly settings: Settings;
  /** The signatures that it bears, the last of them that of this person. */
  readonly signed: ReturnType<typeof signaturesWith>;
}

/** Something that is issued of a run with a password: a certificate of its titrant, a report of its samples. */
export interface Issue<Run extends RunState, Issued extends object, Request> {
  /** The run as one of which this is issued. @throws AppError for another */
  readonly of: (run: RunState) => Run;
  /** The records beside the run that are written on. */
  readonly also: (run: Run) => readonly { readonly id: string; readonly kind: RecordKind }[];
  /** What a fact of the same person on the same version issued, if it is this very decision; null for any other. */
  readonly issuedBy: (fact: RunFact, request: Request) => Issued | null;
  readonly decide: (deciding: Deciding<Run, Request>) => Promise<Issued>;
  readonly documents: (
    issuing: Issuing,
    person: PersonState,
    run: RunAtHand,
    issued: Issued,
  ) => Promise<readonly IssuedFile[]>;
  /** What it writes into the run and beside it, after its documents; not numbered yet. */
  readonly facts: (deciding: Deciding<Run, Request>, issued: Issued) => readonly Fact[];
}

/**
 * Issues something of a run: freezes it in the run, with the documents that say so, and writes what follows from it on other records,
 * all or nothing. The figures are computed here from the facts; the client sends only its decision. The documents are made before the
 * records are locked, and the decision is taken again then: it must come to the same.
 *
 * @throws AppError when the password is wrong, the person may not sign, the run has moved on, or core has something against it.
 */
export async function issue<
  Run extends RunState,
  Issued extends object,
  Request extends CertifyRequest | ReportRequest,
>(
  what: Issue<Run, Issued, Request>,
  issuing: Issuing,
  person: PersonState,
  runId: Id,
  request: Request,
): Promise<Issued> {
  const { services } = issuing;
  const author = authorOf(person);
  await confirmSigner(services, person, request.password);
  const before = await openRun(services, runId);
  if (!before) throw new AppError('not-found', 'There is no such run.');
  const issuedBefore = ({ facts }: Pick<LoadedRun, 'facts'>): Issued | null => {
    const known = facts.find(({ id }) => id === request.factId);
    if (!known) return null;
    const isTheirs = known.authorId === person.id && known.basedOn === request.basedOn;
    const issued = isTheirs ? what.issuedBy(known, request) : null;
    if (issued === null) throw factIdReused();
    return issued;
  };
  const known = issuedBefore(before);
  if (known) return known;
  const at = services.now().toISOString();
  const signedBy = async (db: Services['db'], state: RunState): Promise<Deciding<Run, Request>> => {
    const run = what.of(state);
    refuseStale(request.basedOn, run.version);
    const { today, settings } = await laboratoryNow(db, services);
    const { draft } = request;
    const signing = await signingNow(db, run, { means: 'authorized', draft, author });
    const signed = signaturesWith(run, signing, { by: person.id, at });
    return { services: { ...services, db }, person, run, request, today, settings, signed };
  };
  const drafted = await what.decide(await signedBy(services.db, before.state));
  const documents = await what.documents(issuing, person, before, drafted);
  return durably(services.db, async (tx) => {
    const inside = { ...services, db: tx };
    const { run, opened } = await lockWith(inside, runId, what.also(what.of(before.state)));
    const sentBefore = issuedBefore(run);
    if (sentBefore) return sentBefore;
    const deciding = await signedBy(tx, run.state);
    const issued = await what.decide(deciding);
    if (canonicalText(issued) !== canonicalText(drafted)) throw staleVersion();
    for (const { stored, content } of documents) {
      const { fileId: id, name, type, sha256 } = stored;
      await insertFile(tx, { id, record_id: runId, name, type, sha256, content });
    }
    const files = documents.map(({ stored }) => fileFact(services, person, runId, stored));
    await storeNext(inside, author, [...files, ...what.facts(deciding, issued)], opened);
    return issued;
  });
}

function fileFact(services: Services, person: PersonState, runId: Id, body: StoredFile): Fact {
  const kind = 'run.document-issued';
  return makeServerFact(services, person.id, { recordId: runId, recordKind: 'run', kind, body });
}
