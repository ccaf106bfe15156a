import type { TapUse } from '../../../core/base/tap-uses.ts';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import type { Destination } from '../../../core/document/chapters/destinations/destination.ts';
import { WAY_WORDS, wayFacts, wayFor } from '../../../core/stations/tap/index.ts';
import { useSiteView } from '../use-site-view.ts';

interface WayLineProps {
  readonly camera: Camera;
  readonly stream: Stream;
  readonly destination: Destination;
  readonly use: TapUse;
}

/** How a destination should have the camera, and why: folded, since one looks once. */
export function WayLine({ camera, stream, destination, use }: WayLineProps) {
  const view = useSiteView();
  const { way, verdict, reasons } = wayFor(wayFacts(view, camera, stream, destination, use));
  return (
    <details className="mt-1 text-small">
      <summary>
        <span className="text-soft">Add it </span>
        <b>{WAY_WORDS[way]}</b>
        {verdict !== 'ok' && <span className="text-soft"> · {VERDICT_WORDS[verdict]}</span>}
      </summary>
      <ul className="list-disc pl-5 text-soft">
        {reasons.map((reason) => (
          <li key={reason}>{reason}</li>
        ))}
      </ul>
    </details>
  );
}
