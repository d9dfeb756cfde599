import type { Around, Provenance, RecordHead, Withdrawable, WithdrawalBody } from '../record';
import { checkMay, defineRecord, lasting, provenance, RETURNED, takes, WITHDRAWN } from '../record';
import { checkRules } from '../laboratory';
import type { Method } from './catalogue/entries';
import { checkCatalogue } from './checkCatalogue';
import { extendCatalogue, NO_ENTRIES } from './lookUp';
import type { AroundEntries } from './ownEntry';
import { catalogueWith, checkOwn, refersToOwn } from './ownEntry';

export interface MethodFactBodies {
  /** The whole method; each writing is a version of its own. */
  'method.written': { readonly method: Method; readonly reason: string };
  'method.withdrawn': WithdrawalBody;
  'method.returned': WithdrawalBody;
}

/** A method of a laboratory's own, as its facts tell it. */
export interface MethodState extends RecordHead, Withdrawable {
  readonly method: Method;
  /** Who wrote each version and why, oldest first. */
  readonly written: readonly (Provenance & { readonly reason: string })[];
}

/** Nor did a method of one's own add a reagent in excess. */
function toMethodWithoutExcess(body: unknown): unknown {
  const { method, ...rest } = body as { readonly method: object };
  return { ...rest, method: { excess: null, ...method } };
}

/** A method of a laboratory's own: written, as often as it is changed, in and out of use. */
export const METHOD_RECORD = defineRecord<
  'method',
  MethodFactBodies,
  MethodState,
  Pick<Around, 'author'> & AroundEntries
>({
  kind: 'method',
  first: 'method.written',
  begin: (fact) =>
    fact.kind === 'method.written'
      ? {
          method: fact.body.method,
          written: [{ ...provenance(fact), reason: fact.body.reason }],
          withdrawn: null,
        }
      : null,
  listed: ({ method: { name }, withdrawn }) => ({
    name,
    words: [],
    aboutId: null,
    standing: lasting(withdrawn ? 'withdrawn' : 'in-use'),
    atHandUntil: null,
  }),
  facts: {
    'method.written': {
      nature: 'decision',
      repeats: true,
      earlier: [toMethodWithoutExcess],
      refersTo: ({ method }) => refersToOwn(method),
      check: ({ body: { method } }, _state, around) => [
        ...checkMay(around.author, 'manage'),
        ...checkOwn(method, around),
        ...checkCatalogue(
          extendCatalogue(catalogueWith(method.own ?? []), { ...NO_ENTRIES, methods: [method] }),
        ),
        ...checkRules(method.rules),
      ],
      apply: ({ written }, fact) => ({
        method: fact.body.method,
        written: [...written, { ...provenance(fact), reason: fact.body.reason }],
      }),
      sentence: ({ method, reason }) => `method ${method.name}: ${reason}.`,
    },
    'method.withdrawn': takes(WITHDRAWN, 'manage'),
    'method.returned': takes(RETURNED, 'manage'),
  },
});
