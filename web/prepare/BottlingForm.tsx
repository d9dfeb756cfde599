import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { newId } from '#contract';
import type { Container } from '#core/chemistry';
import { keepingOf } from '#core/chemistry';
import type { PreparationState } from '#core/preparation';
import { checkBottling, resultOf } from '#core/preparation';
import { suggestValidUntil } from '#core/reagent';
import { ProblemError, tell } from '../app/api';
import { deviceStamp } from '../app/device';
import { ownKeepingDays } from '#core/laboratory';
import { useSession } from '../app/session';
import type { Stock } from '../app/stock';
import { useReadAnew } from '../app/useReadAnew';
import { useWaiting } from '../outbox/useOutbox';
import { DateField } from '../ui/DateField';
import { ContainerField } from '../ui/ContainerField';
import { reasonOrNull } from '../ui/fieldMessages';
import { TextField } from '../ui/fields';
import { Findings, isLetThrough } from '../ui/Findings';
import { Form, FormFoot } from '../ui/Form';
import { fieldsOf, useTyped } from '../ui/useTyped';
import { useNextCode } from './useNextCode';
import { usePinned } from './usePinned';

interface BottlingFormProps {
  readonly preparation: PreparationState;
  readonly stock: Stock;
}

/** Fills what was made into its bottle: code, container, last day. The server computes the molarity from what was done. */
export function BottlingForm({ preparation, stock }: BottlingFormProps) {
  const { today, laboratory } = useSession();
  const waiting = useWaiting();
  const suggested = useNextCode() ?? '';
  const { plan } = preparation;
  const result = resultOf(preparation, usePinned(preparation, stock));
  const keeping = keepingOf(plan.soluteId, plan.own);
  const isTitrant = plan.purpose === 'titrant' && result?.kind !== 'made';
  const madeToday = {
    substanceId: plan.soluteId,
    nominalMolarity: plan.targetMolarity,
    preparedOn: today,
  };
  const { typed, change } = useTyped<Bottling>(() => ({
    code: null,
    container: keeping?.container ?? 'clear-glass',
    useBy: isTitrant
      ? ''
      : (suggestValidUntil(madeToday, today, ownKeepingDays(laboratory.settings, plan.soluteId)) ??
        ''),
    reason: '',
  }));
  const code = typed.code ?? suggested;
  const bottling = useBottling(preparation);
  const codeError = bottling.problemAt('code');
  const findings = checkBottling(preparation, result !== null);
  const mayBottle = isLetThrough(findings, typed.reason);
  const isOnItsWay = waiting.some(({ fact }) => fact.recordId === preparation.id);
  return (
    <Form
      aria-label="Bottle it"
      className="max-w-[440px]"
      onSubmit={() => {
        if (mayBottle) bottling.bottle({ ...typed, code });
      }}
    >
      <h2 className="text-[28px] leading-tight font-bold">Bottle it</h2>
      <p className="mt-1 mb-4 text-lg">
        Rinse the bottle with a little of it, fill it, label it at once.
        {keeping && ` Keep it in ${keeping.remark}.`}
      </p>
      <BottleFields
        typed={{ ...typed, code }}
        codeError={codeError}
        hasUseBy={!isTitrant}
        onChange={change}
      />
      <Findings
        findings={findings}
        reason={typed.reason}
        onReason={(reason) => {
          change({ reason });
        }}
      />
      <div className="mt-5">
        <FormFoot
          submit="Put it on the shelf"
          isDisabled={bottling.isBusy || isOnItsWay || !mayBottle}
          error={codeError === undefined ? bottling.error : undefined}
        />
      </div>
      {isOnItsWay && (
        <p className="mt-2 text-ink-soft">
          Some entries are still on their way to the server; it can be bottled when they are there.
        </p>
      )}
    </Form>
  );
}

interface BottleFieldsProps {
  readonly typed: Bottling;
  readonly codeError: string | undefined;
  readonly hasUseBy: boolean;
  readonly onChange: (changes: Partial<Bottling>) => void;
}

function BottleFields({ typed, codeError, hasUseBy, onChange }: BottleFieldsProps) {
  return (
    <div className="grid grid-cols-1 gap-4 sm:grid-cols-2">
      <TextField
        label="Bottle code"
        className="font-mono"
        value={typed.code ?? ''}
        error={codeError}
        onText={(text) => {
          onChange({ code: text.toUpperCase() });
        }}
      />
      <ContainerField
        value={typed.container}
        onText={(container) => {
          onChange({ container: container as Container });
        }}
      />
      {hasUseBy && (
        <DateField
          label="Use by"
          hint="From the catalogue's keeping time."
          {...fieldsOf(typed, onChange)('useBy')}
        />
      )}
    </div>
  );
}

/** What is typed; the code is null while the suggested one stands. */
interface Bottling {
  readonly code: string | null;
  readonly container: Container;
  readonly useBy: string;
  readonly reason: string;
}

/** Asks the server to bottle it. One decision, one pair of facts: pressing again after a lost answer sends the same. */
function useBottling(preparation: PreparationState) {
  const readAnew = useReadAnew();
  const [ids] = useState(() => ({ factId: newId(), bottleFactId: newId(), bottleId: newId() }));
  const { mutate, isPending, error } = useMutation({
    mutationFn: async ({ code, container, useBy, reason }: Bottling) => {
      await tell('POST', `/preparations/${preparation.id}/bottle`, {
        ...ids,
        ...deviceStamp(),
        basedOn: preparation.version,
        code: code?.trim(),
        container,
        useBy: useBy === '' ? null : useBy,
        reason: reasonOrNull(reason),
      });
      await readAnew();
    },
  });
  return {
    bottle: mutate,
    isBusy: isPending,
    error: error?.message,
    problemAt: (field: string) =>
      error instanceof ProblemError ? error.fieldMessage(field) : undefined,
  };
}
