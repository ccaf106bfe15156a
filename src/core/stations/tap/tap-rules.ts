import { sayBytes, sayDays, sayMany, sayRate, sayStretch } from '../../base/say.ts';
import { atMost } from '../../base/verdict.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { rulesFor } from '../../findings/rule.ts';
import { judgeDays } from '../../site/disk-ledger.ts';
import { STORAGE_ASSUMPTIONS } from '../../storage/storage-assumptions.ts';
import { TAKEN_RULES } from './taken-rules.ts';
import type { TapFacts, TapOffers } from './tap-facts.ts';

const rule = rulesFor<TapFacts, TapOffers, SiteCommand>();
const comfortable = STORAGE_ASSUMPTIONS.comfortableFactor;
const sum = (f: { bytesPerDay: number; usableBytes: number }): string =>
  `${sayBytes(f.usableBytes)} usable ÷ ${sayBytes(f.bytesPerDay)} a day`;

/** What a destination makes of a stream. */
export const TAP_RULES = [
  rule({
    id: 'tap.codec-not-taken',
    question: 'Does the destination take the codec of the stream?',
    source: 'the destination’s list of codecs',
    needs: ['codec', 'codecsTaken', 'destination'],
    fails: (f) => !f.codecsTaken.includes(f.codec),
    severity: 'stop',
    title: (f) => `${f.codec} not taken by ${f.destination}`,
    because: (f) => `The stream is ${f.codec}; it takes ${f.codecsTaken.join(', ')}.`,
    do: ['Pull a stream in another codec.', 'Set the camera’s encoder to one it takes.'],
    mends: (_, offers) => offers.streamsTaken(),
    why: 'A destination that cannot decode a stream shows or keeps nothing.',
  }),
  rule({
    id: 'tap.sessions',
    question: 'Is a session left for each client?',
    source: 'sessions as counted, otherwise of the model card, against the taps of this camera',
    needs: ['sessionsAllowed', 'sessionsUsed', 'destination'],
    // one is served by every camera that was probed
    asks: (f) => f.sessionsAllowed !== undefined || (f.sessionsUsed ?? 0) > 1,
    judge: (f) => atMost(f.sessionsUsed, f.sessionsAllowed - 1, f.sessionsAllowed),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${f.sessionsUsed} sessions needed, ${f.sessionsAllowed} supported`,
        because: (f) =>
          `The camera serves ${sayMany(f.sessionsAllowed, 'client')} at once${f.refusedWith === undefined ? '' : `; the next was refused with ${f.refusedWith}`}.`,
        do: [
          'Pull it once and share it through a relay.',
          'Let one destination pull it and the others take it from there.',
        ],
      },
      tight: {
        severity: 'caution',
        title: () => 'No session left to view with',
        because: (f) =>
          `All ${f.sessionsAllowed} sessions of the camera are used by ${sayMany(f.sessionsUsed, 'tap')}.`,
        do: ['View through a destination, not at the camera.', 'Share one session through a relay.'],
      },
    },
    why: 'Whoever connects last is refused, and after a power failure that is any of them. The maker’s own viewer, or a probe, takes a session from a destination.',
  }),
  rule({
    id: 'tap.password-readable',
    question: 'Does the destination send the password readable?',
    source: 'RFC 7617 §4: Basic is not secure without a protected channel',
    needs: ['authScheme', 'destination'],
    asks: (f) => f.authScheme !== undefined && f.isEncrypted !== true,
    isTight: (f) => f.authScheme === 'basic',
    severity: 'fix',
    title: (f) => `Password sent readable by ${f.destination}`,
    because: () => 'The camera offers Basic login only, so each destination sends account and password in Base64.',
    do: ['Give this camera its own password.', 'Keep camera and destination on a network without guests.'],
    why: 'Each connection of each destination repeats the password on the network.',
  }),
  rule({
    id: 'tap.recording-misdated',
    question: 'Is a recording filed under the right time?',
    limits: ['stream.clock'],
    source: 'RFC 3550 §6.4.1 (NTP time stamp); limit 5 s [A]',
    needs: ['clockErrorS', 'clockOkS', 'destination'],
    asks: (f) => f.records === true && f.clockErrorS !== undefined,
    isTight: (f) => Math.abs(f.clockErrorS) > f.clockOkS,
    severity: 'fix',
    title: (f) => `Recordings of ${f.destination} under the wrong time`,
    because: (f) => `The camera’s clock is ${sayStretch(f.clockErrorS)} ${f.clockErrorS > 0 ? 'fast' : 'slow'}.`,
    do: ['Set the camera’s clock, or tell the recorder to use its own.'],
    why: 'A recording filed under another day is not found, and proves nothing.',
  }),
  rule({
    id: 'tap.pictures-without-savings',
    question: 'Is every picture stored whole?',
    source: 'RFC 2435: every picture is a whole JPEG',
    needs: ['codec'],
    asks: (f) => f.records === true,
    isTight: (f) => f.codec === 'JPEG' && (f.codecsTaken?.includes('JPEG') ?? true),
    severity: 'caution',
    title: () => 'JPEG: every picture stored whole',
    because: () => 'JPEG codes each picture by itself; H.264 stores a still scene in a small part of that.',
    do: ['Record at a lower frame rate.', 'Record on motion only.'],
    mends: (_, offers) => offers.savingStreams(),
    why: 'The disk fills several times as fast for the same picture.',
  }),
  rule({
    id: 'storage.retention',
    question: 'Does the disk hold the days needed?',
    source: 'bit rate × retention ÷ 8 against the usable disk; 1.2 times the days needed count as comfortable [A]',
    needs: ['daysFit', 'daysWanted', 'bytesPerDay', 'usableBytes', 'destination'],
    asks: (f) => f.records === true,
    judge: (f) => judgeDays(f.daysFit, f.daysWanted),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Disk of ${f.destination} full after ${sayDays(f.daysFit)}`,
        because: (f) => `${sum(f)} = ${sayDays(f.daysFit)}; ${f.daysWanted} needed.`,
        do: ['Use a larger disk, a lower bit rate, or record less of the day.'],
      },
      tight: {
        severity: 'fix',
        title: (f) => `Disk of ${f.destination} holds ${sayDays(f.daysFit)}: just enough`,
        because: (f) =>
          `${sum(f)} = ${sayDays(f.daysFit)}; ${f.daysWanted} needed, ${(f.daysWanted * comfortable).toFixed(1)} would be comfortable.`,
        do: ['Leave room: rain and busy days raise the bit rate.'],
      },
    },
    mends: (_, offers) => offers.levers(),
    why: 'The recorder overwrites the oldest day, and that is the one somebody asks for. A bit rate measured for a few seconds of an ordinary day is not that of a stormy night.',
  }),
  rule({
    id: 'storage.rate-not-measured',
    question: 'Was the bit rate measured, or only planned?',
    source: 'known how: assumed < planned < declared < measured',
    needs: ['rateHow', 'rateKbps'],
    asks: (f) => f.records === true,
    isTight: (f) => f.rateHow !== 'measured' && f.rateHow !== 'confirmed',
    severity: 'note',
    title: (f) => `Bit rate ${f.rateHow}, not measured`,
    because: (f) => `${sayRate(f.rateKbps)} is ${f.rateHow}.`,
    do: ['Probe the stream; the days follow at once.'],
    why: 'Encoders use half or twice the planned rate.',
  }),
  ...TAKEN_RULES,
] as const;
