import type { Id } from '../grammar';

/** A file that was attached to a record, kept in the database beside the facts. */
export interface StoredFile {
  readonly fileId: Id;
  readonly name: string;
  readonly type: 'application/pdf' | 'application/json' | 'image/png' | 'image/jpeg';
  readonly sizeBytes: number;
  /** Of its content, in hexadecimal: the log vouches for the file through it. */
  readonly sha256: string;
}
