import { memo, type RefObject, useImperativeHandle } from 'react';
import { Group } from 'react-konva';
import type { Point } from '../../../core/base/plan-geometry.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Site } from '../../../core/document/site.ts';
import { cameraSubject } from '../../../core/document/subject.ts';
import { type Colours, PlanWedge, SHEETS } from './plan-items.tsx';
import { useWedges, type Wedges } from './use-wedges.ts';

/** What the page may ask of the sheet, past everything that would be drawn anew with a state of its own. */
export interface WedgeHandle {
  /** What a camera sees from where it is dragged to. */
  readonly follow: (camera: Camera, at: Point) => void;
  /** All that is seen, as it is drawn now. */
  readonly drawn: () => Wedges;
}

interface ViewsSheetProps {
  readonly handle: RefObject<WedgeHandle | null>;
  readonly site: Site;
  readonly scale: number;
  readonly colours: Colours;
}

const NO_SHAPES: readonly never[] = []; // one object: a fresh one would draw every camera anew

/** All views, beneath everything that is written. */
export const ViewsSheet = memo(function ViewsSheet({ handle, site, scale, colours }: ViewsSheetProps) {
  const { wedges, follow } = useWedges(site);
  useImperativeHandle(handle, () => ({ follow, drawn: () => wedges }), [follow, wedges]);
  return (
    <Group id={SHEETS.views} listening={false}>
      {site.cameras.map(({ id, position }) =>
        position ? (
          <PlanWedge
            key={id}
            subject={cameraSubject(id)}
            position={position}
            scale={scale}
            colours={colours}
            shapes={wedges.get(id) ?? NO_SHAPES}
          />
        ) : null,
      )}
    </Group>
  );
});
