import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { ChargeFields } from '../../things/old-phone/index.ts';
import { Panel } from '../../ui/panel.tsx';

/** A handset lives on its charger: how full, how warm, how round. */
export const ChargePanel = ({ camera }: { camera: Camera }) => (
  <Panel title="On its charger" aside="held between 40 and 80 % a cell lasts">
    <div className="grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-3">
      <ChargeFields camera={camera} />
    </div>
  </Panel>
);
