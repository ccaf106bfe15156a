import { afterAll, expect, test } from '@jest/globals';
import { LINEN_STAIR } from '../personality.ts';
import { createEncoderThread } from './encoder-thread.ts';

const thread = createEncoderThread();
afterAll(() => thread.close());

test('of groups that wait, the one that is due first is encoded first', async () => {
  const [{ format }] = LINEN_STAIR.streams as [(typeof LINEN_STAIR.streams)[number]];
  const order: string[] = [];
  const ask = async (name: string, dueUnixMs: number): Promise<void> => {
    const { pictures } = await thread.encode(
      { ...format, width: 64, height: 48, frames: 2, startUnixMs: 0 },
      dueUnixMs,
    );
    expect(pictures).toHaveLength(2);
    order.push(name);
  };
  await Promise.all([ask('at work already', 3000), ask('later', 2000), ask('soon', 1000), ask('at once', 0)]);
  expect(order).toEqual(['at work already', 'at once', 'soon', 'later']);
});
