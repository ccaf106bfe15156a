import { useState } from 'react';
import { POWER_WAY_WORDS, POWER_WAYS, type PowerWay } from '../../../core/base/ways.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Gear } from '../../../core/document/chapters/gear/gear.ts';
import type { Link } from '../../../core/document/chapters/links/link.ts';
import { MEDIUM_OF_WAY } from '../../../core/document/chapters/links/link.ts';
import type { Model } from '../../../core/document/chapters/models/model-card.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import { cameraSubject, gearSubject } from '../../../core/document/subject.ts';
import type { PowerJudge, PowerJudgement } from '../../../core/stations/power/index.ts';
import { feedsIn, movedTo, takenBy } from '../../../core/stations/power/index.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { GearDialog } from '../../things/gear/index.ts';
import { newLink } from '../../things/link/index.ts';
import { Button } from '../../ui/button.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/text-field.tsx';
import { FeedLinkFields } from './feed-link-fields.tsx';
import { RunView } from './run-view.tsx';
import { SwitchView } from './switch-view.tsx';

interface FeedPanelProps {
  readonly camera: Camera;
  readonly judge: PowerJudge;
  readonly judgement: PowerJudgement;
}

const CAUTIONS: Readonly<Record<PowerWay, string>> = {
  poe: '48 V can burn a bad joint. Outdoor runs need surge protection and earthing by local code.',
  passive: 'No negotiation: its voltage is on the cable whatever is connected. No home-made injectors.',
  dc: 'The supply plugs into a protected socket; only a licensed electrician opens fixed wiring.',
  usb: 'A certified supply, enclosed; cells need air and no sun.',
  solar: 'Lithium: no charging below 0 °C, no swollen cell, a base that does not burn.',
  mains: 'Mains is work for a licensed electrician: a protected circuit, an enclosed supply.',
};

export function FeedPanel({ camera, judge, judgement }: FeedPanelProps) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const [edited, setEdited] = useState<Gear | 'new' | null>(null);
  const model = judge.modelOf(camera);
  const way = camera.feed?.way ?? null;
  const { feedLink, feeder } = judgement;
  const setWay = (value: string): void => {
    const next = POWER_WAYS.find((one) => one === value);
    const sun = camera.feed?.sun ?? null;
    const charge = camera.feed?.charge ?? null;
    dispatch(commandIssued({ kind: 'setFeed', cameraId: camera.id, feed: next ? { way: next, sun, charge } : null }));
  };
  const join = (gearId: string): void => {
    const medium = way && MEDIUM_OF_WAY[way];
    if (!medium) return;
    const from = gearSubject(gearId);
    // Moved to other gear, a cable keeps its kind; its drawn way is another one then.
    const link: Link = feedLink ? movedTo(feedLink, gearId) : newLink(from, cameraSubject(camera.id), medium);
    dispatch(commandIssued({ kind: 'putLink', link }));
  };
  const feeders = way ? site.gear.filter((gear) => feedsIn(way, gear)) : [];
  return (
    <Panel title="Power source" aside={model ? `${nameOfModel(model)}: ${wattsOf(model)}` : 'no model is chosen yet'}>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-3">
        <SelectField
          label="Power source"
          value={way ?? ''}
          onChange={setWay}
          options={[
            { value: '', label: 'not decided' },
            ...POWER_WAYS.map((value) => ({
              value,
              label: `${POWER_WAY_WORDS[value]}${model && model.power.ways.length > 0 && !model.power.ways.includes(value) ? ' (not on its model card)' : ''}`,
            })),
          ]}
        />
        {way && MEDIUM_OF_WAY[way] && (
          <SelectField
            label="From"
            value={feeder?.id ?? ''}
            onChange={join}
            options={[
              ...(feeder ? [] : [{ value: '', label: 'nothing yet' }]),
              ...feeders.map(({ id, name }) => ({ value: id, label: name })),
            ]}
          />
        )}
        {way && MEDIUM_OF_WAY[way] && (
          <span className="flex items-end gap-2">
            {feeder && <Button onClick={() => setEdited(feeder)}>Edit</Button>}
            <Button onClick={() => setEdited('new')}>New gear</Button>
          </span>
        )}
      </div>
      {feedLink && <FeedLinkFields link={feedLink} />}
      {judgement.budget && feeder?.kind === 'switch' && <SwitchView gear={feeder} judge={judge} camera={camera} />}
      {judgement.cable && (
        <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
          <dt className="text-soft">voltage at the camera</dt>
          <dd className="font-mono">
            {judgement.cable.loadVolts === null
              ? 'none: the cable cannot carry it'
              : `${judgement.cable.loadVolts.toFixed(1)} V · loop resistance ${judgement.cable.loopOhm.toFixed(1)} Ω`}
          </dd>
          <dt className="text-soft">power lost in the cable</dt>
          <dd className="font-mono">
            {judgement.cable.lossW === null
              ? '–'
              : `${judgement.cable.lossW.toFixed(2)} W of ${judgement.cable.pseW?.toFixed(1)} W`}
          </dd>
        </dl>
      )}
      {judgement.run && <RunView run={judgement.run} />}
      {way && <p className="mt-3 text-small text-soft">{CAUTIONS[way]}</p>}
      {edited !== null && (
        <GearDialog
          edited={edited}
          onClose={() => setEdited(null)}
          onKept={(gear) => way && feedsIn(way, gear) && edited === 'new' && join(gear.id)}
        />
      )}
    </Panel>
  );
}

function wattsOf(model: Model): string {
  const { dayW, nightW } = model.power;
  if (dayW === null && nightW === null) return 'its watts are not known';
  const { isWhole, knownW } = takenBy(model);
  const night = nightW === null && !isWhole ? 'not known at night' : `${knownW} W at night`;
  return `${dayW === null ? 'not known' : `${dayW} W`} by day, ${night}`;
}
