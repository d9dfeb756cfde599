import type { Provenance } from '../../record';

/** What a signature says. The word is stored with it. */
export type SignatureMeaning = 'performed' | 'checked' | 'authorized';

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
