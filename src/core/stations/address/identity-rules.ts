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
    question: 'Is the hardware address known by which it is reserved?',
    source: 'RFC 2131 §4.2: a reservation is by the hardware address',
    needs: ['keeping'],
    asks: isReserved,
    isTight: (f) => f.macText === undefined,
    severity: 'fix',
    title: () => 'It is to be reserved, and its hardware address is not known',
    because: () => 'A router reserves by the hardware address, which is written nowhere.',
    do: ['Look through the network, or read it on its label.', 'Or set the address on the device.'],
    mends: (_, offers) => [...offers.takeIdentity(), ...offers.setOnDevice()],
    why: 'A reservation that cannot be entered is a wish.',
  }),
  rule({
    id: 'address.mac-malformed',
    question: 'Is its hardware address one?',
    source: 'IEEE 802 §8.1: six octets',
    needs: ['macText', 'isMacGood'],
    asks: (f) => f.macText !== undefined,
    fails: (f) => !f.isMacGood,
    severity: 'fix',
    title: () => 'Its hardware address is none',
    because: (f) => `“${f.macText}” is not six pairs of hexadecimal digits.`,
    do: ['Read it again: six pairs, 0 to 9 and A to F; an O is a zero.'],
    mends: (_, offers) => offers.takeIdentity(),
    why: 'The router takes it and reserves for nobody, or refuses the whole list.',
  }),
  rule({
    id: 'address.mac-group',
    question: 'Is its hardware address that of a group?',
    source: 'IEEE 802 §8.2: the I/G bit',
    needs: ['mac', 'isGroupMac'],
    asks: (f) => f.mac !== undefined,
    fails: (f) => f.isGroupMac,
    severity: 'fix',
    title: () => 'Its hardware address is that of a group',
    because: (f) => `${f.mac} begins with an odd octet: no device has such a one.`,
    do: ['Read it again on the label, or look through the network.'],
    mends: (_, offers) => offers.takeIdentity(),
    why: 'It was mistyped, or is the address of something else.',
  }),
  rule({
    id: 'address.mac-shared',
    question: 'Has another device its hardware address?',
    source: 'IEEE 802 §8.2: each plug its own',
    needs: ['mac', 'macSharedWith'],
    asks: (f) => f.mac !== undefined,
    fails: (f) => f.macSharedWith.length > 0,
    severity: 'fix',
    title: (f) => `${and(f.macSharedWith)} ${f.macSharedWith.length === 1 ? 'has' : 'have'} the same hardware address`,
    because: (f) => `${f.mac} stands at both.`,
    do: [
      'Read both labels again; a label copied from one box to the next is common.',
      'Channels of one box share it: call them channels.',
    ],
    mends: (_, offers) => offers.takeIdentity(),
    why: 'The router gives both one address, or one of them none.',
  }),
  rule({
    id: 'address.mac-random',
    question: 'Is it reserved by a hardware address that it made up?',
    source: 'IEEE 802 §8.2: the U/L bit',
    needs: ['mac', 'isLocalMac'],
    asks: (f) => isReserved(f) && f.mac !== undefined && f.hasFixedMac !== true,
    isTight: (f) => f.isLocalMac,
    severity: 'fix',
    title: () => 'It is reserved by a hardware address that it made up',
    because: (f) =>
      `${f.mac} is locally administered: it may be another one for each network, each day or after a reset.`,
    do: [
      'Switch the random hardware address off for this network, and read the fixed one.',
      'Or set the address on the device.',
    ],
    mends: (_, offers) => offers.setOnDevice(),
    why: 'The reservation silently stops matching, and nothing tells anybody.',
  }),
  rule({
    id: 'address.nothing-stays',
    question: 'Is anything written down by which it is known again?',
    source: 'known again by what does not change [A]',
    needs: ['host'],
    asks: (f) => f.host !== undefined && f.hasNetworks === true && f.seen === 'unproven',
    isTight: (f) => f.macText === undefined,
    severity: 'note',
    title: () => 'Something answers at its address, and nothing says that it is this one',
    because: () => 'Neither its hardware address nor its serial number nor its ONVIF identity is written down.',
    do: ['Look which it is, and take its identity.'],
    mends: (_, offers) => offers.takeIdentity(),
    why: 'When its address moves, only what was written down tells which of the answers it is.',
  }),
];
