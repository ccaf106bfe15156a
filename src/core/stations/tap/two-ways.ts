import type { Camera } from '../../document/chapters/cameras/camera.ts';
import { streamSubject } from '../../document/subject.ts';
import { knownAs, type StreamFacts } from '../../evidence/best-known.ts';
import { rememberedProbe } from '../../evidence/remembered-probe.ts';
import type { SiteView } from '../../site/site-view.ts';

/** One way to a picture, as far as it was measured. */
export interface MeasuredWay {
  readonly name: string;
  readonly facts: StreamFacts;
  readonly gives: boolean | null;
  readonly keyFrameS: number | null;
  readonly lossRatio: number | null;
}

export interface WayComparison {
  readonly through: MeasuredWay;
  readonly straight: MeasuredWay;
  /** The one to draw, where what was measured decides it. */
  readonly better: 'through' | 'straight' | null;
  readonly reasons: readonly string[];
}

function measuredWay({ index, factsOf }: SiteView, camera: Camera): MeasuredWay | null {
  const [main] = camera.streams;
  if (!main) return null;
  const probe = rememberedProbe(index, main.id)?.payload;
  const last = (quantity: string): number | null => {
    const value = knownAs(index, streamSubject(main.id), quantity, 'measured')?.value;
    return typeof value === 'number' ? value : null;
  };
  return {
    name: camera.name,
    facts: factsOf(main),
    gives: probe ? probe.verdict !== 'fail' : null,
    keyFrameS: last('keyframeIntervalSeconds'),
    lossRatio: last('lossRatio'),
  };
}

const pixels = ({ facts }: MeasuredWay): number | null =>
  facts.width && facts.height ? facts.width.value * facts.height.value : null;

/**
 * The way through a box against the way straight to the camera that hangs off it: by size, frames, loss; and by what each
 * depends on. `null` where one of them has no stream.
 */
export function compareWays(view: SiteView, box: Camera, direct: Camera): WayComparison | null {
  const [through, straight] = [measuredWay(view, box), measuredWay(view, direct)];
  if (!through || !straight) return null;
  const reasons: string[] = [];
  let better: WayComparison['better'] = null;
  if (through.gives === null || straight.gives === null)
    reasons.push('Probe both first: one of them was not measured.');
  else if (through.gives !== straight.gives) {
    better = through.gives ? 'through' : 'straight';
    reasons.push(`Only ${better === 'through' ? 'the recorder' : 'the camera itself'} plays.`);
  } else if (through.gives) {
    const [a, b] = [pixels(through), pixels(straight)];
    const votes = { through: 0, straight: 0 };
    const isCompared = a !== null && b !== null;
    const vote = (way: 'through' | 'straight', reason: string): void => {
      votes[way] += 1;
      reasons.push(reason);
    };
    if (a !== null && b !== null && a !== b)
      vote(
        a > b ? 'through' : 'straight',
        `The resolution is higher ${a > b ? 'through the recorder' : 'directly from the camera'}.`,
      );
    const [fa, fb] = [through.facts.fps?.value, straight.facts.fps?.value];
    if (fa !== undefined && fb !== undefined && Math.abs(fa - fb) > 0.5)
      vote(
        fa > fb ? 'through' : 'straight',
        `The frame rate is higher ${fa > fb ? 'through the recorder' : 'directly from the camera'}.`,
      );
    const [la, lb] = [through.lossRatio, straight.lossRatio];
    if (la !== null && lb !== null && Math.abs(la - lb) > 0.001)
      vote(
        la < lb ? 'through' : 'straight',
        `Packet loss is lower ${la < lb ? 'through the recorder' : 'directly from the camera'}.`,
      );
    reasons.push('Through the recorder one address and one account serve all, and all of them fail when it fails.');
    reasons.push(
      'Directly needs a route into the network of the camera, and uses one of its sessions beside the recorder.',
    );
    if (votes.through !== votes.straight) better = votes.through > votes.straight ? 'through' : 'straight';
    else if (!isCompared) reasons.push('Nothing measured of both sets them apart: probe both.');
    else {
      better = 'through';
      reasons.push('They measure alike: the way with fewer accounts to keep is the better one.');
    }
  } else reasons.push('Neither plays.');
  return { through, straight, better, reasons };
}
