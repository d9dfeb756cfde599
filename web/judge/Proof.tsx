import { useMutation } from '@tanstack/react-query';
import { useLocation } from 'react-router';
import type * as v from 'valibot';
import type { StoredFile } from '#core/record';
import { digestOf } from '#core/record';
import { askForFile, readAnswer } from '../app/api';
import { Button } from '../ui/Button';
import { FormError } from '../ui/FormError';

/** The file of a certificate or report as it was issued. */
interface FileAtHand<File> {
  /** As it was read, with all that is in it. */
  readonly json: unknown;
  readonly file: File;
  /** SHA-256 of its canonical form, in which it is kept. */
  readonly sha256: string;
}

/** Reads what was issued. @param path below the address of the server's interface */
export async function readIssuedFile<File>(
  schema: v.GenericSchema<unknown, File>,
  path: string,
): Promise<FileAtHand<File>> {
  const sent = await askForFile('GET', path);
  const json = JSON.parse(await sent.text()) as object;
  return { json, file: readAnswer(schema, json), sha256: digestOf(json) };
}

/** Saves a file that was issued. */
export function FileLink({ href, children }: { readonly href: string; readonly children: string }) {
  return (
    <a
      href={href}
      download
      className="inline-flex min-h-12 items-center rounded-md bg-violet px-5 font-semibold text-on-violet hover:bg-violet-deep"
    >
      {children}
    </a>
  );
}

interface ProofProps {
  readonly documents: readonly StoredFile[];
  readonly at: Pick<FileAtHand<unknown>, 'json' | 'sha256'>;
  readonly href: string;
}

/** Whether a paper is the one that was issued, and whether its entries come to its figures. */
export function Proof({ documents, at: { json, sha256 }, href }: ProofProps) {
  // The printed code leads here with the digest that stands on the paper.
  const printed = useLocation().hash.slice(1).toLowerCase();
  const kept = documents.find(({ type }) => type === 'application/json');
  const again = useMutation({
    mutationFn: async () => (await import('#reproduce')).reproduce(json),
  });
  return (
    <aside aria-label="Proof" className="rounded-md border border-rule bg-sheet p-4">
      <h2 className="mb-2 text-lg font-bold">Is this the one?</h2>
      {kept ? (
        <>
          <p>
            {sha256 === kept.sha256
              ? 'The file is as it was issued. Its SHA-256, which stands on the paper too:'
              : 'The file is not as it was issued: tell whoever looks after the server.'}
          </p>
          <p className="my-2 font-mono text-sm wrap-anywhere">{sha256}</p>
        </>
      ) : (
        <p>Issued before documents were kept: its file is made from the entries.</p>
      )}
      {printed !== '' && (
        <p className={`font-semibold ${printed === sha256 ? 'text-leaf' : 'text-blush'}`}>
          {printed === sha256
            ? 'The code on the paper is that of this file.'
            : 'The code on the paper is of another file: do not rely on that paper.'}
        </p>
      )}
      <p className="my-3">
        <a href={href} download className="font-semibold text-violet underline underline-offset-4">
          Save it with all entries, as JSON
        </a>
      </p>
      <Button
        disabled={again.isPending}
        onClick={() => {
          again.mutate();
        }}
      >
        Compute it again
      </Button>
      <div role="status" className="mt-2">
        {again.data?.kind === 'identical' && (
          <p className="font-semibold text-leaf">
            Identical: {again.data.compared} figures, each within 1 part in 10¹².
          </p>
        )}
        {again.data?.kind === 'different' && (
          <ul className="list-disc pl-5 text-blush">
            {again.data.places.map((place) => (
              <li key={place}>{place}</li>
            ))}
          </ul>
        )}
        {again.data?.kind === 'refused' && <p className="text-blush">{again.data.sentence}</p>}
        <FormError message={again.error?.message} />
      </div>
    </aside>
  );
}
