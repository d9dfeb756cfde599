import type { Finding, StoredFile } from '../../record';
import { checkMay, impossible, provenance } from '../../record';
import type { Author } from '../../rights';
import { may } from '../../rights';
import type { RunState, SignatureMeaning } from '../run';
import { openReturn } from '../run';
import type { RunFactDefinition, RunFactTable } from './draft';

interface Signed {
  readonly draft: string;
}

/** How the result of a run is signed for, and given back. */
export interface SigningBodies {
  'run.performed': Signed;
  'run.checked': Signed;
  'run.returned': { readonly remarks: string };
  'run.answered': { readonly answer: string };
  /** Made once, as the certificate is issued: the certificate on paper, or the file of its figures. */
  'run.document-issued': StoredFile;
}

/** A signature takes a password, so the server alone makes it. */
function signing<K extends 'run.performed' | 'run.checked'>(
  means: SignatureMeaning,
): RunFactDefinition<K, Signed> & { readonly needsServer: true } {
  return {
    nature: 'decision',
    needsServer: true,
    isSigned: true,
    check: () => [],
    apply: (draft, fact) => {
      const signature = { ...provenance(fact), means, draft: fact.body.draft };
      draft.signatures = [...draft.signatures, signature];
    },
    sentence: () => `signed: ${means}.`,
  };
}

export const SIGNING_FACTS: RunFactTable<
  SigningBodies,
  'run.performed' | 'run.checked' | 'run.document-issued'
> = {
  'run.performed': signing('performed'),
  'run.checked': signing('checked'),
  'run.returned': {
    nature: 'decision',
    saysWho: true,
    check: (_fact, run, around) => checkReturning(run, around?.author ?? null),
    apply: (draft, fact) => {
      const { remarks } = fact.body;
      draft.returns = [...draft.returns, { ...provenance(fact), remarks, answered: null }];
    },
    sentence: ({ remarks }) => `given back: ${remarks}`,
  },
  'run.answered': {
    nature: 'decision',
    check: (_fact, run, around) => checkAnswering(run, around?.author ?? null),
    apply: (draft, fact) => {
      const last = draft.returns.at(-1);
      if (!last || last.answered) return;
      const answered = { ...provenance(fact), answer: fact.body.answer };
      draft.returns = [...draft.returns.slice(0, -1), { ...last, answered }];
    },
    sentence: ({ answer }) => `answered: ${answer}`,
  },
  'run.document-issued': {
    nature: 'decision',
    needsServer: true,
    file: (body) => body,
    check: () => [],
    apply: (draft, { body }) => {
      draft.documents = [...draft.documents, body];
    },
    sentence: ({ name }) => `made ${name}.`,
  },
};

/**
 * What speaks against somebody giving a run back: it takes a reviewer, or who would authorize it, and something that was signed.
 *
 * @param author null where it is not asked who
 */
export function checkReturning(run: RunState, author: Author | null): readonly Finding[] {
  return [
    ...(author === null || may(author, 'authorize') ? [] : checkMay(author, 'check')),
    ...(run.signatures.some(({ means }) => means === 'performed')
      ? []
      : [impossible('nothing-to-return', 'run')]),
    ...(openReturn(run) ? [impossible('return-open', 'run')] : []),
  ];
}

/**
 * What speaks against somebody answering remarks. Whoever made them does not, unless they signed for the work: then there may be nobody
 * else.
 *
 * @param author null where it is not asked who
 */
export function checkAnswering(run: RunState, author: Author | null): readonly Finding[] {
  const open = openReturn(run);
  const isPerformer = run.signatures.some(
    ({ means, by }) => means === 'performed' && by === author?.id,
  );
  return [
    ...(author ? checkMay(author, 'perform') : []),
    ...(open ? [] : [impossible('nothing-to-answer', 'run')]),
    ...(open && open.by === author?.id && !isPerformer ? [impossible('own-remarks', 'run')] : []),
  ];
}
