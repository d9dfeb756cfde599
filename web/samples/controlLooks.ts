import type { ControlStanding } from '#core/sample';

/** How what is said of a control looks. */
export const CONTROL_LOOKS: Readonly<Record<ControlStanding['verdict'], string>> = {
  'no-limits': 'border-rule-strong bg-shade',
  'in-control': 'border-leaf bg-leaf-wash',
  warned: 'border-straw bg-straw-wash',
  out: 'border-blush bg-blush-wash',
};
