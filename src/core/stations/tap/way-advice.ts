import type { TapUse } from '../../base/tap-uses.ts';
import { type Verdict, worstVerdict } from '../../base/verdict.ts';
import {
  PROTOCOL_OF_LINE,
  PROTOCOL_WORDS,
  type RtspProtocol,
} from '../../document/chapters/destinations/destination.ts';
import { TOKEN_LIFE_S } from '../../onvif/onvif-limits.ts';

const RTSP_LINES: readonly RtspProtocol[] = Object.values(PROTOCOL_OF_LINE);

/** Ways in which a destination can have a camera. */
export type Way = 'rtsp' | 'onvif' | 'both' | 'maker' | 'none';
export const WAY_WORDS: Readonly<Record<Way, string>> = {
  rtsp: 'by RTSP: its stream URL, typed in',
  onvif: 'by ONVIF: added by address and account',
  both: 'by both: the stream by RTSP, events or PTZ by ONVIF',
  maker: 'through its maker’s own integration',
  none: 'not at all, as it stands',
};

/** What is known for the advice; what is not is `null`. */
export interface WayFacts {
  readonly use: TapUse;
  /** Protocols among the figures of the destination; `null` where nobody entered any. */
  readonly takes: readonly string[] | null;
  /** How RTSP comes from it, as it was probed. */
  readonly line: RtspProtocol;
  /** The last probe of its stream gave a picture. */
  readonly givesRtsp: boolean | null;
  /** It was read by ONVIF at this address, with its account. */
  readonly givesOnvif: boolean | null;
  readonly isAccountOnly: boolean;
  readonly skewS: number | null;
  readonly givesElsewhere: boolean;
  readonly hasHead: boolean | null;
  readonly wantsSteering: boolean;
  readonly tellsMotion: boolean | null;
  readonly forgetsListeners: boolean;
  /** Its ONVIF shows fewer pictures than it has, and this one is not among them. */
  readonly isHiddenChannel: boolean;
  readonly isHiddenCodec: boolean;
}

export interface WayAdvice {
  readonly way: Way;
  /** How well it is founded: `unknown` where something decisive was not measured. */
  readonly verdict: Verdict;
  readonly reasons: readonly string[];
}

/** What speaks against adding it by ONVIF, each with its reason; asked in this order. What is open some destinations take. */
const AGAINST_ONVIF: readonly {
  readonly holds: (f: WayFacts) => boolean;
  readonly says: string;
  readonly isOpen?: true;
}[] = [
  { holds: (f) => f.givesOnvif === false, says: 'It was not read by ONVIF with this account.' },
  { holds: (f) => f.isHiddenChannel, says: 'Its ONVIF does not list this channel.' },
  {
    holds: (f) => f.givesElsewhere,
    says: 'By ONVIF it reports an internal address, and a destination would dial that.',
  },
  {
    holds: (f) => f.skewS !== null && Math.abs(f.skewS) > TOKEN_LIFE_S,
    says: 'Its clock is so far off that a time-stamped login is refused, unless the destination corrects for it.',
    isOpen: true,
  },
  {
    holds: (f) => f.isHiddenCodec,
    says: 'Its main stream is listed by Media 2 alone: older clients do not find it.',
    isOpen: true,
  },
];

const known = (takes: readonly string[] | null, protocol: string): boolean | null =>
  takes === null ? null : takes.includes(protocol);

/** RTSP by the line of the camera; where another line of it is taken, nobody knows whether the camera has that too. */
function knownRtsp({ takes, line }: WayFacts): boolean | null {
  if (takes === null || takes.includes(line)) return takes && true;
  return RTSP_LINES.some((one) => takes.includes(one)) ? null : false;
}

/**
 * Which way a destination should have a camera for a use, and why: from what was measured, and what its figures say. No way
 * is better than the picture that comes by it: the address that ONVIF tells is one of RTSP too.
 */
export function wayFor(f: WayFacts): WayAdvice {
  const advice = wayByProtocol(f);
  if (advice.way === 'maker' || advice.way === 'none') return advice;
  const picture = f.givesRtsp === null ? 'unknown' : f.givesRtsp ? 'ok' : 'will-not-work';
  const line = advice.way !== 'onvif' && knownRtsp(f) === null ? 'unknown' : 'ok';
  return { ...advice, verdict: worstVerdict([advice.verdict, picture, line]) };
}

