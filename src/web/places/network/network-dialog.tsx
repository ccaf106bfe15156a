import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import type { Network } from '../../../core/document/chapters/networks/network.ts';
import { NETWORK_FIELDS } from '../../../core/document/chapters/networks/network-fields.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { ThingActs } from '../../things/thing/index.ts';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { cellsFor } from '../../ui/form-cells.tsx';
import { Form } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { fieldsOfNetwork, hostsOf, type NetworkFields, networkFormSchema, networkOf } from './network-form-schema.ts';

const { Field, Cell } = cellsFor<NetworkFields>();

interface NetworkDialogProps {
  /** `null` is a new one. */
  readonly before: Network | null;
  readonly onClose: () => void;
  readonly onKept: (networkId: string) => void;
}

/** A network as its router is set. */
export function NetworkDialog({ before, onClose, onKept }: NetworkDialogProps) {
  const dispatch = useAppDispatch();
  const form = useForm({ resolver: yupResolver(networkFormSchema), defaultValues: fieldsOfNetwork(before) });
  const keep = (fields: NetworkFields): void => {
    const id = before?.id ?? newId('network');
    dispatch(commandIssued({ kind: 'putNetwork', network: networkOf(fields, id) }));
    onKept(id);
    onClose();
  };
  return (
    <DialogFrame
      title={before ? `Change ${before.name}` : 'New network'}
      description="As its router is set. An empty field is not known, and judged so."
      isOpen
      onOpenChange={onClose}
    >
      <Form form={form} onKeep={keep} className="grid grid-cols-6 items-start gap-x-2 gap-y-3">
        <Cell name="name" field={NETWORK_FIELDS.name} className="col-span-3" />
        <Field
          name="cidr"
          label="Addresses"
          isText
          isCode
          placeholder="10.77.4.0/24"
          hint={hostsOf(form.watch('cidr')) ?? 'with its prefix length'}
          className="col-span-3"
        />
        <Field name="gateway" label="Gateway (router)" isText isCode className="col-span-3" />
        <Cell name="dhcpServers" field={NETWORK_FIELDS.dhcpServers} className="col-span-3" />
        <Field name="poolFrom" label="DHCP range from" isText isCode className="col-span-3" />
        <Field name="poolTo" label="to" isText isCode className="col-span-3" />
        <Field name="ntp" label="Time server" isText isCode hint="the router, or a server" className="col-span-3" />
        <Field name="dns" label="DNS servers" isText isCode className="col-span-3" />
        <Cell name="vlan" field={NETWORK_FIELDS.vlan} className="col-span-2" />
        <Cell name="permit" field={NETWORK_FIELDS.permit} className="col-span-4" />
        <FormFoot
          onLeave={onClose}
          acts={before && <ThingActs kind="network" id={before.id} onGone={onClose} onCopied={onClose} />}
        />
      </Form>
    </DialogFrame>
  );
}
