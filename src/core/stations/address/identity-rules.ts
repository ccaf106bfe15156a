import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor } from '../../findings/rule.ts';
import type { AddressFacts, AddressOffers } from './address-facts.ts';

const rule = rulesFor<AddressFacts, AddressOffers, SiteCommand>();
const isReserved = (f: Facts<AddressFacts>): boolean => f.keeping === 'reservation';
const and = (names: readonly string[]): string => names.join(' and ');

/** Whether it can be known again, and whether a reservation for it holds. */
export const IDENTITY_RULES = [
  rule({
    id: 'address.mac-missing',
    question: 'Is the MAC address for its reservation known?',
    source: 'RFC 2131 §4.2: a reservation is keyed by the MAC address',
    needs: ['keeping'],
    asks: isReserved,
    isTight: (f) => f.macText === undefined,
    severity: 'fix',
    title: () => 'DHCP reservation without a MAC address',
    because: () => 'A router reserves by the MAC address, and none is entered.',
    do: ['Scan the network, or read it from the label.', 'Or plan a static address on the device.'],
    mends: (_, offers) => [...offers.takeIdentity(), ...offers.setOnDevice()],
    why: 'A reservation that cannot be entered does not exist.',
  }),
  rule({
    id: 'address.mac-malformed',
    question: 'Is its MAC address valid?',
    source: 'IEEE 802 §8.1: six octets',
    needs: ['macText', 'isMacGood'],
    asks: (f) => f.macText !== undefined,
    fails: (f) => !f.isMacGood,
    severity: 'fix',
    title: () => 'Invalid MAC address',
    because: (f) => `“${f.macText}” is not six pairs of hexadecimal digits.`,
    do: ['Read it again: six pairs, 0 to 9 and A to F; an O is a zero.'],
    mends: (_, offers) => offers.takeIdentity(),
    why: 'The router accepts it and reserves for no device, or refuses the whole list.',
  }),
  rule({
    id: 'address.mac-group',
    question: 'Is its MAC address a multicast address?',
    source: 'IEEE 802 §8.2: the I/G bit',
    needs: ['mac', 'isGroupMac'],
    asks: (f) => f.mac !== undefined,
    fails: (f) => f.isGroupMac,
    severity: 'fix',
    title: () => 'Multicast MAC address',
    because: (f) => `${f.mac} begins with an odd octet: no device has such an address.`,
    do: ['Read it again from the label, or scan the network.'],
    mends: (_, offers) => offers.takeIdentity(),
    why: 'It was mistyped, or belongs to something else.',
  }),
  rule({
    id: 'address.mac-shared',
    question: 'Is its MAC address unique?',
    source: 'IEEE 802 §8.2: one for each network port',
    needs: ['mac', 'macSharedWith'],
    asks: (f) => f.mac !== undefined,
    fails: (f) => f.macSharedWith.length > 0,
    severity: 'fix',
    title: (f) => `Duplicate MAC address: ${and(f.macSharedWith)}`,
    because: (f) => `Both have ${f.mac}.`,
    do: [
      'Read both labels again; a label copied from one device to the next is common.',
      'Channels of one recorder share it: set their kind to channel.',
    ],
    mends: (_, offers) => offers.takeIdentity(),
    why: 'The router gives both one address, or one of them none.',
  }),
  rule({
    id: 'address.mac-random',
    question: 'Does its reservation rest on a random MAC address?',
    source: 'IEEE 802 §8.2: the U/L bit',
    needs: ['mac', 'isLocalMac'],
    asks: (f) => isReserved(f) && f.mac !== undefined && f.hasFixedMac !== true,
    isTight: (f) => f.isLocalMac,
    severity: 'fix',
    title: () => 'DHCP reservation on a random MAC address',
    because: (f) => `${f.mac} is locally administered: it may change for each network, each day or after a reset.`,
    do: [
      'Switch the random MAC address off for this network, and read the fixed one.',
      'Or plan a static address on the device.',
    ],
    mends: (_, offers) => offers.setOnDevice(),
    why: 'The reservation silently stops matching.',
  }),
  rule({
    id: 'address.nothing-stays',
    question: 'Is anything recorded by which it is recognised?',
    source: 'recognised by what does not change [A]',
    needs: ['host'],
    asks: (f) => f.host !== undefined && f.hasNetworks === true && f.seen === 'unproven',
    isTight: (f) => f.macText === undefined,
    severity: 'note',
    title: () => 'Device at its address not identified',
    because: () =>
      'A device responds at its address; no MAC address, serial number or ONVIF identity is recorded for this camera.',
    do: ['Check which device it is, and save its identity.'],
    mends: (_, offers) => offers.takeIdentity(),
    why: 'When its address changes, only a recorded identity tells which device it is.',
  }),
];
