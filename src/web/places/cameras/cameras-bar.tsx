import { useDeferredValue, useState } from 'react';
import { sayMany } from '../../../core/base/say.ts';
import { STATIONS } from '../../../core/stations/registry.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { SEVERITY_WORDS } from '../../ui/finding-card.tsx';
import { SelectField, TextField } from '../../ui/text-field.tsx';
import { ALL_LANES, type CamerasFilter, isFiltering, SHOWN_SEVERITIES, SORT_WORDS, SORTS } from './cameras-filter.ts';

interface CamerasBarProps {
  readonly filter: CamerasFilter;
  readonly shown: number;
  readonly onFilter: (filter: CamerasFilter) => void;
}

/** What of many cameras is looked at, and in which order. */
export function CamerasBar({ filter, shown, onFilter }: CamerasBarProps) {
  const site = useDeferredValue(useAppSelector(selectSite));
  const [isOpen, setIsOpen] = useState(isFiltering(filter));
  const places = [...new Set(site.cameras.map(({ place }) => place).filter((place) => place !== ''))].sort();
  const set = (changed: Partial<CamerasFilter>): void => onFilter({ ...filter, ...changed });
  return (
    <section aria-label="What is shown" className="no-print mb-3">
      <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2 md:flex md:flex-wrap">
        <TextField
          label="Search cameras"
          type="search"
          className="w-full md:w-44"
          value={filter.words}
          onChange={(event) => set({ words: event.target.value })}
        />
        <SelectField
          label="Sort by"
          value={filter.sort}
          onChange={(value) => set({ sort: SORTS.find((one) => one === value) ?? 'site' })}
          options={SORTS.map((value) => ({ value, label: SORT_WORDS[value] }))}
        />
        <Button className="col-span-2 justify-self-start" aria-expanded={isOpen} onClick={() => setIsOpen(!isOpen)}>
          {isOpen ? 'Fewer filters' : 'By station, finding, place, destination'}
        </Button>
        {isFiltering(filter) && (
          <span className="col-span-2 flex items-center gap-2">
            <span role="status" className="text-soft">
              {shown} of {sayMany(site.cameras.length, 'camera')}
            </span>
            <Button kind="quiet" onClick={() => onFilter({ ...ALL_LANES, sort: filter.sort })}>
              Show all
            </Button>
          </span>
        )}
      </div>
      {isOpen && (
        <div className="mt-2 grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-4">
          <SelectField
            label="Stands at"
            value={filter.station}
            onChange={(station) => set({ station })}
            options={[
              { value: '', label: 'any station' },
              ...STATIONS.map(({ id, name }) => ({ value: id, label: name })),
              { value: 'done', label: 'done' },
            ]}
          />
          <SelectField
            label="Worst finding"
            value={filter.severity}
            onChange={(severity) => set({ severity })}
            options={[
              { value: '', label: 'any' },
              ...SHOWN_SEVERITIES.map((value) => ({ value, label: SEVERITY_WORDS[value] })),
              { value: 'none', label: 'none' },
            ]}
          />
          <SelectField
            label="Place"
            value={filter.place}
            onChange={(place) => set({ place })}
            options={[{ value: '', label: 'any place' }, ...places.map((value) => ({ value, label: value }))]}
          />
          <SelectField
            label="Goes to"
            value={filter.destination}
            onChange={(destination) => set({ destination })}
            options={[
              { value: '', label: 'any destination' },
              ...site.destinations.map(({ id, name }) => ({ value: id, label: name })),
            ]}
          />
        </div>
      )}
    </section>
  );
}
