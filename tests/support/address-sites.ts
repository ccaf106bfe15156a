import type { Camera } from '../../src/core/document/chapters/cameras/camera.ts';
import type { Network } from '../../src/core/document/chapters/networks/network.ts';
import { UNKNOWN_NETWORK } from '../../src/core/document/chapters/networks/network-fields.ts';
import { type Reach, UNKNOWN_REACH } from '../../src/core/document/chapters/reach/reach.ts';
import type { Site } from '../../src/core/document/site.ts';
import type { SiteCommand } from '../../src/core/document/site-commands.ts';
import { sweepRecords } from '../../src/core/evidence/measured-records.ts';
import { type SeenHost, unknownHost } from '../../src/core/scan/seen.ts';
import { siteOf, tapped } from './planned-sites.ts';
import { apply, camera } from './sites.ts';

export const HOUSE: Network = {
  ...UNKNOWN_NETWORK,
  id: 'house',
  name: 'House',
  cidr: '10.77.4.0/24',
  gateway: '10.77.4.1',
  pool: { from: '10.77.4.100', to: '10.77.4.199' },
};
export const YARD: Network = {
  ...UNKNOWN_NETWORK,
  id: 'yard',
  name: 'Yard',
  cidr: '10.77.9.0/24',
  gateway: '10.77.9.1',
};
export const MAC = '00:00:5e:00:53:21';

interface AddressedOptions {
  readonly camera?: Partial<Camera>;
  readonly networks?: readonly Network[];
  readonly reach?: Partial<Reach>;
  readonly more?: readonly Camera[];
}

/** One camera `c` at 10.77.4.21 with its MAC address, reserved, in a network that is described. */
export function addressed({
  camera: one = {},
  networks = [HOUSE],
  reach = {},
  more = [],
}: AddressedOptions = {}): Site {
  const site = siteOf({
    camera: { keeping: 'reservation', identity: { mac: MAC, serial: '', endpoint: '' }, ...one },
    destinations: (all) => all.map((destination, at) => ({ ...destination, host: `10.77.4.${10 + at}` })),
  });
  return { ...site, networks, reach: { ...UNKNOWN_REACH, ...reach }, cameras: [...site.cameras, ...more] };
}

export const seenAt = (host: string, more: Partial<SeenHost> = {}): SeenHost => ({ ...unknownHost(host), ...more });

/** One entry of a sweep. */
export function swept(hosts: readonly SeenHost[], isWhole = true, sweepId = 'sweep-1'): SiteCommand {
  const range = '10.77.4.1 to 10.77.4.254';
  const [record, ...more] = sweepRecords({
    networkId: 'house',
    sweepId,
    range,
    isWhole,
    calls: 1524,
    seconds: 16,
    hosts,
  });
  if (!record || more.length > 0) throw new RangeError(`hosts: ${hosts.length} are no single entry`);
  return record;
}

const inYard = (rows: Reach['rows'], more: Partial<Network> = {}): Site =>
  tapped(
    addressed({
      camera: { host: '10.77.9.21' },
      networks: [HOUSE, { ...YARD, ...more }],
      reach: { rows },
    }),
  );

