import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { GEAR_KINDS, type Gear, type GearKind } from '../../../core/document/chapters/gear/gear.ts';
import { GEAR_FIELDS, USUAL_VOLTS } from '../../../core/document/chapters/gear/gear-fields.ts';
import { gearSubject } from '../../../core/document/subject.ts';
import { RADIO_KINDS } from '../../../core/radio/radio-kinds.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { cellsFor } from '../../ui/form-cells.tsx';
import { Form } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { Joins } from '../link/index.ts';
import { ThingActs } from '../thing/index.ts';
import { type GearFields, gearFieldsOf, gearFormSchema, gearOf } from './gear-form-schema.ts';

export const GEAR_WORDS: Readonly<Record<GearKind, string>> = {
  switch: 'switch',
  injector: 'injector',
  supply: 'supply',
  'access-point': 'access point',
  powerline: 'powerline',
  router: 'router',
};

const { Field, Choice, Cell, Cells } = cellsFor<GearFields>();
const HALF = 'col-span-3';

const RADIOS = RADIO_KINDS.map(({ id, label, band }) => ({
  value: id,
  label: `${label}${band === 'sub-GHz' ? '' : `, ${band} GHz`}`,
}));

/** Figures of a kind, as printed on it. */
function Figures({ kind, onOutput }: { kind: GearKind; onOutput: (output: string) => void }) {
  switch (kind) {
    case 'supply':
      return (
        <>
          <Cell name="supply.output" field={GEAR_FIELDS.supply.output} className="col-span-6" onChosen={onOutput} />
          <Cells table={SUPPLY_FIGURES} under="supply" className={HALF} />
        </>
      );
    case 'access-point':
      return (
        <>
          <Choice name="accessPoint.radio" label="Radio standard" className={HALF} options={RADIOS} />
          <Cells table={GEAR_FIELDS[kind]} under="accessPoint" className={HALF} />
        </>
      );
    default:
      return <Cells table={GEAR_FIELDS[kind]} under={kind} className={HALF} />;
  }
}
const { output: _, ...SUPPLY_FIGURES } = GEAR_FIELDS.supply;

interface GearDialogProps {
  readonly edited: Gear | 'new';
  readonly onClose: () => void;
  readonly onKept?: (gear: Gear) => void;
}

/** One piece of gear and its figures, as printed on it. */
export function GearDialog({ edited, onClose, onKept }: GearDialogProps) {
  const dispatch = useAppDispatch();
  const before = edited === 'new' ? null : edited;
  const form = useForm({
    resolver: yupResolver(gearFormSchema),
    defaultValues: gearFieldsOf(before),
  });
  const kind = form.watch('kind');
  const keep = (fields: GearFields): void => {
    const gear = gearOf({ id: before?.id ?? newId('gear'), position: before?.position ?? null }, fields, before);
    dispatch(commandIssued({ kind: 'putGear', gear }));
    onKept?.(gear);
    onClose();
  };
  // Volts that nobody typed follow what it gives: a USB supply has five.
  const usualVolts = (output: string): void => {
    if (!form.getFieldState('supply.volts').isDirty)
      form.resetField('supply.volts', { defaultValue: output === 'usb' ? USUAL_VOLTS.usb : USUAL_VOLTS.dc });
  };
  return (
    <DialogFrame
      title={before ? before.name : 'New gear'}
      description="Figures as printed on it. An empty field is assumed as usual for such gear; an empty price is not known."
      isOpen
      onOpenChange={onClose}
    >
      <Form form={form} onKeep={keep} className="grid grid-cols-6 gap-x-3 gap-y-3">
        <Choice
          name="kind"
          label="Kind"
          className="col-span-3"
          options={GEAR_KINDS.map((value) => ({ value, label: GEAR_WORDS[value] }))}
        />
        <Field name="name" label="Name" isText className="col-span-3" />
        <Figures kind={kind} onOutput={usualVolts} />
        <Field name="price" label="Price" className={HALF} />
        <FormFoot
          onLeave={onClose}
          acts={before && <ThingActs kind="gear" id={before.id} onGone={onClose} onCopied={onClose} />}
        />
      </Form>
      {before && (
        <div className="mt-4 border-t border-hair pt-3">
          <h3 className="mb-1 text-small">Linked to</h3>
          <Joins subject={gearSubject(before.id)} />
        </div>
      )}
    </DialogFrame>
  );
}
