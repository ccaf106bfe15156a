import { Button } from './button.tsx';

interface FormFootProps {
  readonly onLeave: () => void;
  /** Only where there is something to remove. */
  readonly onRemove?: (() => void) | undefined;
}

/** The end of a form on a slip: kept whole, or left as it was. */
export function FormFoot({ onLeave, onRemove }: FormFootProps) {
  return (
    <span className="col-span-full flex justify-end gap-2">
      {onRemove && (
        <Button className="mr-auto" onClick={onRemove}>
          Remove it
        </Button>
      )}
      <Button onClick={onLeave}>Leave it</Button>
      <Button kind="main" type="submit">
        Keep
      </Button>
    </span>
  );
}
