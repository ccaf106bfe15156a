import { areAlike, areAlikeByName } from '../../base/alike.ts';
import type { StreamFacts } from '../../document/best-known.ts';
import type { Camera, Site, Stream } from '../../document/site-types.ts';
import type { Finding } from '../../findings/finding.ts';
import type { Facts } from '../../findings/rule.ts';
import type { PowerFacts } from './power-facts.ts';
import { findingsOfPower, PowerJudge } from './power-judgement.ts';
import { PowerMemory } from './power-numbers.ts';

/** What Power found of one camera. */
export interface PowerFound {
  readonly findings: readonly Finding[];
  /** Its way of power comes from gear, and no link leads there. */
  readonly lacksFeeder: boolean;
}

/** Ways of power that come over a wire from gear of the plan. */
const FROM_GEAR: ReadonlySet<string> = new Set(['poe', 'passive', 'dc', 'usb']);

/**
 * Judges power and links of one document after the other. Where nothing that they rest on changed, nothing is judged; else
 * all is, since what hangs on the same gear hangs together, and findings stay the same objects where their facts did.
 */
export function createPowerReckoner(): (
  site: Site,
  factsOf: (stream: Stream) => StreamFacts,
) => ReadonlyMap<string, PowerFound> {
  const memory = new PowerMemory();
  let marks: readonly unknown[] | undefined;
  let found: ReadonlyMap<string, PowerFound> = new Map();
  let facts: ReadonlyMap<string, Facts<PowerFacts>> = new Map();
  return (site, factsOf) => {
    const now = marksOf(site, factsOf);
    if (areAlike(marks, now)) return found;
    marks = now;
    const judge = new PowerJudge(site, factsOf, memory);
    const [nextFound, nextFacts] = [new Map<string, PowerFound>(), new Map<string, Facts<PowerFacts>>()];
    for (const camera of site.cameras) {
      const judgement = judge.judge(camera);
      const lacksFeeder = camera.feed !== null && FROM_GEAR.has(camera.feed.way) && judgement.feedLink === null;
      const before = found.get(camera.id);
      const isSame = before?.lacksFeeder === lacksFeeder && areAlikeByName(facts.get(camera.id), judgement.facts);
      nextFacts.set(camera.id, judgement.facts);
      nextFound.set(camera.id, isSame && before ? before : { findings: findingsOfPower(judgement), lacksFeeder });
    }
    found = nextFound;
    facts = nextFacts;
    return found;
  };
}

/** Everything of a document that power and links rest on. */
function marksOf(site: Site, factsOf: (stream: Stream) => StreamFacts): readonly unknown[] {
  const marks: unknown[] = [site.gear, site.links, site.models, site.plan.walls, site.sky, site.assumptions, site.taps];
  for (const { id, name, position } of site.destinations) marks.push(id, name, position);
  const streams = new Map<string, Stream>();
  for (const camera of site.cameras) {
    marks.push(...marksOfCamera(camera));
    for (const stream of camera.streams) streams.set(stream.id, stream);
  }
  for (const { streamId } of site.taps) {
    const stream = streams.get(streamId);
    const rate = stream && factsOf(stream).bitrateKbps;
    marks.push(rate?.value, rate?.how);
  }
  return marks;
}

const marksOfCamera = ({ id, name, kind, modelId, feed, need, position }: Camera): readonly unknown[] => [
  id,
  name,
  kind,
  modelId,
  feed,
  need,
  position,
];
