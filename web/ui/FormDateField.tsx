import type { Control, FieldPath, FieldValues } from 'react-hook-form';
import { useController } from 'react-hook-form';
import { DateField } from './DateField';
import type { FieldProps } from './fields';

/** Where in a form a date stands. */
export interface DateInForm<T extends FieldValues, Checked> {
  readonly control: Control<T, unknown, Checked>;
  readonly name: FieldPath<T>;
}

interface FormDateFieldProps<T extends FieldValues, Checked>
  extends DateInForm<T, Checked>, Omit<FieldProps, 'error'> {
  /** Whether there may be none. */
  readonly isOptional?: boolean;
}

/** A date of a form that the contract checks. */
export function FormDateField<T extends FieldValues, Checked>({
  control,
  name,
  isOptional = false,
  ...frame
}: FormDateFieldProps<T, Checked>) {
  const { field, fieldState } = useController({ control, name });
  const value: unknown = field.value;
  return (
    <DateField
      {...frame}
      value={typeof value === 'string' ? value : ''}
      error={fieldState.error?.message}
      onText={(text) => {
        field.onChange(isOptional && text === '' ? null : text);
      }}
    />
  );
}
