import type { Camera } from '../../src/core/document/chapters/cameras/camera.ts';
import { type OldPhone, UNSAID_OLD_PHONE } from '../../src/core/document/chapters/cameras/old-phone.ts';
import { type ImageFile, type Reflash, UNSAID_REFLASH } from '../../src/core/document/chapters/cameras/reflash.ts';
import type { Site } from '../../src/core/document/site.ts';
import { USUAL_GUIDE } from '../../src/core/firmware/guide.ts';
import { byPair, onPair, siteOf, supplyOf, switchOf } from './planned-sites.ts';

// Sites on which one thing of how a camera is prepared is not as it should be.

export const GUIDE = { ...USUAL_GUIDE, imageName: 'mini_open.bin', backName: 'mini_stock.bin' };
export const BOARD = { board: 'QM-3 r2', flash: '16 MB', sensor: 'S307', radio: 'R8' };
export const image = (name: string, sign: string, more: Partial<ImageFile> = {}): ImageFile => ({
  fileName: name,
  archive: null,
  bytes: 7_340_032,
  sha256: sign.repeat(64),
  published: sign.repeat(64),
  version: '1.4',
  hardwareRev: 'r2',
  marks: BOARD,
  ...more,
});
/** All of it decided and made ready. */
export const READY: Reflash = {
  ...UNSAID_REFLASH,
  isOwn: true,
  isOnlyOne: false,
  hasMainsInside: false,
  hasRescue: true,
  label: { hardwareRev: 'r2', version: '1.0' },
  marks: BOARD,
  decision: 'community',
  image: image('mini_open.bin', 'a'),
  backImage: image('mini_stock.bin', 'b'),
  card: { bytes: 32e9, fileSystem: 'FAT32', partitionMiB: 8192, fileName: 'mini_open.bin' },
};
export const reflashed = (change: Partial<Reflash>, camera: Partial<Camera> = {}): Site =>
  siteOf({ model: { reflash: GUIDE }, camera: { reflash: { ...READY, ...change }, ...camera } });
const card = (change: Partial<NonNullable<Reflash['card']>>): Site =>
  reflashed({ card: { bytes: 128e9, fileSystem: 'FAT32', partitionMiB: 8192, fileName: 'mini_open.bin', ...change } });

/** A handset that is cool and does all it should. */
export const COOL: OldPhone = {
  ...UNSAID_OLD_PHONE,
  mount: 'open',
  screen: 'off',
  lens: 'back',
  roomC: 21,
  way: 'local',
  startsItself: true,
  hasFixedMac: true,
  sendsSound: false,
};
export const handset = (change: Partial<OldPhone>, camera: Partial<Camera> = {}): Site =>
  siteOf({
    camera: {
      ...byPair,
      kind: 'handset',
      feed: { way: 'dc', sun: null, charge: { limitPercent: 80 } },
      handset: { ...COOL, ...change },
      ...camera,
    },
    gear: [switchOf('a'), supplyOf('s', 24)],
    links: onPair('gear:s'),
  });

const account = (user: string, more: Partial<Camera> = {}): Site =>
  siteOf({ camera: { account: { user, secretRef: 'secret-c' }, ...more } });
const withTwin = (site: Site, user: string): Site => {
  const [first] = site.cameras;
  return first
    ? {
        ...site,
        cameras: [
          first,
          {
            ...first,
            id: 'd',
            name: 'Twin',
            feed: null,
            streams: first.streams.map((one) => ({ ...one, id: `d-${one.id}` })),
            account: { user, secretRef: 'secret-d' },
          },
        ],
      }
    : site;
};
/** No stream by its card, and nobody has seen one; it has no address yet either. */
const mute = (change: Partial<Reflash>): Site =>
  siteOf({
    model: { localStream: 'after-reflash', reflash: GUIDE },
    camera: { reflash: { ...READY, ...change }, host: '' },
  });

/** Each rule of Prepare with a mend, and a site on which it finds something of camera `c`. */
export const PREPARE_CASES: readonly { readonly rule: string; readonly site: Site }[] = [
  {
    rule: 'prepare.account-administrators',
    site: account('setter', { adminAccount: { user: 'Setter', secretRef: 'admin-c' } }),
  },
  { rule: 'prepare.account-factory', site: account('admin') },
  { rule: 'prepare.account-makers', site: account('owner@mill.example') },
  { rule: 'prepare.account-space', site: account('viewer ') },
  { rule: 'prepare.account-encoded', site: account('mill viewer') },
  { rule: 'prepare.account-case', site: withTwin(account('Viewer'), 'viewer') },
  {
    rule: 'prepare.key-frame-long',
    site: siteOf({
      camera: {
        streams: siteOf().cameras[0]?.streams.map((one) => ({ ...one, fps: 15, gopFrames: 150 })) ?? [],
      },
    }),
  },
  { rule: 'prepare.firmware-undecided', site: mute({ decision: null }) },
  { rule: 'prepare.firmware-kept', site: mute({ decision: 'keep' }) },
  { rule: 'prepare.firmware-veto', site: mute({ isOnlyOne: true }) },
  { rule: 'prepare.sd-card-partition', site: card({ partitionMiB: 65_536 }) },
  { rule: 'prepare.sd-card-partition', site: card({ partitionMiB: 500_000 }) },
  { rule: 'prepare.sd-card-file-system', site: card({ fileSystem: 'exFAT' }) },
  { rule: 'prepare.sd-card-name', site: card({ fileName: 'mini_open.bin.txt' }) },
  { rule: 'prepare.sd-card-room', site: card({ partitionMiB: 4 }) },
  { rule: 'prepare.old-phone-heat', site: handset({ roomC: 34, screen: 'dim' }) },
  { rule: 'prepare.old-phone-heat', site: handset({ roomC: 34, screen: 'bright', mount: 'closed' }) },
  { rule: 'prepare.old-phone-screen', site: handset({ screen: 'bright' }) },
  { rule: 'prepare.old-phone-feedback', site: handset({ sendsSound: true, isHeardNearby: true }) },
  { rule: 'prepare.old-phone-cloud', site: handset({ way: 'account' }) },
  {
    rule: 'prepare.old-phone-lens',
    site: handset({ lens: 'front' }),
  },
  { rule: 'prepare.old-phone-loop', site: handset({ loopGB: 32, loopHoursWanted: 400 }) },
];
