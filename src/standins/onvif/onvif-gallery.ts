import { ORDINARY, type Personality, SLUICE_RAIL } from '../personality.ts';

const small = {
  codec: 'H264',
  scene: 'sluice',
  width: 480,
  height: 270,
  fps: 6,
  groupFrames: 6,
  quantiser: 26,
} as const;

const common = {
  ...ORDINARY,
  port: 554,
  realm: 'Hatch',
  digestQop: 'auth',
  sessionTimeoutS: 60,
  maxSessions: 4,
  dropEvery: null,
  maxPayloadBytes: 1400,
  stopsAfterMs: null,
} as const;

const head = SLUICE_RAIL.page?.onvif?.head;
if (!head) throw new TypeError('The dome over the sluice has lost its head.');

/** One of ten stops gets lost on its way, and it runs on when its time is over; subscriptions have one address for all. */
export const WEIR_GATE: Personality = {
  ...common,
  name: 'Weir gate',
  host: '10.77.4.71',
  server: 'Hatch 1.8',
  account: { user: 'weir-viewer', password: 'plank;9 rope' },
  plug: { mac: '00:00:5e:00:53:71', address: 'static' },
  page: {
    port: 80,
    title: 'Hatch T2',
    server: 'hatch-web',
    onvif: {
      endpoint: '1c5e88d0-4a0f-47b4-9f0e-00005e005371',
      hardware: 'T2',
      location: 'weir',
      make: 'Hatch',
      model: 'T2',
      firmware: '1.8.0',
      serial: 'T2-0071',
      login: 'digest',
      tokenLifeS: 300,
      head: { ...head, losesStopEvery: 10, ignoresTimeout: true },
      walks: { everyMs: 4000, forMs: 1500 },
      tellsPullsByHeader: true,
    },
  },
  streams: [{ label: 'main', path: '/stream/1', format: { ...small, label: 'Weir gate', around: head } }],
};

/** It answers everything twice, and ends subscriptions long before their time. */
export const WHEEL_PIT: Personality = {
  ...common,
  name: 'Wheel pit',
  host: '10.77.4.72',
  server: 'Hatch 1.2',
  account: { user: 'pit-viewer', password: 'grease/4 axle' },
  plug: { mac: '00:00:5e:00:53:72', address: 'static' },
  page: {
    port: 8080,
    title: 'Hatch F1',
    server: 'hatch-web',
    onvif: {
      endpoint: '77d0c9b2-5f7d-4d55-8f21-00005e005372',
      hardware: 'F1',
      location: 'wheel pit',
      make: 'Hatch',
      model: 'F1',
      firmware: '1.2.4',
      serial: 'F1-0072',
      login: 'token',
      tokenLifeS: 300,
      answersTwice: true,
      walks: { everyMs: 4000, forMs: 1500 },
      endsSubscriptionsAfterMs: 3000,
    },
  },
  streams: [{ label: 'main', path: '/stream/1', format: { ...small, label: 'Wheel pit' } }],
};

/** Devices that speak ONVIF in ways of their own; no house has all of them. */
export const ONVIF_GALLERY: readonly Personality[] = [WEIR_GATE, WHEEL_PIT];
