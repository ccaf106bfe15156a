import { THRESHOLD_SLACK } from '../../base/verdict.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { Gear } from '../../document/chapters/gear/gear.ts';
import type { Link } from '../../document/chapters/links/link.ts';
import { cameraSubject, gearSubject } from '../../document/subject.ts';
import type { Facts } from '../../findings/rule.ts';
import type { SiteLinks } from '../../site/links.ts';
import type { PowerFacts } from './power-facts.ts';
import type { Fed, FeedBudget } from './power-numbers.ts';

type Switch = Extract<Gear, { kind: 'switch' }>;

/** What is asked of the site about its switches. */
interface Wiring {
  readonly links: SiteLinks;
  gearAt(subject: string): Gear | undefined;
  linksAt(subject: string): readonly Link[];
  budgetOf(gear: Switch): { readonly budget: FeedBudget; readonly fed: readonly Fed[] };
}

/** Access points that a switch is to feed and cannot: it has no port for them, too little in all, or too low a class. */
function unfedBy(wiring: Wiring, gear: Switch): readonly Fed[] {
  const { budget, fed } = wiring.budgetOf(gear);
  const isOver = fed.length > gear.poePorts || budget.totalW > gear.budgetW * (1 + THRESHOLD_SLACK);
  return fed.filter(({ subject }, at) => subject.startsWith('gear:') && (isOver || budget.starved.has(at)));
}

/** What may be wrong with a switch: of what it feeds only what `counts`, all where that is not given. */
export const switchFacts = (wiring: Wiring, gear: Switch, counts: (fed: Fed) => boolean = () => true) =>
  ({
    fullestSwitch: gear.name,
    cablesOn: wiring.links.cablesAt(gearSubject(gear.id)),
    switchPorts: gear.ports,
    unfed: unfedBy(wiring, gear)
      .filter(counts)
      .map(({ name }) => `${name} on ${gear.name}`),
  }) satisfies Facts<PowerFacts>;

/** Switches on a camera's way and what they feed beside it: cables that find no port, access points that get no power. */
export function switchesOnWay(wiring: Wiring, camera: Camera, feeder: Gear | null): Facts<PowerFacts> {
  const { links } = wiring;
  const own = wiring
    .linksAt(cameraSubject(camera.id))
    .filter(({ medium }) => medium === 'network-cable' || medium === 'wifi');
  const crossed = [...own, ...links.drawsFrom(camera.id).flatMap(({ path }) => path ?? [])];
  const near = new Set(crossed.flatMap(({ from, to }) => [from, to]));
  if (feeder) near.add(gearSubject(feeder.id));
  // An access point may hang on a switch that no picture crosses.
  for (const end of [...near])
    if (wiring.gearAt(end)?.kind === 'access-point')
      for (const { from, to, medium } of wiring.linksAt(end)) if (medium === 'network-cable') near.add(from).add(to);
  const switches = [...near].flatMap((end) => {
    const gear = wiring.gearAt(end);
    if (gear?.kind !== 'switch') return [];
    // Of its own feeder all counts; of others what it talks over.
    return switchFacts(wiring, gear, (fed) => feeder?.id === gear.id || near.has(fed.subject));
  });
  const [fullest] = switches.toSorted((a, b) => b.cablesOn - b.switchPorts - (a.cablesOn - a.switchPorts));
  return fullest ? { ...fullest, unfed: switches.flatMap(({ unfed }) => unfed) } : {};
}
