import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { SLUICE_RAIL } from '../personality.ts';
import { type EncodeGroup, type Picture, PictureFeed } from './picture-feed.ts';

const FORMATS = SLUICE_RAIL.streams.map(({ format }) => format);

const unit = new Uint8Array([1]);
const takes = (ms: () => number): EncodeGroup => {
  return async ({ frames }) => {
    await new Promise((resolve) => setTimeout(resolve, ms()));
    return { sps: unit, pps: unit, pictures: Array.from({ length: frames }, () => [unit]) };
  };
};

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

test.each(FORMATS)(
  '$width × $height: a first picture does not wait for what a group once took on a busy machine',
  async (format) => {
    let encodeMs = 12_000;
    const feed = new PictureFeed(
      format,
      takes(() => encodeMs),
    );
    const seen: Picture[] = [];
    const leave = feed.subscribe((picture) => seen.push(picture));
    await jest.advanceTimersByTimeAsync(25_000);
    expect(seen.length).toBeGreaterThan(0);
    leave();
    await jest.advanceTimersByTimeAsync(20_000); // nobody draws: it has stopped
    encodeMs = 200;
    seen.length = 0;
    feed.subscribe((picture) => seen.push(picture));
    await jest.advanceTimersByTimeAsync(2000);
    expect(seen[0]?.isKeyFrame).toBe(true);
    feed.stop();
  },
);

test.each(FORMATS)('$width × $height: after a group that failed, whoever draws next begins anew', async (format) => {
  const said = jest.spyOn(console, 'error').mockImplementation(() => {});
  let fails = true;
  const encode = takes(() => 100);
  const feed = new PictureFeed(format, (request, due) =>
    fails ? Promise.reject(new Error('no')) : encode(request, due),
  );
  const seen: Picture[] = [];
  feed.subscribe(() => {});
  await jest.advanceTimersByTimeAsync(2000);
  expect(said).toHaveBeenCalledWith(`Stand-in ${format.label}: Error: no`);
  fails = false;
  feed.subscribe((picture) => seen.push(picture));
  await jest.advanceTimersByTimeAsync(2000);
  expect(seen.length).toBeGreaterThan(0);
  feed.stop();
  said.mockRestore();
});
