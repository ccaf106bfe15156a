import type { Destination } from '../../../core/document/chapters/destinations/destination.ts';
import type { Site } from '../../../core/document/site.ts';
import { bySeverity, SEVERITIES, type Severity } from '../../../core/findings/finding.ts';
import type { Lane } from '../../../core/lanes/lane-types.ts';
import type { LaneRow } from './lane-parts.tsx';

export const SORTS = ['site', 'name', 'worst', 'station', 'place'] as const;
export type Sort = (typeof SORTS)[number];
export const SORT_WORDS: Readonly<Record<Sort, string>> = {
  site: 'order of entry',
  name: 'name',
  worst: 'worst finding first',
  station: 'progress',
  place: 'place',
};

/** What of the Round is looked at; an empty text asks for nothing. */
export interface CamerasFilter {
  readonly words: string;
  /** A station where it stands; `done` has none left. */
  readonly station: string;
  readonly severity: string;
  readonly place: string;
  readonly destination: string;
  readonly sort: Sort;
}
export const ALL_LANES: CamerasFilter = {
  words: '',
  station: '',
  severity: '',
  place: '',
  destination: '',
  sort: 'site',
};

const KEYS = ['words', 'station', 'severity', 'place', 'destination', 'sort'] as const;

/** A filter stands in the address, so that going back finds it again. */
export function filterOf(search: URLSearchParams): CamerasFilter {
  const of = (key: (typeof KEYS)[number]): string => search.get(key) ?? '';
  return {
    words: of('words'),
    station: of('station'),
    severity: of('severity'),
    place: of('place'),
    destination: of('destination'),
    sort: SORTS.find((one) => one === of('sort')) ?? 'site',
  };
}
export const searchOf = (filter: CamerasFilter): Record<string, string> =>
  Object.fromEntries(KEYS.filter((key) => filter[key] !== ALL_LANES[key]).map((key) => [key, filter[key]]));

export const isFiltering = (filter: CamerasFilter): boolean =>
  KEYS.some((key) => key !== 'sort' && filter[key] !== ALL_LANES[key]);

const stationAt = ({ standsAt, stations }: Lane): number => {
  const at = stations.findIndex(({ station }) => station === standsAt);
  return at < 0 ? stations.length : at;
};
const worstOf = ({ worst }: Lane): number => (worst ? SEVERITIES.indexOf(worst.severity) : SEVERITIES.length);

const ORDERS: Readonly<Record<Exclude<Sort, 'site'>, (a: LaneRow, b: LaneRow) => number>> = {
  name: (a, b) => a.name.localeCompare(b.name),
  worst: (a, b) =>
    a.lane.worst && b.lane.worst ? bySeverity(a.lane.worst, b.lane.worst) : worstOf(a.lane) - worstOf(b.lane),
  station: (a, b) => stationAt(a.lane) - stationAt(b.lane),
  place: (a, b) => a.place.localeCompare(b.place) || a.name.localeCompare(b.name),
};

/** The rows that are asked for, in the order that is asked for. */
export function rowsOf(rows: readonly LaneRow[], filter: CamerasFilter, site: Site): readonly LaneRow[] {
  const { words, station, severity, place, destination, sort } = filter;
  const sought = words.toLowerCase().split(/\s+/).filter(Boolean);
  const drawn = destination === '' ? null : drawnBy(site, destination);
  const kept = rows.filter(({ lane, name, model, place: at }) => {
    if (station !== '' && (lane.standsAt ?? 'done') !== station) return false;
    if (severity === 'none' ? lane.worst !== null : severity !== '' && lane.worst?.severity !== severity) return false;
    if (place !== '' && at !== place) return false;
    if (drawn && !drawn.has(lane.cameraId)) return false;
    const text = `${name} ${model} ${at} ${lane.worst?.title ?? ''} ${lane.next ?? ''}`.toLowerCase();
    return sought.every((word) => text.includes(word));
  });
  return sort === 'site' ? kept : kept.toSorted(ORDERS[sort]);
}

/** Cameras that a destination draws, by a tap or as their need says. */
function drawnBy({ taps, cameras }: Site, destinationId: Destination['id']): ReadonlySet<string> {
  const drawn = new Set(taps.flatMap((tap) => (tap.destinationId === destinationId ? tap.cameraId : [])));
  for (const { id, need } of cameras)
    if (need?.draws.some((draw) => draw.destinationId === destinationId)) drawn.add(id);
  return drawn;
}

export const SHOWN_SEVERITIES = SEVERITIES.filter(
  (severity): severity is Exclude<Severity, 'note'> => severity !== 'note',
);
