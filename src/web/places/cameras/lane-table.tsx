import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { LaneLine } from '../../ui/lane-line.tsx';
import { ChooseBox, type Choosing, InTheWay, type LaneRow, NextStep, stepOf } from './lane-parts.tsx';

const WIDE = { all: 560, one: 128 } as const;
const ROW_PX = 62;
/** Beyond the screen: a site of a few dozen is there whole, for whoever searches the page. */
const OVERSCAN = 30;

/** Lanes as a table; of thousands those near the screen are drawn. */
export function LaneTable({ rows, chosen, onChoose }: { rows: readonly LaneRow[] } & Choosing) {
  const table = useRef<HTMLTableElement>(null);
  const [topPx, setTopPx] = useState(0);
  useLayoutEffect(() => setTopPx(table.current?.offsetTop ?? 0), []);
  const list = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => ROW_PX,
    overscan: OVERSCAN,
    scrollMargin: topPx,
    getItemKey: (at) => rows[at]?.lane.cameraId ?? at,
  });
  const stations = rows[0]?.lane.stations ?? [];
  const shown = list.getVirtualItems();
  const before = (shown[0]?.start ?? topPx) - topPx;
  const after = list.getTotalSize() - ((shown.at(-1)?.end ?? topPx) - topPx);
  return (
    <table ref={table} className="w-full border border-hair bg-sheet" aria-rowcount={rows.length + 1}>
      <thead>
        <tr className="border-b border-hair text-left text-small text-soft">
          <th className="py-2 pl-4">Camera</th>
          <th className="w-0 p-0">
            <span className="flex">
              {stations.map(({ station, name }) => (
                <span key={station} style={{ width: stepOf(WIDE, stations.length) }} className="text-center">
                  {name}
                </span>
              ))}
            </span>
          </th>
          <th className="pl-8">Open findings</th>
          <th className="pr-4 text-right">Next</th>
        </tr>
      </thead>
      <tbody>
        {before > 0 && <Room height={before} />}
        {shown.map(({ index }) => {
          const row = rows[index];
          if (!row) return null;
          const { lane, name, model, place, to } = row;
          return (
            <tr
              key={lane.cameraId}
              ref={list.measureElement}
              data-index={index}
              aria-rowindex={index + 2}
              className="border-b border-hair last:border-b-0"
            >
              <th scope="row" className="py-2.5 pl-4 text-left align-middle">
                <span className="flex items-center gap-2.5">
                  <ChooseBox lane={lane} name={name} chosen={chosen} onChoose={onChoose} />
                  <Link to={to} className="text-name hover:underline">
                    {name}
                  </Link>
                </span>
                <span className="block pl-[26px] text-small font-normal text-soft">
                  {model}
                  {place && `, ${place}`}
                </span>
              </th>
              <td className="p-0">
                <LaneLine lane={lane} step={stepOf(WIDE, stations.length)} />
              </td>
              <td className="max-w-80 py-2.5 pl-8">
                <InTheWay lane={lane} name={name} />
              </td>
              <td className="py-2.5 pr-4 text-right">
                <NextStep lane={lane} name={name} to={to} />
              </td>
            </tr>
          );
        })}
        {after > 0 && <Room height={after} />}
      </tbody>
    </table>
  );
}

/** The place of rows that are not drawn. */
const Room = ({ height }: { height: number }) => (
  <tr>
    <td colSpan={4} style={{ height, padding: 0 }} />
  </tr>
);
