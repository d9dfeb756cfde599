import { firstAccountSchema } from '#contract';
import { useSignIn } from '../app/session';
import { TextField } from '../ui/fields';
import { Form, FormFoot } from '../ui/Form';
import { useContractForm } from '../ui/useContractForm';

/** Founds the laboratory: the code from the terminal, the laboratory, and the first person's account. */
export function FirstAccountForm() {
  const begin = useSignIn('/first-account');
  const { form, field, showFailure, formError } = useContractForm(firstAccountSchema, {
    code: '',
    name: '',
    password: '',
    laboratory: { name: '', timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone },
  });
  return (
    <Form
      className="grid max-w-3xl grid-cols-1 gap-x-8 gap-y-4 md:grid-cols-2"
      onSubmit={form.handleSubmit((body) => {
        begin.mutate(body, { onError: showFailure });
      })}
    >
      <TextField
        label="One-time code"
        hint="It is shown in the terminal where the program was started."
        autoComplete="off"
        className="font-mono"
        {...field('code')}
      />
      <TextField label="Laboratory" {...field('laboratory.name')} />
      <TextField
        label="Your name"
        autoComplete="username"
        hint="As it is to appear on labels and certificates."
        {...field('name')}
      />
      <TextField
        label="Time zone"
        hint="Due dates follow it, such as Europe/Vienna."
        {...field('laboratory.timeZone')}
      />
      <TextField
        label="Password"
        type="password"
        autoComplete="new-password"
        hint="At least 10 characters."
        {...field('password')}
      />
      <FormFoot submit="Begin the laboratory" isDisabled={begin.isPending} error={formError} />
    </Form>
  );
}
