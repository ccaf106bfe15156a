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
    question: 'Does it answer where it is planned?',
    source: 'the last look through its network',
    needs: ['seen', 'seenAt', 'drawnBy'],
    asks: wasLookedFor,
    fails: (f) => f.seen === 'moved',
    severity: 'stop',
    title: (f) => `It has moved to ${f.seenAt[0] ?? 'another address'}`,
    because: (f) =>
      f.drawnBy.length === 0
        ? `It no longer answers at ${f.host ?? 'its address'}.`
        : `${list(f.drawnBy)} still ${f.drawnBy.length === 1 ? 'draws' : 'draw'} from ${f.host ?? 'the old address'}: ${sayMany(f.drawnBy.length, 'tap')} broken.`,
    do: ['Take the new address everywhere, and hand it over again.', 'Then reserve it, so that it stays.'],
    mends: (_, offers) => offers.follow(),
    why: 'The recording has stopped, and nobody was told.',
  }),
  rule({
    id: 'address.missing',
    question: 'Was it there when its network was looked through?',
    source: 'the last look through its network',
    needs: ['seen', 'isSweepWhole'],
    asks: wasLookedFor,
    judge: (f) => (f.seen === 'missing' ? (f.isSweepWhole ? 'tight' : 'unknown') : 'ok'),
    when: {
      tight: {
        severity: 'fix',
        title: () => 'It was not there when its network was looked through',
        because: (f) =>
          `Nothing answers at ${f.host ?? 'its address'}, and nothing that answers elsewhere is known to be it.`,
        do: ['Look at its power and its cable.', 'A device with a new hardware address is among the unknown answers.'],
      },
    },
    why: 'What does not answer is not recorded.',
  }),
  rule({
    id: 'address.other-device',
    question: 'Does another device answer at its address?',
    source: 'the last look through its network',
    needs: ['seen', 'seenMac'],
    asks: (f) => wasLookedFor(f) && f.seenMac !== undefined,
    fails: (f) => f.seen === 'other-at-address',
    severity: 'stop',
    title: () => 'Another device answers at its address',
    because: (f) => `${f.host ?? 'Its address'} belongs to ${f.seenMac || 'a device with another identity'} now.`,
    do: [
      'Find where the camera went: look through the whole network.',
      'If the device was exchanged, take its new identity.',
    ],
    mends: (_, offers) => offers.takeIdentity(),
    why: 'Whoever draws it now sends its login to somebody else.',
  }),
  rule({
    id: 'address.seen-twice',
    question: 'Does it answer from one address alone?',
    source: 'RFC 5227 §1; WS-Discovery §2.6: an identity is of one device',
    needs: ['seen', 'seenAt'],
    asks: wasLookedFor,
    isTight: (f) => f.seen === 'double',
    severity: 'fix',
    title: () => 'It answers from two addresses',
    because: (f) => `${list(f.seenAt)} say that they are it.`,
    do: [
      'It may be joined by cable and by radio at once: switch one off.',
      'Or two devices were given one identity: a copied configuration does that.',
    ],
    why: 'One of the two addresses will go, and nobody knows which.',
  }),
  rule({
    id: 'address.says-elsewhere',
    question: 'Does it give the address at which it answers?',
    source: 'WS-Discovery §5.3: XAddrs',
    needs: ['seenAlsoAt'],
    asks: (f) => f.seenAlsoAt !== undefined && f.seenAlsoAt.length > 0,
    isTight: () => true,
    severity: 'watch',
    title: () => 'It gives another address as its own',
    because: (f) => `It answers at ${f.seenAt?.[0] ?? f.host ?? 'one address'} and names ${list(f.seenAlsoAt)}.`,
    do: [
      'Add it by the address at which it answers, not by a search.',
      'Restart it, or set its network anew: it keeps an address of before.',
    ],
    why: 'A recorder that finds it by a search dials the address that it names, and gets nothing.',
  }),
  rule({
    id: 'address.link-local-seen',
    question: 'Did something that was given no address answer, while it is missing?',
    source: 'RFC 3927 §2.1',
    needs: ['linkLocalSeen'],
    asks: (f) => f.seen === 'missing' && f.linkLocalSeen !== undefined,
    isTight: (f) => f.linkLocalSeen.length > 0,
    severity: 'watch',
    title: () => 'Something in its network was given no address',
    because: (f) => `${list(f.linkLocalSeen)} answered: it may be this one.`,
    do: ['Look at the server that hands out addresses, and at the VLAN of its port.'],
    why: 'A device that nobody gives an address makes one up, and is found by nobody.',
  }),
];
