import type { ReactNode } from 'react';
import { Button } from './button.tsx';

interface FormFootProps {
  readonly onLeave: () => void;
  /** What else can be done with what is there already: copied, removed. */
  readonly acts?: ReactNode;
}

/** The end of a form on a slip: kept whole, or left as it was. */
export function FormFoot({ onLeave, acts }: FormFootProps) {
  return (
    <span className="col-span-full flex flex-wrap items-start justify-end gap-2">
      {acts && <span className="mr-auto">{acts}</span>}
      <Button onClick={onLeave}>Cancel</Button>
      <Button kind="main" type="submit">
        Save
      </Button>
    </span>
  );
}
