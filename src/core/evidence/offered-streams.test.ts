import { expect, test } from '@jest/globals';
import { SPARE, siteOf } from '../../../tests/support/planned-sites.ts';
import { offeredStreams, streamsInstead } from './offered-streams.ts';

test('streams of a card are offered with their paths, channel by channel, and none that is there already', () => {
  const card = {
    ...SPARE,
    id: 'chosen',
    path: '/ch{channel}/0?user={user}&pwd={password}',
    subs: [{ codecs: ['H264'], widthPx: 640, heightPx: 360, fps: 10, path: '/ch{channel}/1' }],
  };
  const base = siteOf({ camera: { channel: 3 } });
  const site = {
    ...base,
    models: [card, SPARE],
    cameras: base.cameras.map((one) => ({ ...one, streams: one.streams.slice(0, 1) })),
  };
  const [one] = site.cameras;
  if (!one) throw new Error('no camera');
  expect(offeredStreams(site, one)).toMatchObject([
    { stream: { label: 'sub', path: '/ch3/1', codec: 'H264', width: 640 }, lacksChannel: false },
  ]);
  expect(offeredStreams(site, { ...one, channel: null })[0]?.lacksChannel).toBe(true);
  let ids = 0;
  const instead = streamsInstead(one, card, () => `n${++ids}`);
  expect(instead).toMatchObject([
    { stream: { id: 'n1', path: '/ch3/0?user={user}&pwd={password}' }, instead: 'c-main' },
    { stream: { id: 'n2', label: 'sub' }, instead: null },
  ]);
});
