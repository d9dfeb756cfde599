import type { Id } from '../../grammar';
import type { PersonState } from '../../people';
import type { Finding } from '../../record';
import { checkMay, impossible } from '../../record';
import type { Author } from '../../rights';
import { may } from '../../rights';
import type { RunState, Signature, SignatureMeaning } from '../run';
import { isAnalysisRun, openConflicts, openReturn, SIGNATURE_MEANINGS, seriesOf } from '../run';
import { certificateDigest } from './issueCertificate';
import { reportDigest } from './issueReport';
import { judgeRun } from './judge';
import { analystsOf } from './work';

/** What of the people of a laboratory signatures hang on. */
export interface Signatories {
  readonly traineeIds: readonly Id[];
  /** Who may authorize a certificate. */
  readonly authorizingIds: readonly Id[];
}

/** The same, of the people who work here. */
export function signatoriesOf(people: readonly PersonState[]): Signatories {
  const here = people.filter(({ left }) => left === null);
  return {
    traineeIds: here.filter(({ roles }) => roles.includes('trainee')).map(({ id }) => id),
    authorizingIds: here.filter((one) => may(one, 'authorize')).map(({ id }) => id),
  };
}

/** Where the signatures of a run stand. */
export interface Signing {
  /** The signatures that it takes, in the order of signing. */
  readonly needed: readonly SignatureMeaning[];
  /** Those given for what the run comes to now; the latest of each meaning. */
  readonly given: readonly Signature[];
  /** Meanings that were signed for another draft, and not again since. */
  readonly lapsed: readonly SignatureMeaning[];
  /** The first that is needed and has not been given. */
  readonly next: SignatureMeaning;
  /** SHA-256 of what is signed. */
  readonly draft: string;
  readonly signatories: Signatories;
}

/** The digest of what is signed: of a certificate, or of a report of samples; null while there is no result to sign for. */
export function draftDigest(run: RunState): string | null {
  if (isAnalysisRun(run)) return reportDigest(run);
  const judgement = judgeRun(run);
  return judgement.result && certificateDigest(run, judgement);
}

/** Where the signatures of a run stand; null while it has no result to sign for. */
export function signingOf(run: RunState, signatories: Signatories): Signing | null {
  const draft = draftDigest(run);
  if (draft === null) return null;
  const needed = neededFor(run, signatories);
  const given = givenFor(run, draft);
  const isGiven = (means: SignatureMeaning): boolean => given.some((one) => one.means === means);
  const lapsed = SIGNATURE_MEANINGS.filter(
    (means) => run.signatures.some((one) => one.means === means) && !isGiven(means),
  );
  const next = needed.find((means) => !isGiven(means)) ?? 'authorized';
  return { needed, given, lapsed, next, draft, signatories };
}

/** The latest signature of each meaning for a draft, in the order of signing. */
function givenFor({ signatures }: RunState, draft: string): readonly Signature[] {
  return SIGNATURE_MEANINGS.flatMap(
    (means) => signatures.findLast((one) => one.means === means && one.draft === draft) ?? [],
  );
}

/** As what a run is signed that waits for another signature; none once it is closed. */
export function signedSoFar(run: RunState): readonly SignatureMeaning[] {
  if (run.status !== 'open' || run.signatures.length === 0) return [];
  const draft = draftDigest(run);
  return draft === null ? [] : givenFor(run, draft).map(({ means }) => means);
}

/** What the house rule asks for; what a trainee had a part in is checked in any case. */
function neededFor(run: RunState, { traineeIds }: Signatories): readonly SignatureMeaning[] {
  const { signatures } = run.setUp.rules;
  const performers = performersOf(run);
  const isChecked =
    signatures === 'performed-checked-authorized' ||
    performers.some((id) => traineeIds.includes(id));
  const isPerformed = isChecked || signatures === 'performed-authorized';
  return [
    ...(isPerformed ? (['performed'] as const) : []),
    ...(isChecked ? (['checked'] as const) : []),
    'authorized',
  ];
}

/** Who had a part in the work, or signed for it. */
function performersOf(run: RunState): readonly Id[] {
  const signed = run.signatures.filter(({ means }) => means === 'performed').map(({ by }) => by);
  return [...new Set([...analystsOf(run), ...signed])];
}

const ACTIONS = { performed: 'perform', checked: 'check', authorized: 'authorize' } as const;

/** What speaks against somebody signing a run now, beside what speaks against its result. */
export function signingFindings(
  run: RunState,
  signing: Signing | null,
  means: SignatureMeaning,
  signer: Author,
): readonly Finding[] {
  if (run.status !== 'open') return [impossible('run-closed', 'run', { status: run.status })];
  if (!signing) return [impossible('no-result', 'run')];
  if (openConflicts(run).length > 0) return [impossible('conflict-open', 'run')];
  const { needed, given, next, signatories } = signing;
  // What nobody asks for may be signed as well, before it is authorized.
  const place = needed.includes(means) ? needed.indexOf(means) : needed.length - 1;
  const isMissing = needed.indexOf(next) < place;
  return [
    ...checkMay(signer, ACTIONS[means]),
    ...(openReturn(run) ? [impossible('return-open', 'run')] : []),
    ...(given.some((one) => one.means === means)
      ? [impossible('signed-already', 'run', { means })]
      : []),
    ...(isMissing ? [impossible('not-signed', 'run', { means: next })] : []),
    ...checkPart(run, means, signer, signatories),
    ...(means === 'authorized' ? checkFew(run, signer) : []),
  ];
}

/** Fewer titrations than the house rule asks for are a technical manager's to sign for, with a reason. */
function checkFew(run: RunState, signer: Author): readonly Finding[] {
  const { rules } = run.setUp;
  const isFew =
    rules.testedBy === 'concordance' &&
    seriesOf(run).some((series) => {
      const { averaged } = judgeRun(series);
      return averaged !== null && averaged.n < rules.agreeAtLeast;
    });
  return isFew && !may(signer, 'deviate')
    ? [impossible('too-few-to-authorize', 'run', { atLeast: rules.agreeAtLeast })]
    : [];
}

/** Whoever performs had a part in the work; whoever checks had none, and so whoever authorizes, where there is somebody else. */
function checkPart(
  run: RunState,
  means: SignatureMeaning,
  { id }: Author,
  { authorizingIds }: Signatories,
): readonly Finding[] {
  const hadPart = performersOf(run).includes(id);
  switch (means) {
    case 'performed':
      return analystsOf(run).includes(id) ? [] : [impossible('not-performer', 'run')];
    case 'checked':
      return hadPart ? [impossible('own-work', 'run', { means })] : [];
    case 'authorized': {
      const isByTwo = run.setUp.rules.signatures !== 'authorized';
      const others = authorizingIds.filter((other) => !performersOf(run).includes(other));
      return isByTwo && hadPart && others.length > 0
        ? [impossible('own-work', 'run', { means })]
        : [];
    }
  }
}

/** The signatures of a certificate that somebody issues now, and whether one of them had no part in the work. */
export function signaturesWith(
  run: RunState,
  { needed, given }: Signing,
  authorized: { readonly by: Id; readonly at: string },
) {
  const before = given.filter(({ means }) => needed.includes(means));
  const signatures = [
    ...before.map(({ means, by, at }) => ({ means, by, at })),
    { means: 'authorized' as const, ...authorized },
  ];
  const performers = performersOf(run);
  return { signatures, isIndependent: signatures.some(({ by }) => !performers.includes(by)) };
}
