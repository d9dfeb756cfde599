import { useState } from 'react';
import * as v from 'valibot';
import type { ProposedFact } from '#contract';
import { bottleCode, newId } from '#contract';
import { Asking } from '../ui/Asking';
import { Button } from '../ui/Button';
import { TextField } from '../ui/fields';
import { FormDialog } from '../ui/Form';
import { useOutbox } from './useOutbox';

interface OtherCodeProps {
  readonly fact: Extract<ProposedFact, { kind: 'bottle.prepared' }>;
  readonly onRead: () => void;
}

/** Another device has given this code to another bottle: this one takes a new one, and what rests on it goes on. */
export function OtherCode({ fact, onRead }: OtherCodeProps) {
  const outbox = useOutbox();
  const [code, setCode] = useState('');
  const [error, setError] = useState<string>();
  const giveAnother = (): void => {
    const parsed = v.safeParse(bottleCode, code.trim().toUpperCase());
    if (parsed.success) {
      const body = { ...fact.body, code: parsed.output };
      void outbox.replace(fact.id, { ...fact, id: newId(), body });
    } else setError(parsed.issues[0].message);
  };
  return (
    <div role="alert" className="mt-2 rounded border-l-4 border-blush bg-blush-wash p-2">
      <p>
        Another bottle is <b>{fact.body.code}</b> too.
      </p>
      <Asking button="Give it a new code…" look="link">
        {(close) => (
          <FormDialog
            title={`Two bottles ${fact.body.code}`}
            description="Another device used this code first. Give your bottle a new one and write it on its label; what was entered for it is then sent."
            submit="Use this code"
            ways={
              <Button look="quiet" onClick={onRead}>
                Give the bottle up
              </Button>
            }
            onSubmit={giveAnother}
            onClose={close}
          >
            <TextField
              label="New code"
              className="font-mono"
              value={code}
              error={error}
              onText={setCode}
            />
          </FormDialog>
        )}
      </Asking>
    </div>
  );
}
