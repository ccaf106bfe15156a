// Draws and encodes the loops that simulated devices play where our own encoder does not reach: H.265, B-frames, open groups,
// AAC, Opus, G.726. Run by hand when a picture or a tone changes, never when the product runs: it needs Debian's ffmpeg.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';

const WIDTH = 320;
const HEIGHT = 180;
const FPS = 12;
const GROUP = 24;
const folder = mkdtempSync(join(tmpdir(), 'loops-'));
const target = new URL('../src/standins/loops/', import.meta.url);

/** A pendulum over a bench: one swing a group, so that every group ends where it began. */
function scene(frame) {
  const turn = (frame % GROUP) / GROUP;
  const x = 160 + 70 * Math.sin(2 * Math.PI * turn);
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}">
    <rect width="320" height="180" fill="#d9d4c7"/><rect y="134" width="320" height="46" fill="#8b7a63"/>
    <rect x="24" y="96" width="52" height="38" fill="#5f7a78"/><rect x="236" y="84" width="60" height="50" fill="#a8a293"/>
    <path d="M160 10 L${x} 112" stroke="#33302a" stroke-width="2"/><circle cx="${x}" cy="114" r="13" fill="#8f4a35"/>
    <rect x="${12 + 296 * turn}" y="168" width="4" height="8" fill="#f2efe6"/></svg>`;
}

async function frames(count) {
  const parts = [];
  for (let frame = 0; frame < count; frame++)
    parts.push(
      await sharp(Buffer.from(scene(frame)))
        .removeAlpha()
        .raw()
        .toBuffer(),
    );
  return Buffer.concat(parts);
}

function ffmpeg(args, input) {
  const { status, stdout, stderr } = spawnSync('ffmpeg', ['-v', 'error', '-y', ...args], { input, maxBuffer: 1 << 28 });
  if (status !== 0) throw new Error(String(stderr));
  return stdout;
}

const RAW = ['-f', 'rawvideo', '-pix_fmt', 'rgb24', '-s', `${WIDTH}x${HEIGHT}`, '-r', String(FPS), '-i', '-'];

/** NAL units of an Annex B stream. */
function nalsOf(bytes) {
  const starts = [];
  for (let at = 0; at + 3 <= bytes.length; at++)
    if (bytes[at] === 0 && bytes[at + 1] === 0 && bytes[at + 2] === 1) starts.push(at + 3);
  return starts.map((from, index) => {
    let to = index + 1 < starts.length ? starts[index + 1] - 3 : bytes.length;
    while (to > from && bytes[to - 1] === 0) to -= 1;
    return bytes.subarray(from, to);
  });
}

/** What an encoder says of itself: SEI of type 5, of no use to anybody here. */
const isNote = (nal, typeOf) => typeOf(nal) === 6 && nal[1] === 5;

/** Pictures in decoding order, each with its place in showing order. `aud` is the type of the delimiter before each. */
function picturesOf(file, { typeOf, aud }) {
  const pictures = [];
  for (const nal of nalsOf(readFileSync(file))) {
    if (typeOf(nal) === aud) pictures.push([]);
    else if (!isNote(nal, typeOf)) pictures.at(-1)?.push(nal);
  }
  const probed = spawnSync('ffprobe', ['-v', 'error', '-show_entries', 'packet=pts', '-of', 'csv=p=0', `${file}.mp4`]);
  const times = String(probed.stdout)
    .trim()
    .split('\n')
    .map((line) => Number.parseInt(line, 10));
  const unit = Math.min(...times.filter((pts) => pts > Math.min(...times)).map((pts) => pts - Math.min(...times)));
  return pictures.map((nals, index) => ({ shownAt: Math.round((times[index] - Math.min(...times)) / unit), nals }));
}

const text = (bytes) => Buffer.from(bytes).toString('base64');
const HEAD = '// Made by scripts/make-loops.mjs. Not to be changed by hand.\n';
const wrapped = (name, pictures) =>
  `${HEAD}\n/** ${WIDTH}×${HEIGHT}, ${FPS} a second: place in showing order, then NAL units in base64. */\nexport const ${name} =\n  '${pictures
    .map(({ shownAt, nals }) => `${shownAt} ${nals.map(text).join(' ')}`)
    .join('|')}';\n`;

async function video(name, file, args, firstGroup, reading, format) {
  const raw = await frames(4 * GROUP);
  const path = join(folder, file);
  ffmpeg([...RAW, ...args, '-pix_fmt', 'yuv420p', '-f', format, path], raw);
  ffmpeg(['-f', format, '-r', String(FPS), '-i', path, '-c', 'copy', `${path}.mp4`]);
  ffmpeg([...RAW, ...args, '-pix_fmt', 'yuv420p', `${path}.mp4`], raw);
  const all = picturesOf(path, reading);
  const heads = all.flatMap(({ nals }, index) =>
    nals.some((nal) => reading.typeOf(nal) === reading.sps) ? [index] : [],
  );
  const pictures = all.slice(heads[firstGroup], heads[firstGroup + 2]);
  const first = Math.min(...pictures.map(({ shownAt }) => shownAt));
  writeFileSync(
    new URL(`${file}.ts`, target),
    wrapped(
      name,
      pictures.map((one) => ({ ...one, shownAt: one.shownAt - first })),
    ),
  );
  console.log(file, pictures.length, 'pictures');
}

