import { clipText } from '../../../base/clip.ts';
import { LIST_LIMITS, TEXT_LIMITS } from '../../../base/limits.ts';
import { sayMany, sayStretch } from '../../../base/say.ts';
import type { OnvifReading, ReadProfile } from '../../../onvif/reading.ts';
import { writeReading } from '../../../onvif/write-reading.ts';
import type { Heard } from '../../../onvif-client/hear-machine.ts';
import type { TurnCalibration } from '../../../ptz/timed-turns.ts';
import { cameraOf, type Recorders, streamIn, words } from '../../command-parts.ts';
import { cameraSubject, streamSubject } from '../../subject.ts';
import type { Fact, FactValue } from './entry.ts';
import { HAND_QUANTITIES } from './hand-quantities.ts';
import type { QuantityName } from './quantities.ts';

/** What was learnt of a device by ONVIF. */
export type OnvifRecord =
  | {
      readonly kind: 'recordDevice';
      readonly cameraId: string;
      readonly readingId: string;
      readonly reading: OnvifReading;
    }
  | {
      /** What a profile declares of the stream that was taken from it. */
      readonly kind: 'recordProfile';
      readonly cameraId: string;
      readonly streamId: string;
      readonly profile: Pick<ReadProfile, 'token' | 'name' | 'codec' | 'width' | 'height' | 'fps'>;
    }
  | {
      readonly kind: 'recordHeard';
      readonly cameraId: string;
      readonly heardId: string;
      readonly heard: Heard;
    }
  | {
      /** How far a head turns in a time, from turns that were measured. */
      readonly kind: 'recordTurns';
      readonly cameraId: string;
      readonly calibrationId: string;
      readonly turns: TurnCalibration;
      readonly velocity: number;
      readonly measured: number;
    }
  | {
      readonly kind: 'recordHeadTrait';
      readonly cameraId: string;
      readonly trait: 'head.stopsLost' | 'head.keepsTimeout';
      readonly value: FactValue;
    };

const maybe = (subject: string, quantity: QuantityName, value: FactValue | null, how: Fact['how']): readonly Fact[] =>
  value === null || (typeof value === 'number' && !Number.isFinite(value)) ? [] : [{ subject, quantity, value, how }];

const nameOf = (reading: OnvifReading): string =>
  reading.device ? [reading.device.make, reading.device.model].filter((part) => part !== '').join(' ') : '';

export const ONVIF_RECORDERS: Recorders<OnvifRecord> = {
  recordDevice: (site, { cameraId, readingId, reading }) => {
    const subject = cameraSubject(cameraId);
    const { cause, note, profiles, clock, device } = reading;
    const { name } = cameraOf(site, cameraId);
    const outcome = cause ? `${name} was not read by ONVIF` : `${name} read by ONVIF: ${nameOf(reading) || 'read'}`;
    return {
      ...words('tap', subject, outcome, {
        cause: cause ?? undefined,
        because: cause && note !== '' ? clipText(note, TEXT_LIMITS.place) : undefined,
        firmware: device?.firmware || undefined,
        serial: device?.serial || undefined,
        profiles: profiles.length > 0 ? String(profiles.length) : undefined,
        clock: clock ? sayStretch(clock.skewS) : undefined,
      }),
      source: readingId,
      facts: writeReading(reading, TEXT_LIMITS.evidence)
        .slice(0, LIST_LIMITS.factsOfEntry)
        .map((fact) => ({ subject, ...fact, how: 'declared' as const })),
    };
  },
  recordProfile: (site, { cameraId, streamId, profile }) => {
    const camera = cameraOf(site, cameraId);
    const { label, id } = streamIn(camera, streamId);
    const subject = streamSubject(id);
    // what an encoder is limited to is no rate: it is not taken for one
    const { codec, width, height, fps, name, token } = profile;
    return {
      ...words('tap', cameraSubject(cameraId), `${camera.name} ${label}: taken from profile ${name || token}`),
      source: `ONVIF profile ${clipText(token, TEXT_LIMITS.label)}`,
      facts: [
        ...maybe(subject, 'codec', codec, 'declared'),
        ...maybe(subject, 'width', width, 'declared'),
        ...maybe(subject, 'height', height, 'declared'),
        ...maybe(subject, 'fps', fps, 'declared'),
      ],
    };
  },
  recordHeard: (site, { cameraId, heardId, heard }) => {
    const subject = cameraSubject(cameraId);
    const { seconds, changes, motions, lost, kinds, note } = heard;
    return {
      ...words('tap', subject, `${cameraOf(site, cameraId).name} listened to: ${sayMany(changes, 'event')}`, {
        for: `${Math.round(seconds)} s`,
        motions: String(motions),
        'subscriptions lost': lost > 0 ? String(lost) : undefined,
      }),
      source: heardId,
      facts: [
        ...maybe(subject, 'heard.seconds', seconds, 'measured'),
        ...maybe(subject, 'heard.changes', changes, 'measured'),
        ...maybe(subject, 'heard.motions', motions, 'measured'),
        ...maybe(subject, 'heard.lost', lost, 'measured'),
        ...maybe(subject, 'heard.kinds', kinds.join(', '), 'measured'),
        ...maybe(subject, 'heard.note', note, 'measured'),
      ],
    };
  },
  recordTurns: (site, { cameraId, calibrationId, turns, velocity, measured }) => {
    const subject = cameraSubject(cameraId);
    const { degPerS, offsetDeg, residualDeg, deadTimeS } = turns;
    return {
      ...words('tap', subject, `${cameraOf(site, cameraId).name}: its head turns ${degPerS.toFixed(1)} °/s`, {
        turns: String(measured),
        'before anything moves': `${deadTimeS.toFixed(2)} s`,
        unevenly: residualDeg === null ? undefined : `${residualDeg.toFixed(1)}°`,
      }),
      source: calibrationId,
      facts: [
        ...maybe(subject, 'head.panDegPerS', degPerS, 'measured'),
        ...maybe(subject, 'head.panOffsetDeg', offsetDeg, 'measured'),
        ...maybe(subject, 'head.panResidualDeg', residualDeg, 'measured'),
        ...maybe(subject, 'head.velocity', velocity, 'measured'),
      ],
    };
  },
  recordHeadTrait: (site, { cameraId, trait, value }) => {
    const subject = cameraSubject(cameraId);
    const said = typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value);
    return {
      ...words('tap', subject, `${cameraOf(site, cameraId).name}: ${HAND_QUANTITIES[trait].label}: ${said}`),
      source: 'steering',
      facts: maybe(subject, trait, value, 'measured'),
    };
  },
};
