import { lazy, Suspense, useState } from 'react';
import { inPercent } from '../../../core/base/range.ts';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { FEED_RANGES } from '../../../core/document/chapters/cameras/feed.ts';
import { SKY_RANGES } from '../../../core/document/chapters/sky/sky.ts';
import { LEAD, LITHIUM, monthNames } from '../../../core/power/sun-budget.ts';
import type { SunFeed } from '../../../core/power/sun-feed.ts';
import type { PowerJudge, PowerJudgement } from '../../../core/stations/power/index.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { Drop } from '../../ui/drop.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/text-field.tsx';
import { SkyFields } from './sky-fields.tsx';

const SunChart = lazy(async () => ({ default: (await import('./sun-chart.tsx')).SunChart }));

interface SunPanelProps {
  readonly camera: Camera;
  readonly judge: PowerJudge;
  readonly judgement: PowerJudgement;
}

/** A year of panel and battery: what comes, what goes, the months that fail, and what would mend them. */
export function SunPanel({ camera, judge, judgement }: SunPanelProps) {
  const dispatch = useAppDispatch();
  const { sky } = useAppSelector(selectSite);
  const { feed } = camera;
  const sun = feed?.sun;
  if (!feed) return null;
  const setSun = (next: SunFeed | null): void =>
    void dispatch(commandIssued({ kind: 'setFeed', cameraId: camera.id, feed: { ...feed, sun: next } }));
  if (!sun) return <NewSun cardWh={judge.modelOf(camera)?.power.batteryWh ?? null} onEntered={setSun} />;
  const { sunYear: year } = judgement;
  const tapped = judge.tappedHours(camera);
  const change = (changed: Partial<SunFeed>): void => setSun({ ...sun, ...changed });
  return (
    <Panel
      title="Battery and solar panel"
      aside={
        year
          ? year.shortMonths.length > 0
            ? `yield too low in ${monthNames(year.shortMonths)}`
            : year.unknownMonths.length > 0
              ? `${monthNames(year.unknownMonths)}: not known`
              : `${monthNames([year.worstMonth])} is the worst month`
          : undefined
      }
    >
      {year ? (
        <>
          <Suspense fallback={<div className="h-52" />}>
            <SunChart year={year} />
          </Suspense>
          <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
            <dt className="text-soft">the year</dt>
            <dd className="flex items-center gap-1.5">
              <Drop verdict={year.verdict} size={16} /> {VERDICT_WORDS[year.verdict]}
            </dd>
            <dt className="text-soft">autonomy</dt>
            <dd className="font-mono">{year.autonomyDays.toFixed(1)}</dd>
            <dt className="text-soft">streaming without a break, at night</dt>
            <dd className="font-mono">empty in {year.hoursOnConstantDraw.toFixed(1)} h</dd>
          </dl>
        </>
      ) : (
        <p className="text-soft">
          {sky.latitudeDeg === null
            ? 'Enter the latitude of the site: the solar yield depends on it.'
            : judge.modelOf(camera)
              ? 'Its model card has no watts by day, at night and in standby: enter them there.'
              : 'Choose its model card first: its watts are in it.'}
        </p>
      )}
      <div className="mt-3 grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-4">
        <NumberField
          label="Solar panel, Wp"
          value={sun.panelWp}
          range={FEED_RANGES.panelWp}
          onKeep={(panelWp) => change({ panelWp: panelWp ?? sun.panelWp })}
        />
        <NumberField
          label="Its tilt, °"
          value={sun.tiltDeg}
          range={FEED_RANGES.tiltDeg}
          onKeep={(tiltDeg) => change({ tiltDeg: tiltDeg ?? 0 })}
        />
        <NumberField
          label="Shade, %"
          value={sun.shade * 100}
          range={inPercent(FEED_RANGES.shade)}
          hint="trees, walls, a valley"
          onKeep={(percent) => change({ shade: (percent ?? 0) / 100 })}
        />
        <NumberField
          label="Battery, Wh"
          value={sun.batteryWh}
          range={FEED_RANGES.batteryWh}
          onKeep={(batteryWh) => change({ batteryWh: batteryWh ?? sun.batteryWh })}
        />
        <SelectField
          label="Its cells"
          value={sun.isLithium ? 'lithium' : 'lead'}
          onChange={(cells) => change(cells === 'lead' ? LEAD : LITHIUM)}
          options={[
            { value: 'lithium', label: 'lithium, 80 % used' },
            { value: 'lead', label: 'lead, 50 % used' },
          ]}
        />
        <NumberField
          label="Streaming, hours a day"
          value={tapped ?? sun.drawnHoursPerDay}
          range={FEED_RANGES.drawnHoursPerDay}
          hint={tapped === null ? 'planned' : 'as its taps say'}
          onKeep={(drawnHoursPerDay) => change({ drawnHoursPerDay: drawnHoursPerDay ?? 0 })}
        />
        <NumberField
          label="Price of the panel"
          value={sun.panelPrice}
          range={FEED_RANGES.price}
          isOptional
          onKeep={(panelPrice) => change({ panelPrice })}
        />
        <NumberField
          label="Price of the battery"
          value={sun.batteryPrice}
          range={FEED_RANGES.price}
          isOptional
          onKeep={(batteryPrice) => change({ batteryPrice })}
        />
        <NumberField
          label="Latitude of the site, °"
          value={sky.latitudeDeg}
          range={SKY_RANGES.latitudeDeg}
          isOptional
          hint="north positive"
          onKeep={(latitudeDeg) => void dispatch(commandIssued({ kind: 'setSky', sky: { ...sky, latitudeDeg } }))}
        />
      </div>
      <SkyFields />
      <Button className="mt-3" onClick={() => setSun(null)}>
        Remove panel and battery
      </Button>
    </Panel>
  );
}

/** [A] How panels are hung where nobody said otherwise; each of it stands in a field. */
const USUAL = {
  tiltDeg: 60,
  shade: 0,
  ...LITHIUM,
  drawnHoursPerDay: 1,
  mainsMonths: [],
  panelPrice: null,
  batteryPrice: null,
} as const;

/** Panel and battery have no usual size: nothing is worked out before both are entered. */
function NewSun({ cardWh, onEntered }: { cardWh: number | null; onEntered: (sun: SunFeed) => void }) {
  const [panelWp, setPanelWp] = useState<number | null>(null);
  const [batteryWh, setBatteryWh] = useState(cardWh);
  const enter = (panel: number | null, battery: number | null): void => {
    setPanelWp(panel);
    setBatteryWh(battery);
    if (panel !== null && battery !== null) onEntered({ ...USUAL, panelWp: panel, batteryWh: battery });
  };
  return (
    <Panel title="Battery and solar panel">
      <p className="text-soft">Enter its solar panel and its battery, and the year is computed.</p>
      <div className="mt-3 grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-4">
        <NumberField
          label="Solar panel, Wp"
          value={panelWp}
          range={FEED_RANGES.panelWp}
          isOptional
          onKeep={(panel) => enter(panel, batteryWh)}
        />
        <NumberField
          label="Battery, Wh"
          value={batteryWh}
          range={FEED_RANGES.batteryWh}
          isOptional
          hint={cardWh === null ? undefined : 'as on its model card'}
          onKeep={(battery) => enter(panelWp, battery)}
        />
      </div>
    </Panel>
  );
}
