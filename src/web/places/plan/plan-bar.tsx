import { Maximize2, Minus, MousePointer2, Plus, Ruler, Spline, Square } from 'lucide-react';
import { useRef, useState } from 'react';
import { WALL_MATERIALS, type WallMaterial } from '../../../core/base/plan-geometry.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { FileInput } from '../../ui/file-input.tsx';
import { PickButton } from '../../ui/pick-button.tsx';
import { takePlanPicture } from './plan-picture.ts';
import type { Tool } from './plan-tools.ts';

interface PlanBarProps {
  readonly tool: Tool;
  readonly onTool: (tool: Tool) => void;
  readonly material: WallMaterial;
  readonly onMaterial: (material: WallMaterial) => void;
  readonly zoom: number;
  readonly onZoom: (zoom: number) => void;
  readonly isDrawing: boolean;
  /** The name of what the next press puts down. */
  readonly placing: string | null;
  readonly onEnd: () => void;
  readonly onCancel: () => void;
}

const TOOL_WORDS: Readonly<Record<Tool, string>> = {
  move: 'Move',
  wall: 'Walls',
  route: 'Cable route',
  scale: 'Scale',
};
const ICONS = { move: MousePointer2, wall: Square, route: Spline, scale: Ruler } as const;
const HINTS: Readonly<Record<Tool, string>> = {
  move: 'Drag things to their place; arrow keys move what is selected.',
  wall: 'Click corner after corner; a double click, or Enter, ends the wall.',
  route: 'Click the way the cable takes, from its power source to the camera; Done ends it.',
  scale: 'Two fingers zoom in.',
};

/** What a finger can do beside. */
const TOUCH_HINT = 'Two fingers zoom.';

/** Tools of the drawing, each one with what to do with it. */
export function PlanBar(props: PlanBarProps) {
  const { tool, onTool, zoom, onZoom } = props;
  const dispatch = useAppDispatch();
  const { plan } = useAppSelector(selectSite);
  const file = useRef<HTMLInputElement>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const takeIn = async (chosen: File): Promise<void> => {
    const taken = await takePlanPicture(chosen, plan.widthM);
    if (!taken.ok) return setRefused(taken.error.message);
    setRefused(null);
    const heightM = Math.max(plan.heightM, taken.value.heightPx * taken.value.metresPerPx);
    dispatch(
      commandIssued({
        kind: 'setPlan',
        plan: { ...plan, heightM, picture: taken.value },
        what: `background picture ${chosen.name.slice(0, 80)} added`,
      }),
    );
    onTool('scale');
  };
  const tools: readonly Tool[] = plan.picture ? ['move', 'wall', 'route', 'scale'] : ['move', 'wall', 'route'];
  return (
    <div className="mb-2">
      <div className="flex flex-wrap items-center gap-1.5">
        {tools.map((value) => {
          const Icon = ICONS[value];
          return (
            <PickButton key={value} isPicked={tool === value} onPick={() => onTool(value)}>
              <Icon size={15} aria-hidden="true" /> {TOOL_WORDS[value]}
            </PickButton>
          );
        })}
        {tool === 'wall' && (
          <select
            aria-label="Wall of"
            value={props.material}
            onChange={(event) => props.onMaterial(WALL_MATERIALS.find((one) => one === event.target.value) ?? 'brick')}
            className="min-h-8 rounded-control border border-hair bg-paper px-2 pointer-coarse:min-h-11"
          >
            {WALL_MATERIALS.map((value) => (
              <option key={value}>{value}</option>
            ))}
          </select>
        )}
        {props.placing !== null && <Button onClick={props.onCancel}>Cancel</Button>}
        {props.isDrawing && tool !== 'move' && (
          <Button kind="main" onClick={props.onEnd}>
            Done
          </Button>
        )}
        <span className="ml-auto flex items-center gap-1.5">
          <Button onClick={() => file.current?.click()}>
            {plan.picture ? 'Replace the background picture' : 'Add a background picture'}
          </Button>
          {plan.picture && (
            <Button
              kind="quiet"
              onClick={() =>
                dispatch(
                  commandIssued({
                    kind: 'setPlan',
                    plan: { ...plan, picture: null },
                    what: 'background picture removed',
                  }),
                )
              }
            >
              Remove the background picture
            </Button>
          )}
          <FileInput
            ref={file}
            label="Background picture"
            accept=".png,.jpg,.jpeg,.svg,image/png,image/jpeg,image/svg+xml"
            onFile={(chosen) => void takeIn(chosen)}
          />
          <Button aria-label="Zoom out" disabled={zoom <= 1} onClick={() => onZoom(Math.max(1, zoom / 1.5))}>
            <Minus size={15} aria-hidden="true" />
          </Button>
          <Button aria-label="Zoom in" disabled={zoom >= 6} onClick={() => onZoom(Math.min(6, zoom * 1.5))}>
            <Plus size={15} aria-hidden="true" />
          </Button>
          <Button aria-label="Whole plan" disabled={zoom === 1} onClick={() => onZoom(1)}>
            <Maximize2 size={15} aria-hidden="true" />
          </Button>
        </span>
      </div>
      <p role="status" className={`text-small ${props.placing === null ? 'text-soft' : 'font-strong'}`}>
        {props.placing === null
          ? `${HINTS[tool]} ${TOUCH_HINT}`
          : `Click where ${props.placing} goes. By keyboard: arrows move the point, Enter sets it.`}
      </p>
      {refused && (
        <p role="alert" className="text-small text-brick">
          {refused}
        </p>
      )}
    </div>
  );
}