const H264 = { typeOf: (nal) => nal[0] & 31, aud: 9, sps: 7 };
const H265 = { typeOf: (nal) => (nal[0] >> 1) & 63, aud: 35, sps: 33 };
const x264 = (more) => [
  '-c:v',
  'libx264',
  '-preset',
  'slow',
  '-crf',
  '30',
  '-x264-params',
  `keyint=${GROUP}:min-keyint=${GROUP}:scenecut=0:aud=1:repeat-headers=1:threads=1:info=0${more}`,
];
await video('PLAIN_LOOP', 'plain-loop', x264(':bframes=0'), 0, H264, 'h264');
await video('BFRAMES_LOOP', 'bframes-loop', x264(':bframes=2:b-adapt=0'), 0, H264, 'h264');
await video('OPEN_GROUP_LOOP', 'open-group-loop', x264(':bframes=2:b-adapt=0:open-gop=1'), 1, H264, 'h264');
await video(
  'H265_LOOP',
  'h265-loop',
  [
    '-c:v',
    'libx265',
    '-preset',
    'medium',
    '-crf',
    '30',
    '-x265-params',
    `keyint=${GROUP}:min-keyint=${GROUP}:scenecut=0:bframes=0:aud=1:repeat-headers=1:log-level=none:info=0:pools=1:frame-threads=1:open-gop=0`,
  ],
  0,
  H265,
  'hevc',
);

/** Three notes and a rest, over and over in two seconds: an ear tells whether anything is missing. */
function tone(rate) {
  const samples = new Int16Array(2 * rate);
  const notes = [440, 554.37, 659.25, 0];
  for (let i = 0; i < samples.length; i++) {
    const at = i / rate;
    const within = (at % 0.5) / 0.5;
    const swell = Math.min(1, within * 20, (1 - within) * 20);
    samples[i] = 8000 * swell * Math.sin(2 * Math.PI * (notes[Math.floor(at * 2) % 4] ?? 0) * at);
  }
  return Buffer.from(samples.buffer);
}
const pcm = (rate) => ['-f', 's16le', '-ar', String(rate), '-ac', '1', '-i', '-'];

/** Frames of ADTS without their heads. Source: ISO/IEC 14496-3 §1.A.2.2. */
function adtsFrames(bytes) {
  const found = [];
  for (let at = 0; at + 7 <= bytes.length; ) {
    const length = ((bytes[at + 3] & 3) << 11) | (bytes[at + 4] << 3) | (bytes[at + 5] >> 5);
    found.push(bytes.subarray(at + (bytes[at + 1] & 1 ? 7 : 9), at + length));
    at += length;
  }
  return found;
}
/** Packets of an Ogg file. Source: RFC 3533 §6. */
function oggPackets(bytes) {
  const found = [];
  let open = [];
  for (let at = 0; at + 27 <= bytes.length; ) {
    const count = bytes[at + 26];
    let from = at + 27 + count;
    for (const size of bytes.subarray(at + 27, at + 27 + count)) {
      open.push(bytes.subarray(from, from + size));
      from += size;
      if (size === 255) continue;
      found.push(Buffer.concat(open));
      open = [];
    }
    at = from;
  }
  return found.slice(2); // head and comments
}
const sounds = {
  AAC: adtsFrames(ffmpeg([...pcm(16_000), '-c:a', 'aac', '-b:a', '24k', '-f', 'adts', '-'], tone(16_000))),
  OPUS: oggPackets(
    ffmpeg([...pcm(48_000), '-c:a', 'libopus', '-b:a', '24k', '-frame_duration', '20', '-f', 'ogg', '-'], tone(48_000)),
  ),
  G726: [ffmpeg([...pcm(8000), '-c:a', 'g726le', '-b:a', '32k', '-f', 'g726le', '-'], tone(8000))],
};
writeFileSync(
  new URL('sound-loops.ts', target),
  `${HEAD}\n/** Two seconds of three notes and a rest: packets in base64. AAC-LC at 16 kHz, Opus at 48 kHz in 20 ms, G.726 at 32 kbit/s in one piece. */\nexport const SOUND_LOOPS = {\n${Object.entries(
    sounds,
  )
    .map(([name, packets]) => `  ${name}: '${packets.map(text).join(' ')}',`)
    .join('\n')}\n} as const;\n`,
);
for (const [name, packets] of Object.entries(sounds)) console.log(name, packets.length, 'packets');
