import { useCallback, useEffect, useRef, useState } from 'react';
import { areAlike } from '../../../core/base/alike.ts';
import type { Point } from '../../../core/base/plan-geometry.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Site } from '../../../core/document/site.ts';
import type { WedgeShape } from '../../../core/optics/view-wedge.ts';
import { wedgeInputsOf } from '../../../core/site/wedges.ts';
import { planWorker } from '../../workers/workers.ts';

export type Wedges = ReadonlyMap<string, readonly WedgeShape[]>;

/**
 * What every camera sees of the plan, from the worker. While one is dragged only its own is asked for, one question at a
 * time, so that answers never queue up behind the hand.
 */
export function useWedges(site: Site): {
  readonly wedges: Wedges;
  readonly follow: (camera: Camera, at: Point) => void;
} {
  const [wedges, setWedges] = useState<Wedges>(new Map());
  const { cameras, models, assumptions, plan } = site;
  /** What each camera's view was asked for: one that stands as it did is not asked for again. */
  const asked = useRef(new Map<string, readonly unknown[]>());
  useEffect(() => {
    let isWanted = true;
    const changed = cameras.flatMap((camera) => {
      const from = [camera, models, assumptions, plan.walls];
      const isSame = areAlike(asked.current.get(camera.id), from);
      return isSame ? [] : [{ id: camera.id, from, inputs: wedgeInputsOf({ models, assumptions }, camera) }];
    });
    if (changed.length === 0) return;
    void planWorker()
      .wedges(
        changed.flatMap(({ inputs }) => inputs),
        plan.walls,
      )
      .then((shapes) => {
        if (!isWanted) return;
        let at = 0;
        const found: [string, readonly WedgeShape[]][] = changed.map(({ id, from, inputs }) => {
          asked.current.set(id, from);
          at += inputs.length;
          return [id, shapes.slice(at - inputs.length, at).flat()];
        });
        setWedges((before) => new Map([...before, ...found]));
      });
    return () => {
      isWanted = false;
    };
  }, [cameras, models, assumptions, plan.walls]);

  const asking = useRef<{ readonly camera: Camera; readonly at: Point } | null>(null);
  const isBusy = useRef(false);
  const ask = useCallback(() => {
    const next = asking.current;
    if (!next || isBusy.current) return;
    asking.current = null;
    isBusy.current = true;
    void planWorker()
      .wedges(wedgeInputsOf({ models, assumptions }, next.camera, next.at), plan.walls)
      .then((shapes) => {
        isBusy.current = false;
        asked.current.delete(next.camera.id);
        setWedges((before) => new Map(before).set(next.camera.id, shapes.flat()));
        ask();
      });
  }, [models, assumptions, plan.walls]);
  const follow = useCallback(
    (camera: Camera, at: Point) => {
      asking.current = { camera, at };
      ask();
    },
    [ask],
  );
  return { wedges, follow };
}
