import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { StationFrame } from '../station-frame.tsx';
import { ChooseBench } from './choose-bench.tsx';
import { NeedPanel } from './need-panel.tsx';

/** The Choose station: what the picture is for, which model gives it, how it hangs. */
export function ChoosePage() {
  return <StationFrame station="choose">{(camera) => <Choose key={camera.id} camera={camera} />}</StationFrame>;
}

function Choose({ camera }: { camera: Camera }) {
  if (camera.need) return <ChooseBench camera={camera} need={camera.need} />;
  return (
    <div className="max-w-xl">
      <NeedPanel camera={camera} />
      <p className="mt-3 text-soft">With a need entered, the models are compared, and the place is drawn to scale.</p>
    </div>
  );
}
