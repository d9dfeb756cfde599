import type { ReactNode } from 'react';

interface TableProps {
  readonly caption: string;
  readonly heads: readonly string[];
  readonly rows: readonly { readonly key: string; readonly cells: readonly ReactNode[] }[];
}

/** A plain table; on a phone a list of facts, each with its name. */
export function Table({ caption, heads, rows }: TableProps) {
  return (
    <table className="w-full text-left max-md:block">
      <caption className="sr-only">{caption}</caption>
      <thead className="max-md:sr-only">
        <tr className="border-b border-rule-strong text-sm text-ink-soft">
          {heads.map((head) => (
            <th key={head} scope="col" className="py-2 pr-4 font-semibold">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody className="divide-y divide-rule max-md:block">
        {rows.map(({ key, cells }) => (
          <tr key={key} className="max-md:block max-md:py-2">
            {cells.map((cell, i) => (
              <td
                key={heads[i]}
                data-head={heads[i]}
                className="py-2.5 pr-4 align-top max-md:grid max-md:grid-cols-[7.5rem_minmax(0,1fr)] max-md:py-0.5 max-md:pr-0 max-md:before:text-ink-soft max-md:before:content-[attr(data-head)]"
              >
                {cell}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
