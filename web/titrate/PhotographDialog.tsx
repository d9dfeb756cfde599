import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { RunState } from '#core/titration/run';
import { sendFile } from '../app/api';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { FormError } from '../ui/FormError';
import { FlaskSelect } from './FlaskSelect';

interface PhotographDialogProps {
  readonly run: RunState;
  readonly onClose: () => void;
}

/** A picture of a finished flask, kept as the shade that the others are titrated to. */
export function PhotographDialog({ run, onClose }: PhotographDialogProps) {
  const client = useQueryClient();
  const ended = run.flasks.filter(({ final, voided }) => final && !voided);
  const [flask, setFlask] = useState(ended.at(-1)?.number ?? 0);
  const sending = useMutation({
    mutationFn: async (file: File) => {
      await sendFile(`/runs/${run.id}/flasks/${String(flask)}/photographs`, file);
      await client.invalidateQueries({ queryKey: ['run', run.id] });
    },
    onSuccess: onClose,
  });
  return (
    <Dialog
      title="The shade to match"
      description={
        <p>
          Photograph a flask whose end point was good, in the light that you titrate in. It is shown
          beside the colours from then on.
        </p>
      }
      onClose={onClose}
    >
      <div className="flex flex-col gap-4">
        <FlaskSelect flasks={ended} chosen={flask} onChoose={setFlask} />
        <label className="block font-semibold">
          Picture
          <input
            type="file"
            accept="image/png,image/jpeg"
            capture="environment"
            disabled={sending.isPending}
            className="mt-1 block min-h-12 w-full cursor-pointer rounded-md border border-rule-strong bg-sheet p-2 font-normal"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file) sending.mutate(file);
            }}
          />
        </label>
        <FormError message={sending.error?.message} />
        <div>
          <Button onClick={onClose}>Cancel</Button>
        </div>
      </div>
    </Dialog>
  );
}
