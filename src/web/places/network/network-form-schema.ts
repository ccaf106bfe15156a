import { type InferType, object, string } from 'yup';
import { LIST_LIMITS } from '../../../core/base/limits.ts';
import type { Network } from '../../../core/document/chapters/networks/network.ts';
import { NETWORK_FIELDS, UNKNOWN_NETWORK } from '../../../core/document/chapters/networks/network-fields.ts';
import { firstHostOf, lastHostOf, parseCidr, parseIpv4, sayCidr, sayIpv4 } from '../../../core/net/ipv4.ts';
import { formTable } from '../../ui/form-table.ts';
import { hostField, wordsField, wordsOf } from '../../ui/form-texts.ts';

/** One address, which may stay out. */
const addressField = () =>
  string()
    .trim()
    .defined()
    .test(
      'address',
      'An address has four plain decimal numbers, such as 10.77.4.1.',
      (text) => text === '' || parseIpv4(text ?? '') !== null,
    );

const CIDR_WORDS = 'A network with its prefix length, such as 10.77.4.0/24.';

const cidrField = () =>
  string()
    .trim()
    .required('Enter its address range.')
    .max(43, CIDR_WORDS)
    .test('cidr', (text, context) => {
      if (text.includes(':')) return context.createError({ message: 'An IPv6 network: only IPv4 is planned here.' });
      return parseCidr(text) !== null || context.createError({ message: CIDR_WORDS });
    });

const figures = formTable(NETWORK_FIELDS);

/** A network as it is typed. */
export const networkFormSchema = object({
  ...figures.fields,
  cidr: cidrField(),
  gateway: addressField(),
  poolFrom: addressField(),
  poolTo: addressField().test(
    'pool',
    'Both ends are needed.',
    (to, { parent }) => (to === '') === (parent.poolFrom === ''),
  ),
  dns: wordsField('DNS servers', { most: LIST_LIMITS.nameServers, max: 45 }),
  ntp: hostField(),
});
export type NetworkFields = InferType<typeof networkFormSchema>;

export const fieldsOfNetwork = (before: Network | null): NetworkFields => ({
  ...figures.show(before ?? { ...UNKNOWN_NETWORK, name: '' }),
  cidr: before?.cidr ?? '',
  gateway: before?.gateway ?? '',
  poolFrom: before?.pool?.from ?? '',
  poolTo: before?.pool?.to ?? '',
  dns: before?.dns.join(', ') ?? '',
  ntp: before?.ntp ?? '',
});

/** The network that the fields say. Its own address is written as it is meant: 10.77.4.7/24 is 10.77.4.0/24. */
export function networkOf(fields: NetworkFields, id: string): Network {
  const read = parseCidr(fields.cidr);
  return {
    id,
    ...figures.read(fields),
    cidr: read ? sayCidr(read) : fields.cidr,
    gateway: fields.gateway || null,
    pool: fields.poolFrom === '' ? null : { from: fields.poolFrom, to: fields.poolTo },
    dns: wordsOf(fields.dns),
    ntp: fields.ntp || null,
  };
}

/** “10.77.4.1 to 10.77.4.254”, while it is typed. */
export function hostsOf(cidr: string): string | null {
  const read = parseCidr(cidr);
  return read && `${sayIpv4(firstHostOf(read))} to ${sayIpv4(lastHostOf(read))}`;
}
