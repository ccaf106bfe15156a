import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { number, object, string } from 'yup';
import {
  DESTINATION_KINDS,
  type Destination,
  type DestinationKind,
} from '../../../core/document/chapters/destinations/destination.ts';
import { STORAGE_ASSUMPTIONS } from '../../../core/storage/storage-assumptions.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { nameField } from '../../ui/form-texts.ts';
import { SelectField, TextField } from '../../ui/text-field.tsx';

const KIND_WORDS: Readonly<Record<DestinationKind, string>> = {
  hub: 'home-automation hub',
  recorder: 'recorder',
  viewer: 'viewer',
  relay: 'relay',
};
const isKind = (text: string): text is DestinationKind => DESTINATION_KINDS.some((kind) => kind === text);

const optionalNumber = (message: string) =>
  number()
    .transform((value: number, original: unknown) => (original === '' ? undefined : value))
    .typeError(message);

const schema = object({
  name: nameField(),
  kind: string().oneOf(DESTINATION_KINDS).required(),
  diskTB: optionalNumber('TB as a number, such as 4.').moreThan(0, 'More than 0 TB.').max(10_000, 'At most 10,000 TB.'),
  usablePercent: optionalNumber('A share in per cent.').moreThan(0, 'More than 0 %.').max(100, 'At most 100 %.'),
  retentionDays: optionalNumber('Days as a number.').moreThan(0, 'More than 0 days.').max(36_500, 'At most 100 years.'),
});

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
  const { register, handleSubmit, formState, watch, setValue } = useForm({
    resolver: yupResolver(schema),
    defaultValues: {
      name: before?.name ?? '',
      kind: before?.kind ?? 'recorder',
      diskTB: before?.storage?.diskTB,
      usablePercent: Math.round((before?.storage?.usableFraction ?? STORAGE_ASSUMPTIONS.usableFraction) * 100),
      retentionDays: before?.retentionDays ?? 14,
    },
  });
  const kind = watch('kind');
  const { errors } = formState;
  const save = handleSubmit((values) => {
    const isRecorder = values.kind === 'recorder';
    const usableFraction = (values.usablePercent ?? 100 * STORAGE_ASSUMPTIONS.usableFraction) / 100;
    const destination: Destination = {
      id: before?.id ?? newId('destination'),
      name: values.name,
      kind: isKind(values.kind) ? values.kind : 'viewer',
      codecs: before?.codecs ?? [],
      storage: isRecorder && values.diskTB !== undefined ? { diskTB: values.diskTB, usableFraction } : null,
      retentionDays: isRecorder ? (values.retentionDays ?? null) : null,
      position: before?.position ?? null,
    };
    dispatch(commandIssued({ kind: before ? 'changeDestination' : 'addDestination', destination }));
    if (!before) onCreated(destination.id);
    onClose();
  });
  return (
    <form onSubmit={(event) => void save(event)} className="grid grid-cols-6 gap-x-2 gap-y-3" noValidate>
      <TextField label="Name" className="col-span-6" error={errors.name?.message} {...register('name')} />
      <SelectField
        label="Kind"
        className="col-span-6"
        value={kind}
        onChange={(value) => isKind(value) && setValue('kind', value)}
        options={DESTINATION_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
      />
      {kind === 'recorder' && (
        <>
          <TextField
            label="Disk, TB"
            inputMode="decimal"
            className="col-span-2"
            error={errors.diskTB?.message}
            {...register('diskTB')}
          />
          <TextField
            label="Usable, %"
            inputMode="decimal"
            className="col-span-2"
            error={errors.usablePercent?.message}
            {...register('usablePercent')}
          />
          <TextField
            label="Days wanted"
            inputMode="decimal"
            className="col-span-2"
            error={errors.retentionDays?.message}
            {...register('retentionDays')}
          />
        </>
      )}
      <FormFoot onLeave={onClose} />
    </form>
  );
}
