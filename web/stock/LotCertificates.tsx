import { useMutation } from '@tanstack/react-query';
import type { LotState } from '#core/reagent';
import { sendFile } from '../app/api';
import { useReadAnew } from '../app/useReadAnew';
import { FileButton } from '../ui/FileButton';
import { FormError } from '../ui/FormError';

/** The certificates as files, and attaching another. */
export function LotCertificates({ state }: { readonly state: LotState }) {
  const readAnew = useReadAnew();
  const sending = useMutation({
    mutationFn: async (file: File) => {
      await sendFile(`/lots/${state.id}/certificates`, file);
      await readAnew();
    },
  });
  return (
    <section aria-label="Certificates">
      <h2 className="mb-2 text-lg font-bold">Certificate</h2>
      {state.certificates.length === 0 && (
        <p className="text-ink-soft">None attached: a PDF, or a picture as PNG or JPEG.</p>
      )}
      <Files state={state} />
      <div className="mt-3">
        <FileButton
          label="Certificate file"
          accept="application/pdf,image/png,image/jpeg"
          onFile={sending.mutate}
        >
          Attach a file…
        </FileButton>
      </div>
      <FormError message={sending.error?.message} />
    </section>
  );
}

function Files({ state: { certificates } }: { readonly state: LotState }) {
  return (
    <ul>
      {certificates.map(({ fileId, name, sizeBytes }) => (
        <li key={fileId}>
          <a href={`/api/files/${fileId}`} className="font-semibold text-violet underline" download>
            {name}
          </a>{' '}
          <span className="text-ink-soft">{Math.ceil(sizeBytes / 1024)} kB</span>
        </li>
      ))}
    </ul>
  );
}
