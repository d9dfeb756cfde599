import type { ReactNode } from 'react';
import { SmallButton } from '../ui/Button';

interface RowsProps<T> {
  readonly legend: string;
  readonly hint?: ReactNode;
  readonly error: string | undefined;
  readonly items: readonly T[];
  /** What one is called: `step`. */
  readonly one: string;
  /** A new one, empty. */
  readonly empty: T;
  /** Whether the order means something. */
  readonly isOrdered?: boolean;
  readonly onChange: (items: readonly T[]) => void;
  readonly children: (item: T, change: (changes: Partial<T>) => void, i: number) => ReactNode;
}

/** A part of a form with as many lines as are needed: added, left out and, where it matters, moved. */
export function Rows<T>(props: RowsProps<T>) {
  const { legend, hint, error, items, one, empty, isOrdered = false, onChange, children } = props;
  const put = (i: number, item: T): void => {
    onChange(items.with(i, item));
  };
  const up = (i: number): void => {
    onChange([
      ...items.slice(0, i - 1),
      ...items.slice(i - 1, i + 1).toReversed(),
      ...items.slice(i + 1),
    ]);
  };
  return (
    <fieldset className="col-span-full">
      <legend className="font-bold">{legend}</legend>
      {hint !== undefined && <p className="text-sm text-ink-soft">{hint}</p>}
      <ol className="mt-2 flex flex-col gap-3">
        {items.map((item, i) => (
          <li
            key={i}
            className="flex flex-wrap items-start gap-x-3 gap-y-2 border-b border-rule pb-3"
          >
            {isOrdered && (
              <span className="flex min-h-12 w-7 items-center font-mono text-ink-soft sm:mt-7">
                {i + 1}
              </span>
            )}
            <div className="min-w-0 flex-1">
              {children(
                item,
                (changes) => {
                  put(i, { ...item, ...changes });
                },
                i,
              )}
            </div>
            <span className="flex gap-2 sm:mt-7">
              {isOrdered && (
                <SmallButton
                  disabled={i === 0}
                  className="disabled:text-rule-strong"
                  aria-label={`Move ${one} ${String(i + 1)} up`}
                  onClick={() => {
                    up(i);
                  }}
                >
                  ↑
                </SmallButton>
              )}
              <SmallButton
                aria-label={`Leave out ${one} ${String(i + 1)}`}
                onClick={() => {
                  onChange(items.toSpliced(i, 1));
                }}
              >
                ×
              </SmallButton>
            </span>
          </li>
        ))}
      </ol>
      <SmallButton
        className="mt-3"
        onClick={() => {
          onChange([...items, empty]);
        }}
      >
        Add {/^[aeiou]/.test(one) ? 'an' : 'a'} {one}
      </SmallButton>
      {error !== undefined && (
        <p role="alert" className="mt-2 font-semibold text-blush">
          {error}
        </p>
      )}
    </fieldset>
  );
}
