import { useState } from 'react';
import * as v from 'valibot';
import type { ProposedFact } from '#contract';
import { bottleCode, newId } from '#contract';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { TextField } from '../ui/fields';
import { useOutbox } from './useOutbox';

/** Another device has given this code to another bottle: this one takes a new one, and what rests on it goes on. */
export function OtherCode({
  fact,
  onRead,
}: {
  readonly fact: Extract<ProposedFact, { kind: 'bottle.prepared' }>;
  readonly onRead: () => void;
}) {
  const outbox = useOutbox();
  const [isAsking, setAsking] = useState(false);
  const [code, setCode] = useState('');
  const [error, setError] = useState<string>();
  return (
    <div role="alert" className="mt-2 rounded border-l-4 border-blush bg-blush-wash p-2">
      <p>
        Another bottle is <b>{fact.body.code}</b> too.
      </p>
      <button
        type="button"
        className="min-h-12 text-left font-semibold text-blush underline lg:min-h-8"
        onClick={() => {
          setAsking(true);
        }}
      >
        Give it a new code…
      </button>
      {isAsking && (
        <Dialog
          title={`Two bottles ${fact.body.code}`}
          description={
            <p>
              Another device gave this code first. Give yours a new one and write it on the bottle;
              what was entered for it is then sent.
            </p>
          }
          onClose={() => {
            setAsking(false);
          }}
        >
          <form
            noValidate
            onSubmit={(event) => {
              event.preventDefault();
              const parsed = v.safeParse(bottleCode, code.trim().toUpperCase());
              if (!parsed.success) {
                setError(parsed.issues[0].message);
                return;
              }
              const body = { ...fact.body, code: parsed.output };
              void outbox.replace(fact.id, { ...fact, id: newId(), body });
            }}
          >
            <TextField
              label="New code"
              className="font-mono"
              value={code}
              error={error}
              onText={setCode}
            />
            <div className="mt-4 flex gap-3">
              <Button type="submit" look="primary">
                Use this code
              </Button>
              <Button look="quiet" onClick={onRead}>
                Give the bottle up
              </Button>
            </div>
          </form>
        </Dialog>
      )}
    </div>
  );
}
