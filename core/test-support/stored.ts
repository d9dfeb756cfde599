import type { Id, Plain } from '#core/grammar';

/** What a test writes down, as the store would hold it: the grammars are the contract's to check. */
export function stored<T>(plain: NoInfer<Plain<T>>): T {
  return plain as T;
}

/** Tests give their records names for ids. */
export function idOf(name: string): Id {
  return name as Id;
}
