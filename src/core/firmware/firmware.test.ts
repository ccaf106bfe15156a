import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { bytes } from '../base/units.ts';
import { baseName, looksLikeZip, memberProblem } from './archive.ts';
import { type DecisionFacts, decide, type Scored } from './decision.ts';
import { SECTOR_BYTES } from './fat-geometry.ts';
import { guideProblem, USUAL_GUIDE } from './guide.ts';
import { compareNames, firstDifference } from './image-name.ts';
import { isLitAt, LED_COLOURS, ledBars, looksSame, RHYTHM_NAMES, RHYTHMS, turnMs } from './led.ts';
import {
  ALIGN_MIB,
  CARD_RANGES,
  cardSize,
  fileSystemFor,
  fitsOn,
  MIB,
  partitionOf,
  partitionWithin,
  roomIn,
} from './memory-card.ts';
import { OPTIONS } from './options.ts';
import { compareHash, digestProblem } from './published-hash.ts';

const anyCard = fc.integer({ min: CARD_RANGES.bytes.min, max: CARD_RANGES.bytes.max });

test('a partition within a limit is the largest that lies on the card and below it', () => {
  fc.assert(
    fc.property(anyCard, fc.option(fc.double({ min: 0.01, max: 2048, noNaN: true })), (size, limitGiB) => {
      const { fits, sectors, startSector, sizeMiB } = partitionWithin(bytes(size), limitGiB);
      // by bytes, not by sectors: where it ends, and how much a MiB more would be
      const end = startSector * SECTOR_BYTES + sectors * SECTOR_BYTES;
      const most = limitGiB === null ? Number.POSITIVE_INFINITY : limitGiB * 1024 * MIB;
      expect(startSector * SECTOR_BYTES).toBe(ALIGN_MIB * MIB);
      if (sizeMiB < 1) return expect(fits).toBe(false);
      expect(fits).toBe(true);
      expect(end).toBeLessThanOrEqual(size);
      expect(sectors * SECTOR_BYTES).toBeLessThanOrEqual(most);
      expect(end + MIB > size || sectors * SECTOR_BYTES + MIB > most).toBe(true);
    }),
  );
});

test.each([
  { why: 'a card of 2 GB as it was sold', gb: 2, limit: null, system: 'FAT16' },
  { why: 'a card of 32 GB', gb: 32, limit: null, system: 'FAT32' },
  { why: 'a large card with a small partition', gb: 128, limit: 32, system: 'FAT32' },
  { why: 'a large card with all of it', gb: 128, limit: null, system: 'exFAT' },
])('formatted: $why', ({ gb, limit, system }) =>
  expect(fileSystemFor(bytes(gb * 1e9), partitionWithin(bytes(gb * 1e9), limit))).toBe(system),
);

test('a partition that is wanted larger than the card does not fit, and nothing is left behind it', () =>
  expect(partitionOf(bytes(32e9), 1, 30 * 1024)).toMatchObject({ fits: false, unusedMiB: null }));

test.each([
  { found: 'FW.bin', verdict: 'case', at: 0 },
  { found: 'fw.bin.bin', verdict: 'extra-extension', at: 6 },
  { found: 'fw (12).bin', verdict: 'copy-suffix', at: 2 },
  { found: '\tfw.bin', verdict: 'space', at: 0 },
  { found: 'fw().bin', verdict: 'different', at: 2 },
  { found: 'fw(2)(3).bin', verdict: 'different', at: 2 },
  { found: '', verdict: 'different', at: 0 },
  { found: 'fw.bi', verdict: 'different', at: 5 },
])('“$found” against “fw.bin”: $verdict', ({ found, verdict, at }) => {
  expect(compareNames('fw.bin', found)).toBe(verdict);
  expect(firstDifference('fw.bin', found)).toBe(at);
});
test('only the very same name is ok', () => {
  fc.assert(fc.property(fc.string(), fc.string(), (a, b) => expect(compareNames(a, b) === 'ok').toBe(a === b)));
});

const DIGEST = 'ed591bc57cc4d2112b7201ed12231ab58831e1c4d13bf99393c5298235ecc4ad';
test.each([
  { why: 'a line of a list of digests', published: `${DIGEST}  fw.bin`, verdict: 'ok', problem: null },
  { why: 'nothing', published: '  ', verdict: 'unsaid', problem: null },
  { why: 'a letter too few', published: DIGEST.slice(1), verdict: 'bad-digest', problem: /has 63/ },
  { why: 'a letter that is no digit', published: `g${DIGEST.slice(1)}`, verdict: 'bad-digest', problem: /“g” is none/ },
  { why: 'another file', published: 'a'.repeat(64), verdict: 'mismatch', problem: null },
  { why: 'a megabyte of it', published: 'a'.repeat(1e6), verdict: 'bad-digest', problem: /has 4096|none of them/ },
])('a published digest: $why', ({ published, verdict, problem }) => {
  expect(compareHash(DIGEST, published)).toBe(verdict);
  if (problem === null) expect(digestProblem(published)).toBeNull();
  else expect(digestProblem(published)).toMatch(problem);
});

