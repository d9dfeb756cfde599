import { useEffect } from 'react';
import { useLocation } from 'react-router';
import type { GlossaryEntry } from '#core/wording';
import { GLOSSARY } from '#core/wording';
import { Page } from '../ui/Page';
import { GlossaryHead } from '../ui/Term';

const ENTRIES: readonly (readonly [string, GlossaryEntry])[] = Object.entries(GLOSSARY);

/** The words of the craft, in the order of the work. */
export function GlossaryPage() {
  const { hash } = useLocation();
  useEffect(() => {
    if (hash !== '') document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [hash]);
  return (
    <Page
      title="Words"
      tabTitle="Words"
      lead="What is meant by the words on these pages. A dotted word says the same when it is pressed."
    >
      <dl className="columns-1 gap-x-12 text-lg lg:columns-2">
        {ENTRIES.map(([key, entry]) => (
          <div key={key} id={key} className="mb-4 scroll-mt-20 break-inside-avoid">
            <dt className="font-bold">
              <GlossaryHead of={entry} />
            </dt>
            <dd className="text-ink-soft">{entry.meaning}</dd>
          </div>
        ))}
      </dl>
    </Page>
  );
}
