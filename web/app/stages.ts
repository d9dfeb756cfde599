/** The stages of the work in the order in which they are done. */
export const STAGES = [
  { name: 'Shelf', to: '/' },
  { name: 'Prepare', to: '/prepare' },
  { name: 'Titrate', to: '/titrate' },
  { name: 'Judge', to: '/judge' },
] as const;
export type Stage = (typeof STAGES)[number]['name'];

/** What a laboratory keeps, beside the stages. */
export const KEPT_BELOW = [
  { name: 'Samples', to: '/samples' },
  { name: 'Lots', to: '/lots' },
  { name: 'Equipment', to: '/equipment' },
  { name: 'Methods', to: '/methods' },
  { name: 'Catalogue', to: '/catalogue' },
  { name: 'House rules', to: '/rules' },
  { name: 'Settings', to: '/settings' },
  { name: 'People', to: '/people' },
  { name: 'History', to: '/history' },
  { name: 'Verification', to: '/verification' },
] as const;

/** The stage that a page belongs to; null for what is beside the stages. */
export function stageOf(path: string): Stage | null {
  if (path === '/' || path.startsWith('/bottles')) return 'Shelf';
  if (path.startsWith('/prepar')) return 'Prepare';
  if (path.endsWith('/judge') || /\/(certificates|reports)\//.test(path)) return 'Judge';
  if (path.startsWith('/titrate') || path.startsWith('/runs')) return 'Titrate';
  return null;
}
