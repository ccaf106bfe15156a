import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply } from '../../../../tests/support/sites.ts';
import { indexEvidence } from '../../evidence/evidence-index.ts';
import { lanesOf } from '../../lanes/lane.ts';
import type { Site } from '../site.ts';
import { readSiteFile, writeSiteFile } from '../site-file.ts';
import { refusalOf } from '../site-fit.ts';
import { SITE_VERSION } from '../version.ts';

// Files as those versions wrote them, by their own code: the demo worked on for a morning.
const FILES = ['v1', 'v2', 'v3', 'v4', 'v5', 'v6', 'v7', 'v8', 'v9', 'v10', 'v11', 'v12', 'v13'].map((name) => ({
  name,
  text: readFileSync(join(__dirname, `../../../../tests/fixtures/sites/alder-mill-${name}.cleartap.json`), 'utf8'),
}));

function opened(text: string): Site {
  const read = readSiteFile(text);
  if (!read.ok) throw new Error(read.error.message);
  return read.value;
}

test.each(FILES)('a file that $name wrote opens, and nothing that it knew is lost', ({ text }) => {
  const site = opened(text);
  const old = JSON.parse(text);
  expect(site.version).toBe(SITE_VERSION);
  expect(site.cameras.map(({ id, name, host, streams }) => ({ id, name, host, streams }))).toEqual(
    old.cameras.map(({ id, name, host, streams }: Site['cameras'][number]) => ({ id, name, host, streams })),
  );
  expect(site.taps).toEqual(old.taps);
  expect(opened(writeSiteFile(site))).toEqual(site);
});

test.each(FILES)('what $name measured and handed over counts', ({ text }) => {
  const site = opened(text);
  const lanes = lanesOf(site, indexEvidence(site.journal));
  const of = (id: string) => lanes.find(({ cameraId }) => cameraId === id);
  expect(of('sluice-rail')?.measured).not.toBeNull();
  expect(of('boot-room')?.measured?.isOutdated).toBe(true);
  expect(site.journal.filter(({ kind }) => kind === 'probe')).toHaveLength(3);
  // It is worked on as any other.
  const edited = apply(site, { kind: 'setAddress', cameraId: 'boot-room', host: '10.77.4.27', port: 554 });
  expect(refusalOf(site, edited)).toBeNull();
});

test('a mean jitter that version 13 measured is kept as that, and judges nothing', () => {
  const v13 = FILES.find(({ name }) => name === 'v13')?.text ?? '';
  const means = (journal: Site['journal'], name: string) =>
    journal.flatMap(({ facts }) => facts.filter(({ quantity }) => quantity === name).map(({ value }) => value));
  const before = means(JSON.parse(v13).journal, 'jitterMs');
  expect(before.length).toBeGreaterThan(0);
  const { journal } = opened(v13);
  expect(means(journal, 'meanJitterMs')).toEqual(before);
  expect(means(journal, 'jitterMs')).toEqual([]);
  expect(journal.filter(({ payload }) => payload?.kind === 'probe' && payload.facts.jitterMs !== undefined)).toEqual(
    [],
  );
});

test('a certificate that version 12 saw is kept, and by which hash it was signed is not known', () => {
  const v12 = FILES.find(({ name }) => name === 'v12')?.text ?? '';
  const seen = (journal: Site['journal']) =>
    journal.flatMap(({ payload }) => (payload?.kind === 'reading' ? (payload.reading.tls ?? []) : []));
  const before = seen(JSON.parse(v12).journal);
  expect(before).toHaveLength(1);
  expect(seen(opened(v12).journal)).toEqual(before.map((tls) => ({ ...tls, signatureHash: null })));
});

