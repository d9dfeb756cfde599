import { useState } from 'react';
import type { FieldMessages } from './fieldMessages';

/** The keys of a form whose values are typed as text. */
type TextKey<T> = { [K in keyof T]: string extends T[K] ? K : never }[keyof T] & string;

/** Gives a field component what it needs: its text, what takes the next one, and what is wrong with it. */
export function fieldsOf<T extends object>(
  values: T,
  change: (changes: Partial<T>) => void,
  errors: FieldMessages = {},
) {
  return <K extends TextKey<T>>(key: K) => ({
    value: values[key],
    error: errors[key],
    onText: (text: string) => {
      change({ [key]: text } as unknown as Partial<T>);
    },
  });
}

/**
 * What a form holds whose fields are looked at while they are typed, or that writes down something of another shape. A form that
 * writes down what it shows is a `useContractForm`.
 */
export function useTyped<T extends object>(initial: T | (() => T), errors: FieldMessages = {}) {
  const [typed, setTyped] = useState(initial);
  const change = (changes: Partial<T>): void => {
    setTyped((before) => ({ ...before, ...changes }));
  };
  /** Gives a part of the form that holds something of its own what it needs. */
  const part = <K extends keyof T & string>(key: K) => ({
    value: typed[key],
    error: errors[key],
    onChange: (value: T[K]) => {
      change({ [key]: value } as unknown as Partial<T>);
    },
  });
  return { typed, change, field: fieldsOf(typed, change, errors), part };
}
