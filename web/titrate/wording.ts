import type { Replicate } from '#core/titration/judging';
import { VERDICT_WORDS } from '#core/titration/judging';

/** Word and colours of each verdict on a flask. */
export const VERDICTS: Readonly<
  Record<Replicate['verdict'] | 'current', { readonly word: string; readonly className: string }>
> = {
  current: { word: 'now', className: 'bg-violet text-on-violet' },
  counts: { word: VERDICT_WORDS.counts, className: 'bg-leaf-wash text-leaf' },
  rough: { word: VERDICT_WORDS.rough, className: 'bg-shade text-ink-soft' },
  void: { word: VERDICT_WORDS.void, className: 'bg-blush-wash text-blush' },
  open: { word: VERDICT_WORDS.open, className: 'border border-rule-strong text-ink-soft' },
  blank: { word: VERDICT_WORDS.blank, className: 'bg-shade text-ink' },
  overshot: { word: VERDICT_WORDS.overshot, className: 'bg-blush-wash text-blush' },
  disputed: { word: VERDICT_WORDS.disputed, className: 'bg-blush-wash text-blush' },
  'set-aside': { word: VERDICT_WORDS['set-aside'], className: 'bg-straw-wash text-straw' },
};
