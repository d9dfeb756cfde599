import type { ReactNode } from 'react';

/** A symbol in italics; what follows the first underscore stands below: `m_1`. */
export function Symbol({ of }: { readonly of: string }) {
  const [base = '', ...rest] = of.split('_');
  const subscript = rest.join('_');
  return (
    <span className="whitespace-nowrap">
      <i>{base}</i>
      {subscript && <sub className="text-[0.7em]">{subscript}</sub>}
    </span>
  );
}

/** A formula with true subscripts and raised charges: `C8H4O4^2-`. */
export function ChemicalFormula({ of }: { readonly of: string }) {
  const parts = of.split(/(\^\d*[+-]|(?<=[A-Za-z\])])\d+|(?<=\d|[A-Za-z])[+-](?=\s|$))/g);
  return (
    <span className="whitespace-nowrap">
      {parts.map((part, i) => (
        <FormulaPart key={i} text={part} />
      ))}
    </span>
  );
}

function FormulaPart({ text }: { readonly text: string }): ReactNode {
  if (text.startsWith('^'))
    return <sup className="text-[0.7em]">{text.slice(1).replace('-', '−')}</sup>;
  if (/^\d+$/.test(text)) return <sub className="text-[0.7em]">{text}</sub>;
  if (/^[+-]$/.test(text)) return <sup className="text-[0.7em]">{text.replace('-', '−')}</sup>;
  return text.replace('->', '→');
}

/** A molarity with its expanded uncertainty, rounded already. */
export function Molarity({
  value,
  uncertainty,
}: {
  readonly value: string;
  readonly uncertainty: string;
}) {
  return (
    <span className="whitespace-nowrap">
      <span className="font-mono font-semibold">{value}</span>
      <span className="mx-1">±</span>
      <span className="font-mono">{uncertainty}</span> mol/L
    </span>
  );
}

const DATE = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
});

/** A plain date as people write it: 2 Mar 2026. */
export function dateText(plainDate: string): string {
  return DATE.format(new Date(`${plainDate}T00:00:00Z`));
}

/** An instant in the laboratory's time zone: 2 Mar, 14:05. */
export function instantText(instant: string, timeZone: string): string {
  return new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    timeZone,
  }).format(new Date(instant));
}

/** The text with a capital first letter, for headings. */
export function capitalized(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
