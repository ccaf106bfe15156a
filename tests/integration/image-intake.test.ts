import { createHash, randomBytes } from 'node:crypto';
import { expect, test } from '@jest/globals';
import { BlobWriter, TextReader, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import { MOST_IMAGE_BYTES } from '../../src/core/document/chapters/cameras/reflash-ranges.ts';
import { hashFile, hashMember, lookAt } from '../../src/web/workers/image-intake.ts';

// What somebody drops as a firmware image: by itself, in a ZIP, and as hostile as files come.

const IMAGE = randomBytes(9 * 1024 * 1024 + 17);
const DIGEST = createHash('sha256').update(IMAGE).digest('hex');
const silent = (): void => {};

async function zipOf(files: Readonly<Record<string, Uint8Array | string>>, level = 6): Promise<Blob> {
  const writer = new ZipWriter(new BlobWriter('application/zip'), { useWebWorkers: false, level });
  for (const [name, content] of Object.entries(files))
    await writer.add(name, typeof content === 'string' ? new TextReader(content) : new Uint8ArrayReader(content));
  return await writer.close();
}

/** The ZIP with every place changed where four bytes stand, as one who forges its sizes would. */
async function forged(zip: Blob, was: number, now: number): Promise<Blob> {
  const data = Buffer.from(await zip.arrayBuffer());
  const [from, to] = [Buffer.alloc(4), Buffer.alloc(4)];
  from.writeUInt32LE(was);
  to.writeUInt32LE(now);
  for (let at = data.indexOf(from); at >= 0; at = data.indexOf(from, at + 4)) to.copy(data, at);
  return new Blob([data]);
}

test('a file is hashed in pieces as another implementation hashes it, and tells how far it is', async () => {
  const told: number[] = [];
  expect(await hashFile(new Blob([IMAGE]), (done) => told.push(done))).toEqual({
    ok: true,
    value: { sha256: DIGEST, bytes: IMAGE.length },
  });
  expect(told.at(-1)).toBe(IMAGE.length);
  expect(told.length).toBeGreaterThan(1);
  expect(told).toEqual([...told].sort((a, b) => a - b));
});

test('a ZIP is opened, its files listed, and one of them hashed as it unpacks', async () => {
  const zip = await zipOf({ 'fw/mini.bin': IMAGE, 'readme.txt': 'hold the button' });
  expect(await lookAt(zip)).toEqual({
    ok: true,
    value: {
      kind: 'zip',
      more: 0,
      members: [
        { name: 'fw/mini.bin', bytes: IMAGE.length, problem: null },
        { name: 'readme.txt', bytes: 15, problem: null },
      ],
    },
  });
  expect(await hashMember(zip, 'fw/mini.bin', silent)).toEqual({
    ok: true,
    value: { sha256: DIGEST, bytes: IMAGE.length },
  });
  expect(await hashMember(zip, 'gone.bin', silent)).toMatchObject({
    ok: false,
    error: expect.stringMatching(/has no gone/),
  });
});

test('a file that is no ZIP is taken as it is, whatever it holds', async () => {
  expect(await lookAt(new Blob([IMAGE]))).toEqual({ ok: true, value: { kind: 'file' } });
});

const small = (): Promise<Blob> => zipOf({ 'mini.bin': new Uint8Array(5000) });
const HUGE = { size: MOST_IMAGE_BYTES + 1 } as Blob;
const grows = (): Blob => {
  const blob = new Blob([IMAGE]);
  Object.defineProperty(blob, 'size', { value: IMAGE.length + 5000 });
  return blob;
};

test.each([
  { why: 'nothing in it', file: async () => new Blob([]), says: /empty/ },
  { why: 'larger than any image', file: async () => HUGE, says: /at most 537 MB/ },
  {
    why: 'a ZIP that is cut off',
    file: async () => (await small()).slice(0, 60),
    says: /cannot be read as one|not to be trusted/,
  },
  {
    why: 'a ZIP of noise',
    file: async () => new Blob([Buffer.from('PK\x03\x04'), randomBytes(4000)]),
    says: /cannot be read as one|not to be trusted/,
  },
  { why: 'a ZIP with nothing in it', file: () => zipOf({}), says: /no file is in it/ },
])('looked at: $why', async ({ file, says }) => {
  const looked = await lookAt(await file());
  expect(looked.ok ? 'taken' : looked.error).toMatch(says);
});

test.each([
  {
    why: 'the file grows while it is read',
    hash: async () => hashFile(grows(), silent),
    says: /changed while it was read/,
  },
  {
    why: 'it claims less than it holds',
    hash: async () => hashMember(await forged(await small(), 5000, 700), 'mini.bin', silent),
    says: /do not trust/,
  },
  {
    why: 'it claims more than it holds',
    hash: async () => hashMember(await forged(await small(), 5000, 900_000), 'mini.bin', silent),
    says: /do not trust/,
  },
  {
    why: 'a ZIP in a ZIP',
    hash: async () =>
      hashMember(
        await zipOf({ 'inner.zip': new Uint8Array(await (await small()).arrayBuffer()) }),
        'inner.zip',
        silent,
      ),
    says: /unpack it first/,
  },
  {
    why: 'a ZIP in a ZIP under another name',
    hash: async () =>
      hashMember(await zipOf({ 'mini.bin': new Uint8Array(await (await small()).arrayBuffer()) }), 'mini.bin', silent),
    says: /is a ZIP itself/,
  },
  {
    why: 'a name that climbs',
    hash: async () => hashMember(await zipOf({ '../../mini.bin': 'x' }), '../../mini.bin', silent),
    says: /leads out/,
  },
  {
    why: 'an empty member',
    hash: async () => hashMember(await zipOf({ 'mini.bin': '' }), 'mini.bin', silent),
    says: /empty/,
  },
])('hashed: $why', async ({ hash, says }) => {
  const found = await hash();
  expect(found.ok ? 'taken' : found.error).toMatch(says);
});

test('names that climb, archives and empty files are listed with what is wrong with them', async () => {
  const looked = await lookAt(await zipOf({ '../up.bin': 'x', 'a/inner.zip': 'x', 'ok.bin': 'x', 'none.bin': '' }));
  const problems =
    looked.ok && looked.value.kind === 'zip' ? looked.value.members.map(({ problem }) => problem !== null) : [];
  expect(problems).toEqual([true, true, false, true]);
});

test('what unpacks to a thousand times its size is stopped where its claim ends', async () => {
  const bomb = await forged(await zipOf({ 'mini.bin': new Uint8Array(60 * 1024 * 1024) }, 9), 60 * 1024 * 1024, 65_536);
  const told: number[] = [];
  const found = await hashMember(bomb, 'mini.bin', (done) => told.push(done));
  expect(found.ok ? 'taken' : found.error).toMatch(/do not trust/);
  expect(Math.max(0, ...told)).toBeLessThanOrEqual(65_536);
});

test('a ZIP with one name twice is refused, in its list and when it is hashed', async () => {
  const zip = await zipOf({ 'fw/one.bin': 'first', 'fw/two.bin': 'second' });
  const data = Buffer.from(await zip.arrayBuffer());
  for (let at = data.indexOf('fw/two.bin'); at >= 0; at = data.indexOf('fw/two.bin', at + 1))
    data.write('fw/ONE.bin', at);
  const doubled = new Blob([data]);
  expect(await lookAt(doubled)).toMatchObject({ ok: false, error: expect.stringContaining('twice') });
  expect(await hashMember(doubled, 'fw/one.bin', silent)).toMatchObject({
    ok: false,
    error: expect.stringContaining('twice'),
  });
});
