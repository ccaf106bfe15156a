import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { mill } from '../../../../tests/support/sites.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { fromOutside } from '../../../core/document/from-outside.ts';
import type { Site } from '../../../core/document/site.ts';
import { unknownHost } from '../../../core/scan/seen.ts';
import { noteSeen } from '../../store/seen-this-visit.ts';
import { boundTo, onvifPlace, rtspPlace } from '../../vault/camera-places.ts';
import { isAllowed, type PasswordPlace, withPlace } from '../../vault/password-place.ts';
import { sayPlaces } from '../../vault/say-places.ts';
import { createVault } from '../../vault/vault.ts';
import { questions } from '../question/index.ts';
import { mayGo, passwordAt } from './password-gate.ts';

const PASSWORD = 'Weir & Gate/7';
const nowhere = {
  read: async () => null,
  write: async () => {},
  remove: async () => {},
  alone: <T>(work: () => Promise<T>) => work(),
};

/** Two sites in one browser; a password was typed for the camera of the first. */
async function browser(ofCamera: (camera: Camera) => Camera = (camera) => camera) {
  const own = mill();
  let open = own.id;
  const vault = await createVault(nowhere, () => open);
  const [first] = own.cameras;
  if (!first) throw new Error('no camera');
  const camera = ofCamera({ ...first, name: 'Sluice rail', account: { user: 'op', secretRef: 'secret-sluice' } });
  const site: Site = { ...own, cameras: [camera, ...own.cameras.slice(1)] };
  vault.set('secret-sluice', PASSWORD, boundTo(site, camera, 'op'));
  const at = (one: Camera, of: Site = site) => ({
    site: of,
    camera: one,
    account: one.account,
    place: rtspPlace(one, one.streams[0]),
  });
  return { vault, site, camera, at, enter: (id: string) => (open = id) };
}
/** Answers the next question, and tells it. */
function answering(isYes: boolean) {
  const asked: ReturnType<typeof questions.first>[] = [];
  const stop = questions.subscribe(() => {
    const first = questions.first();
    if (!first) return;
    asked.push(first);
    stop();
    queueMicrotask(() => questions.answer(isYes));
  });
  return asked;
}

test('where it was typed for it goes without a word, by RTSP and by ONVIF', async () => {
  const { vault, site, camera, at } = await browser();
  expect(passwordAt(at(camera), vault)).toMatchObject({ kind: 'ready', secret: PASSWORD });
  expect(passwordAt({ ...at(camera), place: onvifPlace(camera, undefined) }, vault).kind).toBe('ready');
  expect(sayPlaces(boundTo(site, camera, 'op').places)).toBe('10.77.4.21, ports 554 and 80');
});

test.each<{ why: string; moved: (camera: Camera) => Camera }>([
  { why: 'another host', moved: (camera) => ({ ...camera, host: '10.77.4.66' }) },
  { why: 'another port', moved: (camera) => ({ ...camera, ports: { rtsp: 8554 } }) },
  { why: 'with TLS', moved: (camera) => ({ ...camera, line: 'tls' }) },
  { why: 'inside HTTP', moved: (camera) => ({ ...camera, line: 'tunnel' }) },
  {
    why: 'a path that takes the password unasked',
    moved: (camera) => ({ ...camera, streams: camera.streams.map((one) => ({ ...one, path: '/{user}/{password}' })) }),
  },
])('$why asks first, and names both addresses', async ({ moved }) => {
  const { vault, camera, at } = await browser();
  const other = moved(camera);
  const asked = answering(false);
  expect(await mayGo([at(other)], vault)).toEqual([]);
  expect(asked[0]?.rows).toHaveLength(1);
  const [row] = asked[0]?.rows ?? [];
  expect(row?.whose).toContain('Sluice rail');
  expect(row?.typedFor).toContain('10.77.4.21');
  expect(row?.asks).toContain(other.host);
  expect(passwordAt(at(other), vault).kind).toBe('held');
  answering(true);
  expect(await mayGo([at(other)], vault)).toHaveLength(1);
  expect(passwordAt(at(other), vault)).toMatchObject({ kind: 'ready', secret: PASSWORD });
});

