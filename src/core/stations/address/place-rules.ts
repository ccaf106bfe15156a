import type { SiteCommand } from '../../document/site-commands.ts';
import { failsIf, rulesFor, tightIf } from '../../findings/rule.ts';
import type { AddressFacts, AddressOffers } from './address-facts.ts';

const rule = rulesFor<AddressFacts, AddressOffers, SiteCommand>();
const and = (names: readonly string[]): string => names.join(' and ');

/** Whether its address can be one, where it is, and whether it stays. */
export const PLACE_RULES = [
  rule({
    id: 'address.notation',
    source: 'RFC 3986 §3.2.2 (dec-octet)',
    needs: ['host', 'notation'],
    judge: (f) => failsIf(f.notation === 'odd'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'Its address is written in a way that programs read differently',
        because: (f) => `${f.host} may be octal, hexadecimal or one number.`,
        do: ['Write four plain decimal numbers, without leading zeros.'],
      },
    },
    why: 'One program reads 010 as eight and the next as ten: each then dials another device.',
  }),
  rule({
    id: 'address.name',
    source: 'RFC 6762 §3: such names end at the network’s edge',
    needs: ['host', 'notation'],
    judge: (f) => tightIf(f.notation === 'name'),
    when: {
      tight: {
        severity: 'watch',
        title: () => 'It is dialled by a name',
        because: (f) => `${f.host} must be known to everybody who draws it, and in each network.`,
        do: ['Reserve an address for it, and dial that.'],
      },
    },
    why: 'A name is one thing more that can fail: a recorder without the right name server finds nothing.',
  }),
  rule({
    id: 'address.link-local',
    source: 'RFC 3927 §2.1',
    needs: ['kind'],
    judge: (f) => failsIf(f.kind === 'link-local'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'It gave itself an address, since nobody gave it one',
        because: (f) => `${f.host} is link-local: no server that hands out addresses answered it.`,
        do: ['Look at its cable, its VLAN and the server that hands out addresses.', 'Then give it an address.'],
      },
    },
    mends: (_, offers) => offers.freeAddress(),
    why: 'Such an address is another one tomorrow, and nobody in another network reaches it.',
  }),
  rule({
    id: 'address.public',
    source: 'RFC 1918 §3',
    needs: ['kind'],
    judge: (f) => tightIf(f.kind === 'public'),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'Its address belongs to the internet',
        because: (f) => `${f.host} is no address of a house.`,
        do: ['Give it an address of the house, and look in through a tunnel.'],
      },
    },
    mends: (_, offers) => offers.freeAddress(),
    why: 'Either the whole world can try its login, or the house uses addresses that belong to somebody else.',
  }),
  rule({
    id: 'address.outside',
    source: 'RFC 4632 §3.1',
    needs: ['hasNetworks', 'kind', 'isInNetwork'],
    asks: (f) => f.hasNetworks === true && f.kind !== 'link-local' && f.kind !== 'public' && f.kind !== undefined,
    judge: (f) => failsIf(!f.isInNetwork),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'Its address lies in no network of this site',
        because: (f) => `${f.host} is outside ${f.networks}.`,
        do: [
          'Look at its mask and gateway: it may have kept those of an older router.',
          'Or describe the network that it is in.',
        ],
      },
    },
    mends: (_, offers) => offers.freeAddress(),
    why: 'Whoever draws it sends to the gateway what a neighbour should get, and the gateway knows no way.',
  }),
  rule({
    id: 'address.no-host',
    source: 'RFC 4632; RFC 919 §7',
    needs: ['misplaced'],
    asks: (f) => f.isInNetwork === true,
    judge: (f) => failsIf(f.misplaced === 'is-network-address' || f.misplaced === 'is-broadcast-address'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Its address is the ${f.misplaced === 'is-broadcast-address' ? 'broadcast' : 'network'} address`,
        because: (f) => `No device can have ${f.host ?? 'it'} in ${f.network ?? 'its network'}.`,
        do: ['Give it another address.'],
      },
    },
    mends: (_, offers) => offers.freeAddress(),
    why: 'The two ends of a network mean all of it, and nobody.',
  }),
  rule({
    id: 'address.gateways',
    source: 'RFC 4632',
    needs: ['host', 'network'],
    asks: (f) => f.isInNetwork === true,
    judge: (f) => (f.isGateway === undefined ? 'unknown' : failsIf(f.isGateway)),
    when: {
      unknown: {
        severity: 'note',
        title: (f) => `The gateway of ${f.network} is not known`,
        because: (f) => `Nobody can say whether ${f.host} is the router’s own address.`,
        do: ['Enter it at the network; of a network without a router, whatever leads out of it.'],
      },
      'will-not-work': {
        severity: 'stop',
        title: () => 'It has the router’s address',
        because: (f) => `${f.host} is the gateway of ${f.network}.`,
        do: ['Give it another address before it is plugged in.'],
      },
    },
    mends: (f, offers) => (f.isGateway ? offers.freeAddress() : []),
    why: 'Half of the house then sends to the camera what belongs to the internet.',
  }),
  rule({
    id: 'address.shared',
    source: 'RFC 5227 §1: one address, one device',
    needs: ['host', 'sharedWith', 'isSharedForSure'],
    judge: (f) => (f.sharedWith.length === 0 ? 'ok' : f.isSharedForSure ? 'will-not-work' : 'tight'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${and(f.sharedWith)} ${f.sharedWith.length === 1 ? 'has' : 'have'} its address too`,
        because: (f) => `Two devices are planned at ${f.host}.`,
        do: ['Give one of them another address.'],
      },
      tight: {
        severity: 'watch',
        title: (f) => `${and(f.sharedWith)} ${f.sharedWith.length === 1 ? 'has' : 'have'} its address too`,
        because: (f) => `Both are planned at ${f.host}; nobody wrote down that they are one box.`,
        do: ['Write down their hardware addresses, or call them channels of one box.'],
      },
    },
    mends: (_, offers) => offers.freeAddress(),
    why: 'Two devices with one address take turns: each works until the other speaks.',
  }),
  rule({
    id: 'address.same-stream',
    source: 'one port leads to one program',
    needs: ['sameStreamAs'],
    judge: (f) => tightIf(f.sameStreamAs.length > 0),
    when: {
      tight: {
        severity: 'watch',
        title: (f) => `It is the same stream as ${and(f.sameStreamAs)}`,
        because: () => 'Address, port and path are the same.',
        do: ['Enter the path of each channel.'],
      },
    },
    why: 'A recorder then files one picture under two names, and the other camera is missing from the evidence.',
  }),
  rule({
    id: 'address.port',
    source: 'the port of the model card',
    needs: ['port', 'cardPort'],
    asks: (f) => f.host !== undefined && f.cardPort !== undefined,
    judge: (f) => tightIf(f.port !== f.cardPort),
    when: {
      tight: {
        severity: 'note',
        title: (f) => `It is dialled at port ${f.port}, and its card says ${f.cardPort}`,
        because: () => 'Somebody set another port, or mistyped it.',
        do: ['Probe it: that decides.'],
      },
    },
    mends: (_, offers) => offers.cardPort(),
    why: 'Firewalls and sheets are made from the port that stands here.',
  }),
  rule({
    id: 'address.kept',
    source: 'RFC 2131 §4.3.1: a server may give another address each time',
    needs: ['host', 'keeping'],
    asks: (f) => f.host !== undefined && f.notation !== 'name' && f.hasNetworks === true,
    judge: (f) => tightIf(f.keeping === 'dynamic'),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'Its address is left to chance',
        because: (f) => `${f.host} is its address until the router or the power fails.`,
        do: ['Reserve its address at the router, by its hardware address.', 'Or set the address on the device itself.'],
      },
    },
    mends: (_, offers) => [...offers.reserve(), ...offers.setOnDevice()],
    why: 'Everything works on the day, and a day later the address has moved and the recording has stopped.',
  }),
  rule({
    id: 'address.static-in-pool',
    source: 'RFC 2131 §2.2: a server hands out what lies in its pool',
    needs: ['keeping', 'network'],
    asks: (f) => f.keeping === 'static' && f.isInNetwork === true,
    judge: (f) => (f.isInPool === undefined ? 'unknown' : tightIf(f.isInPool)),
    when: {
      unknown: {
        severity: 'watch',
        title: () => 'It is not known whether its address is handed out too',
        because: (f) => `It is set on the device, and nobody said which addresses are handed out in ${f.network}.`,
        do: ['Enter the first and the last as the router shows them, or that nobody hands any out.'],
      },
      tight: {
        severity: 'fix',
        title: () => 'Its address lies among those that are handed out',
        because: (f) => `It is set on the device, and ${f.pool ?? 'the pool'} is handed out to others.`,
        do: ['Give it an address outside the pool, or reserve this one.'],
      },
    },
    // another address helps only where it is known which are handed out
    mends: (f, offers) => [...offers.reserve(), ...(f.isInPool ? offers.freeAddress() : [])],
    why: 'One day somebody’s phone is given the same address, and the picture is gone whenever that phone is at home.',
  }),
  rule({
    id: 'address.two-servers',
    source: 'RFC 2131 §3.1: the first answer is taken',
    needs: ['keeping', 'dhcpServers'],
    asks: (f) => f.keeping === 'reservation' && f.dhcpServers !== undefined,
    judge: (f) => tightIf(f.dhcpServers > 1),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'Two servers hand out addresses, and one knows of its reservation',
        because: (f) => `${f.dhcpServers} of them answer in ${f.network ?? 'its network'}.`,
        do: ['Switch all of them off but one.', 'Until then set the address on the device.'],
      },
    },
    mends: (_, offers) => offers.setOnDevice(),
    why: 'Whichever answers first decides: it keeps its address on most days.',
  }),
];
