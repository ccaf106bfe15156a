import { BlobReader, type FileEntry, ZipReader } from '@zip.js/zip.js';
import { createSHA256 } from 'hash-wasm';
import { clipText } from '../../core/base/clip.ts';
import { oneLine } from '../../core/base/control-signs.ts';
import { err, ok, type Result } from '../../core/base/result.ts';
import { sayBytes } from '../../core/base/say.ts';
import { MOST_IMAGE_BYTES } from '../../core/document/chapters/cameras/reflash-ranges.ts';
import {
  type ArchiveMember,
  doubledName,
  looksLikeZip,
  MOST_MEMBERS,
  memberProblem,
} from '../../core/firmware/archive.ts';

/** What was dropped: a file by itself, or a ZIP with what is in it. */
export type Looked =
  | { readonly kind: 'file' }
  | { readonly kind: 'zip'; readonly members: readonly ArchiveMember[]; readonly more: number };

export interface Hashed {
  readonly sha256: string;
  readonly bytes: number;
}

/** Read at once: large enough to be fast, small enough that a file of any size takes little memory. */
const PIECE_BYTES = 1024 * 1024;
const TELL_EVERY_BYTES = 4 * 1024 * 1024;
const MOST_SAID = sayBytes(MOST_IMAGE_BYTES);

const CHANGED =
  'The file changed while it was read: something is still writing it. Wait until it is complete, then drop it again.';
const EMPTY = 'The file is empty: its download broke off before it began. Download it again.';
const LIES = 'It unpacks to another size than its archive claims: do not trust this archive. It was not added.';

/** What a browser raises of a file that is no longer as it was when it was dropped. */
const isChanged = (error: unknown): boolean =>
  (error instanceof DOMException && (error.name === 'NotReadableError' || error.name === 'NotFoundError')) ||
  // What is read as a stream ends so, by when the change is noticed: a local file has no other network.
  (error instanceof TypeError && error.message === 'network error');

const plain = (error: unknown): string => (isChanged(error) ? CHANGED : `It could not be read: ${String(error)}.`);

/** Looks at what was dropped. A ZIP is opened and its contents listed; nothing of it is unpacked. */
export async function lookAt(file: Blob): Promise<Result<Looked, string>> {
  if (file.size === 0) return err(EMPTY);
  if (file.size > MOST_IMAGE_BYTES)
    return err(
      `The file has ${sayBytes(file.size)}; a firmware file has at most ${MOST_SAID}. Drop the firmware file itself.`,
    );
  try {
    const head = new Uint8Array(await file.slice(0, 4).arrayBuffer());
    if (!looksLikeZip(head)) return ok({ kind: 'file' });
  } catch (error) {
    return err(plain(error));
  }
  return await withZip(file, async (reader) => {
    const members: ArchiveMember[] = [];
    const names: string[] = [];
    let more = 0;
    for await (const { filename, uncompressedSize, directory, encrypted } of reader.getEntriesGenerator()) {
      if (directory) continue;
      names.push(filename);
      if (members.length >= MOST_MEMBERS) more += 1;
      else {
        const problem = encrypted
          ? 'a password is required'
          : memberProblem(filename, uncompressedSize, MOST_IMAGE_BYTES);
        members.push({ name: filename.slice(0, 400), bytes: uncompressedSize, problem });
      }
    }
    if (members.length === 0) return err('The ZIP is empty: no file is in it.');
    const double = doubledName(names);
    if (double !== null) return err(twice(double));
    return ok({ kind: 'zip', members, more });
  });
}

async function withZip<T>(
  file: Blob,
  work: (reader: ZipReader<unknown>) => Promise<Result<T, string>>,
): Promise<Result<T, string>> {
  const reader = new ZipReader(new BlobReader(file), {
    useWebWorkers: false,
    checkSignature: true,
    checkOverlappingEntry: true,
    filenameValidation: 'tolerant', // names that climb are listed with what is wrong with them
  });
  try {
    return await work(reader);
  } catch (error) {
    if (isChanged(error)) return err(CHANGED);
    const said = error instanceof Error ? error.message : String(error);
    return err(
      /size|overlap|ambiguous|signature|CRC/i.test(said)
        ? LIES
        : `It begins like a ZIP and cannot be read as one (${said.slice(0, 120)}). Download it again.`,
    );
  } finally {
    await reader.close().catch(() => {});
  }
}

