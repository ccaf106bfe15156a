import { useState } from 'react';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Mounting } from '../../../core/document/chapters/cameras/mounting.ts';
import type { Need } from '../../../core/document/chapters/cameras/need.ts';
import type { Model } from '../../../core/document/chapters/models/model-card.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import { wholeLenses } from '../../../core/optics/lens.ts';
import { zoomRange } from '../../../core/optics/lens-view.ts';
import { lookHeightM, mountingOf, serveBest } from '../../../core/site/needs.ts';
import { viewOf } from '../../../core/site/site-view.ts';
import {
  chooseFacts,
  dearerWorthIt,
  judgeChoice,
  modelAsSeen,
  type SeenStream,
  seenStreamOf,
} from '../../../core/stations/choose/index.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { CameraFindings } from '../../things/finding/index.ts';
import { Button } from '../../ui/button.tsx';
import { Drop } from '../../ui/drop.tsx';
import { FindingList } from '../../ui/finding-card.tsx';
import { Panel } from '../../ui/panel.tsx';
import { RangeField } from '../../ui/range-field.tsx';
import { type Draft, useDraft } from '../../ui/use-draft.ts';
import { CandidatesTable } from './candidates-table.tsx';
import { NeedPanel } from './need-panel.tsx';
import { SeenPictures } from './seen-pictures.tsx';
import { SideView } from './side-view.tsx';
import { TopView } from './top-view.tsx';

/** What is tried out: kept in the document when it is let go. */
interface Tried {
  readonly mounting: Mounting;
  readonly distanceM: number;
}

export function ChooseBench({ camera, need: keptNeed }: { camera: Camera; need: Need }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const { assumptions } = site;
  const candidates = candidatesOf(camera).flatMap((id) => site.models.find((model) => model.id === id) ?? []);
  const [looked, setLooked] = useState<string | null>(null);
  const model = candidates.find(({ id }) => id === (looked ?? camera.modelId)) ?? candidates[0];

  const kept: Tried = {
    mounting: mountingOf(camera, assumptions, model),
    distanceM: keptNeed.distanceM,
  };
  const tried = useDraft<Tried>(kept, ({ mounting, distanceM }) => {
    if (mounting !== kept.mounting) dispatch(commandIssued({ kind: 'setMounting', cameraId: camera.id, mounting }));
    if (distanceM !== kept.distanceM)
      dispatch(commandIssued({ kind: 'setNeed', cameraId: camera.id, need: { ...keptNeed, distanceM } }));
  });
  const { mounting, distanceM } = tried.value;
  const need = distanceM === keptNeed.distanceM ? keptNeed : { ...keptNeed, distanceM };

  // Where nobody hung it, each model is weighed as it would usually hang.
  const hung = camera.mounting === null && !tried.isHeld ? null : mounting;
  const seenStream = useSeenStream(camera);
  const weighed = candidates.map((one) => ({
    model: one,
    facts: chooseFacts(need, one, hung, site, one.id === camera.modelId ? seenStream : null),
  }));
  const asSeen = (one: Model): Model => (one.id === camera.modelId ? modelAsSeen(one, seenStream) : one);
  const seen = candidates.flatMap((one) =>
    (serveBest(asSeen(one), need, mounting, assumptions)?.all ?? []).map((service, lensAt) => ({
      model: one,
      lensAt,
      service,
    })),
  );
  const facts = weighed.find((one) => one.model === model)?.facts;
  const dearer = dearerWorthIt(weighed.map((one) => one.facts));
  const findings = facts ? judgeChoice(facts).findings : [];

  return (
    <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,64fr)_minmax(0,36fr)]">
      <div className="flex min-w-0 flex-col gap-4 max-lg:order-2">
        {model && wholeLenses(model).length > 0 ? (
          <Bench
            camera={camera}
            need={need}
            model={asSeen(model)}
            tried={tried}
            lightReachM={facts?.lightReachM ?? null}
          />
        ) : (
          <Panel title="To scale">
            <p className="text-soft">
              {model
                ? `The model card of ${nameOfModel(model)} has too little about its lens: enter its resolution, and its horizontal angle of view or sensor and focal length, to draw its picture.`
                : 'Add a model to compare, and its picture is drawn here.'}
            </p>
          </Panel>
        )}
        {seen.length > 0 && <SeenPictures need={need} seen={seen} />}
      </div>
      <div className="flex min-w-0 flex-col gap-4 max-lg:order-1">
        <NeedPanel camera={camera} />
        {dearer && (
          <section
            aria-label="Is the dearer one worth it"
            className="border-l-[3px] border-verdigris bg-verdigris-wash px-3 py-2"
          >
            <h2 className="text-base">{dearer.title}</h2>
            <p className="text-small">{dearer.because}</p>
          </section>
        )}
        <CandidatesTable camera={camera} weighed={weighed} looked={model?.id ?? null} onLook={setLooked} />
        {model && (
          <Panel title={`Findings for ${nameOfModel(model)}`}>
            {findings.length > 0 ? (
              model.id === camera.modelId ? (
                <CameraFindings cameraId={camera.id} findings={findings} />
              ) : (
                <FindingList findings={findings} />
              )
            ) : (
              <p className="flex items-center gap-2">
                <Drop verdict="ok" /> No open findings for it here.
              </p>
            )}
          </Panel>
        )}
      </div>
    </div>
  );
}

