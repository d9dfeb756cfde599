import { useNavigate } from 'react-router';
import type { Own, OwnEntry } from '#core/chemistry';
import type { RecordVersion } from '#core/record';
import { ownEntrySchema } from '#contract';
import { useWriting } from '../app/useWriting';

/** Writes an entry of a kind, or a version of one, and goes back to the list. */
export function useWritingEntry(record: RecordVersion, kind: OwnEntry['kind']) {
  const navigate = useNavigate();
  const { found, refused, write, ...rest } = useWriting({
    record,
    schema: ownEntrySchema,
    // `steps` for `recipe.steps.1.text`.
    fieldOf: (path) => path.split('.')[1] ?? path,
    onWritten: () => void navigate(`/catalogue?of=${kind}`),
  });
  return {
    ...rest,
    errors: { ...refused, ...found },
    write: (written: object, named: { readonly own?: Own }, reason: string): void => {
      write(written, reason, (entry) => ({
        kind: 'entry.written',
        body: { entry, ...named, reason },
      }));
    },
  };
}
