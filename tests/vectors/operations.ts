import { sha256 } from '@noble/hashes/sha2';
import { basicAuthorization, digestResponse } from '../../src/core/auth/authorization.ts';
import { chooseChallenge, type DigestAlgorithm, type DigestQop } from '../../src/core/auth/challenge.ts';
import { bytesFromHex, hexOf } from '../../src/core/base/bytes.ts';
import { bytes, gigabytes, inGiB, inTB, kilobits, seconds, terabytes } from '../../src/core/base/units.ts';
import { fatGeometry } from '../../src/core/firmware/fat-geometry.ts';
import { compareNames } from '../../src/core/firmware/image-name.ts';
import { cardSize, fileFits, partitionOf } from '../../src/core/firmware/memory-card.ts';
import { compareHash } from '../../src/core/firmware/published-hash.ts';
import { buildStreamUrl, encodeUserinfo, redactUrl, type StreamUrl } from '../../src/core/net/stream-url.ts';
import { parseStreamUrl } from '../../src/core/net/stream-url-parser.ts';
import { enduranceYears, inTiB, ratedBytesByCycles, segmentOverhead } from '../../src/core/reference/recording-wear.ts';
import { JitterMeter } from '../../src/core/rtp/jitter.ts';
import { ReceptionCounter } from '../../src/core/rtp/reception.ts';
import { parseAacConfig } from '../../src/core/sdp/aac-config.ts';
import { parseSdp } from '../../src/core/sdp/sdp-parser.ts';
import type { RecordingSchedule } from '../../src/core/storage/schedule.ts';
import * as storage from '../../src/core/storage/storage.ts';
import { parseSps } from '../../src/core/video/sps.ts';
import { subnet } from './network-operations.ts';
import { ptz, wsse } from './onvif-operations.ts';
import { dcdrop, geometry, licence, poePower, solarPower } from './planning-operations.ts';

// The arguments of a vector are JSON of a known shape per `op`; this is the JSON boundary where `as` is allowed.
// biome-ignore lint/suspicious/noExplicitAny: each operation names the fields it reads
type Input = any;
type Operation = (input: Input) => unknown;

interface StreamRow {
  count: number;
  videoKbps: number;
  audioKbps: number;
  schedule: RecordingSchedule;
}
const streamsOf = (rows: readonly StreamRow[]): storage.RecordedStream[] =>
  rows.map(({ count, videoKbps, audioKbps, schedule }) => ({ count, rate: kilobits(videoKbps + audioKbps), schedule }));
const perDayOf = (input: Input) => storage.bytesPerDay(streamsOf(input.streams), input.overheadFraction);

const url: Record<string, Operation> = {
  encode_userinfo: ({ text }) => ({ encoded: encodeUserinfo(text) }),
  redact: ({ url: text }) => ({ url: redactUrl(text) }),
  build: (input: StreamUrl) => ({ url: buildStreamUrl(input) }),
  parse: ({ url: text }) => {
    const parsed = parseStreamUrl(text);
    return parsed.ok
      ? { ...parsed.value.url, warnings: parsed.value.warnings }
      : { error: parsed.error.code.replace('url.', '') };
  },
};

const digest: Record<string, Operation> = {
  response: (input) =>
    digestResponse({
      ...input,
      algorithm: (input.algorithm ?? 'MD5').toUpperCase() as DigestAlgorithm,
      qop: input.qop as DigestQop | null,
      nc: input.nc ?? '',
      cnonce: input.cnonce ?? '',
      body: input.body ?? '',
    }),
  choose_challenge: ({ headers }) => ({ choice: chooseChallenge(headers) }),
  basic: (input) => ({ header: basicAuthorization(input) }),
};

const sdp: Record<string, Operation> = {
  parse: ({ sdp: text, contentBase }) => parseSdp(text, contentBase).session,
  aac_config: ({ hex }) => parseAacConfig(hex),
};

const sps: Record<string, Operation> = {
  sps: ({ codec, nalHex }) => {
    const nal = bytesFromHex(nalHex);
    if (!nal.ok) return { error: nal.error };
    const parsed = parseSps(codec, nal.value);
    return parsed.ok ? parsed.value : { error: parsed.error };
  },
};

