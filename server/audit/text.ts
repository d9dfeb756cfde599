import { createHash } from 'node:crypto';
import canonicalize from 'canonicalize';

/** The text of RFC 8785: one value has one text, whatever the order of its keys. */
export function canonicalText(value: object): string {
  const text = canonicalize(value);
  if (text === undefined) throw new RangeError('only JSON has a canonical text');
  return text;
}

/** SHA-256 in hexadecimal. */
export function sha256(text: string): string {
  return createHash('sha256').update(text, 'utf8').digest('hex');
}

/** SHA-256 of a value's canonical JSON. */
export function digestOf(value: object): string {
  return sha256(canonicalText(value));
}
