import { assumed } from '../../assumptions/assumptions.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { CablePrices, CostLine } from '../../document/chapters/costing/costing.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import { nameOfModel } from '../../document/chapters/models/model-name.ts';
import type { Site } from '../../document/site.ts';
import { cameraSubject } from '../../document/subject.ts';
import { licenceCount } from '../../site/licences.ts';
import { linkLength } from '../../site/link-length.ts';

/** One thing of the plan that has to be bought: how many, what of, and where it is for. */
export interface PlanLine {
  /** What it counts: `model:ID`, `gear:ID`, `cable:MEDIUM` … Two lines of one plan never count the same. */
  readonly of: string;
  readonly label: string;
  readonly count: number;
  readonly unit: 'pieces' | 'm' | 'packs';
  /** Of one; `null` until somebody enters it in its figures. */
  readonly price: number | null;
  readonly everyYears: number | null;
  /** Names of what it is for, or what is missing of the count. */
  readonly note: string;
}

/** [A] After so many years it is bought again. */
const LASTS_YEARS = { disk: 5, battery: 4, memoryCard: 3 } as const;

const CABLE_WORDS: Readonly<Record<keyof CablePrices, string>> = {
  'network-cable': 'Network cable',
  pair: 'Low-voltage pair',
  usb: 'USB cable',
  fibre: 'Fibre',
};
const isBought = (medium: string): medium is keyof CablePrices => Object.hasOwn(CABLE_WORDS, medium);

/** Alike things as one line, in the order in which they come. */
class Counter {
  private readonly lines = new Map<
    string,
    { line: Omit<PlanLine, 'count' | 'note'>; count: number; names: string[] }
  >();

  add(line: Omit<PlanLine, 'count' | 'note'>, name: string, count = 1): void {
    const known = this.lines.get(line.of);
    if (known) {
      known.count += count;
      known.names.push(name);
    } else this.lines.set(line.of, { line, count, names: [name] });
  }

  all(): readonly PlanLine[] {
    return [...this.lines.values()].map(({ line, count, names }) => ({ ...line, count, note: names.join(', ') }));
  }
}

const alike = (kind: string, size: number, price: number | null): string =>
  `${kind}:${size}${price === null ? '' : `@${price}`}`;

/** All that the plan has and somebody must buy, each with the price of its figures. */
export function planLines(site: Site): readonly PlanLine[] {
  return [
    ...camerasOf(site),
    ...site.gear.map(
      ({ id, name, price, kind }): PlanLine => ({
        of: `gear:${id}`,
        label: name,
        count: 1,
        unit: 'pieces',
        price,
        everyYears: null,
        note: kind.replace('-', ' '),
      }),
    ),
    ...cablesOf(site),
    ...storageOf(site),
  ];
}

function camerasOf(site: Site): readonly PlanLine[] {
  const models = new Map(site.models.map((model) => [model.id, model]));
  const fed = new Set(site.links.map(({ to }) => to));
  const bought = new Counter();
  const beside = new Counter();
  for (const camera of site.cameras) {
    const { name, modelId, feed, memoryCard } = camera;
    const model = modelId === null ? undefined : models.get(modelId);
    if (model)
      bought.add(
        { of: `model:${model.id}`, label: nameOfModel(model), unit: 'pieces', price: model.price, everyYears: null },
        name,
      );
    if (model && wantsSupply(camera, model, fed)) {
      const price = assumed(site.assumptions, 'cost.supply');
      beside.add(
        { of: 'supply:assumed', label: 'Power supply, none is planned', unit: 'pieces', price, everyYears: null },
        name,
      );
    }
    const sun = feed?.way === 'solar' ? feed.sun : null;
    if (sun) {
      const { panelWp, panelPrice, batteryWh, batteryPrice } = sun;
      beside.add(
        {
          of: alike('panel', panelWp, panelPrice),
          label: `Solar panel of ${panelWp} Wp`,
          unit: 'pieces',
          price: panelPrice,
          everyYears: null,
        },
        name,
      );
      // A battery inside the camera comes with it.
      if (model?.power.batteryWh !== batteryWh)
        beside.add(
          {
            of: alike('battery', batteryWh, batteryPrice),
            label: `Battery of ${batteryWh} Wh`,
            unit: 'pieces',
            price: batteryPrice,
            everyYears: LASTS_YEARS.battery,
          },
          name,
        );
    }
    if (memoryCard)
      beside.add(
        {
          of: alike('card', memoryCard.sizeGB, memoryCard.price),
          label: `SD card of ${memoryCard.sizeGB} GB`,
          unit: 'pieces',
          price: memoryCard.price,
          everyYears: LASTS_YEARS.memoryCard,
        },
        name,
      );
  }
  return [...bought.all(), ...beside.all()];
}

