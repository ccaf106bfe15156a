import { nanoid } from '@reduxjs/toolkit';

/** A new id such as `tap-3kX9…`, of the signs that a site file allows. */
export const newId = (kind: string): string => `${kind}-${nanoid(10).replace(/[^A-Za-z0-9]/g, 'x')}`;
