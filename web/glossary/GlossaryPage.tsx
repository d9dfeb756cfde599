import { GLOSSARY } from '#core/wording';
import { Page } from '../ui/Page';

/** The words of the craft, in the order of the work. */
export function GlossaryPage() {
  return (
    <Page
      title="Words"
      tabTitle="Words"
      lead="What is meant by the words on these pages. Where one is dotted, pressing it says the same."
    >
      <dl className="columns-1 gap-x-12 text-lg lg:columns-2">
        {Object.entries(GLOSSARY).map(([key, { word, meaning }]) => (
          <div key={key} id={key} className="mb-4 scroll-mt-20 break-inside-avoid">
            <dt className="font-bold">{word}</dt>
            <dd className="text-ink-soft">{meaning}</dd>
          </div>
        ))}
      </dl>
    </Page>
  );
}
