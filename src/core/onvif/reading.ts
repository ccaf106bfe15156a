import type { CertificateSeen } from '../net/certificate.ts';
import type { ServiceName } from './namespaces.ts';
import type { OnvifCause } from './onvif-cause.ts';
import type { OtherDoor } from './service-place.ts';
import type { DeviceInformation } from './services/device.ts';
import { isMotion, kindOfTopic } from './services/events.ts';
import type { ImagingSettings, MediaProfile } from './services/media.ts';
import type { PtzNode, PtzPreset } from './services/ptz.ts';
import type { RecordingSummary } from './services/recording.ts';

/** A service as it is asked from here, and what the device itself said. */
export interface ReadService {
  readonly name: ServiceName;
  readonly version: string;
  /** Path at the address that was called. */
  readonly path: string;
  readonly port: number;
  /** The host that the device gave, where it is another one; empty else. */
  readonly elsewhere: string;
  readonly isTls: boolean;
}

/** An address of a stream or a still, as the device gave it. */
export interface ReadUri {
  /** Path and query; where a login stood, placeholders do. */
  readonly path: string;
  readonly port: number;
  readonly scheme: string;
  /** Another host than the one that was called; empty else. */
  readonly elsewhere: string;
}

export interface ReadProfile extends MediaProfile {
  /** By which media service it was told: a client that knows the first alone sees what stands under `media`. */
  readonly via: 'media' | 'media2' | 'both';
  readonly stream: ReadUri | null;
  readonly still: ReadUri | null;
}

export interface ReadPtz {
  readonly node: PtzNode;
  /** The profile that it is steered through. */
  readonly profile: string;
  /** What it tells of where it looks. */
  readonly tells: 'position' | 'moving' | 'nothing';
  readonly presets: readonly PtzPreset[] | null;
}

export interface ReadEvents {
  readonly topics: readonly string[];
  /** A subscription was taken and given back; `false` where that was refused. */
  readonly canPull: boolean | null;
  readonly note: string;
}

export interface ReadClock {
  /** Device minus local, s. */
  readonly skewS: number;
  readonly kept: 'manual' | 'ntp' | null;
  readonly zone: string;
}

export interface ReadNetwork {
  readonly mac: string;
  readonly dhcp: boolean | null;
  /** `null` when it was not told. */
  readonly timeServers: readonly string[] | null;
}

/** All that one reading of a device taught. What was not told is `null`. */
export interface OnvifReading {
  readonly host: string;
  readonly port: number;
  readonly path: string;
  /** Why it ended before its end; `null` when it did not. */
  readonly cause: OnvifCause | null;
  readonly note: string;
  readonly clock: ReadClock | null;
  readonly device: DeviceInformation | null;
  /** It told who it is without being asked for a login. */
  readonly isOpen: boolean;
  readonly login: 'none' | 'token' | 'digest';
  /** It knows the older question for its services alone. */
  readonly isOld: boolean;
  readonly services: readonly ReadService[];
  /** Identity that stays, from its scopes or its network; empty where nothing told. */
  readonly network: ReadNetwork | null;
  /** Pictures that it takes in. */
  readonly sources: readonly string[] | null;
  readonly profiles: readonly ReadProfile[];
  readonly ptz: ReadPtz | null;
  readonly imaging: ImagingSettings | null;
  readonly events: ReadEvents | null;
  readonly recordings: RecordingSummary | null;
  /** Doors of the same host where the account was not told: nobody allowed it there. */
  readonly heldDoors: readonly OtherDoor[];
  /** It was asked over TLS. */
  readonly isTls: boolean;
  /** What it showed there. */
  readonly tls: CertificateSeen | null;
  /** An account and a password stood in an address that it gave. */
  readonly tellsLogin: boolean;
  readonly extraAnswers: number;
  readonly oddTypes: number;
  /** Requests that were answered, and how long these took, each for itself, ms. */
  readonly answers: number;
  readonly meanAnswerMs: number | null;
}

/** Topics that tell of motion, whatever they are called. */
export const motionTopics = (topics: readonly string[]): readonly string[] =>
  topics.filter((topic) => isMotion(kindOfTopic(topic)));

/** What a profile's size is said as. */
export const sizeOf = ({ width, height }: Pick<MediaProfile, 'width' | 'height'>): string | null =>
  width !== null && height !== null ? `${width}×${height}` : null;
