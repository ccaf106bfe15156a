import type { BrokenPeerKind } from '../broken-peers.ts';
import { GALLERY_ACCOUNT, GALLERY_PATH, galleryDevice } from '../gallery-device.ts';
import type { Oddities } from '../oddities.ts';
import type { Personality } from '../personality.ts';
import type { LoopName } from '../pictures/loop-feed.ts';

/** A simulated device with one fault, and what somebody who is called to it knows. */
export interface GalleryFault {
  readonly id: string;
  readonly name: string;
  readonly host: string;
  /** What the customer says. */
  readonly told: string;
  /** What is typed into the fields: the address as it was written down. */
  readonly url: string;
  readonly user: string | null;
  readonly secret: string | null;
  readonly seconds: number;
  /** Paths that a card of this model would know. */
  readonly paths: readonly string[];
  /** What it is, as the verdict must say: a reason, a cause, or the rule that speaks. Told to nobody who learns. */
  readonly is: string;
  /** What stands there, by port; where nothing does, calls are refused. `null` is nobody at all. */
  readonly doors: readonly Door[] | null;
  /** Ports whose calls something on the way drops. */
  readonly dropped: readonly number[];
}

export type Door =
  | { readonly port: number; readonly camera: Personality }
  | { readonly port: number; readonly peer: BrokenPeerKind };

type Told = Pick<GalleryFault, 'id' | 'name' | 'told' | 'is'> &
  Partial<Pick<GalleryFault, 'url' | 'user' | 'secret' | 'seconds' | 'paths' | 'doors' | 'dropped'>> & {
    readonly odd?: Oddities;
    readonly more?: Partial<Personality>;
    readonly loop?: LoopName;
  };

/** Its own page: a device that lives answers there. */
const page = { port: 80, peer: 'web' } as const;