test('a prepared file gets nothing: neither by its references, nor by the id of the site, nor by the name of the camera', async () => {
  const { vault, site, camera, at, enter } = await browser();
  // what stands in an exported file is known to whoever prepared one
  const prepared: Site = { ...site, cameras: [{ ...camera, host: '10.66.6.6' }, ...site.cameras.slice(1)] };
  let count = 0;
  const opened = fromOutside(prepared, () => `secret-new-${count++}`);
  const [stolen] = opened.cameras;
  if (!stolen) throw new Error('no camera');
  for (const id of [site.id, 'another-site']) {
    enter(id);
    expect(vault.has(stolen.account?.secretRef ?? '')).toBe(false);
    expect(passwordAt(at(stolen, { ...opened, id }), vault)).toEqual({ kind: 'none' });
  }
  // in another site the reference itself is nothing
  enter('another-site');
  expect(vault.get('secret-sluice')).toBeNull();
});

test('the same file opened again asks once whether the password for this very address may be used', async () => {
  const { vault, site, camera, at, enter } = await browser();
  const opened = fromOutside({ ...site, id: 'copy', name: 'Mill End' }, () => 'secret-copy');
  enter('copy');
  const again = { ...camera, account: { user: 'op', secretRef: 'secret-copy' } };
  expect(passwordAt(at(again, opened), vault)).toMatchObject({
    kind: 'elsewhere',
    typedFor: { cameraName: 'Sluice rail' },
  });
  const asked = answering(true);
  await mayGo([at(again, opened)], vault);
  expect(passwordAt(at(again, opened), vault)).toMatchObject({ kind: 'ready', secret: PASSWORD });
  // whose it is and who asks differ by their sites alone
  expect(asked[0]?.rows[0]).toMatchObject({
    whose: `Sluice rail of ${site.name}, account “op”`,
    asks: '10.77.4.21, port 554 (Sluice rail of Mill End)',
  });
});

test('a camera that a scan of this visit knows again keeps its password, and by what a file says of one it does not', async () => {
  const mac = '00:00:5e:00:53:21';
  const { vault, site, camera, at } = await browser((one) => ({ ...one, identity: { ...one.identity, mac } }));
  const moved = { ...camera, host: '10.77.4.88' };
  expect(passwordAt(at(moved), vault).kind).toBe('held');
  noteSeen(site.id, { ...unknownHost('10.77.4.88'), mac });
  // and that it goes along is said
  expect(passwordAt(at(moved), vault)).toMatchObject({
    kind: 'ready',
    movedFrom: { places: [{ host: '10.77.4.21' }, {}] },
  });
  noteSeen(site.id, { ...unknownHost('10.77.4.89'), mac: '00:00:5e:00:53:99' });
  expect(passwordAt(at({ ...camera, host: '10.77.4.89' }), vault).kind).toBe('held');
});

test('many are asked for in one question', async () => {
  const { vault, camera, at } = await browser();
  const moved = { ...camera, host: '10.77.4.66' };
  const asked = answering(false);
  expect(await mayGo([at(moved), at(camera), at(moved)], vault)).toHaveLength(1);
  expect(asked).toHaveLength(1);
  expect(asked[0]?.rows).toHaveLength(2);
});

const places = fc.record<PasswordPlace>({
  host: fc.constantFrom('10.77.4.21', '10.77.4.22', 'Gate.local'),
  port: fc.constantFrom(80, 554),
  line: fc.constantFrom('plain', 'tls', 'tunnel'),
  inPath: fc.boolean(),
});
test('what may go somewhere is what was allowed there: no more, and nothing lost by allowing more', () => {
  fc.assert(
    fc.property(fc.array(places, { maxLength: 8 }), places, (allowed, wanted) => {
      const kept = allowed.reduce<readonly PasswordPlace[]>(withPlace, []);
      const same = allowed.filter(
        ({ host, port, line }) =>
          host.toLowerCase() === wanted.host.toLowerCase() && port === wanted.port && line === wanted.line,
      );
      expect(isAllowed(kept, wanted)).toBe(same.some(({ inPath }) => inPath || !wanted.inPath));
    }),
  );
});
