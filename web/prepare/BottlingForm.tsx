import { useState } from 'react';
import { newId } from '#contract';
import type { Container } from '#core/chemistry';
import { keepingOf } from '#core/chemistry';
import type { PreparationState } from '#core/preparation';
import { checkBottling, resultOf } from '#core/preparation';
import { suggestValidUntil } from '#core/reagent';
import { ProblemError, tell } from '../app/api';
import { deviceStamp } from '../app/device';
import { useSession } from '../app/session';
import type { Stock } from '../app/stock';
import { useReadAnew } from '../app/useReadAnew';
import { useWaiting } from '../outbox/useOutbox';
import { Button } from '../ui/Button';
import { ContainerField } from '../ui/ContainerField';
import { TextField } from '../ui/fields';
import { Findings, isLetThrough } from '../ui/Findings';
import { FormError } from '../ui/FormError';
import { useNextCode } from './useNextCode';
import { usePinned } from './usePinned';

/** Fills what was made into its bottle: code, container, last day. The server computes the molarity from what was done. */
export function BottlingForm({
  preparation,
  stock,
}: {
  readonly preparation: PreparationState;
  readonly stock: Stock;
}) {
  const { today } = useSession();
  const readAnew = useReadAnew();
  const waiting = useWaiting();
  const { plan } = preparation;
  const result = resultOf(preparation, usePinned(preparation, stock));
  const keeping = keepingOf(plan.soluteId);
  const isTitrant = plan.purpose === 'titrant' && result?.kind !== 'made';
  const suggested = useNextCode() ?? '';
  const [typedCode, setCode] = useState<string | null>(null);
  const code = typedCode ?? suggested;
  const [container, setContainer] = useState<Container>(keeping?.container ?? 'clear-glass');
  const [useBy, setUseBy] = useState(
    isTitrant ? '' : (suggestValidUntil(plan.soluteId, today) ?? ''),
  );
  const [reason, setReason] = useState('');
  const [ids] = useState(() => ({
    factId: newId(),
    bottleFactId: newId(),
    bottleId: newId(),
  }));
  const [failure, setFailure] = useState<Error | null>(null);
  const [isBusy, setBusy] = useState(false);
  const findings = checkBottling(preparation, result !== null);
  const isOnItsWay = waiting.some(({ fact }) => fact.recordId === preparation.id);

  const bottle = async (): Promise<void> => {
    setBusy(true);
    setFailure(null);
    try {
      await tell('POST', `/preparations/${preparation.id}/bottle`, {
        ...ids,
        ...deviceStamp(),
        basedOn: preparation.version,
        code: code.trim(),
        container,
        useBy: useBy === '' ? null : useBy,
        reason: reason.trim() === '' ? null : reason.trim(),
      });
      await readAnew();
    } catch (error) {
      setFailure(error instanceof Error ? error : new Error('It could not be bottled.'));
    } finally {
      setBusy(false);
    }
  };
  const codeError = failure instanceof ProblemError ? failure.fieldMessage('code') : undefined;
  return (
    <form
      noValidate
      aria-label="Bottle it"
      className="max-w-[440px]"
      onSubmit={(event) => {
        event.preventDefault();
        if (isLetThrough(findings, reason)) void bottle();
      }}
    >
      <h2 className="text-[28px] leading-tight font-bold">Bottle it</h2>
      <p className="mt-1 mb-4 text-lg">
        Rinse the bottle with a little of it, fill it, label it at once.
        {keeping && ` Keep it in ${keeping.remark}.`}
      </p>
      <div className="grid grid-cols-1 gap-4 sm:grid-cols-2">
        <TextField
          label="Bottle code"
          className="font-mono"
          value={code}
          error={codeError}
          onChange={(event) => {
            setCode(event.target.value.toUpperCase());
          }}
        />
        <ContainerField
          value={container}
          onChange={(event) => {
            setContainer(event.target.value as Container);
          }}
        />
        {!isTitrant && (
          <TextField
            label="Use by"
            type="date"
            hint="From the catalogue's keeping time."
            value={useBy}
            onText={setUseBy}
          />
        )}
      </div>
      <Findings findings={findings} reason={reason} onReason={setReason} />
      <div className="mt-5 flex items-center gap-4">
        <Button
          type="submit"
          look="primary"
          className="text-lg"
          disabled={isBusy || isOnItsWay || !isLetThrough(findings, reason)}
        >
          Put it on the shelf
        </Button>
        <FormError message={codeError === undefined ? failure?.message : undefined} />
      </div>
      {isOnItsWay && (
        <p className="mt-2 text-ink-soft">
          Some entries are still on their way to the server; it can be bottled when they are there.
        </p>
      )}
    </form>
  );
}