test.each(RHYTHM_NAMES)('lamp, %s: the bars are lit when the lamp is, and nowhere else', (rhythm) => {
  const sign = { colour: 'red', rhythm } as const;
  const bars = ledBars(sign, 3 * turnMs(rhythm));
  for (let at = 5; at < 3 * turnMs(rhythm); at += 10)
    expect(bars.some(({ fromMs, ms }) => at >= fromMs && at < fromMs + ms)).toBe(isLitAt(sign, at));
});
test('signs are the same only where nobody sees a difference', () => {
  for (const colour of LED_COLOURS)
    expect(looksSame({ colour, rhythm: 'off' }, { colour: 'red', rhythm: 'off' })).toBe(true);
  expect(looksSame({ colour: 'blue', rhythm: 'slow' }, { colour: 'red', rhythm: 'slow' })).toBe(false);
  expect(new Set(RHYTHM_NAMES.map((name) => RHYTHMS[name].label)).size).toBe(RHYTHM_NAMES.length);
});

test.each([
  { why: 'the sign is late before the button was held', change: { holdS: 20, signWithinS: 15 }, field: 'signWithinS' },
  { why: 'the longest writing is the shortest', change: { writeFromS: 700 }, field: 'writeToS' },
  { why: 'patience ends before the writing', change: { patienceS: 100 }, field: 'patienceS' },
  { why: 'both images are called the same', change: { imageName: 'a.bin', backName: 'a.bin' }, field: 'backName' },
])('a guide that contradicts itself: $why', ({ change, field }) =>
  expect(guideProblem({ ...USUAL_GUIDE, ...change })?.field).toBe(field),
);
test('the usual guide does not contradict itself', () => expect(guideProblem(USUAL_GUIDE)).toBeNull());

test.each([
  { name: 'fw/mini.bin', bytes: 10, problem: null },
  { name: '../mini.bin', bytes: 10, problem: /leads out/ },
  { name: 'a/..\\..\\mini.bin', bytes: 10, problem: /leads out/ },
  { name: '/etc/mini.bin', bytes: 10, problem: /leads out/ },
  { name: 'C:\\mini.bin', bytes: 10, problem: /leads out/ },
  { name: 'inner.ZIP', bytes: 10, problem: /archive itself/ },
  { name: 'empty.bin', bytes: 0, problem: /empty/ },
  { name: 'huge.bin', bytes: 1001, problem: /larger/ },
])('in a ZIP: $name', ({ name, bytes: size, problem }) => {
  if (problem === null) expect(memberProblem(name, size, 1000)).toBeNull();
  else expect(memberProblem(name, size, 1000)).toMatch(problem);
});
test('a name goes onto a card without its folders and without signs that steer', () =>
  expect(baseName('a\\b/c\u0007d.bin')).toBe('c d.bin'));
test('a ZIP is known by its first bytes', () => {
  expect(looksLikeZip(new Uint8Array([0x50, 0x4b, 3, 4]))).toBe(true);
  expect(looksLikeZip(new Uint8Array([0x50, 0x4b]))).toBe(false);
});

const PLAIN: DecisionFacts = {
  givesStream: false,
  picture: 'ok',
  lost: 1,
  hasSideBranch: false,
  wayBack: 'stored',
  hasRescue: true,
  marksKnown: true,
  isOwn: true,
  isOnlyOne: false,
  hasMainsInside: false,
};
test.each([
  { why: 'it gives a stream: it stays', change: { givesStream: true }, best: 'keep' },
  {
    why: 'its maker offers a firmware, nothing is lost',
    change: { hasSideBranch: true, lost: 0 },
    best: 'side-branch',
  },
  { why: 'nothing is known: it stays', change: { givesStream: null, picture: 'unknown', lost: null }, best: 'keep' },
  { why: 'its picture does not fit: another one', change: { picture: 'will-not-work' }, best: 'replace' },
  { why: 'its revision is not known: nothing is written', change: { marksKnown: false }, best: 'replace' },
] as const)('decided by score: $why', ({ change, best }) => expect(decide({ ...PLAIN, ...change }).best).toBe(best));

test.each(['isOwn', 'hasMainsInside', 'isOnlyOne'] as const)(
  'a question that could be a veto stays one: %s',
  (name) => {
    const open = decide({ ...PLAIN, hasSideBranch: true, [name]: null }).scored;
    for (const { option, open: asked } of open)
      expect(asked.length).toBe(option === 'community' || option === 'side-branch' ? 1 : 0);
    expect(decide({ ...PLAIN, hasSideBranch: true }).scored.flatMap(({ open: asked }) => asked)).toEqual([]);
  },
);