test('what version 11 kept as texts is a typed payload, each with what it told', () => {
  const v11 = FILES.find(({ name }) => name === 'v11')?.text ?? '';
  const { journal } = opened(v11);
  expect(journal.flatMap(({ payload }) => payload?.kind ?? [])).toEqual([
    ...['probe', 'probe', 'probe'],
    ...['reading', 'sessions', 'sessions', 'sweep', 'heard'],
  ]);
  // by the texts themselves, as that version wrote them
  const old: Site['journal'] = JSON.parse(v11).journal;
  const texts = (quantity: string) =>
    old.flatMap(({ facts }) => facts.flatMap((fact) => (fact.quantity === quantity ? [fact.value] : [])));
  const payloads = journal.flatMap(({ payload }) => payload ?? []);
  for (const payload of payloads)
    switch (payload.kind) {
      case 'probe':
        expect(texts('probe.url')).toContain(payload.url);
        if (payload.facts.lossRatio !== undefined) expect(texts('fact.lossRatio')).toContain(payload.facts.lossRatio);
        break;
      case 'reading':
        expect(payload.reading.profiles).toEqual(texts('onvif.profile').map((text) => JSON.parse(String(text))));
        break;
      case 'sessions':
        expect(texts('sessions.played')).toContain(payload.report.opened);
        expect(texts('sessions.limit')).toContain(payload.report.limit ?? 'not reached');
        break;
      case 'sweep':
        expect(payload.hosts).toEqual(texts('sweep.host').map((text) => JSON.parse(String(text))));
        break;
      case 'heard':
        expect([payload.heard.changes, payload.heard.lost]).toEqual([
          ...texts('heard.changes'),
          ...texts('heard.lost'),
        ]);
    }
  expect(
    journal.flatMap(({ facts }) => facts).filter(({ quantity }) => /^(?:fact|probe|onvif)\./.test(quantity)),
  ).toEqual([]);
});

/** The file of version 11 with what some of its facts say put otherwise. */
function hurt(change: Readonly<Record<string, (value: unknown, at: number) => unknown>>): Site {
  const file = JSON.parse(FILES.find(({ name }) => name === 'v11')?.text ?? '');
  const seen = new Map<string, number>();
  for (const entry of file.journal)
    for (const fact of entry.facts) {
      const at = seen.get(fact.quantity) ?? 0;
      seen.set(fact.quantity, at + 1);
      if (Object.hasOwn(change, fact.quantity)) fact.value = change[fact.quantity]?.(fact.value, at);
    }
  return opened(JSON.stringify(file));
}
const payloadsOf = ({ journal }: Site) => journal.flatMap(({ payload }) => payload ?? []);
const kindsOf = (site: Site) => payloadsOf(site).map(({ kind }) => kind);

test('what makes no sense in a file of version 11 is left out, and takes nothing else along', () => {
  const site = hurt({
    'fact.lossRatio': () => 'much',
    'probe.cause': () => 'a cause of before',
    'onvif.profile': (value, at) => (at === 0 ? '{"token":1}' : value),
    'sweep.host': (value, at) => (at === 0 ? '[]' : value),
    'heard.kinds': () => 'motion, of another make',
  });
  expect(kindsOf(site)).toEqual(kindsOf(hurt({})));
  const whole = payloadsOf(hurt({}));
  for (const [at, payload] of payloadsOf(site).entries()) {
    const before = whole[at];
    if (payload.kind === 'probe' && before?.kind === 'probe')
      expect(payload).toMatchObject({ verdict: before.verdict, url: before.url, cause: null });
    if (payload.kind === 'probe') expect(payload.facts.lossRatio).toBeUndefined();
    if (payload.kind === 'reading' && before?.kind === 'reading')
      expect(payload.reading.profiles).toEqual(before.reading.profiles.slice(1));
    if (payload.kind === 'sweep' && before?.kind === 'sweep') expect(payload.hosts).toEqual(before.hosts.slice(1));
    if (payload.kind === 'heard') expect(payload.heard.kinds).toEqual(['motion']);
  }
});

test('a reading that is none is left out, with its words', () => {
  const site = hurt({ 'onvif.device': () => '{"host":1' });
  expect(kindsOf(site)).toEqual(kindsOf(hurt({})).filter((kind) => kind !== 'reading'));
  expect(site.journal.some(({ text }) => text.includes('read by ONVIF'))).toBe(true);
});

test('whatever stands in the facts of version 11, the file opens', () =>
  fc.assert(
    fc.property(
      fc.constantFrom(
        'probe.verdict',
        'found.path',
        'onvif.device',
        'onvif.preset',
        'sessions.limit',
        'sweep.host',
        'heard.lost',
        'fact.bFrames',
      ),
      fc.oneof(
        fc.string(),
        fc.double({ noNaN: true, noDefaultInfinity: true }),
        fc.boolean(),
        fc.constantFrom('[]', '{"__proto__":{}}', 'constructor'),
      ),
      (quantity, value) => expect(hurt({ [quantity]: () => value }).journal.length).toBeGreaterThan(0),
    ),
    { numRuns: 60 },
  ));
