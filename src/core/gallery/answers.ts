import { titleOfCause } from '../probe/cause-findings.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import { REASON_TEXTS, type Reason } from '../probe/reasons.ts';
import type { ProbeCause } from '../rtsp/exchange-types.ts';

/** One thing that may be wrong with a stream, as somebody who guesses would say it. */
export interface GalleryAnswer {
  readonly id: string;
  readonly title: string;
}

export interface AnswerGroup {
  readonly name: string;
  readonly answers: readonly GalleryAnswer[];
}

const reason = (id: Reason): GalleryAnswer => ({ id, title: REASON_TEXTS[id].title });
const cause = (id: ProbeCause): GalleryAnswer => ({ id, title: titleOfCause(id) });

export const FINE = 'fine';

/** Traps of a stream that plays, by the rule that tells them; where several speak, the first of these counts. */
const TRAPS: readonly GalleryAnswer[] = [
  { id: 'rtp.loss', title: 'Packet loss' },
  { id: 'tls.expired', title: 'Certificate expired' },
  { id: 'camera.clock-wrong', title: 'Clock is wrong' },
  { id: 'rtsp.keep-alive-refused', title: 'Keep-alive refused that it offers' },
  { id: 'sound.config-lies', title: 'Audio differs from its description' },
  { id: 'media.drift', title: 'Picture and audio drift apart' },
  { id: 'video.open-gop', title: 'Open GOP' },
  { id: 'video.b-frames', title: 'B-frames' },
];

/** All that can be guessed, in the order in which a connection comes about. */
export const GALLERY_ANSWERS: readonly AnswerGroup[] = [
  {
    name: 'Network path',
    answers: [
      cause('bad-url'),
      cause('unresolved-host'),
      reason('host-dead'),
      reason('port-filtered'),
      reason('other-port'),
      cause('blocked-by-policy'),
    ],
  },
  {
    name: 'Device',
    answers: [
      reason('server-hung'),
      cause('closed'),
      reason('encrypted'),
      reason('not-encrypted'),
      reason('tunnel'),
      reason('web-page'),
      cause('not-rtsp'),
    ],
  },
  {
    name: 'Login',
    answers: [
      cause('auth-required'),
      reason('secret-wrong'),
      reason('letter-case'),
      reason('scheme-broken'),
      reason('nonces-stale'),
      cause('auth-unsupported'),
      cause('forbidden'),
      reason('locked'),
    ],
  },
  {
    name: 'Path and codec',
    answers: [
      reason('path-elsewhere'),
      cause('not-found'),
      cause('too-many-sessions'),
      cause('session-lost'),
      cause('server-error'),
      cause('redirect-loop'),
      cause('protocol-error'),
      cause('transport-refused'),
    ],
  },
  {
    name: 'Stream',
    answers: [
      cause('no-video'),
      cause('no-packets'),
      cause('unsupported-codec'),
      ...TRAPS,
      { id: FINE, title: 'Nothing wrong' },
    ],
  },
];

const ALL: ReadonlyMap<string, GalleryAnswer> = new Map(
  GALLERY_ANSWERS.flatMap(({ answers }) => answers.map((answer) => [answer.id, answer] as const)),
);
export const answerTitle = (id: string): string => ALL.get(id)?.title ?? id;

/** What a probe found to be wrong, as one of the answers. */
export function verdictOf({ cause: failed, diagnosis, findings }: ProbeReport): string {
  const told = diagnosis?.reason ?? failed;
  if (told !== null && told !== undefined) return told;
  return TRAPS.find(({ id }) => findings.some(({ rule }) => rule === id))?.id ?? FINE;
}
