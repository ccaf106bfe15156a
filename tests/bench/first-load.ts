import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

/** Compressed bytes of the scripts that index.html asks for before anything is opened: the entry and its preloads. */
export async function firstLoadBytes(folder: string): Promise<number> {
  const html = await readFile(join(folder, 'index.html'), 'utf8');
  const scripts = new Set([...html.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map((match) => match[1] ?? ''));
  let bytes = 0;
  for (const script of scripts) bytes += gzipSync(await readFile(join(folder, script))).length;
  return bytes;
}
