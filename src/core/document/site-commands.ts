import { sayDays, sayMany, sayRate, sayShare } from '../base/say.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import { saySchedule } from '../storage/storage.ts';
import { cameraSubject, destinationSubject, tapSubject } from './best-known.ts';
import type { Model } from './cards/model-card.ts';
import { type Changed, clippedEntry, clippedEvidence, type Draft, type Stamp } from './command-parts.ts';
import { condenseEvidence, condenseLog } from './condense.ts';
import { changePlanning, type PlanningCommand } from './planning-commands.ts';
import { evidenceOfReport } from './probe-evidence.ts';
import type { Account, Camera, Destination, LogEntry, LogKind, Site, Stream, Tap } from './site-types.ts';

/** Every way a site changes. Each command leaves one line in the log, with its numbers. */
export type SiteCommand =
  | PlanningCommand
  | { readonly kind: 'addCamera'; readonly camera: Camera }
  | {
      readonly kind: 'importCameras';
      readonly cameras: readonly Camera[];
      readonly models: readonly Model[];
      readonly from: string;
      readonly leftOut: number;
    }
  | { readonly kind: 'setAddress'; readonly cameraId: string; readonly host: string; readonly port: number }
  | { readonly kind: 'setAccount'; readonly cameraId: string; readonly account: Account | null }
  | { readonly kind: 'setStreamPath'; readonly cameraId: string; readonly streamId: string; readonly path: string }
  | { readonly kind: 'addStream'; readonly cameraId: string; readonly stream: Stream }
  | { readonly kind: 'addDestination'; readonly destination: Destination }
  | { readonly kind: 'changeDestination'; readonly destination: Destination }
  | { readonly kind: 'addTap'; readonly tap: Tap; readonly judged: string }
  | { readonly kind: 'changeTap'; readonly tap: Tap }
  | { readonly kind: 'removeTap'; readonly tapId: string }
  | {
      readonly kind: 'recordProbe';
      readonly cameraId: string;
      readonly streamId: string;
      readonly url: string;
      readonly probeId: string;
      readonly report: ProbeReport;
    }
  | {
      readonly kind: 'recordHandOver';
      readonly tapId: string;
      readonly url: string;
      readonly by: string;
      readonly refs: LogEntry['refs'];
    }
  | { readonly kind: 'note'; readonly text: string; readonly subject: string; readonly logKind: LogKind };

/**
 * Applies a command; a command about something that is not there is a bug of the caller and raises a RangeError. What it
 * writes into the record, whoever said it, is clipped to what a site can keep, and the record to its limits.
 */
export function applyCommand(site: Site, command: SiteCommand, stamp: Stamp): Site {
  const { site: changed, log } = change(site, command, stamp);
  const entry = clippedEntry({ id: stamp.newId(), at: stamp.at, ...log });
  return {
    ...changed,
    evidence: changed.evidence === site.evidence ? site.evidence : condenseEvidence(changed.evidence),
    log: condenseLog([...changed.log, entry], stamp),
  };
}

