import { eachOf, type Migration } from './migrate.ts';

/** 8: what devices are known by and how their addresses stay, networks in full, who may reach what. */
export const to8: Migration = (document) => ({
  ...document,
  version: 8,
  networks: eachOf(document.networks, (network) => ({
    ...network,
    pool: null,
    dns: [],
    ntp: null,
    vlan: null,
    dhcpServers: null,
    permit: '',
  })),
  reach: { rows: [], forwards: [], lookIn: null, outsideAddress: '', opensByItself: null },
  cameras: eachOf(document.cameras, (camera) => ({
    ...camera,
    identity: { mac: '', serial: '', endpoint: '' },
    keeping: null,
  })),
  destinations: eachOf(document.destinations, (destination) => ({ ...destination, host: '', networkId: null })),
});
