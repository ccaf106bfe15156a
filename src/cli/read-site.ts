import { readFile } from 'node:fs/promises';
import type { Site } from '../core/document/site.ts';
import { readSiteFile } from '../core/document/site-file.ts';
import { InputError, UsageError } from './usage-error.ts';

/** A text of the person's disk. */
export async function readText(file: string): Promise<string> {
  try {
    return await readFile(file, 'utf8');
  } catch {
    throw new UsageError(`${file} could not be read.`);
  }
}

export async function readSite(file: string): Promise<Site> {
  const read = readSiteFile(await readText(file));
  if (!read.ok) throw new InputError(`${file}: ${read.error.message}`);
  return read.value;
}
