import type { Provenance } from '../../record';

/** What a signature says, in the order of signing. The word is stored with it. */
export const SIGNATURE_MEANINGS = ['performed', 'checked', 'authorized'] as const;
export type SignatureMeaning = (typeof SIGNATURE_MEANINGS)[number];

/** Somebody's word, given with their password, for what a run came to. */
export interface Signature extends Provenance {
  readonly means: SignatureMeaning;
  /** SHA-256 of the draft that was shown, in hexadecimal. It counts for no other. */
  readonly draft: string;
}

/** Given back by whoever looked it through, to be answered before it goes on. */
export interface Return extends Provenance {
  readonly remarks: string;
  /** Null while nobody has answered. */
  readonly answered: (Provenance & { readonly answer: string }) | null;
}

/** The return that nobody has answered yet. */
export function openReturn({ returns }: { readonly returns: readonly Return[] }): Return | null {
  return returns.find(({ answered }) => answered === null) ?? null;
}
