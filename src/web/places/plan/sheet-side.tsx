import { NORTH_DEG, SHEET_SIDE_M } from '../../../core/document/chapters/plan/drawn-plan.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';

/** What is said of the sheet itself. */
export function SheetSide() {
  const { plan } = useAppSelector(selectSite);
  return <Panel title="Sheet">{plan.picture ? <NorthField /> : <SheetSize />}</Panel>;
}

/** Without a picture the sheet is as large as one says. */
function SheetSize() {
  const dispatch = useAppDispatch();
  const { plan } = useAppSelector(selectSite);
  const set = (size: { widthM: number } | { heightM: number }): void =>
    void dispatch(commandIssued({ kind: 'setPlan', plan: { ...plan, ...size }, what: 'size of the sheet changed' }));
  return (
    <div className="grid grid-cols-2 gap-3">
      <NumberField
        label="Width, m"
        value={plan.widthM}
        range={SHEET_SIDE_M}
        onKeep={(widthM) => set({ widthM: widthM ?? 40 })}
      />
      <NumberField
        label="Height, m"
        value={plan.heightM}
        range={SHEET_SIDE_M}
        onKeep={(heightM) => set({ heightM: heightM ?? 26 })}
      />
      <NorthField />
    </div>
  );
}

/** The arrow of the north, which those who mount go by. */
function NorthField() {
  const dispatch = useAppDispatch();
  const { plan } = useAppSelector(selectSite);
  return (
    <NumberField
      label="North, °"
      value={plan.northDeg}
      range={NORTH_DEG}
      isOptional
      hint="0 up, clockwise"
      onKeep={(northDeg) =>
        void dispatch(commandIssued({ kind: 'setPlan', plan: { ...plan, northDeg }, what: 'north set' }))
      }
    />
  );
}
