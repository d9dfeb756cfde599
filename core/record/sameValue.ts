import canonicalize from 'canonicalize';

/** Whether two values say the same, whatever the order of their fields. */
export function sameValue(one: object | null, other: object | null): boolean {
  return canonicalize(one) === canonicalize(other);
}
