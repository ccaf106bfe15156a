import { type Camera, emptySite, type Site, type Stream } from '../core/site/site-types.ts';
import { BOOT_ROOM, LINEN_STAIR, type Personality, SLUICE_RAIL } from './personality.ts';

const unplanned = { codec: null, width: null, height: null, fps: null, gopFrames: null, bitrateKbps: null };

/** Planned with generous round figures, as one does before anything is measured. */
const plannedMain = { codec: 'H264', width: 1280, height: 720, fps: 15, gopFrames: 30, bitrateKbps: null };

const streams = (slug: string, personality: Personality): readonly Stream[] =>
  personality.streams.map(({ label, path }) => ({
    id: `${slug}-${label}`,
    label,
    path,
    ...(label === 'main' ? plannedMain : unplanned),
  }));

const camera = (slug: string, personality: Personality, rest: Pick<Camera, 'place' | 'modelId'>): Camera => ({
  id: slug,
  name: personality.name,
  kind: 'camera',
  host: personality.host,
  ports: { rtsp: personality.port },
  account: personality.account ? { user: personality.account.user, secretRef: `secret-${slug}` } : null,
  streams: streams(slug, personality),
  ...rest,
});

/** Alder Mill, a converted watermill guest house: the demo site as its integrator would find it on the first morning. */
export const alderMill = (at: string): Site => ({
  ...emptySite('alder-mill', 'Alder Mill'),
  notes: 'Converted watermill, nine guest rooms. All names are invented.',
  networks: [
    { id: 'house', name: 'House', cidr: '10.77.4.0/24', gateway: '10.77.4.1' },
    { id: 'guests', name: 'Guests', cidr: '10.77.9.0/24', gateway: '10.77.9.1' },
  ],
  models: [
    { id: 'ostrel-pd-5', maker: 'Ostrel', model: 'PD-5', sessions: 6 },
    { id: 'quillbrook-mini', maker: 'Quillbrook', model: 'Mini', sessions: 4 },
    { id: 'marrick-c1', maker: 'Marrick', model: 'C1', sessions: 2 },
  ],
  cameras: [
    camera('sluice-rail', SLUICE_RAIL, { place: 'On the rail above the sluice gate', modelId: 'ostrel-pd-5' }),
    camera('boot-room', BOOT_ROOM, {
      place: 'Shelf over the bench, far side of the stone wall',
      modelId: 'quillbrook-mini',
    }),
    {
      ...camera('linen-stair', LINEN_STAIR, { place: 'Top of the linen stair', modelId: 'marrick-c1' }),
      // As its faded label says: nobody has opened it for years, and letter case was not minded.
      streams: streams('linen-stair', LINEN_STAIR).map((stream) => ({
        ...stream,
        ...unplanned,
        path: stream.label === 'main' ? '/Video.mjpg' : stream.path,
      })),
    },
  ],
  destinations: [
    {
      id: 'loft-store',
      name: 'Loft store',
      kind: 'recorder',
      codecs: ['H264', 'H265'],
      storage: { diskTB: 0.25, usableFraction: 0.9 },
      retentionDays: 14,
    },
    { id: 'mill-hub', name: 'Mill hub', kind: 'hub', codecs: ['H264', 'JPEG'], storage: null, retentionDays: null },
  ],
  log: [{ id: 'log-0', at, kind: 'site', subject: 'site', text: 'Alder Mill opened from the demo', refs: [] }],
});

/** Secrets of the demo's cameras by the reference that the site holds; they go to the vault, never into the document. */
export const alderMillSecrets = (): Readonly<Record<string, string>> => ({
  'secret-sluice-rail': SLUICE_RAIL.account?.password ?? '',
  'secret-linen-stair': LINEN_STAIR.account?.password ?? '',
  'secret-boot-room': BOOT_ROOM.account?.password ?? '',
});
