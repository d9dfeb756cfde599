import type { ReactNode } from 'react';
import { useId } from 'react';

interface RadioListProps<T extends string> {
  readonly legend: string;
  readonly items: readonly { readonly id: T; readonly name: string }[];
  readonly chosenId: T | null;
  readonly onChoose: (id: T) => void;
  readonly className?: string;
  /** What follows the items. */
  readonly children?: ReactNode;
}

/** One of several, each with room for a finger. */
export function RadioList<T extends string>(props: RadioListProps<T>) {
  const { legend, items, chosenId, onChoose, className, children } = props;
  const name = useId();
  return (
    <fieldset className={className}>
      <legend className="sr-only">{legend}</legend>
      {items.map((item) => (
        <label key={item.id} className="flex min-h-12 items-center gap-3 px-1 hover:bg-shade">
          <input
            type="radio"
            name={name}
            className="size-5 shrink-0 accent-violet"
            checked={item.id === chosenId}
            onChange={() => {
              onChoose(item.id);
            }}
          />
          {item.name}
        </label>
      ))}
      {children}
    </fieldset>
  );
}
