import type { KeyboardEvent, PointerEvent } from 'react';

interface KnobProps {
  readonly label: string;
  readonly said: string;
  readonly at: { readonly x: number; readonly y: number };
  readonly value: number;
  readonly range: readonly [number, number];
  readonly radius: number;
  readonly onStep: (steps: number) => void;
  readonly onDrag: (event: PointerEvent) => void;
  readonly onLetGo: () => void;
}

const STEPS: Readonly<Record<string, number>> = {
  ArrowUp: 1,
  ArrowRight: 1,
  ArrowDown: -1,
  ArrowLeft: -1,
  PageUp: 5,
  PageDown: -5,
};

/** Something of the drawing that is taken hold of, by pointer or by keys. */
export function Knob({ label, said, at, value, range, radius, onStep, onDrag, onLetGo }: KnobProps) {
  const onKeyDown = (event: KeyboardEvent): void => {
    const steps = STEPS[event.key];
    if (steps === undefined) return;
    event.preventDefault();
    onStep(steps);
  };
  return (
    <circle
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={value}
      aria-valuemin={range[0]}
      aria-valuemax={range[1]}
      aria-valuetext={said}
      cx={at.x}
      cy={at.y}
      r={radius}
      fill="transparent"
      className="cursor-grab stroke-transparent hover:stroke-verdigris focus-visible:stroke-verdigris focus-visible:outline-none"
      strokeWidth="1.4"
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => {
        if (event.currentTarget.hasPointerCapture(event.pointerId)) onDrag(event);
      }}
      onPointerUp={onLetGo}
      onPointerCancel={onLetGo}
      onKeyDown={onKeyDown}
      onKeyUp={onLetGo}
    />
  );
}
