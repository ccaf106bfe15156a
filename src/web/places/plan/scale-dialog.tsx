import { useState } from 'react';
import type { Point } from '../../../core/base/plan-geometry.ts';
import { sayCount } from '../../../core/base/say.ts';
import { type DrawnPlan, isSheet } from '../../../core/document/chapters/plan/drawn-plan.ts';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { TextField } from '../../ui/text-field.tsx';
import { typedNumber } from '../../ui/typed-number.ts';

interface ScaleDialogProps {
  readonly points: readonly [Point, Point];
  readonly plan: Pick<DrawnPlan, 'widthM' | 'heightM'>;
  readonly onClose: () => void;
  readonly onScale: (factor: number) => void;
}

/** Two points and a length: from these everything on the plan gets its metres. */
export function ScaleDialog({ points, plan, onClose, onScale }: ScaleDialogProps) {
  const [a, b] = points;
  const drawnM = Math.hypot(b.xM - a.xM, b.yM - a.yM);
  const [typed, setTyped] = useState('');
  const lengthM = typedNumber(typed) ?? 0;
  const factor = lengthM / drawnM;
  const error =
    typed.trim() === ''
      ? null
      : !(lengthM > 0)
        ? 'A length above 0 m.'
        : lengthM > 1000
          ? 'Up to 1,000 m: a site is a house and its land.'
          : drawnM < 0.05
            ? 'The two points are the same: choose two far apart.'
            : !isSheet(plan.widthM * factor, plan.heightM * factor)
              ? `The whole picture would be ${sayCount(plan.widthM * factor)} × ${sayCount(plan.heightM * factor)} m: choose points farther apart, or check the length.`
              : null;
  return (
    <DialogFrame
      title="How far apart are they?"
      description="Two corners of the house, a door, a parked car: the longer, the more accurate."
      isOpen
      onOpenChange={onClose}
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (error === null && lengthM > 0) onScale(factor);
        }}
      >
        <TextField
          label="Length, m"
          inputMode="decimal"
          autoFocus
          value={typed}
          error={error}
          onChange={(event) => setTyped(event.target.value)}
        />
        <span className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button kind="main" type="submit">
            Set the scale
          </Button>
        </span>
      </form>
    </DialogFrame>
  );
}
