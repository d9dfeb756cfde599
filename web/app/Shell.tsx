import { lazy, Suspense, useEffect } from 'react';
import { Outlet } from 'react-router';
import { decimalMarkOf } from '#core/laboratory';
import { writeFiguresWith } from '#core/measurement';
import { useLiveUpdates } from '../live/useLiveUpdates';
import { layOver } from '../outbox/layOver';
import { asFact } from '../outbox/outbox';
import { useOutbox, useWaiting } from '../outbox/useOutbox';
import { Button } from '../ui/Button';
import { writeDatesAs } from '../ui/typeset';
import { Loading } from './Loading';
import { rememberCsrfToken } from './api';
import { useRecordedPrints } from './prints';
import { useReadAhead } from './records';
import { SessionContext, useSessionQuery } from './session';
import { Bar } from './Bar';
import { Spine } from './Spine';
import { useLook } from './look';
import { useIsWide } from './useIsWide';

/** The door: who is signed in does not come by it. */
const SignInPage = lazy(async () => ({
  default: (await import('../signIn/SignInPage')).SignInPage,
}));

/** The frame of every page: the spine beside it, and nobody in without a session. */
export function Shell() {
  const outbox = useOutbox();
  const waiting = useWaiting();
  const { data: session, isPending, refetch } = useSessionQuery();
  const signedIn = session?.kind === 'signed-in' ? session : null;
  const personId = signedIn?.person.id ?? null;
  const token = signedIn?.csrfToken ?? '';
  useEffect(() => {
    rememberCsrfToken(token);
    outbox.signIn(personId);
  }, [outbox, personId, token]);
  useLiveUpdates(session);
  useRecordedPrints(personId);
  useLook(personId);

  if (isPending) return <Loading />;
  if (!session) {
    return (
      <main className="p-8">
        <h1 className="text-2xl font-bold">The server cannot be reached</h1>
        <p className="my-4">
          What you entered is kept on this device and will be sent when it is back.
        </p>
        <Button look="primary" onClick={() => void refetch()}>
          Try again
        </Button>
      </main>
    );
  }
  if (session.kind === 'signed-out') {
    return (
      <Suspense fallback={<Loading />}>
        <SignInPage offer={session} />
      </Suspense>
    );
  }
  const [laboratory = session.laboratory] = layOver(
    'laboratory',
    [session.laboratory],
    waiting
      .filter(({ refusal }) => refusal === null)
      .map(({ fact }) => asFact(fact))
      .filter(({ recordId }) => recordId === session.laboratory.id),
  );
  writeDatesAs(laboratory.settings.dateFormat);
  writeFiguresWith(decimalMarkOf(laboratory.settings));
  return (
    <SessionContext value={{ ...session, laboratory }}>
      <div className="flex min-h-screen max-lg:flex-col print:block">
        <a
          href="#page"
          className="sr-only bg-violet text-on-violet focus:not-sr-only focus:absolute focus:z-20 focus:p-3"
        >
          Skip to the page
        </a>
        <Way />
        <main id="page" tabIndex={-1} className="min-w-0 flex-1">
          <Outlet />
        </main>
      </div>
    </SessionContext>
  );
}

/** The way through the work, beside the page where there is room for it; what it leads to is read ahead. */
function Way() {
  useReadAhead();
  return useIsWide() ? <Spine /> : <Bar />;
}
