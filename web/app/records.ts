import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { v7 as uuidv7 } from 'uuid';
import { currentSchemaVersion, recordKindOf } from '#core/ledger';
import type { RecordsNow } from '#core/titration';
import type {
  ListAnswer,
  ListKind,
  ListStates,
  NewFact,
  PeopleAnswer,
  Person,
  ProposedFact,
} from '#contract';
import { ask } from './api';
import { deviceStamp } from './device';
import { failsThePage } from './queryClient';
import { useSession } from './session';

/** A list of records as the server last told it. */
export function useRecords<K extends ListKind>(kind: K): readonly ListStates[K][] | undefined {
  return useQuery({
    queryKey: ['records', kind],
    queryFn: async () => (await ask<ListAnswer<K>>('GET', `/records/${kind}`)).records,
    throwOnError: failsThePage,
  }).data;
}

/** What a run may rest on, as it is now; empty until it is known. */
export function useRecordsNow(): RecordsNow {
  return {
    bottles: useRecords('bottle') ?? [],
    lots: useRecords('lot') ?? [],
    equipment: useRecords('equipment') ?? [],
  };
}

/** The people of the laboratory. */
export function usePeople(): readonly Person[] | undefined {
  return useQuery({
    queryKey: ['people'],
    queryFn: async () => (await ask<PeopleAnswer>('GET', '/people')).people,
    throwOnError: failsThePage,
  }).data;
}

/** The name of a person by id, as far as it is known. */
export function usePersonName(): (id: string) => string {
  const people = usePeople();
  return (id) => people?.find((person) => person.id === id)?.name ?? '…';
}

/** A fact with its envelope, made on this device now. */
export function makeFact(
  fact: NewFact,
  recordId: string,
  authorId: string,
  basedOn: number | null = null,
): ProposedFact {
  // Kind and body are a pair of the union.
  return {
    ...fact,
    id: uuidv7(),
    recordId,
    recordKind: recordKindOf(fact.kind),
    schemaVersion: currentSchemaVersion(fact.kind),
    authorId,
    ...deviceStamp(),
    basedOn,
  };
}

/** The version of a record before its first fact. */
const NOTHING_YET = 0;

/** Begins a new record with its first fact; gives the record's id. What was typed stays in the form if it fails. */
export function useBeginRecord() {
  const client = useQueryClient();
  const { person } = useSession();
  return useMutation({
    mutationFn: async (fact: NewFact) => {
      const recordId = uuidv7();
      await ask('POST', '/facts', makeFact(fact, recordId, person.id, NOTHING_YET));
      return recordId;
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['records'] }),
  });
}

/** Adds a fact to a record that is there; rejects with what the server has against it. */
export function useAddToRecord() {
  const client = useQueryClient();
  const { person } = useSession();
  return useMutation({
    mutationFn: ({
      fact,
      recordId,
      basedOn,
    }: {
      readonly fact: NewFact;
      readonly recordId: string;
      readonly basedOn: number;
    }) => ask('POST', '/facts', makeFact(fact, recordId, person.id, basedOn)),
    onSuccess: () => client.invalidateQueries({ queryKey: ['records'] }),
  });
}
