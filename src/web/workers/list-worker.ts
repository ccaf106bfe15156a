import { expose } from 'comlink';
import { camerasOfList, readListTable } from '../../core/imports/camera-list.ts';
import { readLeaseFile } from '../../core/imports/lease-file.ts';

/** Lists and files of routers are read beside the page: eight megabytes of one take seconds. */
const listWork = {
  readTable: async (file: Blob) => readListTable(await file.text()),
  readLeases: async (file: Blob) => readLeaseFile(new Uint8Array(await file.arrayBuffer())),
  rows: camerasOfList,
};
export type ListWork = typeof listWork;
expose(listWork);
