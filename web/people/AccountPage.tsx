import { useMutation } from '@tanstack/react-query';
import { changePasswordSchema, sessionsEnded } from '#contract';
import { ask, tell } from '../app/api';
import type { Look } from '../app/look';
import { LOOKS, useLook } from '../app/look';
import { useSession } from '../app/session';
import { Button } from '../ui/Button';
import { TextField } from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { FormError } from '../ui/FormError';
import { Page } from '../ui/Page';
import { RadioList } from '../ui/RadioList';
import { useContractForm } from '../ui/useContractForm';

/** One's own account: the password, and where else one is signed in. */
export function AccountPage() {
  const { person } = useSession();
  return (
    <Page
      title={person.name}
      tabTitle="Your account"
      lead="What you enter is signed with this name: keep its password to yourself."
    >
      <div className="grid max-w-3xl grid-cols-1 gap-x-12 gap-y-8 md:grid-cols-2">
        <PasswordSection />
        <SessionsSection />
        <LookSection />
      </div>
    </Page>
  );
}

const EMPTY = { current: '', password: '' };

function PasswordSection() {
  const change = useMutation({
    mutationFn: (body: object) => tell('POST', '/account/password', body),
  });
  const { form, field, showFailure, formError } = useContractForm(changePasswordSchema, EMPTY);
  return (
    <Form
      aria-label="Password"
      className="flex flex-col gap-4"
      onSubmit={form.handleSubmit((body) => {
        change.mutate(body, {
          onSuccess: () => {
            form.reset(EMPTY);
          },
          onError: showFailure,
        });
      })}
    >
      <h2 className="text-lg font-bold">Change the password</h2>
      <TextField
        label="Present password"
        type="password"
        autoComplete="current-password"
        {...field('current')}
      />
      <TextField
        label="New password"
        type="password"
        autoComplete="new-password"
        hint="At least 10 characters; a few unrelated words."
        {...field('password')}
      />
      <FormFoot submit="Change it" isDisabled={change.isPending} error={formError} />
      {change.isSuccess && (
        <p role="status">It is changed. You have been signed out everywhere else.</p>
      )}
    </Form>
  );
}

function SessionsSection() {
  const end = useMutation({
    mutationFn: () => ask(sessionsEnded, 'DELETE', '/account/sessions'),
  });
  return (
    <section className="flex flex-col items-start gap-4">
      <h2 className="text-lg font-bold">Signed in elsewhere</h2>
      <p>
        A tablet left at another bench, a browser at home: end all sessions but this one. What was
        entered there and not sent yet waits until you sign in there again.
      </p>
      <Button
        disabled={end.isPending}
        onClick={() => {
          end.mutate();
        }}
      >
        End my other sessions
      </Button>
      {end.isSuccess && (
        <p role="status">
          {end.data.ended === 0
            ? 'There was no other.'
            : `${String(end.data.ended)} ended; this one goes on.`}
        </p>
      )}
      <FormError message={end.error?.message} />
    </section>
  );
}

const LOOK_WORDS: Readonly<Record<Look, string>> = {
  device: 'As this device is set',
  light: 'Light: ink on paper',
  dark: 'Dark: for a dimmed room',
  contrast: 'High contrast: for the fume cupboard',
};

/** How the pages look to this person on this device. What is printed does not change. */
function LookSection() {
  const [look, choose] = useLook(useSession().person.id);
  return (
    <section>
      <h2 className="mb-2 text-lg font-bold">How it looks to you on this device</h2>
      <RadioList
        legend="Look"
        items={LOOKS.map((id) => ({ id, name: LOOK_WORDS[id] }))}
        chosenId={look}
        onChoose={choose}
      />
    </section>
  );
}