const rtpstats: Record<string, Operation> = {
  sequence: ({ seq, minSequential }) => {
    const counter = new ReceptionCounter(minSequential);
    for (const number of seq) counter.push(number);
    return counter.counts;
  },
  report_intervals: ({ intervals }) => {
    const counter = new ReceptionCounter(0);
    const reports = intervals.map((numbers: number[]) => {
      for (const number of numbers) counter.push(number);
      return counter.report();
    });
    return { reports };
  },
  jitter: ({ clockRate, packets }) => {
    const meter = new JitterMeter(clockRate);
    for (const { rtpTs, arrivalTenthMs } of packets) meter.push(rtpTs, arrivalTenthMs / 10);
    const { jitterTicks, ...rest } = meter.value;
    return { jitterFloat: jitterTicks, ...rest };
  },
};

const storageOps: Record<string, Operation> = {
  units: ({ TB }) => ({ bytes: terabytes(TB), TiB: inTiB(terabytes(TB)), GiB: inGiB(terabytes(TB)) }),
  bytes_per_day: (input) => ({ bytesPerDay: perDayOf(input) }),
  days_fit: (input) => {
    const days = storage.daysFit(terabytes(input.diskTB), input.usableFraction, perDayOf(input));
    return { days, fullDays: Math.floor(days) };
  },
  disk_needed: (input) => {
    const needed = storage.diskNeeded(perDayOf(input), input.retentionDays, input.usableFraction, input.sizesTB);
    return { bytes: needed.size, TB: inTB(needed.size), TiB: inTiB(needed.size), pickTB: needed.pickTB };
  },
  card_loop: (input) => ({
    hours: storage.cardLoopHours(gigabytes(input.cardGB), input.usableFraction, kilobits(input.totalKbps)),
  }),
  endurance_tbw: (input) => {
    const rate = kilobits(input.totalKbps);
    const worn = enduranceYears(rate, input.hoursPerDay, input.writeAmplification, terabytes(input.ratedTBW));
    return { bytesPerDay: worn.perDay, years: worn.years };
  },
  endurance_cycles: (input) => {
    const rated = ratedBytesByCycles(gigabytes(input.cardGB), input.cycles, input.writeAmplification);
    const { years } = enduranceYears(kilobits(input.totalKbps), input.hoursPerDay, 1, rated);
    return { TBW: inTB(rated), years };
  },
  segments: (input) => {
    const cut = segmentOverhead(
      kilobits(input.totalKbps),
      seconds(input.segmentS),
      input.headerBytes,
      input.clusterBytes,
    );
    return { filesPerDay: cut.filesPerDay, overheadBytesPerDay: cut.overheadPerDay, overheadFraction: cut.fraction };
  },
  gap_fill: (input) => {
    const filled = storage.gapFill(
      seconds(input.outageS),
      kilobits(input.liveKbps),
      kilobits(input.linkKbps),
      gigabytes(input.cardGB),
      input.usableFraction,
    );
    return { bytesMissing: filled.missing, bytesKept: filled.kept, lostS: filled.lostS, backfillS: filled.backfillS };
  },
};

const card: Record<string, Operation> = {
  size: ({ GB }) => {
    const { mib, gib, ...rest } = cardSize(gigabytes(GB));
    return { ...rest, MiB: mib, GiB: gib };
  },
  file_fits: (input) => ({ fits: fileFits(input.bytes, input.fileSystem) }),
  file_name: ({ required, found }) => ({ verdict: compareNames(required, found) }),
  fat_geometry: (input) => fatGeometry(input),
  partition: ({ cardBytes, alignMiB, sizeMiB }) => partitionOf(bytes(cardBytes), alignMiB, sizeMiB),
  sha256: ({ text, published }) => {
    const digest = hexOf(sha256(new TextEncoder().encode(text)));
    return { sha256: digest, verdict: compareHash(digest, published) };
  },
};

/** Operations by topic: the topic is the vector file's name, because `parse` means one thing in `url` and another in `sdp`. */
export const OPERATIONS: Readonly<Record<string, Readonly<Record<string, Operation>>>> = {
  url,
  digest,
  sdp,
  sps,
  rtpstats,
  storage: storageOps,
  geometry,
  poe: poePower,
  dcdrop,
  solar: solarPower,
  licence,
  card,
  subnet,
  wsse,
  ptz,
};
