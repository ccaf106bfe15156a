import { assumed, type ChangedAssumptions } from '../assumptions/assumptions.ts';

/** Thresholds of the probe rules: what no standard sets, as the site assumes it. */
export interface ProbeLimits {
  readonly lossOk: number;
  readonly lossTight: number;
  readonly jitterOkMs: number;
  readonly jitterTightMs: number;
  /** Of the frames that a stream announces. */
  readonly fpsShare: number;
  readonly keyframeTightS: number;
  readonly clockOkS: number;
  readonly answerSlowMs: number;
  readonly sessionTimeoutS: number;
}

export const probeLimits = (changed: ChangedAssumptions): ProbeLimits => ({
  lossOk: assumed(changed, 'stream.loss-ok'),
  lossTight: assumed(changed, 'stream.loss-tight'),
  jitterOkMs: assumed(changed, 'stream.jitter-ok'),
  jitterTightMs: assumed(changed, 'stream.jitter-tight'),
  fpsShare: assumed(changed, 'stream.frames'),
  keyframeTightS: assumed(changed, 'stream.key-frame'),
  clockOkS: assumed(changed, 'stream.clock'),
  answerSlowMs: assumed(changed, 'stream.answer'),
  sessionTimeoutS: assumed(changed, 'stream.session'),
});

/** As delivered: what a probe is judged by where there is no site. */
export const USUAL_LIMITS: ProbeLimits = probeLimits({});