/** None is in the box, and nothing of the plan feeds it. */
const wantsSupply = ({ id, feed }: Camera, { power }: Model, fed: ReadonlySet<string>): boolean =>
  power.supplyInBox === false && feed?.way !== 'solar' && !fed.has(cameraSubject(id));

function cablesOf(site: Site): readonly PlanLine[] {
  const sums = new Map<keyof CablePrices, { metres: number; unknown: number }>();
  for (const link of site.links) {
    if (!isBought(link.medium)) continue;
    const sum = sums.get(link.medium) ?? { metres: 0, unknown: 0 };
    const length = linkLength(site, link);
    sums.set(link.medium, {
      metres: sum.metres + (length?.lengthM ?? 0),
      unknown: sum.unknown + (length === null ? 1 : 0),
    });
  }
  return [...sums].map(([medium, { metres, unknown }]) => ({
    of: `cable:${medium}`,
    label: CABLE_WORDS[medium],
    count: Math.ceil(metres - 1e-9),
    unit: 'm',
    price: site.costing.perMetre[medium],
    everyYears: null,
    note: unknown > 0 ? `and ${unknown} of unknown length` : '',
  }));
}

function storageOf(site: Site): readonly PlanLine[] {
  return site.destinations.flatMap((destination): PlanLine[] => {
    const { id, name, storage, seats } = destination;
    const disk: PlanLine[] = storage
      ? [
          {
            of: `disk:${id}`,
            label: `Disk of ${storage.diskTB} TB`,
            count: 1,
            unit: 'pieces',
            price: storage.price,
            everyYears: LASTS_YEARS.disk,
            note: name,
          },
        ]
      : [];
    const packs = (licenceCount(site, destination)?.purchase?.counts ?? []).flatMap((count, at): PlanLine[] => {
      const pack = seats?.packs[at];
      return pack && count > 0
        ? [
            {
              of: `seats:${id}:${pack.seats}@${pack.price}`,
              label: `Pack of ${pack.seats} licences`,
              count,
              unit: 'packs',
              price: pack.price,
              everyYears: null,
              note: name,
            },
          ]
        : [];
    });
    return [...disk, ...packs];
  });
}

/** Seats are counted by an option itself, as often as its cameras change: they are no lines of it. */
const isLine = (line: PlanLine): line is PlanLine & { readonly price: number } =>
  line.price !== null && line.unit !== 'packs' && line.count > 0;

/**
 * Lines of an option with what the plan has now: what was taken from it before is counted anew and never twice, what it has
 * no more goes, and what was written by hand stays.
 */
export function withPlanLines(lines: readonly CostLine[], plan: readonly PlanLine[]): readonly CostLine[] {
  const taken = new Map(
    plan.filter(isLine).map(({ of, label, price, count, everyYears }) => [of, { of, label, price, count, everyYears }]),
  );
  const kept = lines.flatMap((line) => {
    if (line.of === null) return [line];
    const now = taken.get(line.of);
    taken.delete(line.of);
    return now ? [now] : [];
  });
  return [...kept, ...taken.values()];
}

/** What it all costs, as far as there are prices, and how many lines have none. */
export function sumOfPlan(plan: readonly PlanLine[]): { readonly total: number; readonly unpriced: number } {
  let total = 0;
  for (const { price, count } of plan) total += (price ?? 0) * count;
  return { total, unpriced: plan.filter(({ price, count }) => price === null && count > 0).length };
}
