import type { ComponentProps } from 'react';
import { ListFoot } from '../ui/ListFoot';
import { Table } from '../ui/Table';
import type { PagedList } from './lists';
import { OnlyWhatWasRead } from './NotAllHere';

/** A list that is read page by page, as a table; what it says when nothing is found, and the way on at its foot. */
export function PagedTable({
  list,
  one,
  many,
  ...table
}: ComponentProps<typeof Table> & {
  readonly list: Pick<PagedList<never>, 'more' | 'isReading'>;
  /** What a row is: *lot*. */
  readonly one: string;
  readonly many: string;
}) {
  return (
    <>
      <OnlyWhatWasRead />
      {table.rows.length === 0 ? (
        <p className="text-lg text-ink-soft">No {one} is found.</p>
      ) : (
        <Table {...table} />
      )}
      <ListFoot shown={table.rows.length} what={many} {...list} />
    </>
  );
}
