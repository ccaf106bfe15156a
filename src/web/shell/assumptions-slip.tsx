import { ASSUMPTIONS, assumed, assumptionOf } from '../../core/assumptions/assumptions.ts';
import { commandIssued, selectSite } from '../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { DialogFrame } from '../ui/dialog-frame.tsx';
import { NumberField } from '../ui/number-field.tsx';

const GROUPS: Readonly<Record<string, string>> = {
  optics: 'Picture',
  power: 'Power',
  air: 'Wi-Fi',
  link: 'Links',
  stream: 'Streams',
  cost: 'Cost',
};

/** What no standard says and the planning assumes: changed here, it counts for the whole site at once. */
export function AssumptionsSlip({ onClose }: { onClose: () => void }) {
  const dispatch = useAppDispatch();
  const { assumptions } = useAppSelector(selectSite);
  const set = (id: string, value: number | null): void =>
    void dispatch(commandIssued({ kind: 'setAssumption', id, said: assumptionOf(id)?.label ?? id, value }));
  return (
    <DialogFrame
      title="Assumptions"
      description="Not from a standard, but from practice: change them where yours differ. All verdicts of this site follow."
      isOpen
      isWide
      onOpenChange={(isOpen) => !isOpen && onClose()}
    >
      {Object.entries(GROUPS).map(([group, name]) => (
        <fieldset key={group} className="mb-4">
          <legend className="mb-1 w-full border-b border-hair font-strong">{name}</legend>
          <div className="grid gap-x-6 gap-y-2 md:grid-cols-2">
            {ASSUMPTIONS.filter(({ id }) => id.startsWith(`${group}.`)).map(({ id, label, value, min, max, unit }) => (
              <div key={id} className="flex items-end gap-2">
                <NumberField
                  label={`${label}, ${unit}`}
                  className="flex-1"
                  value={assumed(assumptions, id)}
                  range={{ min, max, unit }}
                  onKeep={(next) => set(id, next === value ? null : next)}
                />
                {assumptions[id] !== undefined && (
                  <Button kind="quiet" className="text-small" onClick={() => set(id, null)}>
                    reset to {value}
                  </Button>
                )}
              </div>
            ))}
          </div>
        </fieldset>
      ))}
      <div className="flex justify-end">
        <Button onClick={onClose}>Close</Button>
      </div>
    </DialogFrame>
  );
}
