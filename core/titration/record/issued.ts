import type { Fact, Finding } from '../../record';
import { checkMay, impossible, provenance } from '../../record';
import type { Author } from '../../rights';
import type { Issued, RunState } from '../run';
import type { Draft } from './draft';

/** Closes a run by what is issued of it; gives that with the documents that were made for it. */
export function closeBy<Body extends object>(
  draft: Draft,
  fact: Fact<string, Body>,
  status: Extract<RunState['status'], 'certified' | 'reported'>,
): Body & Issued {
  const { documents } = draft;
  draft.status = status;
  draft.documents = [];
  draft.closed = { ...provenance(fact), reason: null };
  return { ...fact.body, documents, withdrawn: null };
}

/** Opens a run again whose last certificate or report is withdrawn; gives all that was issued, that one marked. */
export function reopenBy<One extends Issued>(
  draft: Draft,
  fact: Fact<string, { readonly reason: string }>,
  issued: readonly One[],
): readonly One[] {
  const last = issued.at(-1);
  if (!last) return issued;
  draft.status = 'open';
  draft.closed = null;
  const withdrawn = { ...provenance(fact), reason: fact.body.reason };
  return [...issued.slice(0, -1), { ...last, withdrawn }];
}

/**
 * What speaks against withdrawing what was issued: it must be in force, and take somebody who may issue it.
 *
 * @param author null where it is not asked who
 */
export function checkInForce(
  inForce: { readonly number: string } | null,
  number: string,
  author: Author | null,
  code: 'not-in-force' | 'report-not-in-force',
): readonly Finding[] {
  return [
    ...(author ? checkMay(author, 'authorize') : []),
    ...(inForce?.number === number ? [] : [impossible(code, 'number', { number })]),
  ];
}
