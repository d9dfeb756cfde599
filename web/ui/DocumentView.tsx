import type { Block, Document, Shown } from '#core/document';
import { Facts } from './Facts';
import { Table } from './Table';
import { ReactionEquations } from './typeset';

/** What somebody signed for, in words: the same that is printed. */
export function DocumentView({ document }: { readonly document: Document }) {
  return (
    <>
      {document.sections.map(({ heading, blocks }) => (
        <section key={heading} className="mb-6">
          <h2 className="mb-2 text-lg font-bold">{heading}</h2>
          <div className="flex flex-col gap-2">
            {blocks.map((block, i) => (
              <BlockView key={i} block={block} caption={heading} />
            ))}
          </div>
        </section>
      ))}
      <p className="text-ink-soft">{document.end}</p>
    </>
  );
}

function BlockView({ block, caption }: { readonly block: Block; readonly caption: string }) {
  switch (block.kind) {
    case 'rows':
      return (
        <Facts rows={block.rows.map(({ name, value }) => [name, <Value key="v" of={value} />])} />
      );
    case 'table':
      return (
        <Table
          caption={caption}
          heads={block.heads}
          rows={block.rows.map((cells, i) => ({ key: String(i), cells }))}
        />
      );
    case 'sentences':
      return block.sentences.map((sentence) => (
        <p key={sentence} className="max-w-3xl">
          {sentence}
        </p>
      ));
  }
}

function Value({ of }: { readonly of: Shown }) {
  return of.kind === 'text' ? (
    <span className="wrap-anywhere">{of.text}</span>
  ) : (
    <ReactionEquations of={of.equations} />
  );
}