function change(site: Site, command: SiteCommand, stamp: Stamp): Changed {
  switch (command.kind) {
    case 'addCamera': {
      const { camera } = command;
      const log = line('edit', cameraSubject(camera.id), `${camera.name} added`, {
        address: `${camera.host}:${camera.ports.rtsp}`,
      });
      return { site: { ...site, cameras: [...site.cameras, camera] }, log };
    }
    case 'importCameras': {
      const { cameras, models, from, leftOut } = command;
      const text = `${sayMany(cameras.length, 'camera')} imported from ${from}`;
      const log = line('edit', 'site', text, {
        names: cameras.map(({ name }) => name).join(', '),
        'rows left out': leftOut > 0 ? String(leftOut) : undefined,
      });
      return {
        site: { ...site, models: [...site.models, ...models], cameras: [...site.cameras, ...cameras] },
        log,
      };
    }
    case 'setAddress': {
      const before = cameraOf(site, command.cameraId);
      const after = { ...before, host: command.host, ports: { ...before.ports, rtsp: command.port } };
      const [from, to] = [before, after].map((camera) => `${camera.host || 'none'}:${camera.ports.rtsp}`);
      return {
        site: withCamera(site, after),
        log: line('edit', cameraSubject(before.id), `${before.name}: address changed`, { from, to }),
      };
    }
    case 'setAccount': {
      const before = cameraOf(site, command.cameraId);
      const [from, to] = [before.account?.user ?? 'none', command.account?.user ?? 'none'];
      const log = line('edit', cameraSubject(before.id), `${before.name}: account changed`, { from, to });
      return { site: withCamera(site, { ...before, account: command.account }), log };
    }
    case 'setStreamPath': {
      const camera = cameraOf(site, command.cameraId);
      const stream = streamIn(camera, command.streamId);
      const streams = camera.streams.map((other) =>
        other.id === stream.id ? { ...other, path: command.path } : other,
      );
      const log = line('edit', cameraSubject(camera.id), `${camera.name}: path of ${stream.label} changed`, {
        from: stream.path || 'none',
        to: command.path || 'none',
      });
      return { site: withCamera(site, { ...camera, streams }), log };
    }
    case 'addStream': {
      const camera = cameraOf(site, command.cameraId);
      const log = line('edit', cameraSubject(camera.id), `${camera.name}: stream ${command.stream.label} added`, {
        path: command.stream.path || 'none',
      });
      return { site: withCamera(site, { ...camera, streams: [...camera.streams, command.stream] }), log };
    }
    case 'addDestination': {
      const { destination } = command;
      const log = line('edit', destinationSubject(destination.id), `${destination.name} added`, numbersOf(destination));
      return { site: { ...site, destinations: [...site.destinations, destination] }, log };
    }
    case 'changeDestination': {
      const { destination } = command;
      const destinations = site.destinations.map((other) => (other.id === destination.id ? destination : other));
      const log = line(
        'edit',
        destinationSubject(destination.id),
        `${destination.name} changed`,
        numbersOf(destination),
      );
      return { site: { ...site, destinations }, log };
    }
    case 'addTap': {
      const { tap } = command;
      const [camera, destination] = [cameraOf(site, tap.cameraId), destinationOf(site, tap.destinationId)];
      const text = `${camera.name} ${streamIn(camera, tap.streamId).label} tapped by ${destination.name} to ${tap.use}`;
      return {
        site: { ...site, taps: [...site.taps, tap] },
        log: line('tap', tapSubject(tap.id), text, { verdict: command.judged }),
      };
    }
    case 'changeTap': {
      const { tap } = command;
      if (!site.taps.some(({ id }) => id === tap.id)) throw new RangeError(`tapId: there is no tap ${tap.id}`);
      const [camera, destination] = [cameraOf(site, tap.cameraId), destinationOf(site, tap.destinationId)];
      const text = `${camera.name}: tap of ${destination.name} changed`;
      return {
        site: { ...site, taps: site.taps.map((other) => (other.id === tap.id ? tap : other)) },
        log: line('tap', tapSubject(tap.id), text, {
          stream: streamIn(camera, tap.streamId).label,
          when: saySchedule(tap.schedule),
        }),
      };
    }
    case 'removeTap': {
      const tap = site.taps.find(({ id }) => id === command.tapId);
      if (!tap) throw new RangeError(`tapId: there is no tap ${command.tapId}`);
      const text = `${cameraOf(site, tap.cameraId).name} no longer tapped by ${destinationOf(site, tap.destinationId).name}`;
      return {
        site: { ...site, taps: site.taps.filter(({ id }) => id !== tap.id) },
        log: line('tap', cameraSubject(tap.cameraId), text, {}),
      };
    }
    case 'recordProbe': {
      const camera = cameraOf(site, command.cameraId);
      const stream = streamIn(camera, command.streamId);
      const evidence = evidenceOfReport(command.report, stream.id, command.url).map((item) =>
        clippedEvidence({ ...item, id: stamp.newId(), takenAt: stamp.at, source: command.probeId }),
      );
      const log = line(
        'probe',
        cameraSubject(camera.id),
        `${camera.name} ${stream.label} probed: ${outcomeOf(command.report)}`,
        numbersOfReport(command.report),
      );
      return { site: { ...site, evidence: [...site.evidence, ...evidence] }, log };
    }
    case 'recordHandOver': {
      const tap = site.taps.find(({ id }) => id === command.tapId);
      if (!tap) throw new RangeError(`tapId: there is no tap ${command.tapId}`);
      const text = `${cameraOf(site, tap.cameraId).name} handed over to ${destinationOf(site, tap.destinationId).name}`;
      const item = clippedEvidence({
        id: stamp.newId(),
        subject: tapSubject(tap.id),
        quantity: 'handedOver',
        value: command.url,
        how: 'confirmed',
        takenAt: stamp.at,
        source: command.by,
      });
      return {
        site: { ...site, evidence: [...site.evidence, item] },
        log: { kind: 'hand-over', subject: tapSubject(tap.id), text, refs: command.refs },
      };
    }
    case 'note':
      return { site, log: line(command.logKind, command.subject, command.text, {}) };
    default:
      return changePlanning(site, command, stamp);
  }
}

