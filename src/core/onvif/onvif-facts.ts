import type { Facts } from '../findings/rule.ts';
import { type CertificateFacts, certificateFacts } from '../net/certificate-rules.ts';
import type { OnvifCause } from './onvif-cause.ts';
import { motionTopics, type OnvifReading } from './reading.ts';
import { sayDoor } from './service-place.ts';

/** What the rules about one reading may ask for. */
export interface OnvifFacts extends CertificateFacts {
  readonly cause: OnvifCause;
  readonly note: string;
  readonly skewS: number;
  /** Up to which a clock is good. */
  readonly clockOkS: number;
  readonly clockKept: 'manual' | 'ntp';
  readonly timeServers: number;
  readonly isOpen: boolean;
  readonly login: OnvifReading['login'];
  readonly isOld: boolean;
  /** “port 8000, port 443 with TLS”; empty where none is held. */
  readonly heldDoors: string;
  readonly tellsLogin: boolean;
  /** Hosts that it gives as its own, and that are others. */
  readonly servicesElsewhere: string;
  readonly streamsElsewhere: string;
  readonly tlsServices: string;
  readonly profiles: number;
  /** Told by the second media service alone. */
  readonly hiddenProfiles: number;
  readonly hiddenCodecs: string;
  readonly profilesWithoutStream: number;
  readonly stills: number;
  readonly extraAnswers: number;
  readonly oddTypes: number;
  readonly meanAnswerMs: number;
  /** The longest way from key frame to key frame that a profile declares. */
  readonly longestGroupS: number;
  readonly longestGroupProfile: string;
  readonly hasHead: boolean;
  readonly headTells: 'position' | 'moving' | 'nothing';
  readonly headByTime: boolean;
  readonly presets: number;
  readonly mostPresets: number;
  readonly hasEvents: boolean;
  readonly canPull: boolean;
  readonly pullNote: string;
  readonly topics: number;
  readonly motionTopics: number;
  readonly sameNames: number;
}

const unique = (texts: readonly string[]): string => [...new Set(texts.filter((text) => text !== ''))].join(', ');

/** Facts of a reading; what was not told is missing. */
export function onvifFacts(reading: OnvifReading, clockOkS: number): Facts<OnvifFacts> {
  const { clock, device, services, profiles, ptz, events, network } = reading;
  const isRead = device !== null;
  const hasProfiles = isRead && services.some(({ name }) => name === 'media' || name === 'media2');
  const hidden = profiles.filter(({ via }) => via === 'media2');
  const hasFirst = services.some(({ name }) => name === 'media');
  const groups = profiles.flatMap(({ name, gopFrames, fps, codec }) =>
    gopFrames !== null && fps !== null && codec !== 'JPEG' ? [{ name, seconds: gopFrames / fps }] : [],
  );
  const longest = groups.reduce<(typeof groups)[number] | null>(
    (most, one) => (most && most.seconds >= one.seconds ? most : one),
    null,
  );
  const streams = profiles.flatMap(({ stream }) => stream ?? []);
  const names = profiles.map(({ name, source }) => `${source} ${name.toLowerCase()}`);
  return {
    cause: reading.cause ?? undefined,
    note: reading.note,
    skewS: clock?.skewS,
    clockOkS,
    clockKept: clock?.kept ?? undefined,
    timeServers: network?.timeServers?.length,
    isOpen: isRead ? reading.isOpen : undefined,
    login: isRead ? reading.login : undefined,
    heldDoors: services.length > 0 ? reading.heldDoors.map(sayDoor).join('; ') : undefined,
    tellsLogin: profiles.length > 0 ? reading.tellsLogin : undefined,
    isOld: services.length > 0 ? reading.isOld : undefined,
    servicesElsewhere: services.length > 0 ? unique(services.map(({ elsewhere }) => elsewhere)) : undefined,
    streamsElsewhere: streams.length > 0 ? unique(streams.map(({ elsewhere }) => elsewhere)) : undefined,
    tlsServices: services.length > 0 ? unique(services.flatMap(({ isTls, name }) => (isTls ? [name] : []))) : undefined,
    profiles: hasProfiles ? profiles.length : undefined,
    hiddenProfiles: hasProfiles && hasFirst ? hidden.length : undefined,
    hiddenCodecs: unique(hidden.map(({ codec }) => codec ?? '')),
    profilesWithoutStream: profiles.length > 0 ? profiles.length - streams.length : undefined,
    stills: profiles.length > 0 ? profiles.filter(({ still }) => still !== null).length : undefined,
    extraAnswers: reading.answers > 0 ? reading.extraAnswers : undefined,
    oddTypes: reading.answers > 0 ? reading.oddTypes : undefined,
    meanAnswerMs: reading.meanAnswerMs ?? undefined,
    longestGroupS: longest?.seconds,
    longestGroupProfile: longest?.name,
    hasHead: isRead ? ptz !== null : undefined,
    headTells: ptz?.tells,
    headByTime: ptz ? ptz.node.absolute === null && ptz.node.relative === null : undefined,
    presets: ptz?.presets?.length,
    mostPresets: ptz?.node.mostPresets ?? undefined,
    hasEvents: isRead ? services.some(({ name }) => name === 'events') : undefined,
    canPull: events?.canPull ?? undefined,
    pullNote: events?.note,
    topics: events?.topics.length,
    motionTopics: events ? motionTopics(events.topics).length : undefined,
    ...(reading.tls ? certificateFacts(reading.tls, reading.host) : {}),
    sameNames: profiles.length > 0 ? names.length - new Set(names).size : undefined,
  };
}
