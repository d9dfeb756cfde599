import type { KeyboardEvent, RefObject } from 'react';
import { useEffect } from 'react';
import { Button, KeyHint } from './Button';
import { FigureField } from './FigureField';

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
}

/** The large field for a figure, or the two of a difference, and what keeps them. */
export function FigurePair(props: FigurePairProps) {
  const { ref, labels, unit, value, isDifference, isWrong, onChange, ...first } = props;
  useEffect(() => {
    ref.current?.focus();
  }, [ref, isDifference]);
  return (
    <div className="flex items-stretch gap-3">
      <FigureField
        ref={ref}
        label={labels[0]}
        unit={unit}
        value={value[0]}
        isWrong={isWrong}
        onChange={(text) => {
          onChange([text, value[1]]);
        }}
        {...first}
      />
      {isDifference && (
        <FigureField
          label={labels[1]}
          unit={unit}
          value={value[1]}
          isWrong={isWrong}
          onChange={(text) => {
            onChange([value[0], text]);
          }}
        />
      )}
      <Button type="submit" look="primary" className="w-[112px] shrink-0 px-2 text-lg">
        Keep <KeyHint>Enter</KeyHint>
      </Button>
    </div>
  );
}
