import { signInSchema } from '#contract';
import { useSignIn } from '../app/session';
import { Button } from '../ui/Button';
import { TextField } from '../ui/fields';
import { Form } from '../ui/Form';
import { FormError } from '../ui/FormError';
import { useContractForm } from '../ui/useContractForm';

/** Name and password. `isSecond` keeps it in the background where one click would do. */
export function PasswordForm({ isSecond }: { readonly isSecond: boolean }) {
  const signIn = useSignIn('/session');
  const { form, field, showFailure, formError } = useContractForm(signInSchema, {
    name: '',
    password: '',
  });
  return (
    <Form
      className="flex w-full max-w-[320px] flex-col gap-4"
      onSubmit={form.handleSubmit((body) => {
        signIn.mutate(body, { onError: showFailure });
      })}
    >
      <h2 className="text-lg font-bold">{isSecond ? 'Or with an account' : 'Sign in'}</h2>
      <TextField label="Name" autoComplete="username" {...field('name')} />
      <TextField
        label="Password"
        type="password"
        autoComplete="current-password"
        {...field('password')}
      />
      <FormError message={formError} />
      <Button type="submit" look={isSecond ? 'plain' : 'primary'} disabled={signIn.isPending}>
        Sign in
      </Button>
    </Form>
  );
}
