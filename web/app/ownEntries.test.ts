import { expect, test } from 'vitest';
import { namedEntry, RED_CABBAGE } from '../../core/test-support/ownEntries';
import { carriedAnd, naming } from './ownEntries';

const entry = (id: string, version: number) => ({
  ...namedEntry({ kind: 'indicator', indicator: { ...RED_CABBAGE, id } }, id),
  version,
});

test('what is put right keeps what it carries as it was, also out of use, and may name what is in use', () => {
  const inUse = [entry('kept', 3), entry('other', 1)];
  const carried = [entry('kept', 2), entry('withdrawn', 1)];
  const own = carriedAnd(inUse, carried);
  expect(own.map(({ id, version }) => [id, version])).toEqual([
    ['kept', 2],
    ['withdrawn', 1],
    ['other', 1],
  ]);
  expect(naming(own, ['withdrawn']).own).toEqual([entry('withdrawn', 1)]);
  expect(carriedAnd(inUse)).toEqual(inUse);
});