const FAULTS: readonly Told[] = [
  // on the way
  {
    id: 'typed',
    name: 'Ash pit',
    told: 'I copied it from the sticker, the viewer says it is no address.',
    url: 'rtsp://{host}:5544554/live',
    is: 'bad-url',
  },
  {
    id: 'name',
    name: 'Bell rope',
    told: 'It has a name, my brother set that up.',
    url: 'rtsp://bell-rope.mill/live',
    is: 'unresolved-host',
  },
  { id: 'dead', name: 'Charcoal hut', told: 'Since the storm there is no picture.', doors: null, is: 'host-dead' },
  {
    id: 'filtered',
    name: 'Duck pond',
    told: 'In the house it works, from the office it does not.',
    doors: [page],
    dropped: [554],
    is: 'port-filtered',
  },
  {
    id: 'hung',
    name: 'Elder hedge',
    told: 'It worked for months, now the recorder waits and waits.',
    doors: [{ port: 554, peer: 'silent' }, page],
    is: 'server-hung',
  },
  {
    id: 'moved',
    name: 'Flax loft',
    told: 'After the update nothing connects.',
    doors: [{ port: 8554, camera: galleryDevice('Flax loft', '', 'plain') }, page],
    is: 'other-port',
  },
  // who answers
  {
    id: 'tls',
    name: 'Goose run',
    told: 'The installer made it safe, as he said, and since then it is dark.',
    odd: { line: 'self-signed' },
    is: 'encrypted',
  },
  {
    id: 'no-tls',
    name: 'Hay rick',
    told: 'The sheet says rtsps, the viewer says no.',
    url: 'rtsps://{host}:554/live',
    is: 'not-encrypted',
  },
  {
    id: 'tunnel',
    name: 'Ice house',
    told: 'Only the maker’s own program shows it.',
    odd: { line: 'tunnel' },
    is: 'tunnel',
  },
  {
    id: 'page',
    name: 'Juniper bed',
    told: 'The address opens in the browser, so it must be right.',
    url: 'rtsp://{host}:80/live',
    doors: [page],
    is: 'web-page',
  },
  {
    id: 'garbage',
    name: 'Kiln yard',
    told: 'It is a camera, I am sure, I just do not know which port.',
    doors: [{ port: 554, peer: 'garbage' }, page],
    is: 'not-rtsp',
  },
  {
    id: 'hangs-up',
    name: 'Lime walk',
    told: 'It connects, and is gone again.',
    doors: [{ port: 554, peer: 'closing' }, page],
    is: 'closed',
  },
  // the login
  {
    id: 'no-account',
    name: 'Moss wall',
    told: 'It never wanted a password before.',
    user: null,
    secret: null,
    is: 'auth-required',
  },
  {
    id: 'secret',
    name: 'Nettle plot',
    told: 'The password is the one we always use.',
    secret: 'Always-the-same-1',
    is: 'secret-wrong',
  },
  {
    id: 'case',
    name: 'Oast stair',
    told: 'I typed it three times, very carefully.',
    secret: 'lANTERN-4-gATE',
    is: 'letter-case',
  },
  {
    id: 'digest',
    name: 'Plum wall',
    told: 'The old recorder takes it, the new one does not.',
    odd: { digest: 'broken' },
    is: 'scheme-broken',
  },
  {
    id: 'stale',
    name: 'Quince arch',
    told: 'It asks for the password again and again.',
    odd: { nonces: 'stale' },
    is: 'nonces-stale',
  },
  {
    id: 'scheme',
    name: 'Rope walk',
    told: 'A camera from the new series.',
    odd: {
      answers: {
        DESCRIBE: {
          status: 401,
          reason: 'Unauthorized',
          headers: { 'WWW-Authenticate': 'Seal2 realm="yard", step="1"' },
        },
      },
    },
    is: 'auth-unsupported',
  },
  {
    id: 'rights',
    name: 'Sorrel field',
    told: 'The account works on its page.',
    odd: { answers: { DESCRIBE: { status: 403, reason: 'Forbidden' } } },
    is: 'forbidden',
  },
  {
    id: 'locked',
    name: 'Tithe barn',
    told: 'My nephew tried a few passwords yesterday.',
    secret: 'Tried-a-few-9',
    odd: { locksAfter: 1 },
    is: 'locked',
  },
  // what is asked for
  {
    id: 'path',
    name: 'Upper sluice',
    told: 'I know the address by heart from the last one.',
    url: 'rtsp://{host}/stream1',
    paths: ['/main', GALLERY_PATH],
    is: 'path-elsewhere',
  },
  {
    id: 'no-path',
    name: 'Vine house',
    told: 'The paper is torn, the end is missing.',
    url: 'rtsp://{host}/liv',
    is: 'not-found',
  },
  {
    id: 'full',
    name: 'Wool shed',
    told: 'It works for me, for my wife it does not.',
    more: { maxSessions: 0 },
    is: 'too-many-sessions',
  },
  {
    id: 'forgets',
    name: 'Yew gate',
    told: 'Now and then, and never when I look.',
    odd: { answers: { PLAY: { status: 454, reason: 'Session Not Found' } } },
    is: 'session-lost',
  },
  {
    id: 'breaks',
    name: 'Alder seat',
    told: 'Since I turned the sound on it says 500.',
    odd: { answers: { DESCRIBE: { status: 500, reason: 'Internal Server Error' } } },
    is: 'server-error',
  },
  {
    id: 'round',
    name: 'Bark store',
    told: 'The support line set something.',
    odd: { answers: { DESCRIBE: { status: 302, reason: 'Found', headers: { Location: '{asked}' } } } },
    is: 'redirect-loop',
  },
  {
    id: 'away',
    name: 'Cob oven',
    told: 'It is a model with a cloud, but the cloud is off.',
    odd: { answers: { DESCRIBE: { status: 302, reason: 'Found', headers: { Location: 'rtsp://198.51.100.7/live' } } } },
    is: 'blocked-by-policy',
  },
  {
    id: 'broken-answer',
    name: 'Dye works',
    told: 'It is reflashed, everybody says that is better.',
    odd: {
      answers: {
        DESCRIBE: {
          status: 200,
          raw: 'RTSP/1.0 200 OK\r\nCSeq: 3\r\nContent-Type: application/sdp\r\nContent-Length: -7\r\n\r\n',
        },
      },
    },
    is: 'protocol-error',
  },
  {
    id: 'one-way',
    name: 'Eel trap',
    told: 'It is made for a hundred viewers, says the leaflet.',
    more: { transports: [] },
    is: 'transport-refused',
  },
  // the stream
  {
    id: 'sound-only',
    name: 'Fig court',
    told: 'I hear the yard and see nothing.',
    odd: {
      answers: {
        DESCRIBE: {
          status: 200,
          reason: 'OK',
          headers: { 'Content-Type': 'application/sdp' },
          body: 'v=0\r\ns=x\r\nt=0 0\r\nm=audio 0 RTP/AVP 0\r\na=control:trackID=0\r\n',
        },
      },
    },
    is: 'no-video',
  },
  {
    id: 'mute',
    name: 'Gravel pit',
    told: 'All lights are green, the picture is black.',
    odd: { isMute: true },
    is: 'no-packets',
  },
  {
    id: 'codec',
    name: 'Hop pole',
    told: 'It is the newest there is.',
    odd: { pictureLines: ['a=rtpmap:96 VX3/90000'] },
    is: 'unsupported-codec',
  },
  {
    id: 'radio',
    name: 'Ivy tower',
    told: 'It smears whenever the gate opens.',
    more: { dropEvery: 24 },
    is: 'rtp.loss',
  },
  {
    id: 'b-frames',
    name: 'Jar store',
    told: 'On the recorder it is fine, in the browser it twitches.',
    loop: 'b-frames',
    is: 'video.b-frames',
  },
  {
    id: 'open-group',
    name: 'Knot garden',
    told: 'Each recording begins with a torn picture.',
    loop: 'open-group',
    is: 'video.open-gop',
  },
  {
    id: 'drift',
    name: 'Loom room',
    told: 'After an hour the lips are wrong.',
    odd: { sound: 'PCMU', driftPpm: 1500 },
    seconds: 12,
    is: 'media.drift',
  },
  {
    id: 'sound-lies',
    name: 'Malt floor',
    told: 'All voices are mice.',
    odd: {
      sound: 'AAC',
      soundLines: [
        'a=rtpmap:97 MPEG4-GENERIC/16000/1',
        'a=fmtp:97 streamtype=5;mode=AAC-hbr;sizelength=13;indexlength=3;indexdeltalength=3;config=1210',
      ],
    },
    is: 'sound.config-lies',
  },
  {
    id: 'sign-of-life',
    name: 'Net store',
    told: 'Every minute it drops out, you could set the clock by it.',
    odd: { keepAlive: 'none' },
    more: { sessionTimeoutS: 2 },
    is: 'rtsp.keep-alive-refused',
  },
  {
    id: 'expired',
    name: 'Oak press',
    told: 'Last week it still worked, nobody touched it.',
    url: 'rtsps://{host}:554/live',
    odd: { line: 'expired' },
    is: 'tls.expired',
  },
  {
    id: 'clock',
    name: 'Pear espalier',
    told: 'The recording of the break-in is nowhere.',
    more: { clockErrorMs: -3 * 365 * 24 * 3600 * 1000 },
    is: 'camera.clock-wrong',
  },
  {
    id: 'sound',
    name: 'Reed bed',
    told: 'Nothing is wrong, I only want to be sure.',
    odd: { sound: 'AAC' },
    is: 'fine',
  },
];

const FIRST_HOST = 10;

/** All of them, each with an address of its own. */
export const FAULT_GALLERY: readonly GalleryFault[] = FAULTS.map((fault, at) => {
  const host = `10.77.66.${FIRST_HOST + at}`;
  const { odd, more, loop = 'plain', id, name, told, is } = fault;
  const own: readonly Door[] = [{ port: 554, camera: galleryDevice(name, host, loop, odd, more) }, page];
  return {
    id,
    name,
    host,
    told,
    is,
    url: (fault.url ?? `rtsp://{host}${GALLERY_PATH}`).replace('{host}', host),
    user: fault.user === undefined ? GALLERY_ACCOUNT.user : fault.user,
    secret: fault.secret === undefined ? GALLERY_ACCOUNT.password : fault.secret,
    seconds: fault.seconds ?? 3,
    paths: fault.paths ?? [],
    doors: fault.doors === undefined ? own : fault.doors,
    dropped: fault.dropped ?? [],
  };
});
