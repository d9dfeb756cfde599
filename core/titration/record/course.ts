import type { Finding } from '../../record';
import { checkMay, impossible, provenance } from '../../record';
import type { Author } from '../../rights';
import type { Certificate, Pause, RunState } from '../run';
import { FINAL, flaskOf, INITIAL, pauseOf } from '../run';
import type { Adopted } from '../setUp';
import { namedRecords } from '../setUp';
import type { VoidCause } from '../../wording';
import type { RunFactTable } from './draft';
import { draftAt } from './draft';
import { EARLIER_CERTIFICATES } from './earlierRuns';
import { checkInForce, closeBy, reopenBy } from './issued';
import { unknownFlask } from './refusals';

/** How a run goes on, and how it ends. */
export interface CourseBodies {
  /** Left for later, or to somebody who is named. */
  'run.paused': Pause;
  'run.resumed': { readonly remark: string };
  'run.flask-voided': {
    readonly flask: number;
    readonly reason: string;
    /** Absent where nobody was asked for it. */
    readonly cause?: VoidCause;
  };
  /** A record that the run rests on was put right: it goes on with the new version. */
  'run.record-adopted': Adopted & { readonly reason: string };
  'run.abandoned': { readonly reason: string };
  'run.certified': { readonly certificate: Certificate };
  /** A fault of the run was found afterwards: its certificate holds no longer, and the run is open again, to be put right. */
  'run.certificate-withdrawn': { readonly number: string; readonly reason: string };
}

export const COURSE_FACTS: RunFactTable<
  CourseBodies,
  'run.certified' | 'run.certificate-withdrawn'
> = {
  'run.paused': {
    nature: 'decision',
    refersTo: ({ toId }) =>
      toId === null ? [] : [{ field: 'toId', kind: 'person', id: toId, version: null }],
    check: (_fact, run) => (pauseOf(run) ? [impossible('paused-already', 'run')] : []),
    apply: (draft, fact) => {
      draft.pauses = [...draft.pauses, { ...provenance(fact), ...fact.body, resumed: null }];
    },
    sentence: () => 'pausing the run.',
  },
  'run.resumed': {
    nature: 'decision',
    check: (_fact, run) => (pauseOf(run) ? [] : [impossible('not-paused', 'run')]),
    // A burette that no flask stands under has been emptied, so its level is read again.
    apply: (draft, fact) => {
      const last = draft.pauses.at(-1);
      if (!last || last.resumed) return;
      draft.pauses = [...draft.pauses.slice(0, -1), { ...last, resumed: provenance(fact) }];
      const isBusy = [...draft.flasks.values()].some(
        (flask) => draftAt(flask, INITIAL) && !draftAt(flask, FINAL) && !flask.voided,
      );
      if (!isBusy) draft.lastRead = null;
    },
    sentence: () => 'going on with the run.',
  },
  'run.flask-voided': {
    nature: 'decision',
    check: ({ body }, run) => {
      const flask = flaskOf(run, body.flask);
      if (!flask) return [unknownFlask(body.flask)];
      return flask.voided ? [impossible('already-void', 'flask', { flask: flask.number })] : [];
    },
    apply: (draft, fact) => {
      const flask = draft.flasks.get(fact.body.flask);
      const { flask: _flask, ...why } = fact.body;
      if (flask) flask.voided ??= { ...provenance(fact), ...why };
    },
    sentence: ({ flask }) => `flask ${String(flask)} void.`,
  },
  'run.record-adopted': {
    nature: 'decision',
    refersTo: ({ kind, id, version }) => [{ field: 'id', kind, id, version }],
    check: ({ body }, { setUp }) => {
      const named = namedRecords(setUp).find(
        ({ kind, at }) => kind === body.kind && at.id === body.id,
      );
      if (!named) return [impossible('not-rested-on', 'id')];
      return named.at.version < body.version ? [] : [impossible('no-newer', 'version')];
    },
    apply: (draft, { body: { kind, id, version } }) => {
      draft.adopted = [...draft.adopted, { kind, id, version }];
    },
    sentence: ({ kind, reason }) => `going on with the corrected ${kind}: ${reason}.`,
  },
  'run.abandoned': {
    nature: 'decision',
    check: (_fact, { started }, around) =>
      around ? checkMay(around.author, 'abandon-anothers-run', { startedBy: started.by }) : [],
    apply: (draft, fact) => {
      draft.status = 'abandoned';
      draft.closed = { ...provenance(fact), reason: fact.body.reason };
    },
    sentence: () => 'abandoning the run.',
  },
  'run.certified': {
    nature: 'decision',
    needsServer: true,
    isSigned: true,
    earlier: EARLIER_CERTIFICATES,
    check: () => [],
    apply: (draft, fact) => {
      draft.certificates = [...draft.certificates, closeBy(draft, fact, 'certified')];
    },
    sentence: ({ certificate }) => `certified: ${certificate.number}.`,
  },
  'run.certificate-withdrawn': {
    nature: 'decision',
    needsServer: true,
    isSigned: true,
    // It opens the run again.
    comesAlways: true,
    check: ({ body: { number } }, run, around) =>
      checkWithdrawing(run, number, around?.author ?? null),
    apply: (draft, fact) => {
      draft.certificates = reopenBy(draft, fact, draft.certificates);
    },
    sentence: ({ number, reason }) => `certificate ${number} withdrawn: ${reason}.`,
  },
};

/** What speaks against withdrawing a certificate. @param author null where it is not asked who */
export function checkWithdrawing(
  { certificate }: RunState,
  number: string,
  author: Author | null,
): readonly Finding[] {
  return checkInForce(certificate, number, author, 'not-in-force');
}
