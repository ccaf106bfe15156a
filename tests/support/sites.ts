import { type Camera, UNKNOWN_STREAM, UNPLANNED } from '../../src/core/document/chapters/cameras/camera.ts';
import { UNKNOWN_DESTINATION } from '../../src/core/document/chapters/destinations/destination-fields.ts';
import type { Gear } from '../../src/core/document/chapters/gear/gear.ts';
import type { Entry } from '../../src/core/document/chapters/journal/entry.ts';
import type { Stamp } from '../../src/core/document/command-parts.ts';
import { emptySite } from '../../src/core/document/empty-site.ts';
import type { Site } from '../../src/core/document/site.ts';
import { applyCommand, type SiteCommand } from '../../src/core/document/site-commands.ts';
import { probeRecord } from '../../src/core/evidence/measured-records.ts';
import type { ProbeReport } from '../../src/core/probe/probe-types.ts';

export const AT = '2026-11-25T09:00:00.000Z';

/** Stamps with ids that count up, so that a test can name them. */
export function stamps(at = AT): Stamp {
  let count = 0;
  return {
    at,
    newId: () => {
      count += 1;
      return `id-${at.replaceAll(':', '')}-${count}`;
    },
  };
}

export const camera = (id: string, more: Partial<Camera> = {}): Camera => ({
  id,
  name: id,
  place: '',
  kind: 'camera',
  modelId: null,
  host: '10.77.4.21',
  ports: { rtsp: 554 },
  account: { user: 'viewer', secretRef: `secret-${id}` },
  streams: [
    {
      id: `${id}-main`,
      label: 'main',
      path: '/live/main',
      codec: 'H264',
      width: 1280,
      height: 720,
      fps: 15,
      gopFrames: 30,
      bitrateKbps: null,
    },
    {
      id: `${id}-sub`,
      label: 'sub',
      path: '/live/sub',
      codec: 'H264',
      width: 640,
      height: 360,
      fps: 10,
      gopFrames: 20,
      bitrateKbps: 256,
    },
  ],
  ...UNPLANNED,
  ...more,
});

/** The same with streams of which nothing is planned: what its card says counts. */
export const unplanned = (one: Camera): Camera => ({
  ...one,
  streams: one.streams.map((stream) => ({ ...stream, ...UNKNOWN_STREAM })),
});

/** Two cameras, a recorder of 225 GB usable with 14 days wanted, and a hub. */
export const mill = (): Site => ({
  ...emptySite('mill', 'Alder Mill'),
  cameras: [camera('sluice'), camera('boots', { host: '10.77.4.27', ports: { rtsp: 8554 } })],
  destinations: [
    {
      id: 'loft',
      name: 'Loft store',
      kind: 'recorder',
      ...UNKNOWN_DESTINATION,
      codecs: ['H264'],
      storage: { diskTB: 0.25, usableFraction: 0.9, price: null },
      retentionDays: 14,
      position: null,
    },
    { id: 'hub', name: 'Mill hub', kind: 'hub', ...UNKNOWN_DESTINATION, codecs: ['H264', 'H265', 'JPEG'] },
  ],
});

export const record = (id: string, cameraId: string, streamId = `${cameraId}-main`): SiteCommand => ({
  kind: 'addTap',
  judged: 'fits',
  tap: {
    id,
    cameraId,
    streamId,
    destinationId: 'loft',
    use: 'record',
    protocol: 'rtsp',
    schedule: { mode: 'continuous' },
  },
});

export const apply = (site: Site, ...commands: readonly SiteCommand[]): Site => {
  let changed = site;
  for (const [index, command] of commands.entries())
    changed = applyCommand(changed, command, stamps(`2026-11-25T09:0${index}:00.000Z`));
  return changed;
};

