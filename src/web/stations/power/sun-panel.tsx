import { lazy, Suspense } from 'react';
import { inPercent } from '../../../core/base/range.ts';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { FEED_RANGES } from '../../../core/document/chapters/cameras/feed.ts';
import { SKY_RANGES } from '../../../core/document/chapters/sky/sky.ts';
import { LEAD, LITHIUM, monthNames } from '../../../core/power/sun-budget.ts';
import type { SunFeed } from '../../../core/power/sun-feed.ts';
import type { PowerJudge, PowerJudgement } from '../../../core/stations/power/power-judgement.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Drop } from '../../ui/drop.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/text-field.tsx';

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
  if (!feed || !sun) return null;
  const { sunYear: year } = judgement;
  const tapped = judge.tappedHours(camera);
  const setSun = (next: SunFeed): void =>
    void dispatch(commandIssued({ kind: 'setFeed', cameraId: camera.id, feed: { ...feed, sun: next } }));
  const change = (changed: Partial<SunFeed>): void => setSun({ ...sun, ...changed });
  return (
    <Panel
      title="Battery and panel"
      aside={
        year
          ? year.shortMonths.length > 0
            ? `fails in ${monthNames(year.shortMonths)}`
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
            <dt className="text-soft">dark days it lasts</dt>
            <dd className="font-mono">{year.autonomyDays.toFixed(1)}</dd>
            <dt className="text-soft">drawn without a break, at night</dt>
            <dd className="font-mono">empty in {year.hoursOnConstantDraw.toFixed(1)} h</dd>
          </dl>
        </>
      ) : (
        <p className="text-soft">
          {sky.latitudeDeg === null
            ? 'Enter the latitude of the site: the sun depends on it.'
            : 'Its model card says no watts: enter them there.'}
        </p>
      )}
      <div className="mt-3 grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-4">
        <NumberField
          label="Panel, Wp"
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
          label="Drawn, hours a day"
          value={tapped ?? sun.drawnHoursPerDay}
          range={FEED_RANGES.drawnHoursPerDay}
          hint={tapped === null ? 'planned' : 'as its taps say'}
          onKeep={(drawnHoursPerDay) => change({ drawnHoursPerDay: drawnHoursPerDay ?? 0 })}
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
    </Panel>
  );
}
