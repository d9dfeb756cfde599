import { useQuery } from '@tanstack/react-query';
import type { PreparationRecords, PreparationState } from '#core/preparation';
import { preparationAnswer } from '#contract';
import { ask } from '../app/api';
import type { Stock } from '../app/stock';

/**
 * What a preparation rests on: as it was when the preparation drew from it, as soon as the server has told; as it is now before
 * that, and while nothing has been drawn.
 */
export function usePinned({ id, drawn }: PreparationState, stock: Stock): PreparationRecords {
  const { data } = useQuery({
    queryKey: ['pinned', id, drawn?.at ?? null],
    queryFn: () => ask(preparationAnswer, 'GET', `/preparations/${id}`),
    enabled: drawn !== null,
    staleTime: Number.POSITIVE_INFINITY,
    throwOnError: false,
  });
  return data?.records ?? stock;
}
