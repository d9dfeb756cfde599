import { useQueryClient } from '@tanstack/react-query';
import { RECORDS } from './atHand';

/** Reads all records again, after a change that did not go through a fact of ours. */
export function useReadAnew(): () => Promise<void> {
  const client = useQueryClient();
  return () => client.invalidateQueries({ queryKey: RECORDS });
}
