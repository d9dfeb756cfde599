import { useEffect, useState } from 'react';
import { useRested } from './useRested';

/** A field that searches a list; the list follows when the hand rests. */
export function ListSearch({
  label,
  by,
  onSearch,
}: {
  readonly label: string;
  /** By what it can be found. */
  readonly by: string;
  readonly onSearch: (words: string) => void;
}) {
  const [text, setText] = useState('');
  const rested = useRested(text);
  useEffect(() => {
    onSearch(rested.trim());
  }, [rested, onSearch]);
  return (
    <input
      type="search"
      aria-label={label}
      placeholder={`${label}: ${by}`}
      maxLength={200}
      value={text}
      className="min-h-12 w-full max-w-md rounded-md border border-rule-strong bg-sheet px-3 text-base"
      onChange={({ target }) => {
        setText(target.value);
      }}
    />
  );
}
