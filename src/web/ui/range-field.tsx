import { useId } from 'react';

interface RangeFieldProps {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly said: string;
  readonly onHold: (value: number) => void;
  readonly onLetGo: () => void;
}

/** A number one tries out: followed while it moves, kept when it is let go. */
export function RangeField({ label, value, min, max, step, said, onHold, onLetGo }: RangeFieldProps) {
  const id = useId();
  return (
    <div className="min-w-0">
      <span className="flex items-baseline justify-between gap-2 text-small">
        <label htmlFor={id} className="text-soft">
          {label}
        </label>
        <output htmlFor={id} className="font-mono">
          {said}
        </output>
      </span>
      <input
        id={id}
        type="range"
        min={min}
        max={max}
        step={step}
        value={value}
        aria-valuetext={said}
        onChange={(event) => onHold(Number(event.target.value))}
        onPointerUp={onLetGo}
        onKeyUp={onLetGo}
        onBlur={onLetGo}
        className="block h-6 w-full accent-verdigris pointer-coarse:h-11"
      />
    </div>
  );
}
