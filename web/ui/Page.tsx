import type { ReactNode, RefObject } from 'react';
import { useEffect, useRef } from 'react';
import { Marked } from './Term';

/** Whether a page was shown before this one: the first leaves focus where the browser put it. */
let hasShownAPage = false;

/**
 * Names the browser's tab and moves focus to the page's heading, so that screen readers follow. A page that has
 * moved focus into itself keeps it.
 */
export function usePageHeading(tabTitle: string): RefObject<HTMLHeadingElement | null> {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    document.title = `${tabTitle} · Vine Measure`;
    const isInside = document.getElementById('page')?.contains(document.activeElement);
    if (hasShownAPage && !isInside) heading.current?.focus();
    hasShownAPage = true;
  }, [tabTitle]);
  return heading;
}

interface PageProps {
  readonly title: ReactNode;
  /** Plain text for the browser's tab. */
  readonly tabTitle: string;
  readonly lead?: ReactNode;
  readonly actions?: ReactNode;
  readonly children: ReactNode;
}

/** A page with its heading. */
export function Page({ title, tabTitle, lead, actions, children }: PageProps) {
  const heading = usePageHeading(tabTitle);
  return (
    <div className="px-4 py-4 md:px-8 md:py-6">
      <header className="mb-5 flex flex-wrap items-start justify-between gap-x-6 gap-y-3 border-b-2 border-ink pb-3">
        <div className="min-w-0">
          <h1 ref={heading} tabIndex={-1} className="text-[26px] leading-tight font-bold">
            {title}
          </h1>
          {lead !== undefined && (
            <p className="mt-1 text-ink-soft">
              {typeof lead === 'string' ? <Marked text={lead} /> : lead}
            </p>
          )}
        </div>
        <div className="flex flex-wrap gap-3">{actions}</div>
      </header>
      {children}
    </div>
  );
}
