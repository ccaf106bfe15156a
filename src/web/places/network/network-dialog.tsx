import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import type { Network } from '../../../core/document/chapters/networks/network.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { ThingActs } from '../../things/thing/index.ts';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { Form, fieldsFor } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { fieldsOfNetwork, hostsOf, type NetworkFields, networkFormSchema, networkOf } from './network-form-schema.ts';

const { Field } = fieldsFor<NetworkFields>();

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
        <Field name="name" label="Name" isText placeholder="House" className="col-span-3" />
        <Field
          name="cidr"
          label="Addresses"
          isText
          isCode
          placeholder="10.77.4.0/24"
          hint={hostsOf(form.watch('cidr')) ?? 'with its mask'}
          className="col-span-3"
        />
        <Field name="gateway" label="Gateway, the router" isText isCode className="col-span-3" />
        <Field
          name="dhcpServers"
          label="Servers that hand out"
          hint="one is right; 0 where nobody does"
          className="col-span-3"
        />
        <Field name="poolFrom" label="Handed out from" isText isCode className="col-span-3" />
        <Field name="poolTo" label="to" isText isCode className="col-span-3" />
        <Field name="ntp" label="Time from" isText isCode hint="the router, or a server" className="col-span-3" />
        <Field name="dns" label="Name servers" isText isCode className="col-span-3" />
        <Field name="vlan" label="VLAN" className="col-span-2" />
        <Field
          name="permit"
          label="Who said that you may look through it"
          isText
          placeholder="its owner, by name"
          className="col-span-4"
        />
        <FormFoot
          onLeave={onClose}
          acts={before && <ThingActs kind="network" id={before.id} onGone={onClose} onCopied={onClose} />}
        />
      </Form>
    </DialogFrame>
  );
}
