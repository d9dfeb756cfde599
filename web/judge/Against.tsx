import type { Finding } from '#core/record';
import { findingText } from '#core/wording';

/** What speaks against a certificate or report. */
export function Against({ findings }: { readonly findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  return (
    <ul className="mb-3 space-y-1">
      {findings.map((finding) => (
        <li
          key={findingText(finding)}
          className={`border-l-4 pl-3 ${finding.severity === 'impossible' ? 'border-blush font-semibold text-blush' : 'border-straw'}`}
        >
          {findingText(finding)}
        </li>
      ))}
    </ul>
  );
}
