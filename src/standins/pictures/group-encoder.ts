import { createRequire } from 'node:module';
import type H264Encoder from 'h264-mp4-encoder';
import type { GroupRequest } from './group-request.ts';
import { encodeJpegs } from './jpeg-pictures.ts';
import { type EncodedGroup, samplesOfMp4 } from './mp4-samples.ts';
import { Painter, type PictureFormat } from './painter.ts';

const FASTEST = 10;
const FILE = 'group.mp4';

let encoderModule: typeof H264Encoder | null = null;

/** The package handles uncaught errors of the whole process as its own; here it may not. */
function loadEncoder(): typeof H264Encoder {
  if (encoderModule) return encoderModule;
  const before = (['uncaughtException', 'unhandledRejection'] as const).map((event) => ({
    event,
    listeners: process.rawListeners(event),
  }));
  encoderModule = createRequire(import.meta.url)('h264-mp4-encoder') as typeof H264Encoder;
  for (const { event, listeners } of before)
    for (const added of process.rawListeners(event))
      if (!listeners.includes(added)) process.removeListener(event, added as () => void);
  return encoderModule;
}

/** Draws and encodes one group of pictures: a key frame and what follows it. */
export class GroupEncoder {
  readonly #painters = new Map<string, Promise<Painter>>();

  async encode(request: GroupRequest): Promise<EncodedGroup> {
    const { width, height, fps, frames } = request;
    const painter = await this.#painterFor(request);
    if (request.seen) await painter.lookAround();
    if (request.codec === 'JPEG') return encodeJpegs(painter, request);
    const encoder = await loadEncoder().createH264MP4Encoder();
    try {
      Object.assign(encoder, {
        width,
        height,
        frameRate: fps,
        speed: FASTEST,
        groupOfPictures: frames,
        outputFilename: FILE,
      });
      encoder.quantizationParameter = request.quantiser;
      encoder.initialize();
      for (let index = 0; index < frames; index++)
        encoder.addFrameYuv(painter.paint(request.startUnixMs + (index * 1000) / fps, request.seen?.[index] ?? null));
      encoder.finalize();
      return samplesOfMp4(encoder.FS.readFile(FILE));
    } finally {
      encoder.FS.unlink(FILE);
      encoder.delete();
    }
  }

  #painterFor({ scene, width, height, label, around }: PictureFormat): Promise<Painter> {
    const key = `${scene} ${width} ${height} ${label}`;
    const known = this.#painters.get(key);
    if (known) return known;
    const painter = Painter.create({ scene, width, height, label, ...(around ? { around } : {}) });
    this.#painters.set(key, painter);
    return painter;
  }
}
