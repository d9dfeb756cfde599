import type { Finding } from '../../record';
import { checkMay, impossible, provenance } from '../../record';
import type { Author } from '../../rights';
import { may } from '../../rights';
import type { RunState, SignatureMeaning } from '../run';
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
}

/** A signature takes a password, so the server alone makes it. */
function signing<K extends 'run.performed' | 'run.checked'>(
  means: SignatureMeaning,
): RunFactDefinition<K, Signed> & { readonly needsServer: true } {
  return {
    nature: 'decision',
    needsServer: true,
    check: () => [],
    apply: (draft, fact) => {
      const signature = { ...provenance(fact), means, draft: fact.body.draft };
      draft.signatures = [...draft.signatures, signature];
    },
    sentence: () => `signed: ${means}.`,
  };
}

export const SIGNING_FACTS: RunFactTable<SigningBodies, 'run.performed' | 'run.checked'> = {
  'run.performed': signing('performed'),
  'run.checked': signing('checked'),
  'run.returned': {
    nature: 'decision',
    saysWho: true,
    check: (_fact, run, around) => [
      ...(around ? checkMayReturn(around.author) : []),
      ...(run.signatures.some(({ means }) => means === 'performed')
        ? []
        : [impossible('nothing-to-return', 'run')]),
      ...(openReturn(run) ? [impossible('return-open', 'run')] : []),
    ],
    apply: (draft, fact) => {
      const { remarks } = fact.body;
      draft.returns = [...draft.returns, { ...provenance(fact), remarks, answered: null }];
    },
    sentence: ({ remarks }) => `given back: ${remarks}`,
  },
  'run.answered': {
    nature: 'decision',
    check: (_fact, run, around) => [
      ...(around
        ? [...checkMay(around.author, 'perform'), ...notOwnRemarks(run, around.author)]
        : []),
      ...(openReturn(run) ? [] : [impossible('nothing-to-answer', 'run')]),
    ],
    apply: (draft, fact) => {
      const last = draft.returns.at(-1);
      if (!last || last.answered) return;
      const answered = { ...provenance(fact), answer: fact.body.answer };
      draft.returns = [...draft.returns.slice(0, -1), { ...last, answered }];
    },
    sentence: ({ answer }) => `answered: ${answer}`,
  },
};

/** The return that nobody has answered yet. */
function openReturn({ returns }: Pick<RunState, 'returns'>) {
  return returns.find(({ answered }) => answered === null);
}

/** Whoever remarked something does not answer it, unless they signed for the work: then there may be nobody else. */
function notOwnRemarks(run: RunState, { id }: Author): readonly Finding[] {
  const isPerformer = run.signatures.some(({ means, by }) => means === 'performed' && by === id);
  return openReturn(run)?.by === id && !isPerformer ? [impossible('own-remarks', 'run')] : [];
}

/** Whoever looks a run through gives it back: a reviewer, or who would authorize it. */
function checkMayReturn(author: Author): readonly Finding[] {
  return may(author, 'authorize') ? [] : checkMay(author, 'check');
}
