import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import {
  guessColumns,
  type ListField,
  type ListPlace,
  type ListRow,
  type ListTable,
} from '../../core/imports/camera-list.ts';
import type { ListWork } from '../workers/list-worker.ts';
import { type Errand, listWorker } from '../workers/workers.ts';

export interface ListReading {
  /** Why nothing of it can be taken; `null` while nothing stands against it. */
  readonly refused: string | null;
  readonly table: ListTable | null;
  readonly columns: readonly ListField[];
  /** As they were read last: while `done` is a number, by other columns than those chosen now. */
  readonly rows: readonly ListRow[] | null;
  /** Rows read so far, `null` at rest. */
  readonly done: number | null;
  readonly choose: (at: number, field: ListField) => void;
}

/** A list of cameras read beside the page, its rows anew whenever a column holds something else. */
export function useListReading(file: File, { cameras, models }: ListPlace): ListReading {
  const errand = useRef<Errand<ListWork> | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [table, setTable] = useState<ListTable | null>(null);
  const [columns, setColumns] = useState<readonly ListField[]>([]);
  const [rows, setRows] = useState<readonly ListRow[] | null>(null);
  const [done, setDone] = useState<number | null>(null);

  useEffect(() => {
    const worker = listWorker();
    errand.current = worker;
    const isNow = (): boolean => errand.current === worker;
    Promise.race([worker.work.readTable(file), worker.failed]).then(
      (read) => {
        if (!isNow()) return;
        if (!read.ok) return setRefused(read.error.message);
        setColumns(guessColumns(read.value.headings));
        setTable(read.value);
      },
      () => isNow() && setRefused('It could not be read: it may have changed, or its card was removed. Open it again.'),
    );
    return () => {
      errand.current = null;
      worker.end();
    };
  }, [file]);

  useEffect(() => {
    const worker = errand.current;
    if (!table || !worker) return;
    let isOld = false;
    setDone(0);
    const onRows = proxy((count: number) => {
      if (!isOld) setDone(count);
    });
    Promise.race([worker.work.rows(table, columns, { cameras, models }, onRows), worker.failed]).then(
      (read) => {
        if (isOld) return;
        setRows(read);
        setDone(null);
      },
      () => !isOld && setRefused('Its rows could not be read. Open it again; a smaller list may work.'),
    );
    return () => {
      isOld = true;
    };
  }, [table, columns, cameras, models]);

  const choose = (at: number, field: ListField): void =>
    setColumns(columns.map((old, index) => (index === at ? field : old === field && field !== 'none' ? 'none' : old)));
  return { refused, table, columns, rows, done, choose };
}
