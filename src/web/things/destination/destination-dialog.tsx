import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import type { Destination } from '../../../core/document/chapters/destinations/destination.ts';
import {
  DESTINATION_KINDS,
  PROTOCOL_WORDS,
  PROTOCOLS,
} from '../../../core/document/chapters/destinations/destination.ts';
import { DESTINATION_FIELDS } from '../../../core/document/chapters/destinations/destination-fields.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { cellsFor } from '../../ui/form-cells.tsx';
import { Form } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { ThingActs } from '../thing/index.ts';
import {
  type DestinationFields,
  destinationFormSchema,
  destinationOf,
  fieldsOfDestination,
  KIND_WORDS,
} from './destination-form-schema.ts';
import { PackFields } from './pack-fields.tsx';

const { Field, Choice, Tick, Cell } = cellsFor<DestinationFields>();

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
      description="What pulls streams, and what it takes. An empty field is not known, and judged so."
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
    resolver: yupResolver(destinationFormSchema),
    defaultValues: fieldsOfDestination(before),
  });
  const keep = (fields: DestinationFields): void => {
    const destination = destinationOf(fields, before ?? newId('destination'));
    dispatch(commandIssued({ kind: before ? 'changeDestination' : 'addDestination', destination }));
    if (!before) onCreated(destination.id);
    onClose();
  };
  const { networks } = useAppSelector(selectSite);
  const kind = form.watch('kind');
  const counts = form.watch('includedSeats');
  return (
    <Form form={form} onKeep={keep} className="grid grid-cols-6 items-start gap-x-2 gap-y-3">
      <Field name="name" label="Name" isText className="col-span-3" />
      <Choice
        name="kind"
        label="Kind"
        className="col-span-3"
        options={DESTINATION_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
      />
      <Field
        name="host"
        label="Its own address"
        isText
        isCode
        placeholder="10.77.4.10"
        hint="firewall rules are judged by it"
        className="col-span-3"
      />
      <Choice
        name="networkId"
        label="Its network"
        className="col-span-3"
        options={[
          { value: '', label: networks.length === 0 ? 'none is entered' : 'by its address' },
          ...networks.map(({ id, name }) => ({ value: id, label: name })),
        ]}
      />
      <Field name="codecs" label="Codecs it takes" isText placeholder="H.264, H.265" className="col-span-3" />
      <Field name="sounds" label="Audio codecs it takes" isText placeholder="AAC, G.711" className="col-span-3" />
      <fieldset className="col-span-6">
        <legend className="text-small text-soft">Protocols it takes</legend>
        <span className="flex flex-wrap gap-x-3">
          {PROTOCOLS.map((value) => (
            <Tick key={value} name="protocols" value={value} label={PROTOCOL_WORDS[value]} />
          ))}
        </span>
      </fieldset>
      <Field name="largest" label="Largest resolution" isText placeholder="3840×2160" className="col-span-2" />
      <Cell name="mostFps" field={DESTINATION_FIELDS.mostFps} className="col-span-2" />
      <Field name="mostMbps" label="Highest bit rate, Mbit/s" className="col-span-2" />
      <Cell name="decodes" field={DESTINATION_FIELDS.decodes} className="col-span-3" />
      <Field name="includedSeats" label="Licences included" hint="empty where it needs none" className="col-span-3" />
      {counts !== undefined && String(counts) !== '' && <PackFields className="col-span-6" />}
      {kind === 'recorder' && (
        <>
          <Field name="diskTB" label="Disk, TB" className="col-span-2" />
          <Field name="usablePercent" label="Usable, %" className="col-span-2" />
          <Field name="diskPrice" label="Price of the disk" className="col-span-2" />
          <Cell name="retentionDays" field={DESTINATION_FIELDS.retentionDays} className="col-span-2" />
        </>
      )}
      <Field name="longestSecret" label="Longest password it takes" className="col-span-3" />
      <Field
        name="refusedSigns"
        label="Characters a password must not contain"
        isText
        isCode
        placeholder="&amp;&lt;&gt;"
        className="col-span-3"
      />
      <FormFoot
        onLeave={onClose}
        acts={before && <ThingActs kind="destination" id={before.id} onGone={onClose} onCopied={onClose} />}
      />
    </Form>
  );
}
