import type { Finding } from '#core/record';
import { findingText } from '#core/wording';
import { reasonProblem } from './fieldMessages';
import { Sentence } from './ShortName';

/** Whether an entry may be kept: nothing impossible, and a reason for what is unlikely. */
export function isLetThrough(findings: readonly Finding[], reason: string): boolean {
  if (findings.some(({ severity }) => severity === 'impossible')) return false;
  return findings.length === 0 || reasonProblem(reason) === undefined;
}

interface FindingsProps {
  readonly findings: readonly Finding[];
  readonly reason: string;
  readonly reasonProblem?: string | undefined;
  readonly onReason: (reason: string) => void;
}

/** What is wrong with an entry, and room for the reason why an unlikely one stands all the same. */
export function Findings({ findings, reason, reasonProblem: problem, onReason }: FindingsProps) {
  if (findings.length === 0 && problem === undefined) return null;
  const isUnlikely =
    findings.length > 0 && findings.every(({ severity }) => severity === 'unlikely');
  return (
    <>
      {findings.length > 0 && (
        <div
          id="entry-findings"
          role="alert"
          className={`mt-2 rounded border-l-4 px-3 py-2 ${isUnlikely ? 'border-straw bg-straw-wash' : 'border-blush bg-blush-wash'}`}
        >
          {findings.map((finding) => (
            <p key={finding.code} className="font-semibold">
              <Sentence text={findingText(finding)} />
            </p>
          ))}
        </div>
      )}
      {isUnlikely && <Why reason={reason} isWrong={problem !== undefined} onReason={onReason} />}
      {problem !== undefined && (
        <p role="alert" className="mt-1 text-sm font-semibold text-blush">
          {problem}
        </p>
      )}
    </>
  );
}

interface WhyProps {
  readonly reason: string;
  readonly isWrong: boolean;
  readonly onReason: (reason: string) => void;
}

function Why({ reason, isWrong, onReason }: WhyProps) {
  return (
    <label className="mt-2 flex items-center gap-2">
      <span className="shrink-0">If it stands, why?</span>
      <input
        value={reason}
        maxLength={2000}
        aria-invalid={isWrong}
        onChange={(event) => {
          onReason(event.target.value);
        }}
        className="min-h-12 w-full rounded border border-rule-strong bg-sheet px-3 aria-invalid:border-blush"
      />
    </label>
  );
}
