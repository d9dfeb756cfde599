import { firstAccountSchema } from '#contract';
import { useSignIn } from '../app/session';
import { Button } from '../ui/Button';
import { TextField } from '../ui/fields';
import { FormError } from '../ui/FormError';
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
    <form
      className="grid max-w-3xl grid-cols-1 gap-x-8 gap-y-4 md:grid-cols-2"
      noValidate
      onSubmit={(event) =>
        void form.handleSubmit((body) => {
          begin.mutate(body, { onError: showFailure });
        })(event)
      }
    >
      <TextField
        label="One-time code"
        hint="It stands in the terminal where the program was started."
        autoComplete="off"
        className="font-mono"
        {...field('code')}
      />
      <TextField label="Laboratory" {...field('laboratory.name')} />
      <TextField
        label="Your name"
        autoComplete="username"
        hint="As it shall stand on labels and certificates."
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
      <div className="col-span-full">
        <FormError message={formError} />
      </div>
      <Button
        type="submit"
        look="primary"
        disabled={begin.isPending}
        className="justify-self-start"
      >
        Begin the laboratory
      </Button>
    </form>
  );
}
