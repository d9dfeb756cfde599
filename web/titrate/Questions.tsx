import type { Judgement } from '#core/titration/judging';
import type { Conflict, RunState } from '#core/titration/run';
import type { NewFact } from '#contract';
import { ReasonDialog } from '../ui/ReasonDialog';
import type { BenchQuestion } from './BenchMenu';
import { BuretteCheckDialog } from './BuretteCheckDialog';
import type { Correction } from './CorrectionDialog';
import { CorrectionDialog } from './CorrectionDialog';
import { CurveDialog } from './CurveDialog';
import { HazardsDialog } from './HazardsDialog';
import { IncidentDialog } from './IncidentDialog';
import { KeysDialog } from './KeysDialog';
import { PauseDialog } from './PauseDialog';
import { PhotographDialog } from './PhotographDialog';
import { SettleDialog } from './SettleDialog';
import { useEnter } from './useRun';
import { VoidDialog } from './VoidDialog';

/** What the bench asks in a dialog. */
export type Question =
  | { readonly kind: 'correct'; readonly correction: Correction }
  | { readonly kind: 'settle'; readonly conflict: Conflict }
  | { readonly kind: 'incident' | 'curve'; readonly flask: number }
  | { readonly kind: 'burette' | Exclude<BenchQuestion, 'abandon'> }
  | { readonly kind: 'void'; readonly flask: number }
  | Step;

/** A step that is taken with a reason. */
type Step = { readonly kind: 'take-back'; readonly flask: number } | { readonly kind: 'abandon' };

interface QuestionsProps {
  readonly run: RunState;
  readonly judgement: Judgement;
  readonly question: Question | null;
  readonly onClose: () => void;
}

/** The dialog that is open, if any. */
export function Questions({ run, judgement, question, onClose }: QuestionsProps) {
  const common = { run, onClose };
  switch (question?.kind) {
    case undefined:
      return null;
    case 'correct':
      return <CorrectionDialog {...common} correction={question.correction} />;
    case 'settle':
      return <SettleDialog {...common} conflict={question.conflict} />;
    case 'curve':
      return <CurveDialog {...common} flask={question.flask} />;
    case 'incident':
      return <IncidentDialog {...common} judgement={judgement} flask={question.flask} />;
    case 'pause':
      return <PauseDialog {...common} />;
    case 'photograph':
      return <PhotographDialog {...common} />;
    case 'burette':
      return <BuretteCheckDialog {...common} />;
    case 'hazards':
      return <HazardsDialog {...common} />;
    case 'keys':
      return <KeysDialog onClose={onClose} />;
    case 'void':
      return <VoidDialog {...common} judgement={judgement} flask={question.flask} />;
    case 'take-back':
    case 'abandon':
      return <StepDialog {...common} step={question} />;
  }
}

function StepDialog({
  run,
  step,
  onClose,
}: {
  readonly run: RunState;
  readonly step: Step;
  readonly onClose: () => void;
}) {
  const enter = useEnter(run);
  const { factOf, ...words } = wordsOf(step);
  return (
    <ReasonDialog {...words} onConfirm={(reason) => enter(factOf(reason))} onClose={onClose} />
  );
}

interface StepWords {
  readonly title: string;
  readonly description: string;
  readonly confirm: string;
  readonly factOf: (reason: string) => NewFact;
}

function wordsOf(step: Step): StepWords {
  switch (step.kind) {
    case 'take-back':
      return {
        title: `The end point of flask ${String(step.flask)} was not reached`,
        description: 'Its reading is kept as one before the end, and the titration goes on.',
        confirm: 'Take it back',
        factOf: (reason) => ({
          kind: 'run.end-point-taken-back',
          body: { flask: step.flask, reason },
        }),
      };
    case 'abandon':
      return {
        title: 'Abandon this run',
        description:
          'Its entries stay on record; nothing more can be added, and nothing is certified.',
        confirm: 'Abandon it',
        factOf: (reason) => ({ kind: 'run.abandoned', body: { reason } }),
      };
  }
}
