import type { ReactNode } from 'react';

interface TableProps {
  readonly caption: string;
  readonly heads: readonly string[];
  readonly rows: readonly { readonly key: string; readonly cells: readonly ReactNode[] }[];
}

/** A plain table. */
export function Table({ caption, heads, rows }: TableProps) {
  return (
    <table className="w-full text-left">
      <caption className="sr-only">{caption}</caption>
      <thead>
        <tr className="border-b border-rule-strong text-sm text-ink-soft">
          {heads.map((head) => (
            <th key={head} scope="col" className="py-2 pr-4 font-semibold">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody className="divide-y divide-rule">
        {rows.map(({ key, cells }) => (
          <tr key={key}>
            {cells.map((cell, i) => (
              <td key={heads[i]} className="py-2.5 pr-4 align-top">
                {cell}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
