import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { oneLine } from '../core/base/control-signs.ts';
import { rangeProblem } from '../core/base/range.ts';
import { sayBytes, sayCount } from '../core/base/say.ts';
import { bytes } from '../core/base/units.ts';
import { MOST_IMAGE_BYTES } from '../core/document/chapters/cameras/reflash-ranges.ts';
import { compareNames, NAME_WORDS } from '../core/firmware/image-name.ts';
import { CARD_RANGES, fileSystemFor, fitsOn, MIB, partitionWithin } from '../core/firmware/memory-card.ts';
import { compareHash, digestProblem } from '../core/firmware/published-hash.ts';
import { print, printJson } from './print.ts';
import { InputError, UsageError } from './usage-error.ts';

/** How a card is divided, what an image is, and whether both fit. Exit code 0 when all is well, 1 when something is not. */
export async function cardCommand(args: readonly string[]): Promise<number> {
  const { values } = parseArgs({
    args: [...args],
    options: {
      size: { type: 'string' },
      limit: { type: 'string' },
      firmware: { type: 'string' },
      sha256: { type: 'string' },
      name: { type: 'string' },
      json: { type: 'boolean', default: false },
    },
  });
  if (values.size === undefined)
    throw new UsageError('--size is needed: the size of the SD card in bytes, 32000000000 for 32 GB.');
  const size = numberOf('size', values.size, CARD_RANGES.bytes);
  const limit = values.limit === undefined ? null : numberOf('limit', values.limit, CARD_RANGES.limitGiB);
  const needsImage = values.sha256 !== undefined || values.name !== undefined;
  if (values.firmware === undefined && needsImage) throw new UsageError('--sha256 and --name belong to --firmware.');
  const problem = values.sha256 === undefined ? null : digestProblem(values.sha256);
  if (problem !== null) throw new UsageError(`--sha256: ${problem}`);

  const partition = partitionWithin(bytes(size), limit);
  const fileSystem = fileSystemFor(bytes(size), partition);
  const image = values.firmware === undefined ? null : await hashed(values.firmware);
  const published = values.sha256 ?? '';
  const verdict = image && compareHash(image.sha256, published);
  const nameVerdict = image && values.name !== undefined ? compareNames(values.name, basename(image.file)) : null;
  const imageFits = image && partition.fits && fitsOn(image.bytes, partition, fileSystem);
  const { startSector, sectors, endSector, unusedMiB, fits, sizeMiB } = partition;
  const found = {
    partition: { startSector, sectors, endSector, sizeMiB, unusedMiB, fits },
    fileSystem,
    imageBytes: image?.bytes ?? null,
    imageFits,
    sha256: image?.sha256 ?? null,
    matches: verdict === null || verdict === 'unsaid' ? null : verdict === 'ok',
    nameVerdict,
  };
  if (values.json) printJson(found);
  else {
    print(
      fits
        ? `partition: sectors ${sayCount(startSector)} to ${sayCount(endSector)}, ${sayCount(sizeMiB)} MiB, ${fileSystem}; ${Math.round(unusedMiB ?? 0)} MiB behind it stay free\n`
        : 'partition: none fits this SD card\n',
    );
    if (image) print(`firmware: ${sayBytes(image.bytes)}, SHA-256 ${image.sha256}\n`);
    if (found.matches !== null)
      print(found.matches ? 'it is the file that was published\n' : 'it is another file than was published\n');
    if (nameVerdict) print(`name: ${NAME_WORDS[nameVerdict]}\n`);
    if (imageFits === false) print('the firmware file does not fit the partition\n');
  }
  const isWell =
    fits && imageFits !== false && found.matches !== false && (nameVerdict === null || nameVerdict === 'ok');
  return isWell ? 0 : 1;
}

function numberOf(name: string, text: string, range: Parameters<typeof rangeProblem>[0]): number {
  const value = text.trim() === '' ? Number.NaN : Number(text);
  const problem = rangeProblem(range, value);
  if (problem !== null)
    throw new UsageError(
      `--${name}: expected ${problem.replace(/, not .*$/, '')}, got “${oneLine(text).slice(0, 40)}”.`,
    );
  return value;
}

interface HashedImage {
  readonly file: string;
  readonly bytes: number;
  readonly sha256: string;
}

/** Read in pieces, whatever its size; a file that changes meanwhile is told. */
async function hashed(file: string): Promise<HashedImage> {
  const before = await stat(file).catch(() => null);
  if (!before?.isFile()) throw new UsageError(`${file} could not be read.`);
  if (before.size === 0)
    throw new InputError(`${file} is empty: its download broke off before it began. Download it again.`);
  if (before.size > MOST_IMAGE_BYTES)
    throw new InputError(
      `${file} has ${sayBytes(before.size)}; a firmware file has at most ${sayBytes(MOST_IMAGE_BYTES)}.`,
    );
  const hash = createHash('sha256');
  let count = 0;
  for await (const piece of createReadStream(file, { highWaterMark: 4 * MIB })) {
    count += piece.length;
    if (count > before.size) break;
    hash.update(piece);
  }
  const after = await stat(file).catch(() => null);
  if (count !== before.size || after?.size !== before.size || after.mtimeMs !== before.mtimeMs)
    throw new InputError(
      `${file} changed while it was read: something is still writing it. Try again when the download is complete.`,
    );
  const sha256 = hash.digest('hex');
  return { file, bytes: count, sha256 };
}
