import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';

/** The SHA-256, in hexadecimal, of a value in its canonical form: the same here and on the server, whatever the order of its fields. Source: RFC 8785. */
export function digestOf(value: object): string {
  return bytesToHex(sha256(utf8ToBytes(canonicalize(value) ?? '')));
}
