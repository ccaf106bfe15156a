import { useCallback, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Point, Wall, WallMaterial } from '../../../core/base/plan-geometry.ts';
import { sayMany } from '../../../core/base/say.ts';
import type { Site } from '../../../core/document/site.ts';
import { linkSubject } from '../../../core/document/subject.ts';
import { positionOf } from '../../../core/document/subjects.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { type Drawing, NOTHING_DRAWN, type Tool } from './plan-tools.ts';

/** What is in hand on the plan: the tool, what is selected, what is being drawn, and what becomes of it. */
export function usePlanDrawing(site: Site) {
  const dispatch = useAppDispatch();
  const [asked] = useSearchParams();
  const routed = asked.get('route');
  const [tool, setTool] = useState<Tool>(routed ? 'route' : 'move');
  const [selected, setSelected] = useState<string | null>(routed ? linkSubject(routed) : null);
  const [drawing, setDrawing] = useState<Drawing>(NOTHING_DRAWN);
  const [material, setMaterial] = useState<WallMaterial>('brick');
  /** Things that the next presses put into their places, the first of them next. */
  const [queue, setQueue] = useState<readonly string[]>([]);
  const placing = queue[0] ?? null;
  const [scaled, setScaled] = useState<readonly [Point, Point] | null>(null);
  const link = selected?.startsWith('link:') ? site.links.find(({ id }) => linkSubject(id) === selected) : undefined;
  const ends = link ? { from: positionOf(site, link.from), to: positionOf(site, link.to) } : null;
  const pickTool = (next: Tool): void => {
    setTool(next);
    setQueue([]);
    setDrawing(NOTHING_DRAWN);
  };
  const routeTo = useCallback((linkId: string) => {
    setSelected(linkSubject(linkId));
    setTool('route');
    setDrawing(NOTHING_DRAWN);
  }, []);
  /** A route begins where the cable is plugged in, and ends at what it feeds. */
  const routeOf = (points: readonly Point[]): readonly Point[] =>
    ends?.from && ends.to ? [ends.from, ...points, ends.to] : points;

  const onPoint = (point: Point): void => {
    if (placing !== null) {
      dispatch(commandIssued({ kind: 'place', subject: placing, position: point }));
      setSelected(placing);
      setQueue(queue.slice(1));
      setDrawing(NOTHING_DRAWN);
      return;
    }
    const last = drawing.points.at(-1);
    if (last && last.xM === point.xM && last.yM === point.yM) return;
    const points = [...drawing.points, point];
    if (tool === 'scale' && points.length === 2) {
      const [a, b] = points;
      if (a && b) setScaled([a, b]);
      setDrawing(NOTHING_DRAWN);
    } else setDrawing({ points, cursor: point });
  };
  const onEnd = (): void => {
    if (tool === 'wall' && drawing.points.length > 1) {
      const walls: Wall[] = drawing.points
        .slice(1)
        .map((to, at) => ({ id: newId('wall'), name: '', from: drawing.points[at] ?? to, to, material }));
      const what = `${sayMany(walls.length, 'wall')} of ${material} drawn`;
      dispatch(commandIssued({ kind: 'setPlan', plan: { ...site.plan, walls: [...site.plan.walls, ...walls] }, what }));
    }
    if (tool === 'route' && link) {
      const route = routeOf(drawing.points);
      if (route.length > 1) dispatch(commandIssued({ kind: 'putLink', link: { ...link, route } }));
      setTool('move');
    }
    setDrawing(NOTHING_DRAWN);
  };
  const onRemove = (): void => {
    if (!selected) return;
    if (selected.startsWith('wall:')) {
      dispatch(commandIssued({ kind: 'removeWall', wallId: selected.slice('wall:'.length) }));
    } else if (link) dispatch(commandIssued({ kind: 'putLink', link: { ...link, route: null } }));
    else dispatch(commandIssued({ kind: 'place', subject: selected, position: null }));
    setSelected(null);
  };
  const drawnRoute =
    tool === 'route' && link ? routeOf(drawing.cursor ? [...drawing.points, drawing.cursor] : drawing.points) : null;

  // A route is drawn from where the cable is plugged in.
  const shown: Drawing =
    tool === 'route' && link && ends?.from ? { ...drawing, points: [ends.from, ...drawing.points] } : drawing;
  return {
    tool,
    pickTool,
    placing,
    /** The next presses on the sheet put these where they go, one after the other. */
    placeNext: (subjects: readonly string[]): void => {
      setTool('move');
      setDrawing(NOTHING_DRAWN);
      setQueue(subjects);
    },
    selected,
    select: setSelected,
    material,
    setMaterial,
    shown,
    drawnRoute,
    isDrawing: placing !== null || drawing.points.length > 0 || (tool === 'route' && link !== undefined),
    routeTo,
    onPoint,
    onCursor: (cursor: Point | null) => setDrawing((before) => ({ ...before, cursor })),
    onEnd,
    onRemove,
    /** Two points whose distance is asked for. */
    scaled,
    scaledTo: (factor: number | null): void => {
      if (factor !== null) dispatch(commandIssued({ kind: 'scalePlan', factor }));
      setScaled(null);
      if (factor !== null) pickTool('move');
    },
  };
}
