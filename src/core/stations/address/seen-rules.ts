import { sayMany } from '../../base/say.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor } from '../../findings/rule.ts';
import type { AddressFacts, AddressOffers } from './address-facts.ts';

const rule = rulesFor<AddressFacts, AddressOffers, SiteCommand>();
const wasLookedFor = (f: Facts<AddressFacts>): boolean => f.seen !== undefined && f.seen !== 'no-address';
const list = (words: readonly string[]): string => words.join(', ');

/** What the last look through its network says against the plan. */
export const SEEN_RULES = [
  rule({
    id: 'address.moved',
    question: 'Does it answer at its planned address?',
    source: 'the last scan of its network',
    needs: ['seen', 'seenAt', 'drawnBy'],
    asks: wasLookedFor,
    fails: (f) => f.seen === 'moved',
    severity: 'stop',
    title: (f) => `Address changed to ${f.seenAt[0] ?? 'another address'}`,
    because: (f) =>
      f.drawnBy.length === 0
        ? `It no longer responds at ${f.host ?? 'its address'}.`
        : `${list(f.drawnBy)} still ${f.drawnBy.length === 1 ? 'pulls' : 'pull'} from ${f.host ?? 'the old address'}: ${sayMany(f.drawnBy.length, 'tap')} broken.`,
    do: ['Take over the new address, and hand it over again.', 'Then plan a DHCP reservation, so that it stays.'],
    mends: (_, offers) => offers.follow(),
    why: 'The recording has stopped, and no alert was sent.',
  }),
  rule({
    id: 'address.missing',
    question: 'Did it answer when its network was scanned?',
    source: 'the last scan of its network',
    needs: ['seen', 'isSweepWhole'],
    asks: wasLookedFor,
    judge: (f) => (f.seen === 'missing' ? (f.isSweepWhole ? 'tight' : 'unknown') : 'ok'),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'Not found by the last scan',
        because: (f) => `Nothing responds at ${f.host ?? 'its address'}, and no device elsewhere is known to be it.`,
        do: ['Check its power and its cable.', 'Check the unknown devices: it may have a new MAC address.'],
      },
    },
    why: 'A camera that does not respond is not recorded.',
  }),
  rule({
    id: 'address.other-device',
    question: 'Does another device answer at its address?',
    source: 'the last scan of its network',
    needs: ['seen', 'seenMac'],
    asks: (f) => wasLookedFor(f) && f.seenMac !== undefined,
    judge: (f) =>
      f.seen === 'other-at-address'
        ? 'will-not-work'
        : f.seenPerhapsOther === true && f.seen === 'unproven'
          ? 'unknown'
          : 'ok',
    when: {
      'will-not-work': {
        severity: 'stop',
        title: () => 'Another device at its address',
        because: (f) => `${f.host ?? 'Its address'} belongs to ${f.seenMac || 'a device with another identity'} now.`,
        do: ['Find where the camera is: scan the whole network.', 'If the device was replaced, save its new identity.'],
      },
      unknown: {
        severity: 'caution',
        title: () => 'Perhaps another device at its address',
        because: (f) =>
          `${f.seenMac} answers at ${f.host ?? 'its address'}, and ${f.macText ?? 'another MAC address'} is on record; one of the two is a random MAC address.`,
        do: ['Check which device it is, and save its identity.', 'Switch its random MAC address off for this network.'],
      },
    },
    mends: (_, offers) => offers.takeIdentity(),
    why: 'Its destinations now send its login to another device.',
  }),
  rule({
    id: 'address.seen-twice',
    question: 'Does it answer at one address only?',
    source: 'RFC 5227 §1; WS-Discovery §2.6: an identity is of one device',
    needs: ['seen', 'seenAt'],
    asks: wasLookedFor,
    isTight: (f) => f.seen === 'double',
    severity: 'fix',
    title: () => 'Answers at two addresses',
    because: (f) => `${list(f.seenAt)} report its identity.`,
    do: [
      'It may be connected by cable and by Wi-Fi at once: switch one off.',
      'Or two devices have one identity: a copied configuration does that.',
    ],
    why: 'One of the two addresses will go, and nobody knows which.',
  }),
  rule({
    id: 'address.says-elsewhere',
    question: 'Does it report the address at which it answers?',
    source: 'WS-Discovery §5.3: XAddrs',
    needs: ['seenAlsoAt'],
    asks: (f) => f.seenAlsoAt !== undefined && f.seenAlsoAt.length > 0,
    isTight: () => true,
    severity: 'caution',
    title: () => 'Reports another address as its own',
    because: (f) => `It answers at ${f.seenAt?.[0] ?? f.host ?? 'one address'} and reports ${list(f.seenAlsoAt)}.`,
    do: [
      'Add it by the address at which it answers, not by discovery.',
      'Restart it, or set its network again: it keeps an earlier address.',
    ],
    why: 'A recorder that discovers it dials the reported address, and gets no answer.',
  }),
  rule({
    id: 'address.link-local-seen',
    question: 'Did a device without an assigned address answer, while it is missing?',
    source: 'RFC 3927 §2.1',
    needs: ['linkLocalSeen'],
    asks: (f) => f.seen === 'missing' && f.linkLocalSeen !== undefined,
    isTight: (f) => f.linkLocalSeen.length > 0,
    severity: 'caution',
    title: () => 'Link-local device in its network',
    because: (f) => `${list(f.linkLocalSeen)} responded: it may be this camera.`,
    do: ['Check the DHCP server, and the VLAN of its port.'],
    why: 'A device without a DHCP address makes one up, and nobody finds it.',
  }),
];