function wayByProtocol(f: WayFacts): WayAdvice {
  const held = AGAINST_ONVIF.filter(({ holds }) => holds(f));
  const against = held.map(({ says }) => says);
  const [rtsp, onvif] = [knownRtsp(f), known(f.takes, 'onvif')];
  const wants = wanted(f);
  const isForgotten = f.use === 'detect' && f.forgetsListeners;
  if (f.isAccountOnly && f.givesRtsp !== true)
    return {
      way: 'maker',
      verdict: 'tight',
      reasons: ['By its model card it has no stream without its maker’s account.', ...lost(f)],
    };
  if (rtsp === false && onvif === false)
    return {
      way: 'none',
      verdict: 'will-not-work',
      reasons: ['It takes neither RTSP nor ONVIF; add a relay.'],
    };
  const base: readonly string[] = [
    ...(f.takes === null ? ['Its protocols are not entered.'] : []),
    ...(f.takes !== null && rtsp === null
      ? [`It takes RTSP by another connection than this camera is set to: ${sayLines(f.takes)}.`]
      : []),
    ...(f.givesRtsp === null
      ? ['Its stream was not probed yet.']
      : f.givesRtsp
        ? ['Its stream was probed and plays.']
        : ['Its stream did not play.']),
  ];
  if (rtsp === false) {
    if (f.givesOnvif === null)
      return { way: 'onvif', verdict: 'unknown', reasons: ['It takes no RTSP. The camera was not read by ONVIF yet.'] };
    if (held.some(({ isOpen }) => !isOpen))
      return { way: 'none', verdict: 'will-not-work', reasons: ['It takes no RTSP.', ...against] };
    // what a destination does about a clock or the second media service stands in no figure of it
    if (held.length > 0) return { way: 'onvif', verdict: 'unknown', reasons: ['It takes no RTSP.', ...against] };
    const reasons = ['It takes no RTSP, and the camera was read by ONVIF.', ...base];
    if (!wants.isWanted || wants.isGiven)
      return { way: 'onvif', verdict: 'ok', reasons: [...reasons, ...wants.reasons] };
    return wants.isGiven === null
      ? { way: 'onvif', verdict: 'unknown', reasons: [...reasons, wants.says] }
      : { way: 'onvif', verdict: 'tight', reasons: [...reasons, wants.missing] };
  }
  if (!wants.isWanted)
    return {
      way: 'rtsp',
      verdict: rtsp === null ? 'unknown' : 'ok',
      reasons: [
        ...base,
        f.use === 'record'
          ? 'To record it needs the stream alone, and a typed URL says exactly which.'
          : 'It needs the stream alone.',
      ],
    };
  if (onvif === false)
    return { way: 'rtsp', verdict: 'tight', reasons: [...base, `It takes no ONVIF: ${wants.lacks}`] };
  if (f.givesOnvif === null || wants.isGiven === null)
    return {
      way: 'both',
      verdict: 'unknown',
      reasons: [...base, `${wants.says} Read the camera by ONVIF to know whether it gives that.`],
    };
  if (!wants.isGiven) return { way: 'rtsp', verdict: 'tight', reasons: [...base, wants.missing] };
  if (against.length > 0) return { way: 'rtsp', verdict: 'tight', reasons: [...base, ...against, wants.lacks] };
  return {
    way: 'both',
    verdict: rtsp === null || onvif === null ? 'unknown' : isForgotten ? 'tight' : 'ok',
    reasons: [
      ...base,
      wants.says,
      ...(isForgotten ? ['It drops event subscriptions: check that the destination subscribes again.'] : []),
    ],
  };
}

const sayLines = (takes: readonly string[]): string =>
  RTSP_LINES.filter((line) => takes.includes(line))
    .map((line) => PROTOCOL_WORDS[line])
    .join(', ');

const lost = (f: WayFacts): readonly string[] =>
  f.wantsSteering ? ['PTZ then goes through its maker’s servers.'] : [];

/** What the use needs beyond the picture, and whether the camera gives it. */
function wanted(f: WayFacts) {
  if (f.use === 'detect')
    return {
      isWanted: true,
      isGiven: f.tellsMotion,
      says: 'Its motion events come by ONVIF, and save the destination the detection.',
      missing: 'It offers no motion events by ONVIF: let the destination detect motion in the picture.',
      lacks: 'its motion events do not get there, the destination has to detect motion in the picture.',
      reasons: f.tellsMotion ? ['It offers motion events.'] : [],
    };
  if (f.use === 'live' && f.wantsSteering)
    return {
      isWanted: true,
      isGiven: f.hasHead,
      says: 'A stream alone carries no PTZ; that goes by ONVIF.',
      missing: 'By ONVIF it has no PTZ.',
      lacks: 'there is no PTZ from there, a stream alone carries none.',
      reasons: f.hasHead ? ['It has PTZ.'] : [],
    };
  return { isWanted: false, isGiven: null, says: '', missing: '', lacks: '', reasons: [] };
}