/** Each rule of the station with a mend, and a site on which it finds something of camera `c`. */
export const ADDRESS_CASES: readonly { readonly rule: string; readonly site: Site }[] = [
  { rule: 'address.link-local', site: addressed({ camera: { host: '169.254.7.7' } }) },
  { rule: 'address.public', site: addressed({ camera: { host: '8.8.8.8' } }) },
  { rule: 'address.outside', site: addressed({ camera: { host: '192.168.1.40' } }) },
  { rule: 'address.no-host', site: addressed({ camera: { host: '10.77.4.255' } }) },
  { rule: 'address.gateways', site: addressed({ camera: { host: '10.77.4.1' } }) },
  {
    rule: 'address.shared',
    site: addressed({
      more: [camera('d', { keeping: 'reservation', identity: { mac: '00:00:5e:00:53:22', serial: '', endpoint: '' } })],
    }),
  },
  {
    rule: 'address.port',
    site: (() => {
      const site = addressed({ camera: { ports: { rtsp: 8554 } } });
      return { ...site, models: site.models.map((model) => ({ ...model, rtspPort: 554 })) };
    })(),
  },
  { rule: 'address.kept', site: addressed({ camera: { keeping: 'dynamic' } }) },
  { rule: 'address.static-in-dhcp-range', site: addressed({ camera: { keeping: 'static', host: '10.77.4.120' } }) },
  {
    rule: 'address.static-in-dhcp-range', // not known whether it is
    site: addressed({ camera: { keeping: 'static' }, networks: [{ ...HOUSE, pool: null }] }),
  },
  { rule: 'address.two-servers', site: addressed({ networks: [{ ...HOUSE, dhcpServers: 2 }] }) },
  {
    rule: 'address.mac-missing',
    site: apply(
      addressed({ camera: { identity: { mac: '', serial: 'S1', endpoint: '' } } }),
      swept([seenAt('10.77.4.21', { mac: MAC, serial: 'S1' })]),
    ),
  },
  {
    rule: 'address.mac-malformed',
    site: apply(
      addressed({ camera: { identity: { mac: 'OO:00:5e:00:53:21', serial: '', endpoint: '' } } }),
      swept([seenAt('10.77.4.21', { mac: MAC })]),
    ),
  },
  {
    rule: 'address.mac-group',
    site: apply(
      addressed({ camera: { identity: { mac: '01:00:5e:00:53:21', serial: 'S1', endpoint: '' } } }),
      swept([seenAt('10.77.4.21', { mac: MAC, serial: 'S1' })]),
    ),
  },
  {
    rule: 'address.mac-shared',
    site: apply(
      addressed({
        camera: { identity: { mac: MAC, serial: 'S1', endpoint: '' } },
        more: [
          camera('d', {
            host: '10.77.4.30',
            keeping: 'reservation',
            identity: { mac: MAC, serial: 'S2', endpoint: '' },
          }),
        ],
      }),
      swept([seenAt('10.77.4.21', { mac: '00:00:5e:00:53:44', serial: 'S1' })]),
    ),
  },
  {
    rule: 'address.mac-random',
    site: addressed({ camera: { identity: { mac: '02:00:5e:00:53:21', serial: '', endpoint: '' } } }),
  },
  {
    rule: 'address.nothing-stays',
    site: apply(
      addressed({ camera: { identity: { mac: '', serial: '', endpoint: '' }, keeping: 'static' } }),
      swept([seenAt('10.77.4.21', { mac: MAC })]),
    ),
  },
  { rule: 'address.moved', site: apply(addressed(), swept([seenAt('10.77.4.77', { mac: MAC })])) },
  {
    rule: 'address.other-device',
    site: apply(addressed(), swept([seenAt('10.77.4.21', { mac: '00:00:5e:00:53:99' })])),
  },
  { rule: 'address.firewall', site: inYard([{ from: 'network:house', to: 'network:yard', allowed: 'none' }]) },
  {
    rule: 'address.open-to-others',
    site: addressed({
      networks: [HOUSE, YARD],
      reach: { rows: [{ from: 'network:yard', to: 'network:house', allowed: 'all' }] },
    }),
  },
  {
    rule: 'address.internet',
    site: addressed({
      networks: [{ ...HOUSE, ntp: '10.77.4.1' }],
      reach: { rows: [{ from: 'network:house', to: 'internet', allowed: 'all' }] },
    }),
  },
  {
    rule: 'address.time',
    site: addressed({
      networks: [{ ...HOUSE, ntp: 'time.example.net' }],
      reach: { rows: [{ from: 'network:house', to: 'internet', allowed: 'none' }] },
    }),
  },
  {
    rule: 'address.port-forward',
    site: addressed({
      reach: { forwards: [{ id: 'f', outsidePort: 8554, host: '10.77.4.21', port: 554 }] },
    }),
  },
  {
    rule: 'address.port-forward-recorder',
    site: tapped(
      addressed({
        camera: { kind: 'channel' },
        reach: { forwards: [{ id: 'f', outsidePort: 8443, host: '10.77.4.10', port: 443 }] },
      }),
    ),
  },
  { rule: 'address.no-dhcp-server', site: addressed({ networks: [{ ...HOUSE, pool: null, dhcpServers: 0 }] }) },
];
