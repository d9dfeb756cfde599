import { useQueryClient } from '@tanstack/react-query';

/** Reads all records anew, after a change that did not go through a fact of ours. */
export function useReadAnew(): () => Promise<void> {
  const client = useQueryClient();
  return () =>
    client.invalidateQueries({
      predicate: ({ queryKey: [what] }) =>
        ['records', 'record', 'list', 'stock'].includes(String(what)),
    });
}
