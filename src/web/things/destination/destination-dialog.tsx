import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { type InferType, object, string } from 'yup';
import { inPercent } from '../../../core/base/range.ts';
import {
  DESTINATION_KINDS,
  DESTINATION_RANGES,
  type Destination,
  type DestinationKind,
} from '../../../core/document/chapters/destinations/destination.ts';
import { STORAGE_ASSUMPTIONS } from '../../../core/storage/storage-assumptions.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { Form, fieldsFor } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { optionalNumber } from '../../ui/form-numbers.ts';
import { nameField } from '../../ui/form-texts.ts';

const KIND_WORDS: Readonly<Record<DestinationKind, string>> = {
  hub: 'home-automation hub',
  recorder: 'recorder',
  viewer: 'viewer',
  relay: 'relay',
};
const schema = object({
  name: nameField(),
  kind: string().oneOf(DESTINATION_KINDS).required(),
  diskTB: optionalNumber('Disk', DESTINATION_RANGES.diskTB),
  usablePercent: optionalNumber('Usable', inPercent(DESTINATION_RANGES.usableFraction)),
  retentionDays: optionalNumber('Days', DESTINATION_RANGES.retentionDays),
});
const { Field, Choice } = fieldsFor<InferType<typeof schema>>();

interface DestinationDialogProps {
  /** Whom it is about; `null` keeps it shut. */
  readonly edited: Destination | 'new' | null;
  readonly onClose: () => void;
  readonly onCreated: (destinationId: string) => void;
}

export function DestinationDialog({ edited, onClose, onCreated }: DestinationDialogProps) {
  return (
    <DialogFrame
      title={edited === 'new' || edited === null ? 'New destination' : `Change ${edited.name}`}
      description="What draws streams. Disk and days are asked of recorders."
      isOpen={edited !== null}
      onOpenChange={onClose}
    >
      {edited !== null && (
        <DestinationForm before={edited === 'new' ? null : edited} onClose={onClose} onCreated={onCreated} />
      )}
    </DialogFrame>
  );
}

function DestinationForm({
  before,
  onClose,
  onCreated,
}: {
  before: Destination | null;
  onClose: () => void;
  onCreated: (id: string) => void;
}) {
  const dispatch = useAppDispatch();
  const form = useForm({
    resolver: yupResolver(schema),
    defaultValues: {
      name: before?.name ?? '',
      kind: before?.kind ?? 'recorder',
      diskTB: before?.storage?.diskTB,
      usablePercent: Math.round((before?.storage?.usableFraction ?? STORAGE_ASSUMPTIONS.usableFraction) * 100),
      retentionDays: before?.retentionDays ?? 14,
    },
  });
  const keep = (values: InferType<typeof schema>): void => {
    const isRecorder = values.kind === 'recorder';
    const usableFraction = (values.usablePercent ?? 100 * STORAGE_ASSUMPTIONS.usableFraction) / 100;
    const destination: Destination = {
      id: before?.id ?? newId('destination'),
      name: values.name,
      kind: values.kind,
      codecs: before?.codecs ?? [],
      storage: isRecorder && values.diskTB !== undefined ? { diskTB: values.diskTB, usableFraction } : null,
      retentionDays: isRecorder ? (values.retentionDays ?? null) : null,
      position: before?.position ?? null,
    };
    dispatch(commandIssued({ kind: before ? 'changeDestination' : 'addDestination', destination }));
    if (!before) onCreated(destination.id);
    onClose();
  };
  return (
    <Form form={form} onKeep={keep} className="grid grid-cols-6 gap-x-2 gap-y-3">
      <Field name="name" label="Name" isText className="col-span-6" />
      <Choice
        name="kind"
        label="Kind"
        className="col-span-6"
        options={DESTINATION_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
      />
      {form.watch('kind') === 'recorder' && (
        <>
          <Field name="diskTB" label="Disk, TB" className="col-span-2" />
          <Field name="usablePercent" label="Usable, %" className="col-span-2" />
          <Field name="retentionDays" label="Days wanted" className="col-span-2" />
        </>
      )}
      <FormFoot onLeave={onClose} />
    </Form>
  );
}
