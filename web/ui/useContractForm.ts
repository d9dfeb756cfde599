import { valibotResolver } from '@hookform/resolvers/valibot';
import type { DefaultValues, FieldPath, FieldValues, RegisterOptions } from 'react-hook-form';
import { useForm } from 'react-hook-form';
import type * as v from 'valibot';
import { Refusal } from './refusal';

/**
 * A form that the contract's schema checks before it is sent, and that shows what the server says at the fields
 * it names.
 */
export function useContractForm<T extends FieldValues, Checked>(
  schema: v.GenericSchema<T, Checked>,
  defaultValues: DefaultValues<T>,
) {
  const form = useForm<T, unknown, Checked>({ resolver: valibotResolver(schema), defaultValues });
  const { errors } = form.formState;

  /** The message at a field. */
  const errorAt = (name: FieldPath<T>): string | undefined => {
    const found = name
      .split('.')
      .reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], errors);
    return (found as { message?: string } | undefined)?.message;
  };

  /** What a field component needs of the form: its registration and its message. */
  const field = <N extends FieldPath<T>>(name: N, options?: RegisterOptions<T, N>) => ({
    ...form.register(name, options),
    error: errorAt(name),
  });

  /** Puts the server's answer where it belongs: at the fields it names, else at the form. */
  const showFailure = (error: unknown): void => {
    const fields = error instanceof Refusal ? error.fields : [];
    for (const { field, message } of fields) {
      form.setError(field.replace(/^body\./, '') as FieldPath<T>, { message });
    }
    const message = error instanceof Error ? error.message : 'Something went wrong.';
    form.setError('root', { message });
  };

  return { form, field, errorAt, showFailure, formError: errors.root?.message };
}
