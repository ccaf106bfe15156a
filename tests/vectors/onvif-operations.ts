import { bytesFromBase64, bytesOf } from '../../src/core/base/bytes.ts';
import { createdAt, passwordDigest } from '../../src/core/onvif/ws-security.ts';
import { calibrateTurns, runForTurn } from '../../src/core/ptz/timed-turns.ts';
import * as turning from '../../src/core/ptz/turning.ts';
import { clockSkew } from '../../src/core/reference/clock-skew.ts';
import { degreesTurned, shortestPan } from '../../src/core/reference/turns.ts';

// biome-ignore lint/suspicious/noExplicitAny: each operation names the fields it reads
type Input = any;
type Operations = Readonly<Record<string, (input: Input) => unknown>>;

function bytesOfBase64(text: string): Uint8Array {
  const read = bytesFromBase64(text);
  if (!read.ok) throw new TypeError(`${text} is no Base64`);
  return read.value;
}

/** Proofs of an account, and the clocks they are dated by. */
export const wsse: Operations = {
  password_digest: ({ nonceBase64, created, password }) => ({
    digest: passwordDigest(bytesOfBase64(nonceBase64), created, password),
  }),
  trap_text_nonce: ({ nonceBase64, created, password }) => ({
    correct: passwordDigest(bytesOfBase64(nonceBase64), created, password),
    // what comes of hashing the text that is sent: the same function, given the wrong bytes
    wrong: passwordDigest(bytesOf(nonceBase64), created, password),
  }),
  clock_skew: ({ localUtcAtReply, deviceUtc, signAtLocalUtc, toleranceS }) => {
    const { skewS, verdict } = clockSkew(Date.parse(deviceUtc), Date.parse(localUtcAtReply), toleranceS);
    return { skewS, created: createdAt(Date.parse(signAtLocalUtc) + skewS * 1000), verdict };
  },
};

/** Where a head looks, and how long it runs to get there. */
export const ptz: Operations = {
  deg_to_norm: ({ deg, ...range }) => turning.normOfDegrees(deg, range),
  norm_to_deg: ({ norm, ...range }) => ({ deg: turning.degreesOfNorm(norm, range) }),
  relative: ({ deltaDeg, ...range }) => {
    const { norm, clamped } = turning.translationOfDegrees(deltaDeg, range);
    return { translation: norm, clamped };
  },
  shortest_pan: ({ fromDeg, toDeg }) => ({ deltaDeg: shortestPan(fromDeg, toDeg) }),
  click_to_centre: ({ x, y, width, height, hfovDeg }) => turning.turnToCentre({ x, y }, { width, height, hfovDeg }),
  continuous: ({ velocity, maxDegPerS, seconds }) => ({ deg: degreesTurned(velocity, maxDegPerS, seconds) }),
  timed_calibrate: ({ samples }) =>
    calibrateTurns(samples.map(([runS, deg]: readonly [number, number]) => ({ runS, deg }))),
  timed_move: ({ degPerS, offsetDeg, targetDeg }) => ({ runS: runForTurn({ degPerS, offsetDeg }, targetDeg) }),
};
