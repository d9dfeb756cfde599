import { expect, test } from 'vitest';
import type { Fact, RecordHead } from './index';
import { defineRecord, impossible } from './index';

interface Note extends RecordHead {
  readonly lines: readonly string[];
  readonly late: readonly string[];
  readonly isClosed: boolean;
}
interface Bodies {
  readonly 'note.begun': { readonly line: string };
  readonly 'note.added': { readonly line: string };
  readonly 'note.closed': object;
}

const listed = {
  ...{ name: '', words: [], aboutId: null, atHandUntil: null },
  standing: { now: 'open', lastDay: null, after: 'open', warningDays: null },
} as const;

/** A record that is closed by a decision; what was observed before that and comes later is kept apart, where it may be. */
function noteRecord(takesLate: boolean) {
  return defineRecord<'note', Bodies, Note, unknown>({
    kind: 'note',
    first: 'note.begun',
    begin: ({ body }) => ({
      ...{ late: [], isClosed: false },
      lines: ['line' in body ? body.line : ''],
    }),
    closed: ({ isClosed }) =>
      isClosed ? [impossible('run-closed', 'note', { status: 'certified' })] : [],
    ...(takesLate && {
      late: ({ late }: Note, fact: Fact) => ({
        late: [...late, (fact.body as { line: string }).line],
      }),
    }),
    listed: () => listed,
    facts: {
      'note.begun': {
        nature: 'observation',
        check: () => [],
        apply: () => ({}),
        sentence: () => '',
      },
      'note.added': {
        nature: 'observation',
        check: () => [],
        apply: ({ lines }, { body }) => ({ lines: [...lines, body.line] }),
        sentence: () => '',
      },
      'note.closed': {
        nature: 'decision',
        check: () => [],
        apply: () => ({ isClosed: true }),
        sentence: () => '',
      },
    },
  });
}

type Facts = Parameters<ReturnType<typeof noteRecord>['fold']>[0];
const fact = (id: string, kind: string, line?: string) => ({
  id,
  recordId: 'n',
  kind,
  body: { line },
});
const folded = (takesLate: boolean, ...facts: readonly object[]) =>
  noteRecord(takesLate).fold(facts as unknown as Facts);

const BEGUN = fact('1', 'note.begun', 'a');
const CLOSED = fact('3', 'note.closed');

test('a record begins with its first fact and no other; each fact counts once', () => {
  expect(folded(true, fact('2', 'note.added', 'b'))).toBeNull();
  expect(folded(true)).toBeNull();
  const added = fact('2', 'note.added', 'b');
  expect(folded(true, added, BEGUN, added, BEGUN, added)).toEqual({
    ...{ id: 'n', version: 2, factIds: ['1', '2'] },
    ...{ lines: ['a', 'b'], late: [], isClosed: false },
  });
});

test('what was observed and comes after the end changes what the record says it does, and is counted', () => {
  const late = fact('4', 'note.added', 'b');
  const head = { version: 3, factIds: ['1', '3', '4'], isClosed: true, lines: ['a'] };
  expect(folded(true, BEGUN, CLOSED, late)).toMatchObject({ ...head, late: ['b'] });
  expect(folded(false, BEGUN, CLOSED, late)).toMatchObject({ ...head, late: [] });
  // A decision is one all the same, and a fact of a later program is counted only.
  expect(folded(true, BEGUN, CLOSED, fact('5', 'note.closed'))).toMatchObject({
    version: 3,
    late: [],
  });
  expect(folded(true, BEGUN, fact('6', 'note.painted'))).toMatchObject({
    version: 2,
    lines: ['a'],
  });
});
