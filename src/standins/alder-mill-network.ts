import type { DevicePage, Plug } from './personality.ts';
import type { Reservation } from './router.ts';

/** Something in the network that is no camera. */
export interface Bystander {
  readonly name: string;
  readonly host: string;
  readonly plug: Plug;
  /** `null` answers no call at all. */
  readonly page: DevicePage | null;
}

/** The house’s own network, as its router is set. */
export const MILL_NETWORK = {
  cidr: '10.77.4.0/24',
  gateway: '10.77.4.1',
  pool: { from: '10.77.4.20', to: '10.77.4.99' },
} as const;

/** What somebody reserved there before. */
export const MILL_RESERVATIONS: readonly Reservation[] = [
  { mac: '00:00:5e:00:53:21', ip: '10.77.4.21', name: 'sluice-rail' },
];

/** Addresses of destinations, as the plan has them. */
export const MILL_HOSTS = {
  'loft-store': '10.77.4.10',
  'mill-hub': '10.77.4.11',
  'reception-screen': '10.77.4.12',
} as const;

const page = (port: number, title: string, server: string): DevicePage => ({ port, title, server });

export const MILL_BYSTANDERS: readonly Bystander[] = [
  {
    name: 'Mill router',
    host: MILL_NETWORK.gateway,
    plug: { mac: '00:00:5e:00:53:01', address: 'static' },
    page: page(80, 'Mill router', 'rtr-httpd 1.4'),
  },
  {
    name: 'Loft store',
    host: MILL_HOSTS['loft-store'],
    plug: { mac: '00:00:5e:00:53:10', address: 'static' },
    page: page(8080, 'Loft store', 'nas-web 7'),
  },
  {
    name: 'Mill hub',
    host: MILL_HOSTS['mill-hub'],
    plug: { mac: '00:00:5e:00:53:11', address: 'static' },
    page: page(8000, 'Mill hub', 'hubd 3.2'),
  },
  {
    name: 'Reception printer',
    host: '10.77.4.60',
    plug: { mac: '00:00:5e:00:53:60', address: 'asks' },
    page: page(80, 'Reception printer', 'PrintBox'),
  },
  { name: 'Kitchen tablet', host: '10.77.4.61', plug: { mac: '06:00:5e:00:53:61', address: 'asks' }, page: null },
];
