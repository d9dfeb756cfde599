/** Shown while a page or its data are on their way. */
export function Loading() {
  return (
    <p role="status" className="p-8 text-ink-soft">
      One moment …
    </p>
  );
}
