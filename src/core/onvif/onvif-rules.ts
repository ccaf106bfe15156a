import { sayMany, sayMs, sayStretch } from '../base/say.ts';
import { atMost } from '../base/verdict.ts';
import { failsIf, rulesFor, tightIf } from '../findings/rule.ts';
import { certificateRules } from '../net/certificate-rules.ts';
import { CAUSE_WORDS } from './cause-words.ts';
import { EVENT_RULES } from './event-rules.ts';
import type { OnvifFacts } from './onvif-facts.ts';
import { TOKEN_LIFE_S } from './onvif-limits.ts';
import { STEERING_RULES } from './steering-rules.ts';

const rule = rulesFor<OnvifFacts>();

/** From here on an answer is slow [A]. */
const SLOW_MS = 1000;
/** From here on who tunes in waits long for a picture [A]. */
const LONG_GROUP_S = 4;
/** Somebody else may answer there: nothing more is said to it before a person has looked. */
const STOPS: ReadonlySet<string> = new Set(['hostile-xml', 'certificate-changed']);

/** What a device tells by ONVIF, and what that means for whoever is to use it. What a plan makes of it is judged at Tap. */
export const ONVIF_RULES = [
  rule({
    id: 'onvif.not-read',
    source: 'the first question that was not answered',
    needs: ['cause', 'note'],
    asks: (f) => f.cause !== undefined,
    judge: () => 'will-not-work',
    when: {
      'will-not-work': {
        severity: (f) => (STOPS.has(f.cause) ? 'stop' : 'fix'),
        title: (f) => `By ONVIF: ${CAUSE_WORDS[f.cause].title.toLowerCase()}`,
        because: (f) => f.note,
        do: (f) => CAUSE_WORDS[f.cause].do,
      },
    },
    why: 'What cannot be read cannot be steered, heard or found again by whoever uses ONVIF.',
  }),
  rule({
    id: 'onvif.clock',
    source: 'OASIS WSS UsernameToken 1.1 §3; ONVIF Core §5.12.2; limits 5 s and 300 s [A]',
    needs: ['skewS', 'clockOkS'],
    judge: (f) => atMost(Math.abs(f.skewS), f.clockOkS, TOKEN_LIFE_S),
    when: {
      tight: {
        severity: 'watch',
        title: (f) => `Its clock is ${sayStretch(f.skewS)} ${f.skewS > 0 ? 'fast' : 'slow'}`,
        because: (f) =>
          `It says a time that is ${f.skewS > 0 ? 'ahead of' : 'behind'} this computer’s by ${sayStretch(f.skewS)}.`,
        do: ['Give it a time server, or set its clock.'],
      },
      'will-not-work': {
        severity: 'fix',
        title: (f) =>
          `Its clock is ${sayStretch(f.skewS)} ${f.skewS > 0 ? 'fast' : 'slow'}: it refuses who does not take that out`,
        because: (f) =>
          `A proof dated by an honest clock is ${sayStretch(f.skewS)} off by its own; it was read with the difference taken out.`,
        do: [
          'Give it a time server, or set its clock.',
          'Until then a refused login with the right secret is its clock.',
        ],
      },
    },
    why: 'A login is dated. A device whose clock is off calls it forged or stale, and says “not authorised” to the right secret; its events and recordings are misdated too.',
  }),
  rule({
    id: 'onvif.clock-by-hand',
    source: 'ONVIF Core §8.3.1: DateTimeType',
    needs: ['clockKept'],
    judge: (f) => tightIf(f.clockKept === 'manual'),
    when: {
      tight: {
        severity: 'note',
        title: () => 'Nobody keeps its clock',
        because: () => 'Its time was set by hand: it drifts, and a power cut may take it back by years.',
        do: ['Set a time server: the router of the site often is one.'],
      },
    },
    why: 'A clock that is right today refuses logins in a year.',
  }),
  rule({
    id: 'onvif.no-time-server',
    source: 'ONVIF Core §8.3.5: GetNTP',
    needs: ['clockKept', 'timeServers'],
    asks: (f) => f.clockKept === 'ntp',
    judge: (f) => tightIf(f.timeServers === 0),
    when: {
      tight: {
        severity: 'watch',
        title: () => 'It is to ask for the time, and knows nobody to ask',
        because: () => 'Its time comes from a time server, and none is entered.',
        do: ['Enter one: the router of the site often is one.'],
      },
    },
    why: 'It then runs by itself, as if it were set by hand.',
  }),
  rule({
    id: 'onvif.open',
    source: 'ONVIF Core §5.12.1: GetDeviceInformation is READ_SYSTEM, not PRE_AUTH',
    needs: ['isOpen'],
    judge: (f) => failsIf(f.isOpen),
    when: {
      'will-not-work': {
        severity: 'fix',
        title: () => 'Whoever asks is told everything',
        because: () => 'It told who it is and where its streams are without a login.',
        do: [
          'Make a user in the camera and turn its login for ONVIF on.',
          'Keep it on a network without guests until then.',
        ],
      },
    },
    why: 'What can be read without a login can often be steered and set without one.',
  }),
  rule({
    id: 'onvif.other-door',
    source: 'ONVIF Core §5.3 (XAddr of a service); a password goes where it was typed for',
    needs: ['heldDoors'],
    judge: (f) => tightIf(f.heldDoors !== ''),
    when: {
      tight: {
        severity: 'watch',
        title: () => 'Services on another port were not asked',
        because: (f) =>
          `It names services at ${f.heldDoors}. The password was typed for another port and was not sent there.`,
        do: ['Allow the password on that port, if it is the same device, and read it again.'],
      },
    },
    why: 'Whoever answers at another port need not be the camera: a forwarded port leads to another device.',
  }),
  rule({
    id: 'onvif.tells-login',
    source: 'RFC 3986 §7.5 (sensitive information in a URI)',
    needs: ['tellsLogin'],
    judge: (f) => tightIf(f.tellsLogin),
    when: {
      tight: {
        severity: 'watch',
        title: () => 'Stream addresses hold a password',
        because: () =>
          'The device writes account and password into the addresses that it gives. They were taken out here; other clients keep and log them.',
        do: ['Give destinations an account of their own that may only view.', 'Update the firmware of the device.'],
      },
    },
    why: 'An address is copied, logged and shown; a password inside it goes along each time, readable.',
  }),
  rule({
    id: 'onvif.digest-only',
    source: 'ONVIF Core §5.12: token or HTTP Digest',
    needs: ['login'],
    judge: (f) => tightIf(f.login === 'digest'),
    when: {
      tight: {
        severity: 'note',
        title: () => 'It takes HTTP Digest only',
        because: () => 'It refused the token of WS-Security and took Digest.',
        do: ['Check that each destination that uses ONVIF can do Digest; older ones know the token alone.'],
      },
    },
    why: 'Two programs that both “do ONVIF” may have no login in common.',
  }),
  rule({
    id: 'onvif.old',
    source: 'ONVIF Core §8.1.2: GetServices replaces GetCapabilities',
    needs: ['isOld'],
    judge: (f) => tightIf(f.isOld),
    when: {
      tight: {
        severity: 'note',
        title: () => 'It speaks an older ONVIF',
        because: () => 'It knows the older question for its services alone (GetCapabilities).',
        do: ['Draw it by its plain stream where a destination cannot add it.'],
      },
    },
    why: 'Newer clients that ask the newer question first give up on it.',
  }),
  rule({
    id: 'onvif.inner-services',
    source: 'ONVIF Core §8.1.2: XAddr of each service',
    needs: ['servicesElsewhere'],
    judge: (f) => tightIf(f.servicesElsewhere !== ''),
    when: {
      tight: {
        severity: 'fix',
        title: (f) => `It gives ${f.servicesElsewhere} as its own address`,
        because: (f) =>
          `Its services are said to be at ${f.servicesElsewhere}; it was read at the address that was called.`,
        do: [
          'Set its address anew in the device, or restart it.',
          'Where it stands behind another router, draw it by its plain stream.',
        ],
      },
    },
    why: 'Most clients follow the address that they are given, and find nobody.',
  }),
  rule({
    id: 'onvif.inner-streams',
    source: 'ONVIF Media §5.15: GetStreamUri',
    needs: ['streamsElsewhere'],
    judge: (f) => tightIf(f.streamsElsewhere !== ''),
    when: {
      tight: {
        severity: 'fix',
        title: (f) => `Its streams are said to be at ${f.streamsElsewhere}`,
        because: () => 'That is another address than the one it answers at.',
        do: [
          'Take the path of the profile, and the address that it answers at.',
          'Set its address anew in the device.',
        ],
      },
    },
    why: 'A destination that adds it by ONVIF dials what it is told, and shows nothing.',
  }),
  rule({
    id: 'onvif.encrypted-services',
    source: 'ONVIF Core §8.1.2: XAddr of each service',
    needs: ['tlsServices'],
    judge: (f) => tightIf(f.tlsServices !== ''),
    when: {
      tight: {
        severity: 'watch',
        title: (f) => `Encrypted only: ${f.tlsServices}`,
        because: () => 'It gives https addresses; they were asked in the plain, at the port that was called.',
        do: ['Check that each destination speaks https to it, or allow http in the device.'],
      },
    },
    why: 'A certificate of its own making is refused by some clients without a word.',
  }),
  rule({
    id: 'onvif.no-profiles',
    source: 'ONVIF Media §5.2: a ready-to-use profile for each picture',
    needs: ['profiles'],
    judge: (f) => failsIf(f.profiles === 0),
    when: {
      'will-not-work': {
        severity: 'fix',
        title: () => 'It offers no profile',
        because: () => 'It has a media service, and no stream is ready in it.',
        do: ['Set it back to its factory profiles.', 'Draw it by its plain stream.'],
      },
    },
    why: 'Who adds it by ONVIF finds a camera without a picture.',
  }),
  rule({
    id: 'onvif.hidden-profiles',
    source: 'ONVIF Media2 §4: H.265 and newer sound are told by the second media service alone',
    needs: ['hiddenProfiles', 'profiles'],
    judge: (f) => tightIf(f.hiddenProfiles > 0),
    when: {
      tight: {
        severity: 'watch',
        title: (f) => `${f.hiddenProfiles} of ${sayMany(f.profiles, 'profile')} are hidden from older clients`,
        because: (f) => `The second media service alone tells of them${f.hiddenCodecs ? ` (${f.hiddenCodecs})` : ''}.`,
        do: ['Set one stream to H.264, for those that know the first service alone.'],
      },
    },
    why: 'An older recorder adds the camera, and offers only its small stream.',
  }),
  rule({
    id: 'onvif.profile-without-stream',
    source: 'ONVIF Media §5.15: GetStreamUri',
    needs: ['profilesWithoutStream', 'profiles'],
    judge: (f) => tightIf(f.profilesWithoutStream > 0),
    when: {
      tight: {
        severity: 'watch',
        title: (f) => `${sayMany(f.profilesWithoutStream, 'profile')} without an address`,
        because: (f) => `Of ${f.profiles}, so many gave no address of a stream.`,
        do: ['Leave them out, or turn their encoder on in the device.'],
      },
    },
    why: 'A destination may pick just that one.',
  }),
  rule({
    id: 'onvif.same-names',
    source: 'ONVIF Media §5.2: the name is for people',
    needs: ['sameNames'],
    judge: (f) => tightIf(f.sameNames > 0),
    when: {
      tight: {
        severity: 'note',
        title: () => 'Profiles share a name',
        because: (f) => `${sayMany(f.sameNames, 'profile')} cannot be told from another by name.`,
        do: ['Name them in the device: main, sub.'],
      },
    },
    why: 'Who sets up a destination picks by name, and half the time the wrong one.',
  }),
  rule({
    id: 'onvif.no-still',
    source: 'ONVIF Media §5.17: GetSnapshotUri',
    needs: ['stills'],
    judge: (f) => tightIf(f.stills === 0),
    when: {
      tight: {
        severity: 'note',
        title: () => 'It gives no stills',
        because: () => 'No profile has an address of a single picture.',
        do: ['Let destinations take their stills from the stream.'],
      },
    },
    why: 'Messages with a picture, and lists of cameras, then need a decoder for each.',
  }),
  rule({
    id: 'onvif.key-frames',
    source: 'ONVIF Media: GovLength ÷ frame rate; 4 s [A]',
    needs: ['longestGroupS', 'longestGroupProfile'],
    judge: (f) => tightIf(f.longestGroupS > LONG_GROUP_S),
    when: {
      tight: {
        severity: 'watch',
        title: (f) => `${f.longestGroupProfile}: a key frame every ${f.longestGroupS.toFixed(1)} s`,
        because: () => 'That is how long one waits for a picture at worst.',
        do: ['Set the distance of key frames to two seconds.'],
      },
    },
    why: 'Live views open late, and recordings on events miss their beginning.',
  }),
  rule({
    id: 'onvif.answers-twice',
    source: 'RFC 9112 §9.3: one answer for each request',
    needs: ['extraAnswers'],
    judge: (f) => tightIf(f.extraAnswers > 0),
    when: {
      tight: {
        severity: 'watch',
        title: () => 'It gives answers that nobody asked for',
        because: (f) =>
          `${sayMany(f.extraAnswers, 'answer')} too many came; each question then went over a connection of its own.`,
        do: ['Look for a newer firmware.'],
      },
    },
    why: 'A client that keeps its connection takes the second answer for that to its next question.',
  }),
  rule({
    id: 'onvif.odd-types',
    source: 'SOAP 1.2 part 2 §7.1: application/soap+xml',
    needs: ['oddTypes'],
    judge: (f) => tightIf(f.oddTypes > 0),
    when: {
      tight: {
        severity: 'note',
        title: () => 'Its answers carry the wrong type',
        because: (f) => `${sayMany(f.oddTypes, 'answer')} were not called XML by their head.`,
        do: ['Expect strict clients to refuse it.'],
      },
    },
    why: 'A strict client does not read what is called a web page.',
  }),
  rule({
    id: 'onvif.slow',
    source: 'mean of all answers; 1 s [A]',
    needs: ['meanAnswerMs'],
    judge: (f) => tightIf(f.meanAnswerMs > SLOW_MS),
    when: {
      tight: {
        severity: 'watch',
        title: (f) => `Each answer takes it ${sayMs(f.meanAnswerMs)}`,
        because: () => 'Steering and events over such answers lag behind.',
        do: ['Take streams off it; look at its load.'],
      },
    },
    why: 'A head that is stopped a second late has turned by sixty degrees.',
  }),
  ...STEERING_RULES,
  ...EVENT_RULES,
  ...certificateRules('onvif.'),
] as const;
