import { useState } from 'react';
import { sayFps, sayRate, sayShare } from '../../../../core/base/say.ts';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { compareWays, type MeasuredWay } from '../../../../core/stations/tap/index.ts';
import { Panel } from '../../../ui/panel.tsx';
import { SelectField } from '../../../ui/text-field.tsx';
import { useSiteView } from '../../use-site-view.ts';

const ROWS: readonly { readonly label: string; readonly said: (way: MeasuredWay) => string }[] = [
  { label: 'plays', said: ({ gives }) => (gives === null ? 'not probed' : gives ? 'yes' : 'no') },
  { label: 'codec', said: ({ facts }) => facts.codec?.value ?? '–' },
  {
    label: 'size',
    said: ({ facts }) => (facts.width && facts.height ? `${facts.width.value}×${facts.height.value}` : '–'),
  },
  { label: 'frame rate', said: ({ facts }) => (facts.fps ? sayFps(facts.fps.value) : '–') },
  { label: 'rate', said: ({ facts }) => (facts.bitrateKbps ? sayRate(facts.bitrateKbps.value) : '–') },
  { label: 'key-frame interval', said: ({ keyFrameS }) => (keyFrameS === null ? '–' : `${keyFrameS.toFixed(1)} s`) },
  { label: 'lost', said: ({ lossRatio }) => (lossRatio === null ? '–' : sayShare(lossRatio)) },
];

/** Through the box, or straight to the camera: both measured, side by side. */
export function TwoWays({ camera }: { camera: Camera }) {
  const view = useSiteView();
  const [otherId, setOtherId] = useState('');
  const others = view.site.cameras.filter(({ id, host }) => id !== camera.id && host !== '' && host !== camera.host);
  const other = others.find(({ id }) => id === otherId);
  const compared = other ? compareWays(view, camera, other) : null;
  return (
    <Panel title="Through the recorder, or directly">
      {others.length === 0 ? (
        <p className="text-small text-soft">
          If the camera can be reached directly, add it to the site by its own address and probe it: then both are
          compared here.
        </p>
      ) : (
        <SelectField
          label="The same camera, directly"
          className="w-64"
          value={otherId}
          onChange={setOtherId}
          options={[
            { value: '', label: 'not compared' },
            ...others.map(({ id, name }) => ({ value: id, label: name })),
          ]}
        />
      )}
      {compared && (
        <>
          <table className="mt-2 w-full text-left">
            <thead>
              <tr className="text-small text-soft">
                <th scope="col" className="font-normal" />
                <th scope="col">through the recorder</th>
                <th scope="col">straight</th>
              </tr>
            </thead>
            <tbody>
              {ROWS.map(({ label, said }) => (
                <tr key={label} className="border-t border-grid">
                  <th scope="row" className="py-0.5 font-normal text-soft">
                    {label}
                  </th>
                  <td className="font-mono">{said(compared.through)}</td>
                  <td className="font-mono">{said(compared.straight)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-2">
            <b>
              {compared.better === null
                ? 'Not known yet'
                : compared.better === 'through'
                  ? 'Pull it through the recorder'
                  : 'Pull it directly'}
            </b>
          </p>
          <ul className="list-disc pl-5 text-small text-soft">
            {compared.reasons.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </ul>
        </>
      )}
    </Panel>
  );
}
