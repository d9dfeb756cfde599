import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import * as v from 'valibot';
import { letterheadSchema } from '#contract';
import { sendFile } from '../app/api';
import { useAddToRecord } from '../app/entering';
import { useSession } from '../app/session';
import { useReadAnew } from '../app/useReadAnew';
import { AskingWhy } from '../ui/AskingWhy';
import { TextAreaField } from '../ui/fields';
import { FileButton } from '../ui/FileButton';
import { FormError } from '../ui/FormError';

/** What stands at the head of certificates, for whoever may set it. */
export function LetterheadSection() {
  const { laboratory } = useSession();
  return (
    <section className="mt-8 border-t border-rule pt-4">
      <h2 className="mb-1 text-lg font-bold">Letterhead</h2>
      <p className="mb-3 max-w-2xl text-sm text-ink-soft">
        Under the name, at the head of every certificate that is issued from now on. A mark of
        accreditation has no place here: what is certified says itself what it rests on.
      </p>
      <div className="grid max-w-4xl grid-cols-1 gap-8 md:grid-cols-2">
        <Lines key={laboratory.version} />
        <Logo />
      </div>
    </section>
  );
}

function Lines() {
  const { laboratory } = useSession();
  const add = useAddToRecord();
  const [typed, setTyped] = useState(laboratory.letterhead.join('\n'));
  const lines = typed
    .split('\n')
    .map((one) => one.trim())
    .filter((one) => one !== '');
  const refused = v.safeParse(letterheadSchema, lines).issues?.[0].message;
  const { id: recordId, version: basedOn } = laboratory;
  return (
    <div className="flex flex-col items-start gap-3">
      <div className="w-full">
        <TextAreaField
          label="Lines, such as an address"
          value={typed}
          error={refused}
          onText={setTyped}
        />
      </div>
      <AskingWhy
        button="Set the lines…"
        disabled={refused !== undefined || lines.join('\n') === laboratory.letterhead.join('\n')}
        question={{
          title: 'Set the letterhead?',
          description: 'Certificates that were issued keep theirs.',
          confirm: 'Set it',
          onConfirm: (reason) => {
            const fact = { kind: 'laboratory.letterhead-set', body: { lines, reason } } as const;
            return add.mutateAsync({ recordId, basedOn, fact });
          },
        }}
      />
    </div>
  );
}

function Logo() {
  const { laboratory } = useSession();
  const { logo, id: recordId, version: basedOn } = laboratory;
  const add = useAddToRecord();
  const readAnew = useReadAnew();
  const sending = useMutation({
    mutationFn: async (file: File) => {
      await sendFile('/laboratory/logo', file);
      await readAnew();
    },
  });
  return (
    <div>
      <h3 className="font-semibold">Logo</h3>
      {logo ? (
        <img
          src={`/api/files/${logo.fileId}`}
          alt={`Logo: ${logo.name}`}
          className="my-2 max-h-24 max-w-[260px] border border-rule bg-sheet p-2"
        />
      ) : (
        <p className="my-2 text-ink-soft">None: a picture as PNG or JPEG, at most 1 MB.</p>
      )}
      <div className="flex flex-wrap gap-3">
        <FileButton label="Logo file" accept="image/png,image/jpeg" onFile={sending.mutate}>
          {logo ? 'Attach another…' : 'Attach a picture…'}
        </FileButton>
        {logo && (
          <AskingWhy
            button="Without one…"
            question={{
              title: 'Print without a logo?',
              description: 'Certificates that were issued keep theirs.',
              confirm: 'Without one',
              onConfirm: (reason) => {
                const fact = { kind: 'laboratory.logo-removed', body: { reason } } as const;
                return add.mutateAsync({ recordId, basedOn, fact });
              },
            }}
          />
        )}
      </div>
      <FormError message={sending.error?.message} />
    </div>
  );
}
