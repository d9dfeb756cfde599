import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { RunState } from '#core/titration';
import { sendFile } from '../app/api';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { SelectField } from '../ui/fields';

/** A picture of a finished flask, kept as the shade that the others are titrated to. */
export function PhotographDialog({
  run,
  onClose,
}: {
  readonly run: RunState;
  readonly onClose: () => void;
}) {
  const client = useQueryClient();
  const ended = run.flasks.filter(({ final, voided }) => final && !voided);
  const [flask, setFlask] = useState(ended.at(-1)?.number ?? 0);
  const [failure, setFailure] = useState<string>();
  const [isSending, setIsSending] = useState(false);
  const send = async (file: File): Promise<void> => {
    setFailure(undefined);
    setIsSending(true);
    try {
      const path = `/runs/${run.id}/flasks/${String(flask)}/photographs`;
      await sendFile(`${path}?name=${encodeURIComponent(file.name)}`, file);
      await client.invalidateQueries({ queryKey: ['run', run.id] });
      onClose();
    } catch (error) {
      setFailure(error instanceof Error ? error.message : 'The picture was not taken.');
    } finally {
      setIsSending(false);
    }
  };
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
        <SelectField
          label="Flask"
          value={flask}
          onChange={(event) => {
            setFlask(Number(event.target.value));
          }}
        >
          {ended.map(({ number }) => (
            <option key={number} value={number}>
              flask {number}
            </option>
          ))}
        </SelectField>
        <label className="block font-semibold">
          Picture
          <input
            type="file"
            accept="image/png,image/jpeg"
            capture="environment"
            disabled={isSending}
            className="mt-1 block min-h-12 w-full cursor-pointer rounded-md border border-rule-strong bg-sheet p-2 font-normal"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file) void send(file);
            }}
          />
        </label>
        {failure !== undefined && (
          <p role="alert" className="font-semibold text-blush">
            {failure}
          </p>
        )}
        <div>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </div>
    </Dialog>
  );
}
