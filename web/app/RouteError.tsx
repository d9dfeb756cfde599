import { useQueryErrorResetBoundary } from '@tanstack/react-query';
import { useNavigate, useRouteError } from 'react-router';
import { Button, ButtonLink } from '../ui/Button';
import { Page } from '../ui/Page';
import { AwayError, ProblemError } from './api';

/** What a page shows when it cannot be shown: what happened, what is safe, what to do. */
export function RouteError() {
  const error = useRouteError();
  const navigate = useNavigate();
  const { reset } = useQueryErrorResetBoundary();
  return (
    <Page title="This page cannot be shown" tabTitle="Something is wrong">
      <p className="text-lg">{whatHappened(error)}</p>
      <p className="mt-2 text-ink-soft">What you have entered is kept; nothing was changed.</p>
      <div className="mt-6 flex gap-3">
        <Button
          look="primary"
          onClick={() => {
            reset();
            void navigate(0);
          }}
        >
          Try again
        </Button>
        <ButtonLink to="/">To the shelf</ButtonLink>
      </div>
    </Page>
  );
}

function whatHappened(error: unknown): string {
  if (error instanceof AwayError || error instanceof ProblemError) return error.message;
  // What browsers say when a part of the program is not there any more, or the network is away.
  if (error instanceof TypeError && /import/i.test(error.message)) {
    return 'A part of the program could not be fetched. It may have been renewed since this page was opened.';
  }
  return 'Something in the program failed while it drew this page.';
}

/** An address that leads nowhere. */
export function NotFound() {
  return (
    <Page title="There is nothing here" tabTitle="Not found">
      <p className="text-lg">The address does not lead to a page. The shelf shows every bottle.</p>
      <ButtonLink to="/" look="primary" className="mt-6">
        To the shelf
      </ButtonLink>
    </Page>
  );
}
