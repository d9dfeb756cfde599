import type { ReactNode } from 'react';
import { Link } from 'react-router';

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
      <thead className="max-md:hidden">
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
                className="py-3 pr-4 align-top max-md:grid max-md:grid-cols-[7.5rem_minmax(0,1fr)] max-md:py-0.5 max-md:pr-0 max-md:wrap-anywhere max-md:before:text-ink-soft max-md:before:content-[attr(data-head)] lg:py-2.5"
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

/** A link in a cell; where fingers hit it, it is as high as its row. */
export function CellLink({
  to,
  className = 'font-semibold',
  label,
  children,
}: {
  readonly to: string;
  readonly className?: string;
  /** What it is called where its words do not say of what. */
  readonly label?: string;
  readonly children: ReactNode;
}) {
  return (
    <Link
      to={to}
      aria-label={label}
      className={`text-violet underline underline-offset-4 max-lg:-my-3 max-lg:inline-block max-lg:py-3 ${className}`}
    >
      {children}
    </Link>
  );
}