/** What a probe measured of its main stream. */
function useSeenStream(camera: Camera): SeenStream | null {
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  return seenStreamOf(camera, viewOf(site, index).factsOf);
}

/** Those that are weighed, and the one that is chosen. */
const candidatesOf = ({ candidates, modelId }: Camera): readonly string[] =>
  modelId === null || candidates.includes(modelId) ? candidates : [modelId, ...candidates];

interface BenchProps {
  readonly camera: Camera;
  readonly need: Need;
  readonly model: Model;
  readonly tried: Draft<Tried>;
  readonly lightReachM: number | null;
}

function Bench({ camera, need, model, tried, lightReachM }: BenchProps) {
  const { assumptions } = useAppSelector(selectSite);
  const [isFromAbove, setIsFromAbove] = useState(false);
  const { mounting, distanceM } = tried.value;
  const service = serveBest(model, need, mounting, assumptions);
  if (!service) return null;
  const { best, all } = service;
  const targetHeightM = lookHeightM(need, assumptions);
  const zooming = all.toSorted((a, b) => zoomRange(b.view.lens) - zoomRange(a.view.lens))[0] ?? best;
  const range = zoomRange(zooming.view.lens);
  const hold = (change: Partial<Mounting>): void =>
    tried.hold({ ...tried.value, mounting: { ...mounting, ...change } });
  return (
    <Panel
      title={`${isFromAbove ? 'From above' : 'From the side'}, to scale`}
      aside={
        isFromAbove
          ? nameOfModel(model)
          : `${nameOfModel(model)} · drag the camera, its tilt, the figure; or move them by keyboard`
      }
      actions={
        <Button onClick={() => setIsFromAbove(!isFromAbove)}>{isFromAbove ? 'From the side' : 'From above'}</Button>
      }
    >
      {isFromAbove ? (
        <TopView model={model} need={need} mounting={mounting} services={all} targetHeightM={targetHeightM} />
      ) : (
        <SideView
          need={need}
          mounting={mounting}
          service={best}
          others={all.filter((one) => one !== best)}
          targetHeightM={targetHeightM}
          lightReachM={need.atNight ? lightReachM : null}
          onMounting={(next) => tried.hold({ ...tried.value, mounting: next })}
          onDistance={(next) => tried.hold({ ...tried.value, distanceM: next })}
          onLetGo={tried.letGo}
        />
      )}
      <div className="mt-1 grid grid-cols-2 gap-x-5 gap-y-1 sm:grid-cols-4">
        <RangeField
          label="Height"
          value={mounting.heightM}
          min={0.5}
          max={8}
          step={0.1}
          said={`${mounting.heightM} m`}
          onHold={(heightM) => hold({ heightM })}
          onLetGo={tried.letGo}
        />
        <RangeField
          label="Tilt down"
          value={mounting.tiltDownDeg}
          min={-10}
          max={90}
          step={1}
          said={`${mounting.tiltDownDeg}°`}
          onHold={(tiltDownDeg) => hold({ tiltDownDeg })}
          onLetGo={tried.letGo}
        />
        <RangeField
          label="Target at"
          value={distanceM}
          min={1}
          max={Math.max(40, distanceM)}
          step={0.5}
          said={`${distanceM} m`}
          onHold={(next) => tried.hold({ ...tried.value, distanceM: next })}
          onLetGo={tried.letGo}
        />
        {range > 1.001 ? (
          <div>
            <RangeField
              label="Zoom"
              value={zooming.view.zoom}
              min={1}
              max={Number(range.toFixed(2))}
              step={0.1}
              said={`${zooming.view.zoom.toFixed(1)}×`}
              onHold={(zoom) => hold({ zoom })}
              onLetGo={tried.letGo}
            />
            {mounting.zoom === null ? (
              <p className="text-small text-soft">as far as the zone stays in the picture</p>
            ) : (
              <Button
                kind="quiet"
                className="text-small"
                onClick={() => tried.set({ ...tried.value, mounting: { ...mounting, zoom: null } })}
              >
                Fit to the zone
              </Button>
            )}
          </div>
        ) : (
          <p className="self-center text-small text-soft">Its lens does not zoom.</p>
        )}
      </div>
      {best.view.isBeyondModel && (
        <p className="mt-2 text-small text-brass">
          {Math.round(best.view.hfovDeg)}° is wider than the formula covers:{' '}
          {best.view.lens.projection === 'pinhole'
            ? 'say in its model card whether it is a fisheye, and enter the measured angle of view.'
            : 'measure the angle of view and enter it in the model card.'}
        </p>
      )}
      {camera.mounting === null && (
        <p className="mt-2 text-small text-soft">
          Assumed: at 3 m, aimed at the target. Drag it to its mounting position.
        </p>
      )}
    </Panel>
  );
}
