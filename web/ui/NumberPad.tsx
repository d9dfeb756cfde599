import type { PointerEvent, RefObject } from 'react';
import { decimalMark } from '#core/measurement';
import { Button } from './Button';

const FIGURES = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '0'] as const;

interface NumberPadProps {
  /** The field that is typed into where none has the focus. */
  readonly into: RefObject<HTMLInputElement | null>;
}

/**
 * Figures under the finger, beside the field and never over it, with what keeps them. It types where the caret is, so that a figure can
 * be put right as with a keyboard.
 */
export function NumberPad({ into }: NumberPadProps) {
  const type = (text: string): void => {
    const field = fieldOf(into.current);
    if (field) insert(field, text);
  };
  return (
    <div
      role="group"
      aria-label="Number pad"
      className="grid grid-cols-4 grid-rows-4 gap-1.5"
      onPointerDown={keepFocus}
    >
      {[...FIGURES, decimalMark()].map((key) => (
        <Button
          key={key}
          tabIndex={-1}
          className={`px-0 font-mono text-[22px] ${key === '0' ? 'col-span-2' : ''}`}
          onClick={() => {
            type(key);
          }}
        >
          {key}
        </Button>
      ))}
      <Button
        tabIndex={-1}
        aria-label="Take back the last figure"
        className="col-start-4 row-span-2 row-start-1 px-0 text-[22px]"
        onClick={() => {
          const field = fieldOf(into.current);
          if (field) takeBack(field);
        }}
      >
        ⌫
      </Button>
      <Button
        type="submit"
        look="primary"
        className="col-start-4 row-span-2 row-start-3 px-0 text-lg"
      >
        Keep
      </Button>
    </div>
  );
}

/** A key of the pad leaves the caret in the field. */
function keepFocus(event: PointerEvent): void {
  event.preventDefault();
}

/** The figure that has the caret, of those beside the pad; else the first. */
function fieldOf(first: HTMLInputElement | null): HTMLInputElement | null {
  const active = document.activeElement;
  return active instanceof HTMLInputElement && active.type === 'text' && active.form === first?.form
    ? active
    : first;
}

/** Puts a text in place of what is selected, as a key would: React hears of it by the event. */
function insert(field: HTMLInputElement, text: string): void {
  if (field.value.length + text.length > field.maxLength) return;
  const { start, end } = selectionOf(field);
  replace(field, text, start, end);
}

function takeBack(field: HTMLInputElement): void {
  const { start, end } = selectionOf(field);
  if (start === end && start === 0) return;
  replace(field, '', start === end ? start - 1 : start, end);
}

function replace(field: HTMLInputElement, text: string, start: number, end: number): void {
  field.setRangeText(text, start, end, 'end');
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

function selectionOf({ selectionStart, selectionEnd, value }: HTMLInputElement) {
  return { start: selectionStart ?? value.length, end: selectionEnd ?? value.length };
}