/** A report as a probe of a sound stream would give it. */
export const report = (
  more: {
    kbps?: number;
    cause?: ProbeReport['cause'];
    lost?: number;
    codec?: string;
    diagnosis?: ProbeReport['diagnosis'];
  } = {},
): ProbeReport => {
  const { kbps = 1200, cause = null, lost = 0, codec = 'H264', diagnosis = null } = more;
  const declared = {
    width: 1280,
    height: 720,
    fps: 15,
    profile: 'Main',
    level: '3.1',
    channels: null,
    sampleRate: null,
    bitrateKbps: 2048,
  };
  const measured = {
    seconds: 3,
    packets: 1000 - lost,
    lost,
    duplicates: 0,
    reordered: 0,
    sourceChanges: 0,
    timestampJumps: 0,
    lossRatio: lost / 1000,
    lossEvents: Math.min(lost, 2),
    jitterMs: 2,
    longestGapMs: 4,
    fps: 14.9,
    bitrateKbps: kbps,
    keyframeIntervalFrames: 30,
    keyframeIntervalSeconds: 2,
    secondsSinceKeyFrame: 1,
    width: 1280,
    height: 720,
    vuiFps: 15,
    bFrames: false,
    closedKeyFrames: 2,
    openKeyFrames: 0,
    groupSpreadFrames: null,
    kbpsBySecond: [kbps, kbps],
    clockRatio: 1,
    clockRatioError: 0.001,
    clockPpm: null,
    clockPpmError: null,
    ticksPerUnit: null,
    unreadPackets: 0,
  };
  const media = [
    {
      kind: 'video' as const,
      codec,
      payloadType: 96,
      clockRate: 90_000,
      control: 'x',
      declared,
      measured,
      parameterSets: { seen: 'both' as const, agree: true },
    },
  ];
  const failed = {
    rule: `probe.${cause}`,
    severity: 'stop' as const,
    title: 'Failed',
    because: 'it refused the login',
    do: ['x'],
    why: 'y',
  };
  return {
    target: { url: 'rtsp://10.77.4.21/live/main', host: '10.77.4.21', port: 554, path: '/live/main' },
    verdict: cause ? 'fail' : 'ok',
    cause,
    note: cause ? 'it refused the login' : '',
    steps: [{ name: 'sample', startMs: 100, durationMs: 3000, ok: true, status: null, note: null }],
    auth: { scheme: 'digest-md5', qop: 'auth', realm: 'mill', offered: ['digest'], refusals: 0, staleEachTime: false },
    server: 'x',
    transport: 'tcp',
    transportReason: 'TCP was granted; it passes firewalls',
    sessionTimeoutS: 60,
    clockErrorMs: 120,
    tls: null,
    refusedKeepAlive: null,
    hasSenderReports: true,
    media: cause ? [] : media,
    diagnosis,
    findings: cause ? [failed] : [],
  };
};

export const probed = (
  cameraId: string,
  given: ProbeReport,
  url = 'rtsp://10.77.4.21/live/main',
  streamId = `${cameraId}-main`,
): SiteCommand =>
  probeRecord({
    streamId,
    url,
    probeId: `probe-${streamId}-${given.media[0]?.measured?.bitrateKbps ?? 'failed'}`,
    report: given,
  });

/** A line of the logbook, and nothing else. */
export const wordsEntry = (id: string, text = id): Entry => ({
  id,
  at: '2026-01-01T00:00:00.000Z',
  kind: 'edit',
  subject: 'site',
  text,
  refs: [],
  source: '',
  facts: [],
  payload: null,
  revokes: [],
  isPast: false,
});

/** A switch as small sites have it: ten ports, eight of them feed. */
export const poeSwitch = (id: string, name: string): Gear => ({
  id,
  name,
  kind: 'switch',
  price: null,
  position: null,
  ports: 10,
  poePorts: 8,
  pseType: 2,
  budgetW: 130,
  pseVolts: 52,
  reserves: 'class',
  uplinkMbps: 1000,
});

/** A report of a small stream: 640×360, ten frames a second. */
export function smallReport(): ProbeReport {
  const one = report({ kbps: 256 });
  const media = one.media.map((track) => ({
    ...track,
    declared: { ...track.declared, width: 640, height: 360, fps: 10 },
    measured: track.measured && { ...track.measured, width: 640, height: 360, fps: 10 },
  }));
  return { ...one, media };
}
