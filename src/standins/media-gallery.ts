import type { Oddities } from './oddities.ts';
import { ORDINARY, type Personality } from './personality.ts';
import type { LoopName } from './pictures/loop-feed.ts';

const device = (
  name: string,
  host: string,
  loop: LoopName,
  odd: Oddities = {},
  more: Partial<Personality> = {},
): Personality => ({
  name,
  host,
  port: 554,
  server: 'Fernhow 2.0',
  realm: 'Fernhow',
  account: { user: 'yard', password: 'Lantern-4-Gate' },
  ...ORDINARY,
  digestQop: 'auth',
  sessionTimeoutS: 60,
  maxSessions: 4,
  dropEvery: null,
  maxPayloadBytes: 1200,
  stopsAfterMs: null,
  streams: [
    {
      label: 'main',
      path: '/live',
      loop,
      format: {
        codec: 'H264',
        scene: 'stair',
        label: name,
        quantiser: 28,
        width: 320,
        height: 180,
        fps: 12,
        groupFrames: 24,
      },
    },
  ],
  odd,
  ...more,
});

/** Streams in every codec, and whatever else a healthy one may be: started by `cleartap standins`, and by tests. */
export const MEDIA_GALLERY: readonly Personality[] = [
  device(
    'Hop kiln',
    '10.77.4.81',
    'h265',
    {},
    {
      page: {
        port: 80,
        title: 'Fernhow K2',
        server: 'fernhow-web',
        onvif: {
          endpoint: '9c11e0b4-52d7-4c1b-8f0a-00005e005381',
          hardware: 'K2',
          location: 'hop kiln',
          make: 'Fernhow',
          model: 'K2',
          firmware: '2.0.4',
          serial: 'FK2-0081',
          login: 'either',
          tokenLifeS: 300,
        },
      },
    },
  ),
  device('Mill race', '10.77.4.82', 'b-frames'),
  device('Stone jetty', '10.77.4.83', 'open-group'),
  device('Cheese cellar', '10.77.4.84', 'plain', { sound: 'AAC' }),
  device('Sack hoist', '10.77.4.85', 'plain', { sound: 'PCMU' }),
  device('Grain chute', '10.77.4.86', 'plain', { sound: 'PCMA' }),
  device('Tail water', '10.77.4.87', 'plain', { sound: 'G726' }),
  device('Bolting room', '10.77.4.88', 'plain', { sound: 'OPUS' }),
  device('Cart bridge', '10.77.4.89', 'plain', {}, { maxSessions: 1 }),
  device('Drying floor', '10.77.4.90', 'plain', { keepAlive: 'SET_PARAMETER', asksBack: true }, { maxSessions: 2 }),
];
