import { useMutation } from '@tanstack/react-query';
import { auditVerdictAnswer } from '#contract';
import { ask } from '../app/api';
import { Button } from '../ui/Button';
import { FormError } from '../ui/FormError';

/** Has the log verified from its first entry, with all that it vouches for; the first break is named. */
export function VerifyLog() {
  const verifying = useMutation({
    mutationFn: () => ask(auditVerdictAnswer, 'POST', '/audit/verification', {}),
  });
  const verdict = verifying.data;
  return (
    <section className="mt-8 border-t border-rule pt-4">
      <h2 className="mb-1 text-lg font-bold">Does it hold?</h2>
      <p className="mb-3 max-w-3xl text-ink-soft">
        Every entry is hashed over the one before it. Verifying goes through all of them from the
        first, with every entry, file, account and password that they vouch for.
      </p>
      <Button
        disabled={verifying.isPending}
        onClick={() => {
          verifying.mutate();
        }}
      >
        {verifying.isPending ? 'Verifying …' : 'Verify the log'}
      </Button>
      <div role="status" className="mt-3">
        {verdict?.kind === 'whole' && (
          <>
            <p className="font-semibold text-leaf">
              Whole: {verdict.entries} entries
              {verdict.acceptedBreaks > 0 &&
                `, but for ${String(verdict.acceptedBreaks)} that somebody has accepted`}
              .
            </p>
            <p className="mt-1">Its last hash, to be noted elsewhere:</p>
            <p className="font-mono text-sm wrap-anywhere">{verdict.hash}</p>
          </>
        )}
        {verdict?.kind === 'broken' && (
          <p className="border-l-4 border-blush bg-blush-wash px-3 py-2">
            <b>Broken{verdict.sequence === 0 ? '' : ` at entry ${String(verdict.sequence)}`}:</b>{' '}
            {verdict.why}. Nothing after it can be relied on until it is known how this came about.
          </p>
        )}
        <FormError message={verifying.error?.message} />
      </div>
    </section>
  );
}
