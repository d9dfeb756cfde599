import type { Remote } from 'comlink';
import { proxy, wrap } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Computations } from './worker';

/** Where a computation stands. */
export type Computation<T> =
  | { readonly kind: 'idle' }
  /** `part` is what is done, 0 to 1. */
  | { readonly kind: 'running'; readonly part: number }
  | { readonly kind: 'done'; readonly value: T }
  | { readonly kind: 'failed'; readonly message: string };

type Ask<T> = (worker: Remote<Computations>, onProgress: (part: number) => void) => Promise<T>;

/**
 * Runs a long computation in a worker of its own, so that the page stays quick. Starting again, cancelling and leaving the page
 * end the worker.
 */
export function useComputation<T>(): {
  readonly state: Computation<T>;
  readonly start: (ask: Ask<T>) => void;
  readonly cancel: () => void;
} {
  const [state, setState] = useState<Computation<T>>({ kind: 'idle' });
  const running = useRef<Worker | null>(null);

  const end = useCallback(() => {
    running.current?.terminate();
    running.current = null;
  }, []);
  useEffect(() => end, [end]);

  const start = useCallback(
    (ask: Ask<T>) => {
      end();
      const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
      running.current = worker;
      setState({ kind: 'running', part: 0 });
      // A worker that was ended has nothing more to say.
      const tell = (next: Computation<T>): void => {
        if (running.current === worker) setState(next);
      };
      worker.onerror = () => {
        tell({ kind: 'failed', message: 'The computation could not be started.' });
      };
      const onProgress = proxy((part: number) => {
        tell({ kind: 'running', part });
      });
      ask(wrap<Computations>(worker), onProgress)
        .then((value) => {
          tell({ kind: 'done', value });
        })
        .catch((error: unknown) => {
          tell({ kind: 'failed', message: error instanceof Error ? error.message : String(error) });
        })
        .finally(() => {
          if (running.current === worker) end();
        });
    },
    [end],
  );

  const cancel = useCallback(() => {
    end();
    setState({ kind: 'idle' });
  }, [end]);

  return { state, start, cancel };
}