type Progress = (doneBytes: number) => void;

/**
 * Everything in a file, a piece at a time, in one buffer that is filled again and again: pieces that the browser gives
 * anew each time are cleared up too late, and take twice the memory that is allowed.
 */
async function* piecesOf(file: Blob): AsyncGenerator<Uint8Array> {
  const stream = file.stream();
  const reader = byteReaderOf(stream);
  if (!reader) {
    for (const plain = stream.getReader(); ; ) {
      const { done, value } = await plain.read();
      if (done) return;
      yield value;
    }
  }
  let buffer = new ArrayBuffer(PIECE_BYTES);
  for (;;) {
    const { done, value } = await reader.read(new Uint8Array(buffer));
    if (done) return;
    yield value;
    buffer = value.buffer;
  }
}

/** A browser whose files are no streams of bytes fills no buffer of ours. */
function byteReaderOf(stream: ReadableStream): ReadableStreamBYOBReader | null {
  try {
    return stream.getReader({ mode: 'byob' });
  } catch {
    return null;
  }
}

/** SHA-256 of a file, piece by piece. Source: FIPS 180-4. */
export async function hashFile(file: Blob, onProgress: Progress): Promise<Result<Hashed, string>> {
  if (file.size === 0) return err(EMPTY);
  if (file.size > MOST_IMAGE_BYTES)
    return err(`The file has ${sayBytes(file.size)}; at most ${MOST_SAID} are allowed.`);
  const hasher = await createSHA256();
  hasher.init();
  let done = 0;
  let told = 0;
  try {
    for await (const piece of piecesOf(file)) {
      done += piece.length;
      if (done > file.size) return err(CHANGED);
      hasher.update(piece);
      if (done - told < TELL_EVERY_BYTES && done < file.size) continue;
      told = done;
      onProgress(done);
    }
  } catch (error) {
    return err(plain(error));
  }
  return done === file.size ? ok({ sha256: hasher.digest('hex'), bytes: done }) : err(CHANGED);
}

class TooMuch extends Error {
  override readonly name = 'TooMuch';
}

const twice = (name: string): string =>
  `The ZIP contains ${clipText(oneLine(name), 80)} twice: one program unpacks the first, another the last, and only one of them would be checked. Download it again from where it is published.`;

/** The same of one file in a ZIP, unpacked as a stream: no more of it is ever held than a piece. */
export async function hashMember(file: Blob, name: string, onProgress: Progress): Promise<Result<Hashed, string>> {
  const hasher = await createSHA256();
  return await withZip(file, async (reader) => {
    let found: FileEntry | null = null;
    const names: string[] = [];
    for await (const entry of reader.getEntriesGenerator()) {
      if (entry.directory) continue;
      names.push(entry.filename);
      if (entry.filename === name) found ??= entry;
    }
    const double = doubledName(names);
    if (double !== null) return err(twice(double));
    if (!found) return err(`The ZIP has no ${name} any more.`);
    const claimed = found.uncompressedSize;
    const problem = memberProblem(name, claimed, MOST_IMAGE_BYTES);
    if (problem !== null) return err(`${name}: ${problem}.`);
    hasher.init();
    let done = 0;
    let head = new Uint8Array();
    const sink = new WritableStream<Uint8Array>({
      write: (piece) => {
        if (done === 0) head = piece.slice(0, 4);
        done += piece.length;
        // what unpacks to more than it claims is stopped here, however much it would be
        if (done > claimed) throw new TooMuch();
        hasher.update(piece);
        onProgress(done);
      },
    });
    try {
      await found.getData(sink);
    } catch (error) {
      if (done > claimed) return err(LIES);
      throw error;
    }
    if (done !== claimed) return err(LIES);
    if (looksLikeZip(head)) return err(`${name} is a ZIP itself: unpack it first, then drop the file inside.`);
    return ok({ sha256: hasher.digest('hex'), bytes: done });
  });
}
