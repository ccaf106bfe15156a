import { galleryDevice } from './gallery-device.ts';
import type { Personality } from './personality.ts';

/** Streams in every codec, and whatever else a healthy one may be: started by `cleartap standins`, and by tests. */
export const MEDIA_GALLERY: readonly Personality[] = [
  galleryDevice(
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
  galleryDevice('Mill race', '10.77.4.82', 'b-frames'),
  galleryDevice('Stone jetty', '10.77.4.83', 'open-group'),
  galleryDevice('Cheese cellar', '10.77.4.84', 'plain', { sound: 'AAC' }),
  galleryDevice('Sack hoist', '10.77.4.85', 'plain', { sound: 'PCMU' }),
  galleryDevice('Grain chute', '10.77.4.86', 'plain', { sound: 'PCMA' }),
  galleryDevice('Tail water', '10.77.4.87', 'plain', { sound: 'G726' }),
  galleryDevice('Bolting room', '10.77.4.88', 'plain', { sound: 'OPUS' }),
  galleryDevice('Cart bridge', '10.77.4.89', 'plain', {}, { maxSessions: 1 }),
  galleryDevice(
    'Drying floor',
    '10.77.4.90',
    'plain',
    { keepAlive: 'SET_PARAMETER', asksBack: true },
    { maxSessions: 2 },
  ),
];