test('what its maker does not offer is never installed', () => {
  const { scored, best } = decide({ ...PLAIN, hasSideBranch: false });
  expect(scored.find(({ option }) => option === 'side-branch')?.vetoes).toEqual(['Its maker offers no RTSP firmware.']);
  expect(best).not.toBe('side-branch');
});

test('scores lie within 0 and 1, a veto is never best, and a closer call keeps it', () => {
  const yes = fc.option(fc.boolean());
  const facts = fc.record({
    givesStream: yes,
    picture: fc.constantFrom('ok', 'tight', 'will-not-work', 'unknown' as const),
    lost: fc.option(fc.integer({ min: 0, max: 12 })),
    hasSideBranch: yes,
    wayBack: fc.option(fc.constantFrom('stored' as const, 'accepted' as const)),
    hasRescue: yes,
    marksKnown: fc.boolean(),
    isOwn: yes,
    isOnlyOne: yes,
    hasMainsInside: yes,
  });
  fc.assert(
    fc.property(facts, (one) => {
      const { scored, best, isClose } = decide(one);
      expect(scored.map(({ option }) => option)).toEqual(OPTIONS);
      for (const { score, vetoes, option } of scored) {
        expect(score).toBeGreaterThanOrEqual(0);
        expect(score).toBeLessThanOrEqual(1);
        if (vetoes.length > 0) expect(best).not.toBe(option);
      }
      const lead = (option: string): number => {
        const own = scored.find((other) => other.option === option)?.score ?? 0;
        return (
          own - Math.max(...scored.filter((o) => o.option !== option && o.vetoes.length === 0).map((o) => o.score))
        );
      };
      if (!isClose) return expect(lead(best)).toBeGreaterThanOrEqual(0.1 - 1e-6);
      if (one.givesStream !== false) return expect(best).toBe('keep');
      // within 0.10 of the best none can be taken back more easily, money among it
      const back = (o: Scored | undefined): number =>
        Math.min(o?.byCriterion.wayBack.value ?? 0.5, o?.byCriterion.money.value ?? 0.5);
      const own = scored.find(({ option }) => option === best);
      const top = Math.max(...scored.filter((o) => o.vetoes.length === 0).map((o) => o.score));
      for (const o of scored)
        if (o.vetoes.length === 0 && o.option !== 'keep' && top - o.score < 0.1 - 1e-6)
          expect(back(own)).toBeGreaterThanOrEqual(back(o));
    }),
  );
});

// Source: FAT specification 1.03: the count of clusters decides; SD Physical Layer: families end at 2 GiB and at 32 GiB.
test.each([
  { bytes: 2_147_483_648, family: 'SDSC' },
  { bytes: 2_147_483_649, family: 'SDHC' },
  { bytes: 32_010_928_128, family: 'SDHC' },
  { bytes: 34_359_738_368, family: 'SDHC' },
  { bytes: 34_359_738_369, family: 'SDXC' },
])('$bytes bytes are $family', ({ bytes: size, family }) => expect(cardSize(bytes(size)).family).toBe(family));

test('FAT32 is where there are clusters enough, and a file fits where its clusters do', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 40_000 }), fc.constantFrom('FAT16', 'FAT32'), (mib, fileSystem) => {
      const sectors = mib * 2048;
      const room = roomIn({ sectors }, fileSystem as 'FAT16' | 'FAT32');
      // by hand, with tables of two or four bytes a cluster and nothing rounded: both differ by less than a cluster each
      const bytesEach = fileSystem === 'FAT32' ? 4 : 2;
      const table =
        fileSystem === 'FAT32'
          ? [
              [260, 1],
              [8192, 8],
              [16_384, 16],
              [32_768, 32],
              [1e9, 64],
            ]
          : [
              [15.9, 2],
              [128, 4],
              [256, 8],
              [512, 16],
              [1024, 32],
              [2048, 64],
            ];
      const [, perCluster] = table.find(([most]) => mib <= (most ?? 0)) ?? [];
      if (perCluster === undefined) return expect(room).toBeNull();
      const clusters = (sectors - 64) / (perCluster + (2 * bytesEach) / 512);
      const isRight = fileSystem === 'FAT32' ? clusters >= 65_525 : clusters >= 4085 && clusters < 65_525;
      if (Math.abs(clusters - 65_525) < 300 || Math.abs(clusters - 4085) < 100) return; // too near to tell by hand
      expect(room !== null).toBe(isRight);
      if (room === null) return;
      expect(Math.abs(room - clusters * perCluster * 512)).toBeLessThan(40 * perCluster * 512);
      expect(room).toBeLessThan(sectors * 512);
      expect(fitsOn(room, { sectors }, fileSystem as 'FAT16' | 'FAT32')).toBe(room < 2 ** 32);
      expect(fitsOn(room + 1, { sectors }, fileSystem as 'FAT16' | 'FAT32')).toBe(false);
    }),
    runs(300),
  );
});
