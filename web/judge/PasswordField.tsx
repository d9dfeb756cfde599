import type { ComponentProps } from 'react';
import { DEMO_PASSWORD } from '#contract';
import { useSession } from '../app/session';
import { TextField } from '../ui/fields';

/** The password by which somebody signs; the made-up people of the demo share one. */
export function PasswordField(
  props: Pick<ComponentProps<typeof TextField>, 'value' | 'error' | 'onText'>,
) {
  const { isDemo } = useSession().person;
  return (
    <TextField
      label="Your password"
      type="password"
      autoComplete="current-password"
      hint={
        isDemo
          ? `In the demo everybody signs with “${DEMO_PASSWORD}”.`
          : 'It signs, under your name.'
      }
      {...props}
    />
  );
}
