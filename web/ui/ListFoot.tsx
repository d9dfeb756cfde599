import { Button } from './Button';

/** The foot of a list that is read page by page: what is shown, and the way on. */
export function ListFoot({
  shown,
  what,
  more,
  isReading,
}: {
  readonly shown: number;
  /** In the plural: *runs*. */
  readonly what: string;
  /** Null at the end of the list. */
  readonly more: (() => void) | null;
  readonly isReading: boolean;
}) {
  if (!more) return null;
  return (
    <div className="mt-4 flex flex-wrap items-center gap-4">
      <Button onClick={more} disabled={isReading}>
        {isReading ? 'Reading on …' : `More ${what}`}
      </Button>
      <span className="text-sm text-ink-soft">{shown} shown; there are more.</span>
    </div>
  );
}
