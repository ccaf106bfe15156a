import { clipText } from '../base/clip.ts';
import { oneLine } from '../base/control-signs.ts';
import { TEXT_LIMITS } from '../base/limits.ts';

/** A file in a ZIP, as its list of contents has it. */
export interface ArchiveMember {
  readonly name: string;
  /** As the archive claims. */
  readonly bytes: number;
  /** Why it is not taken, in words; `null` where it may be. */
  readonly problem: string | null;
}

/** More are listed by their number alone. */
export const MOST_MEMBERS = 500;

/**
 * A name that two files of a ZIP have, as a file system would see it: whatever the case of its letters, and without “./” before it.
 * `null` where each has its own.
 */
export function doubledName(names: readonly string[]): string | null {
  const seen = new Set<string>();
  for (const name of names) {
    const plain = name
      .replace(/\\/g, '/')
      .replace(/^(?:\.\/)+/, '')
      .toLowerCase();
    if (seen.has(plain)) return name;
    seen.add(plain);
  }
  return null;
}

/** “PK” and what follows: a ZIP begins with its first file, an empty one with its end. Source: APPNOTE.TXT 4.3.7, 4.3.16. */
export const looksLikeZip = (head: Uint8Array): boolean =>
  head[0] === 0x50 && head[1] === 0x4b && ((head[2] === 3 && head[3] === 4) || (head[2] === 5 && head[3] === 6));

/** Whether a name leads out of the folder that it is unpacked into. */
function climbsOut(name: string): boolean {
  const parts = name.split(/[/\\]/);
  return parts.includes('..') || parts[0] === '' || /^[A-Za-z]:/.test(name);
}

/** What speaks against taking a member of a ZIP; `null` when nothing does. */
export function memberProblem(name: string, bytes: number, most: number): string | null {
  if (climbsOut(name)) return 'its name leads outside the folder that it is unpacked into: do not trust this archive';
  if (/\.(zip|7z|rar|gz|xz|tar)$/i.test(name))
    return 'it is an archive itself: unpack it first, then drop the file inside';
  if (bytes === 0) return 'it is empty';
  return bytes > most ? 'it is larger than a firmware file may be' : null;
}

/** The name of a file without its folders, as it goes onto a card. */
export const baseName = (name: string): string =>
  clipText(oneLine(name.split(/[/\\]/).at(-1) ?? ''), TEXT_LIMITS.fileName);
