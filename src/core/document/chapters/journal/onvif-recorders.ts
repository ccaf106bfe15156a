import { clipText } from '../../../base/clip.ts';
import { TEXT_LIMITS } from '../../../base/limits.ts';
import type { ReadProfile } from '../../../onvif/reading.ts';
import type { TurnCalibration } from '../../../ptz/timed-turns.ts';
import { cameraOf, type Recorders, streamIn, words } from '../../command-parts.ts';
import { cameraSubject, streamSubject } from '../../subject.ts';
import type { Fact, FactValue } from './entry.ts';
import { HAND_QUANTITIES } from './hand-quantities.ts';
import type { QuantityName } from './quantities.ts';

/** What was learnt of a device by ONVIF. */
export type OnvifRecord =
  | {
      /** What a profile declares of the stream that was taken from it. */
      readonly kind: 'recordProfile';
      readonly cameraId: string;
      readonly streamId: string;
      readonly profile: Pick<ReadProfile, 'token' | 'name' | 'codec' | 'width' | 'height' | 'fps'>;
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

export const ONVIF_RECORDERS: Recorders<OnvifRecord> = {
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
  recordTurns: (site, { cameraId, calibrationId, turns, velocity, measured }) => {
    const subject = cameraSubject(cameraId);
    const { degPerS, offsetDeg, residualDeg, deadTimeS } = turns;
    return {
      ...words('tap', subject, `${cameraOf(site, cameraId).name}: PTZ turns ${degPerS.toFixed(1)} °/s`, {
        turns: String(measured),
        'dead time': `${deadTimeS.toFixed(2)} s`,
        spread: residualDeg === null ? undefined : `${residualDeg.toFixed(1)}°`,
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
