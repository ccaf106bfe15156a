import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { USUAL_GUIDE } from './guide.ts';
import { type RehearsedInput, rehearse } from './rehearsal.ts';
import { ledOf, listens, type SimCard, type SimInput, simAt, simCamera, simStep } from './simulated-camera.ts';

const GUIDE = { ...USUAL_GUIDE, imageName: 'new.bin', backName: 'old.bin' };
const CARD: SimCard = {
  bytes: 32e9,
  fileSystem: 'FAT32',
  partitionMiB: null,
  files: [{ name: 'new.bin', content: 'new' }],
};
const S = 1000;
const card = (atS: number, change: Partial<SimCard> | null = {}): RehearsedInput => ({
  kind: 'card',
  atMs: atS * S,
  card: change && { ...CARD, ...change },
});
const at = (atS: number, kind: Exclude<RehearsedInput['kind'], 'card'>): RehearsedInput => ({ kind, atMs: atS * S });
/** Plug out, card in, button held for so long from when power comes. */
const held = (holdS: number, change: Partial<SimCard> = {}): readonly RehearsedInput[] => [
  at(0, 'unplug'),
  card(5, change),
  at(9, 'press'),
  at(10, 'plug'),
  at(10 + holdS, 'release'),
];

const CASES: readonly {
  readonly why: string;
  readonly inputs: readonly RehearsedInput[];
  readonly untilS: number;
  readonly is: object;
  readonly says: RegExp;
}[] = [
  {
    why: 'all is right: it runs the new one',
    inputs: held(8),
    untilS: 400,
    is: { phase: 'running', firmware: 'new', memory: 'whole' },
    says: /new firmware runs/,
  },
  {
    why: 'it writes as soon as the button is let go',
    inputs: held(8),
    untilS: 20,
    is: { phase: 'writing' },
    says: /writing/,
  },
  {
    why: 'let go too early',
    inputs: held(3),
    untilS: 30,
    is: { phase: 'running', firmware: 'stock' },
    says: /too early/,
  },
  {
    why: 'never let go',
    inputs: held(8).slice(0, -1),
    untilS: 200,
    is: { phase: 'running', firmware: 'stock' },
    says: /never released/,
  },
  {
    why: 'nobody holds the button',
    inputs: [at(0, 'unplug'), card(5), at(10, 'plug')],
    untilS: 60,
    is: { phase: 'running', firmware: 'stock' },
    says: /not held/,
  },
  {
    why: 'a wrong name',
    inputs: held(8, { files: [{ name: 'new.bin.txt', content: 'new' }] }),
    untilS: 60,
    is: { phase: 'running', firmware: 'stock' },
    says: /a second extension/,
  },
  {
    why: 'no file',
    inputs: held(8, { files: [] }),
    untilS: 60,
    is: { phase: 'running', firmware: 'stock' },
    says: /no file/,
  },
  {
    why: 'a partition that is too large',
    inputs: held(8, { bytes: 128e9 }),
    untilS: 60,
    is: { phase: 'running', firmware: 'stock' },
    says: /larger than the 32 GiB/,
  },
  {
    why: 'a large card with a small partition',
    inputs: held(8, { bytes: 128e9, partitionMiB: 16_384 }),
    untilS: 400,
    is: { phase: 'running', firmware: 'new' },
    says: /new/,
  },
  {
    why: 'a partition beyond the card',
    inputs: held(8, { partitionMiB: 60_000 }),
    untilS: 60,
    is: { phase: 'running', firmware: 'stock' },
    says: /beyond the end/,
  },
  {
    why: 'another file system',
    inputs: held(8, { fileSystem: 'exFAT' }),
    untilS: 60,
    is: { phase: 'running', firmware: 'stock' },
    says: /exFAT/,
  },
  {
    why: 'no card',
    inputs: held(8).filter(({ kind }) => kind !== 'card'),
    untilS: 60,
    is: { phase: 'running', firmware: 'stock' },
    says: /no SD card/,
  },
  {
    why: 'cut while it writes: it hangs',
    inputs: [...held(8), at(60, 'unplug'), at(70, 'plug')],
    untilS: 80,
    is: { phase: 'stuck', memory: 'half' },
    says: /not held/,
  },
  {
    why: 'the card is pulled while it writes',
    inputs: [...held(8), card(60, null)],
    untilS: 70,
    is: { phase: 'stuck', memory: 'half' },
    says: /removed while it was writing/,
  },
  {
    why: 'after a cut the same way brings it back',
    inputs: [...held(8), at(60, 'unplug'), at(69, 'press'), at(70, 'plug'), at(78, 'release')],
    untilS: 500,
    is: { phase: 'running', firmware: 'new', memory: 'whole' },
    says: /new/,
  },
  {
    why: 'an image of another revision: dark',
    inputs: held(8, { files: [{ name: 'new.bin', content: 'spoilt' }] }),
    untilS: 500,
    is: { phase: 'dead', memory: 'wrong' },
    says: /new|before|run/,
  },
  {
    why: 'and back from the dark with the original firmware file',
    inputs: [
      ...held(8, { files: [{ name: 'new.bin', content: 'spoilt' }] }),
      at(400, 'unplug'),
      card(401, { files: [{ name: 'old.bin', content: 'stock' }] }),
      at(402, 'press'),
      at(403, 'plug'),
      at(412, 'release'),
    ],
    untilS: 900,
    is: { phase: 'running', firmware: 'stock', memory: 'whole' },
    says: /original firmware runs/,
  },
  {
    why: 'power cut after it was written: it runs',
    inputs: [...held(8), at(145, 'unplug'), at(150, 'plug')],
    untilS: 200,
    is: { phase: 'running', firmware: 'new' },
    says: /not held/,
  },
];

