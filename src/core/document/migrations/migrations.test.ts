import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { apply } from '../../../../tests/support/sites.ts';
import { indexEvidence } from '../../evidence/best-known.ts';
import { lanesOf } from '../../lanes/lane.ts';
import type { Site } from '../site.ts';
import { SITE_VERSION } from '../site.ts';
import { readSiteFile, writeSiteFile } from '../site-file.ts';
import { refusalOf } from '../site-fit.ts';

// Files as those versions wrote them, by their own code: the demo worked on for a morning.
const FILES = ['v1', 'v2', 'v3', 'v4', 'v5', 'v6', 'v7', 'v8', 'v9', 'v10'].map((name) => ({
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
