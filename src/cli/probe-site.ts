import type { Camera, Stream } from '../core/document/chapters/cameras/camera.ts';
import type { Site } from '../core/document/site.ts';
import { plainUrlOf } from '../core/document/stream-address.ts';
import { indexEvidence } from '../core/evidence/evidence-index.ts';
import { asksForSecret } from '../core/net/path-places.ts';
import { readTarget } from '../core/net/target.ts';
import { reportOfBadTarget } from '../core/probe/probe-report.ts';
import type { ProbeReport } from '../core/probe/probe-types.ts';
import { CAMERAS_AT_ONCE, camerasToProbe } from '../core/site/to-probe.ts';
import type { World } from '../server/drive.ts';
import { type ProbeRun, runProbe } from '../server/works/run-probe.ts';
import { type SecretsByName, secretOfCamera } from './read-secrets.ts';

export interface SiteProbeOptions extends Pick<ProbeRun, 'seconds' | 'timeoutMs' | 'media' | 'transport'> {
  /** Also streams that were probed at their address. */
  readonly again: boolean;
  /** A camera that has none takes the secret of all. */
  readonly secrets: SecretsByName;
  readonly secretOfAll: string | null;
}

export interface SiteProbe {
  readonly camera: string;
  readonly stream: string;
  readonly url: string;
  readonly verdict: ProbeReport['verdict'];
  readonly cause: ProbeReport['cause'];
  readonly report: ProbeReport;
}
export interface SiteProbes {
  readonly site: string;
  readonly probed: readonly SiteProbe[];
  readonly leftOut: readonly { readonly camera: string; readonly why: string }[];
}

/** Probes the cameras of a site, a few at once, each one's streams one after the other; what lacks its secret is not dialled. */
export async function probeSite(
  site: Site,
  options: SiteProbeOptions,
  world: World,
  signal: AbortSignal,
  onProbed: (probe: SiteProbe) => void = () => {},
): Promise<SiteProbes> {
  const secretOf = (camera: Camera): string | null =>
    camera.account === null ? null : (secretOfCamera(options.secrets, camera) ?? options.secretOfAll);
  const lacksSecret = (camera: Camera, streams: readonly Stream[]): boolean =>
    camera.account !== null &&
    secretOf(camera) === null &&
    (camera.account.user !== '' || streams.some(({ path }) => asksForSecret(path)));
  const asked = camerasToProbe(site, indexEvidence(site.journal), options.again);
  const leftOut = asked
    .filter(({ camera, streams }) => lacksSecret(camera, streams))
    .map(({ camera }) => ({ camera: camera.name, why: 'its password was not given' }));
  const waiting = asked.filter(({ camera, streams }) => !lacksSecret(camera, streams));
  const probed: SiteProbe[] = [];
  const work = async (): Promise<void> => {
    for (let one = waiting.shift(); one; one = waiting.shift())
      for (const stream of one.streams) {
        const { camera } = one;
        const url = plainUrlOf(camera, stream);
        const read = readTarget(url, camera.account?.user || null, secretOf(camera), camera.line === 'tunnel');
        const report = read.ok
          ? await runProbe({ ...read.value, ...options }, world, signal)
          : reportOfBadTarget(read.error);
        const { verdict, cause } = report;
        const probe = { camera: camera.name, stream: stream.label, url, verdict, cause, report };
        probed.push(probe);
        onProbed(probe);
      }
  };
  await Promise.all(Array.from({ length: CAMERAS_AT_ONCE }, work));
  return { site: site.name, probed, leftOut };
}
