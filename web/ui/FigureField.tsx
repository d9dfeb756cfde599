import type { KeyboardEvent, Ref } from 'react';
import { useId } from 'react';

interface FigureFieldProps {
  readonly label: string;
  readonly unit: string;
  readonly value: string;
  readonly isWrong: boolean;
  /** Which keyboard the system brings up: none where a number pad stands beside the field. */
  readonly inputMode: 'none' | 'decimal';
  readonly onChange: (text: string) => void;
  readonly onKeyDown?: ((event: KeyboardEvent<HTMLInputElement>) => void) | undefined;
  /** Whether a letter typed into it is a command of the page. */
  readonly takesKeys?: boolean | undefined;
  readonly ref?: Ref<HTMLInputElement>;
}

/** A large field for one figure, read from a step away. */
export function FigureField({ ref, ...props }: FigureFieldProps) {
  const id = useId();
  return (
    <div
      className={`min-w-[136px] flex-1 rounded-md border-2 bg-sheet px-3 pt-1 focus-within:border-violet ${props.isWrong ? 'border-blush' : 'border-rule-strong'}`}
    >
      <label htmlFor={id} className="block text-sm text-ink-soft">
        {props.label} / {props.unit}
      </label>
      <input
        id={id}
        ref={ref}
        value={props.value}
        inputMode={props.inputMode}
        autoComplete="off"
        maxLength={30}
        aria-invalid={props.isWrong}
        aria-describedby={props.isWrong ? 'entry-findings' : undefined}
        onChange={(event) => {
          props.onChange(event.target.value);
        }}
        onKeyDown={props.onKeyDown}
        data-takes-keys={props.takesKeys ? '' : undefined}
        className="h-12 w-full bg-transparent font-mono text-[34px] leading-none font-semibold focus-visible:outline-none"
      />
    </div>
  );
}
