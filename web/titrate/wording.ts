import type { Replicate } from '#core/titration';
import type { Weighing } from '#core/metrology';
import { netMassG } from '#core/metrology';

/** Word and colours of each verdict on a flask. */
export const VERDICTS: Readonly<
  Record<Replicate['verdict'] | 'current', { readonly word: string; readonly className: string }>
> = {
  current: { word: 'now', className: 'bg-violet text-white' },
  counts: { word: 'counts', className: 'bg-leaf-wash text-leaf' },
  rough: { word: 'rough', className: 'bg-shade text-ink-soft' },
  void: { word: 'void', className: 'bg-blush-wash text-blush' },
  open: { word: 'ready', className: 'border border-rule-strong text-ink-soft' },
  disputed: { word: 'two values', className: 'bg-blush-wash text-blush' },
  'set-aside': { word: 'set aside', className: 'bg-straw-wash text-straw' },
};

/** The net mass of a weighing. */
export function weighingText(weighing: Weighing): string {
  return netMassG(weighing);
}