function line(kind: LogKind, subject: string, text: string, refs: Readonly<Record<string, string | undefined>>): Draft {
  const pairs = Object.entries(refs).flatMap(([name, value]) => (value === undefined ? [] : [{ name, value }]));
  return { kind, subject, text, refs: pairs };
}

function cameraOf(site: Site, cameraId: string): Camera {
  const camera = site.cameras.find(({ id }) => id === cameraId);
  if (!camera) throw new RangeError(`cameraId: there is no camera ${cameraId}`);
  return camera;
}
function streamIn(camera: Camera, streamId: string): Stream {
  const stream = camera.streams.find(({ id }) => id === streamId);
  if (!stream) throw new RangeError(`streamId: ${camera.name} has no stream ${streamId}`);
  return stream;
}
function destinationOf(site: Site, destinationId: string): Destination {
  const destination = site.destinations.find(({ id }) => id === destinationId);
  if (!destination) throw new RangeError(`destinationId: there is no destination ${destinationId}`);
  return destination;
}
const withCamera = (site: Site, camera: Camera): Site => ({
  ...site,
  cameras: site.cameras.map((other) => (other.id === camera.id ? camera : other)),
});

const numbersOf = (destination: Destination): Record<string, string | undefined> => ({
  disk: destination.storage ? `${destination.storage.diskTB} TB` : undefined,
  usable: destination.storage ? sayShare(destination.storage.usableFraction) : undefined,
  kept: destination.retentionDays === null ? undefined : sayDays(destination.retentionDays),
});

const outcomeOf = (report: ProbeReport): string =>
  report.verdict === 'fail'
    ? (report.findings[0]?.title ?? 'failed').toLowerCase()
    : report.verdict === 'warn'
      ? 'works, with something to fix'
      : 'works';

function numbersOfReport(report: ProbeReport): Record<string, string | undefined> {
  const video = report.media.find(({ kind }) => kind === 'video');
  const measured = video?.measured;
  const last = report.steps.at(-1);
  return {
    verdict: report.verdict,
    cause: report.cause ?? undefined,
    took: last ? `${((last.startMs + last.durationMs) / 1000).toFixed(2)} s` : undefined,
    codec: video?.codec ?? undefined,
    size: measured?.width ? `${measured.width}×${measured.height}` : undefined,
    fps: measured?.fps === null ? undefined : measured?.fps.toFixed(1),
    rate: measured ? sayRate(measured.bitrateKbps) : undefined,
    lost: measured ? `${measured.lost} (${sayShare(measured.lossRatio)})` : undefined,
    'key frame': measured?.keyframeIntervalSeconds
      ? `every ${measured.keyframeIntervalSeconds.toFixed(2)} s`
      : undefined,
  };
}
