import { expose } from 'comlink';
import { err } from '../../core/base/result.ts';
import { camerasOfList, LIST_TOO_LARGE, MOST_LIST_BYTES, readListTable } from '../../core/imports/camera-list.ts';
import { readLeaseFile } from '../../core/imports/lease-file.ts';

/** Lists and files of routers are read beside the page: eight megabytes of one take seconds. */
const listWork = {
  readTable: async (file: Blob) =>
    file.size > MOST_LIST_BYTES ? err(LIST_TOO_LARGE) : readListTable(await file.text()),
  readLeases: async (file: Blob, onShare: (share: number) => void) =>
    readLeaseFile(new Uint8Array(await file.arrayBuffer()), onShare),
  rows: camerasOfList,
};
export type ListWork = typeof listWork;
expose(listWork);