test.each(CASES)('simulated camera: $why', ({ inputs, untilS, is, says }) => {
  const { camera, states } = rehearse(GUIDE, 'stock', [...inputs, at(untilS, 'wait')]);
  expect(camera).toMatchObject(is);
  expect(camera.why).toMatch(says);
  expect(states).toHaveLength(inputs.length + 2);
  expect(states.at(-1)?.listens).toBe(listens(camera));
});

test('going back ends what listens', () => {
  const { camera } = rehearse(GUIDE, 'new', [
    ...held(8, { files: [{ name: 'old.bin', content: 'stock' }] }),
    at(500, 'wait'),
  ]);
  expect([camera.firmware, listens(camera)]).toEqual(['stock', false]);
});

const anyInput: fc.Arbitrary<SimInput> = fc.oneof(
  fc.constantFrom<SimInput>({ kind: 'press' }, { kind: 'release' }, { kind: 'plug' }, { kind: 'unplug' }),
  fc.constantFrom<SimInput>(
    { kind: 'card', card: CARD },
    { kind: 'card', card: null },
    { kind: 'card', card: { ...CARD, bytes: 128e9 } },
  ),
);
const anyPlay = fc.array(fc.tuple(anyInput, fc.integer({ min: 0, max: 200_000 })), { maxLength: 30 });

test('whatever hands do: it listens only on the new firmware, and half an image is never called whole', () => {
  fc.assert(
    fc.property(anyPlay, (play) => {
      let camera = simCamera('stock');
      let now = 0;
      for (const [input, waitMs] of play) {
        const wasWriting = simAt(camera, GUIDE, now).phase === 'writing';
        camera = simStep(camera, input, GUIDE, now);
        if (wasWriting && (input.kind === 'unplug' || (input.kind === 'card' && input.card === null)))
          expect(camera.memory).toBe('half');
        now += waitMs;
        camera = simAt(camera, GUIDE, now);
        if (listens(camera)) expect(camera).toMatchObject({ phase: 'running', firmware: 'new', memory: 'whole' });
        if (camera.phase === 'off') expect(ledOf(camera, GUIDE).rhythm).toBe('off');
      }
    }),
  );
});

test('time that is looked at often is the same as time that is looked at once', () => {
  fc.assert(
    fc.property(anyPlay, fc.integer({ min: 1, max: 9000 }), (play, lookMs) => {
      let seldom = simCamera('stock');
      let often = simCamera('stock');
      let now = 0;
      for (const [input, waitMs] of play) {
        seldom = simStep(seldom, input, GUIDE, now);
        often = simStep(often, input, GUIDE, now);
        for (let at = now; at < now + waitMs; at += lookMs) often = simAt(often, GUIDE, at);
        now += waitMs;
      }
      expect(simAt(often, GUIDE, now)).toEqual(simAt(seldom, GUIDE, now));
    }),
  );
});
