import type { QueryClient } from '@tanstack/react-query';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type { LiveEvent, RunAnswer, SessionAnswer } from '#contract';
import { patchesOf } from '../app/patches';
import { LiveUpdates } from './liveUpdates';

/** Keeps what the pages show in step with the server while somebody is signed in. */
export function useLiveUpdates(session: SessionAnswer | undefined): void {
  const client = useQueryClient();
  const personId = session?.kind === 'signed-in' ? session.person.id : null;
  // Where to begin; once begun, the stream knows by itself where it is.
  const after = useRef(0);
  useEffect(() => {
    if (session?.kind === 'signed-in') after.current = session.liveAfter;
  }, [session]);
  useEffect(() => {
    if (personId === null) return;
    const live = new LiveUpdates(after.current, {
      onEvent: (event) => {
        readAnew(client, event);
      },
      onRefused: () => void client.invalidateQueries({ queryKey: ['session'] }),
    });
    return () => {
      live.close();
    };
  }, [client, personId]);
}

/** Marks as old what a change concerns; what is on the screen is read at once. */
function readAnew(client: QueryClient, event: LiveEvent): void {
  switch (event.kind) {
    case 'gap':
      void client.invalidateQueries();
      return;
    case 'fact': {
      const { recordKind, recordId, version } = event;
      const run = client.getQueryData<RunAnswer>(['run', recordId]);
      if (run && run.facts.length < version) {
        void client.invalidateQueries({ queryKey: ['run', recordId] });
      }
      patchesOf(client).note(recordKind, recordId);
      // The session says who is signed in, with their rights, and where.
      if (recordKind === 'laboratory' || recordKind === 'person') {
        void client.invalidateQueries({ queryKey: ['session'] });
      }
    }
  }
}
