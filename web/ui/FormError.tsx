import { Sentence } from './ShortName';

/** What is wrong with a form as a whole, beside its button. */
export function FormError({ message }: { readonly message: string | undefined }) {
  if (message === undefined) return null;
  return (
    <p
      role="alert"
      className="rounded border-l-4 border-blush bg-blush-wash px-4 py-2 font-semibold"
    >
      <Sentence text={message} />
    </p>
  );
}
