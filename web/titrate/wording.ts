import type { Replicate } from '#core/titration/judging';

/** Word and colours of each verdict on a flask. */
export const VERDICTS: Readonly<
  Record<Replicate['verdict'] | 'current', { readonly word: string; readonly className: string }>
> = {
  current: { word: 'now', className: 'bg-violet text-on-violet' },
  counts: { word: 'counts', className: 'bg-leaf-wash text-leaf' },
  rough: { word: 'rough', className: 'bg-shade text-ink-soft' },
  void: { word: 'void', className: 'bg-blush-wash text-blush' },
  open: { word: 'ready', className: 'border border-rule-strong text-ink-soft' },
  blank: { word: 'blank', className: 'bg-shade text-ink' },
  overshot: { word: 'overshot', className: 'bg-blush-wash text-blush' },
  disputed: { word: 'two values', className: 'bg-blush-wash text-blush' },
  'set-aside': { word: 'set aside', className: 'bg-straw-wash text-straw' },
};
