import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { SEVERITY_TEXT, SEVERITY_WORDS } from '../../ui/finding-card.tsx';
import { LaneLine } from '../../ui/lane-line.tsx';
import { ChooseBox, type Choosing, InTheWay, type LaneRow, NextStep, standName, stepOf } from './lane-parts.tsx';

const PHONE = { all: 336, one: 70 } as const;
const CARD_PX = 132;
const OVERSCAN = 20;

/** Lanes on a phone: a card each; of thousands those near the screen are drawn. */
export function LaneCards({ rows, chosen, onChoose }: { rows: readonly LaneRow[] } & Choosing) {
  const place = useRef<HTMLUListElement>(null);
  const [topPx, setTopPx] = useState(0);
  useLayoutEffect(() => setTopPx(place.current?.offsetTop ?? 0), []);
  const list = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => CARD_PX,
    overscan: OVERSCAN,
    scrollMargin: topPx,
    getItemKey: (at) => rows[at]?.lane.cameraId ?? at,
  });
  return (
    <ul ref={place} className="relative" style={{ height: list.getTotalSize() }}>
      {list.getVirtualItems().map(({ index, start }) => {
        const row = rows[index];
        if (!row) return null;
        const { lane, name, place, to } = row;
        return (
          <li
            key={lane.cameraId}
            ref={list.measureElement}
            data-index={index}
            className="absolute inset-x-0 top-0 pb-2.5"
            style={{ transform: `translateY(${start - topPx}px)` }}
          >
            <div className="border border-hair bg-sheet px-3 pt-2 pb-1">
              <div className="flex items-baseline justify-between">
                <span className="flex items-center gap-2">
                  <ChooseBox lane={lane} name={name} chosen={chosen} onChoose={onChoose} />
                  <Link to={to} className="text-name font-strong">
                    {name}
                  </Link>
                </span>
                <span className="text-small text-soft">
                  {standName(lane)}
                  {lane.worst && (
                    <b className={`ml-2 ${SEVERITY_TEXT[lane.worst.severity]}`}>
                      {SEVERITY_WORDS[lane.worst.severity]}
                    </b>
                  )}
                </span>
              </div>
              {place && <p className="text-small text-soft">{place}</p>}
              <div className="-ml-3">
                <LaneLine lane={lane} step={stepOf(PHONE, lane.stations.length)} />
              </div>
              <InTheWay lane={lane} name={name} isBrief />
              <NextStep lane={lane} name={name} to={to} />
            </div>
          </li>
        );
      })}
    </ul>
  );
}
