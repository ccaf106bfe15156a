import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { channelOfPath, pathsOfChannel } from './path-channel.ts';

test.each([
  ['/ch1/main', 1],
  ['/ch02/sub', 2],
  ['/Streaming/Channels/102', 1],
  ['/live?channel=3&subtype=1', 3],
  ['/cam_4', 4],
  ['/live/main', null],
  ['/h264', null],
  ['/search1', null],
])('%s names channel %s', (path, channel) => expect(channelOfPath(path)).toBe(channel));

test('no path of another channel is a camera’s own, however it is written', () => {
  const channel = fc.integer({ min: 1, max: 64 });
  const written = fc.constantFrom(
    (n: number) => `/ch${n}/main`,
    (n: number) => `/ch${String(n).padStart(2, '0')}/sub`,
    (n: number) => `/live?channel=${n}`,
    (n: number) => `/Streaming/Channels/${n}01`,
  );
  fc.assert(
    fc.property(channel, fc.array(fc.tuple(channel, written), { maxLength: 6 }), written, (ours, offered, own) => {
      const paths = offered.map(([n, write]) => write(n));
      const kept = pathsOfChannel([...paths, '/main'], own(ours), null);
      const wanted = offered.filter(([n]) => n === ours).map(([n, write]) => write(n));
      expect(kept).toEqual([...wanted, '/main']);
    }),
  );
});

test('where its own path names no channel and several are offered, none of them is taken for its own', () => {
  expect(pathsOfChannel(['/ch1/main', '/ch2/main', '/main'], '/live', null)).toEqual(['/main']);
  expect(pathsOfChannel(['/ch1/main', '/ch1/sub'], '/live', null)).toEqual(['/ch1/main', '/ch1/sub']);
  expect(pathsOfChannel(['/ch1/main', '/ch2/main'], '/live', 2)).toEqual(['/ch2/main']);
});
