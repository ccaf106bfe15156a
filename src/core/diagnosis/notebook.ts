import type { Credentials } from '../auth/authorization.ts';
import type { StreamUrl } from '../net/stream-url.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import type { Diagnosis, Experiment, FoundWay, Reason } from '../probe/reasons.ts';
import type { TransportChoice } from '../rtsp/client-types.ts';
import { probeOnce } from './trials.ts';

export interface FailedProbe {
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  readonly transport: TransportChoice;
  readonly report: ProbeReport;
  /** Paths that its model is known for, or that its device offered; the likeliest first. */
  readonly paths: readonly string[];
  /** Where its ONVIF is known, or thought, to listen; `null` where nobody knows. */
  readonly onvifPort: number | null;
  /** A person allowed that the password goes readable. */
  readonly mayGoReadable: boolean;
}

/** A picture that comes at all comes within this [A]. */
export const SHORT_SAMPLE_S = 0.5;

/** Things that go with a question, and what came of it so far. */
export class Notebook {
  readonly experiments: Experiment[] = [];

  note(did: string, told: string): void {
    this.experiments.push({ did, told, decides: false });
  }
  /** The last experiment settles it. */
  conclude(reason: Reason, found: FoundWay | null = null): Diagnosis {
    const last = this.experiments.length - 1;
    const experiments = this.experiments.map((one, at) => ({ ...one, decides: at === last }));
    return { reason, experiments, found };
  }
  /** Nothing settled it. @param reason the likeliest, where one is */
  open(reason: Reason | null = null): Diagnosis {
    return { reason, experiments: this.experiments, found: null };
  }
}

export const list = (parts: readonly (string | number)[]): string =>
  parts.length < 2 ? String(parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`;

export const isAdmitted = ({ steps }: ProbeReport): boolean =>
  steps.some(({ name, ok }) => name === 'authenticate' && ok);
export const worked = ({ verdict }: ProbeReport): boolean => verdict !== 'fail';
export const sayReport = (report: ProbeReport): string =>
  worked(report) ? 'it worked' : (report.findings[0]?.because ?? report.cause ?? 'it failed').replace(/\.$/, '');

/** The same probe once more, as far as its session, or with what is to be tried. */
export const again = (
  of: FailedProbe,
  more: Partial<{
    url: StreamUrl;
    media: boolean;
    transport: TransportChoice;
    credentials: Credentials | null;
    loginBy: 'any' | 'basic';
    sampleS: number;
  }> = {},
) =>
  probeOnce({
    url: of.url,
    credentials: of.credentials,
    transport: of.transport,
    media: false,
    loginBy: 'any',
    sampleS: SHORT_SAMPLE_S,
    ...more,
  });
