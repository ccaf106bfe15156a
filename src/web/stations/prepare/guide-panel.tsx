import { lazy, Suspense, useState } from 'react';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import { LED_ROLE_WORDS, LED_ROLES } from '../../../core/firmware/guide.ts';
import { sayWait } from '../../../core/firmware/procedure-words.ts';
import { Button } from '../../ui/button.tsx';
import { LedScore } from '../../ui/led-score.tsx';
import { Panel } from '../../ui/panel.tsx';
import { useSiteView } from '../use-site-view.ts';

const GuideDialog = lazy(async () => ({ default: (await import('../../things/model/index.ts')).GuideDialog }));

/** How its model is reflashed, as it lies on the model card. */
export function GuidePanel({ camera }: { camera: Camera }) {
  const model = useSiteView().modelOf(camera);
  const [isEdited, setIsEdited] = useState(false);
  const guide = model?.reflash ?? null;
  return (
    <Panel
      title="Reflash guide of its model"
      aside={model ? nameOfModel(model) : 'no model card yet'}
      actions={
        model && (
          <Button className="text-small" onClick={() => setIsEdited(true)}>
            {guide ? 'Edit' : 'Write it'}
          </Button>
        )
      }
    >
      {guide ? (
        <>
          <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-1">
            <dt className="text-soft">file</dt>
            <dd className="font-mono break-all">{guide.imageName || 'not known'}</dd>
            <dt className="text-soft">going back</dt>
            <dd className="font-mono break-all">{guide.backName || 'not by SD card'}</dd>
            <dt className="text-soft">card</dt>
            <dd>
              {guide.fileSystem}
              {guide.limitGiB === null ? '' : `, up to ${guide.limitGiB} GiB`}
              {guide.cardWay && `; ${guide.cardWay}`}
            </dd>
            <dt className="text-soft">button</dt>
            <dd>
              {guide.button || 'not known'}, {guide.holdS} s
            </dd>
            <dt className="text-soft">writes for</dt>
            <dd>
              {sayWait(guide.writeFromS)} to {sayWait(guide.writeToS)}
            </dd>
          </dl>
          <ul className="mt-2 grid grid-cols-2 gap-x-4 gap-y-1">
            {LED_ROLES.map((role) => (
              <li key={role} className="text-small">
                <span className="text-soft">{LED_ROLE_WORDS[role]}</span>
                <LedScore sign={guide.lamps[role]} />
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p className="text-soft">
          {model
            ? 'Button, file name, SD card and LED: written once, it serves every camera of this model.'
            : 'Choose its model card first: the reflash guide is part of it.'}
        </p>
      )}
      {isEdited && model && (
        <Suspense fallback={null}>
          <GuideDialog model={model} onClose={() => setIsEdited(false)} />
        </Suspense>
      )}
    </Panel>
  );
}
