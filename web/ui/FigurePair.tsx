import type { KeyboardEvent, ReactNode, RefObject } from 'react';
import { useEffect } from 'react';
import { Button, KeyHint } from './Button';
import { FigureField } from './FigureField';
import { NumberPad } from './NumberPad';
import { useMedia } from './useMedia';

/** Where fingers type: a phone, a tablet whichever way it lies, a screen that is touched. */
const TOUCHED = '(max-width: 79.99rem), (pointer: coarse)';

/** What is typed: one figure, or two masses of a difference. */
export type Figures = readonly [first: string, second: string];

interface FigurePairProps {
  readonly ref: RefObject<HTMLInputElement | null>;
  readonly labels: readonly [first: string, second: string];
  readonly unit: string;
  readonly value: Figures;
  /** Whether the second one is asked for. */
  readonly isDifference: boolean;
  readonly isWrong: boolean;
  /** Whether a letter typed into it is a command of the page. */
  readonly takesKeys?: boolean;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void;
  readonly onChange: (figures: Figures) => void;
  /** What stands below the field. */
  readonly children?: ReactNode;
}

/** The large field for a figure, or the two of a difference, and what keeps them: a button, or a number pad beside it. */
export function FigurePair(props: FigurePairProps) {
  const { ref, isDifference, children } = props;
  const hasPad = useMedia(TOUCHED);
  // Also after a tablet has been turned.
  useEffect(() => {
    ref.current?.focus();
  }, [ref, isDifference, hasPad]);
  if (hasPad) {
    return (
      <div className="grid grid-cols-1 gap-x-4 gap-y-3 sm:grid-cols-[minmax(0,1fr)_272px] sm:grid-rows-[auto_1fr]">
        <div className="flex flex-wrap gap-2">
          <Fields {...props} inputMode="none" />
        </div>
        <div className="sm:col-start-2 sm:row-span-2 sm:row-start-1">
          <NumberPad into={ref} />
        </div>
        <div>{children}</div>
      </div>
    );
  }
  return (
    <>
      <div className="flex items-stretch gap-3">
        <Fields {...props} inputMode="decimal" />
        <Button type="submit" look="primary" className="w-[112px] shrink-0 px-2 text-lg">
          Keep <KeyHint>Enter</KeyHint>
        </Button>
      </div>
      {children}
    </>
  );
}

/** The fields; the system's own keyboard stays away where there is a pad. */
function Fields(props: FigurePairProps & { readonly inputMode: 'none' | 'decimal' }) {
  const { ref, labels, unit, value, isDifference, isWrong, inputMode } = props;
  const { takesKeys, onKeyDown, onChange } = props;
  const shared = { unit, isWrong, inputMode };
  return (
    <>
      <FigureField
        {...shared}
        ref={ref}
        label={labels[0]}
        value={value[0]}
        takesKeys={takesKeys}
        onKeyDown={onKeyDown}
        onChange={(text) => {
          onChange([text, value[1]]);
        }}
      />
      {isDifference && (
        <FigureField
          {...shared}
          label={labels[1]}
          value={value[1]}
          onChange={(text) => {
            onChange([value[0], text]);
          }}
        />
      )}
    </>
  );
}
