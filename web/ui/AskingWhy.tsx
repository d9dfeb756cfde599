import type { ComponentProps } from 'react';
import { Asking } from './Asking';
import { ReasonDialog } from './ReasonDialog';

type Question = Omit<ComponentProps<typeof ReasonDialog>, 'onClose'>;

/** A button for a step that is taken with a reason, or another sentence, and the question for it. */
export function AskingWhy({
  question,
  ...button
}: Omit<ComponentProps<typeof Asking>, 'children'> & { readonly question: Question }) {
  return <Asking {...button}>{(close) => <ReasonDialog {...question} onClose={close} />}</Asking>;
}
