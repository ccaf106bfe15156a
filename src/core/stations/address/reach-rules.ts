import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor } from '../../findings/rule.ts';
import type { AddressFacts, AddressOffers, Way } from './address-facts.ts';

const rule = rulesFor<AddressFacts, AddressOffers, SiteCommand>();
const list = (words: readonly string[]): string => words.join(', ');
const across = ({ ways }: Facts<AddressFacts>): readonly Way[] => ways?.filter(({ isSame }) => !isSame) ?? [];
const closed = (f: Facts<AddressFacts>): readonly Way[] => across(f).filter(({ allowed }) => allowed === 'none');
const unsaid = (f: Facts<AddressFacts>): readonly Way[] => across(f).filter(({ allowed }) => allowed === null);
/** Where a way that nobody can judge begins and ends, as far as it is known. */
function whereOf({ destination, from, to }: Way): string {
  if (from === null) return `In which network ${destination} is, is not known.`;
  if (to === null) return `${destination} is in ${from}; in which network the camera is, is not known.`;
  return `${destination} is in ${from}, and the camera in ${to}.`;
}
/** It looks for devices by itself, from another network than the camera’s. */
const isSearchInVain = ({ looksByItself, from, to }: Way): boolean => looksByItself && from !== null && to !== null;
const isCutOff = (f: Facts<AddressFacts>): boolean => f.internet === 'none' || f.internet === 'listed';

/** Who may reach it, and what it may reach. */
export const REACH_RULES = [
  rule({
    id: 'address.reach',
    question: 'May each destination that draws it reach it?',
    source: 'the table of who may reach what; RFC 2326 §1.4',
    needs: ['ways'],
    asks: (f) => across(f).length > 0,
    judge: (f) => (closed(f).length > 0 ? 'will-not-work' : unsaid(f).length > 0 ? 'unknown' : 'ok'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${closed(f)[0]?.destination} may not reach it`,
        because: (f) =>
          closed(f)
            .map(
              ({ destination, from, to, port }) =>
                `${destination} in ${from} may open nothing into ${to}, and needs port ${port}`,
            )
            .join('; ')
            .concat('.'),
        do: ['Open just the port that it needs, or put both into one network.'],
      },
      unknown: {
        severity: 'watch',
        title: (f) => `Nobody said whether ${unsaid(f)[0]?.destination} may reach it`,
        because: (f) => unsaid(f).map(whereOf).join(' '),
        do: ['Say in which network each of them is, and what may be opened between the two.'],
      },
    },
    mends: (_, offers) => offers.allowListed(),
    why: 'A firewall that says nothing is why the scan does not show it, and why the recorder says “offline”.',
  }),
  rule({
    id: 'address.search-across',
    question: 'Will a destination find it by a search?',
    source: 'WS-Discovery §2.4: multicast stays in its network',
    needs: ['ways'],
    asks: (f) => across(f).some(isSearchInVain),
    isTight: () => true,
    severity: 'note',
    title: (f) => `${across(f).find(isSearchInVain)?.destination ?? 'A destination'} will not find it by a search`,
    because: () => 'They are in two networks, and a search does not cross.',
    do: ['Add it by its address.'],
    why: 'A search that shows nothing is taken for a camera that does not work.',
  }),
  rule({
    id: 'address.open-to-others',
    question: 'May a network open it that nothing in it draws?',
    source: 'only what a tap needs [A]',
    needs: ['openFrom'],
    asks: (f) => f.openFrom !== undefined && f.host !== undefined,
    isTight: (f) => f.openFrom.length > 0,
    severity: 'watch',
    title: (f) => `Everybody in ${list(f.openFrom)} may open everything of it`,
    because: () => 'Nothing there draws it.',
    do: ['Close it, or open just what is needed.'],
    mends: (_, offers) => offers.closeOthers(),
    why: 'Whoever is let in as a guest can try logins all night.',
  }),
  rule({
    id: 'address.internet',
    question: 'May it talk to anybody on the internet?',
    source: 'cut off unless something needs it [A]',
    needs: ['internet'],
    asks: (f) => f.host !== undefined && f.internet !== undefined,
    isTight: (f) => f.internet === 'all',
    severity: 'watch',
    title: () => 'It may talk to anybody on the internet',
    because: (f) => `${f.network ?? 'Its network'} may open everything outwards.`,
    do: ['Cut its network off from the internet; give it the time from the router.'],
    mends: (_, offers) => offers.cutOff(),
    why: 'A camera is a small computer that nobody updates: what it cannot dial, it cannot betray.',
  }),
  rule({
    id: 'address.loses-cut-off',
    question: 'Does something of it stop without the internet?',
    source: 'its model card; how it serves',
    needs: ['losesWithoutInternet'],
    asks: (f) => isCutOff(f) && f.losesWithoutInternet !== undefined,
    isTight: (f) => f.losesWithoutInternet.length > 0,
    severity: 'note',
    title: () => 'Cut off from the internet, part of it stops',
    because: (f) => `${list(f.losesWithoutInternet)}.`,
    do: ['Tell the customer what stops, and what takes its place in the house.'],
    why: 'What the customer misses a week later is what nobody told.',
  }),
  rule({
    id: 'address.time',
    question: 'Can it set its clock, cut off from the internet?',
    source: 'RFC 5905 §1: a clock without a source drifts',
    needs: ['ntp'],
    asks: (f) => f.host !== undefined && isCutOff(f),
    fails: (f) => f.isNtpOutside === true,
    severity: 'fix',
    title: () => 'It can no longer set its clock',
    because: (f) => `It takes the time from ${f.ntp}, outside, and is cut off from the internet.`,
    do: ['Let the router give the time, or a recorder in the house.'],
    mends: (_, offers) => offers.gatewayTime(),
    why: 'A login by ONVIF fails when the clock is off, and recordings are filed under the wrong hour.',
  }),
  rule({
    id: 'address.forwarded',
    question: 'Does a port of the router lead to it?',
    source: 'no port of a camera in the open [A]',
    needs: ['forwards'],
    asks: (f) => f.host !== undefined,
    fails: (f) => f.forwards.length > 0,
    severity: 'fix',
    title: () => 'The whole internet can try its login',
    because: (f) => `The router leads port ${list(f.forwards)} to it.`,
    do: ['Close it at the router, and look in through a tunnel.', 'Test from outside that it is closed.'],
    mends: (_, offers) => offers.dropForwards(),
    why: 'Open ports of cameras are found within hours, and tried until one opens.',
  }),
  rule({
    id: 'address.look-in',
    question: 'Is it said how somebody looks in from outside?',
    source: 'what is not known is not fine',
    needs: ['forwards'],
    asks: (f) => f.host !== undefined && f.hasNetworks === true && f.forwards?.length === 0,
    judge: (f) => (f.lookIn === undefined || f.lookIn === 'forward' ? 'unknown' : 'ok'),
    when: {
      unknown: {
        severity: 'note',
        title: () => 'It is not known whether the router leads anybody in to it',
        because: (f) =>
          f.lookIn === 'forward'
            ? 'Somebody looks in by a port of the router, and which ports lead where stands nowhere.'
            : 'Nobody said how somebody looks in from outside.',
        do: ['Look at the router’s page of ports that lead in, and enter what stands there and how one looks in.'],
      },
    },
    why: 'A port that somebody opened years ago is still open, and nobody remembers it.',
  }),
  rule({
    id: 'address.forward-in-vain',
    question: 'Can a port that leads in work here at all?',
    source: 'RFC 6598 §1',
    needs: ['outside'],
    asks: (f) => f.host !== undefined && (f.lookIn === 'forward' || (f.forwards?.length ?? 0) > 0),
    fails: (f) => f.outside === 'shared-cgnat' || f.outside === 'private',
    severity: 'watch',
    title: () => 'A port that leads in cannot work here',
    because: (f) =>
      f.outside === 'private'
        ? 'The router’s own address outside is private: another router stands in front of it.'
        : 'The router shares its address outside with other houses.',
    do: ['Take a tunnel that is opened from inside.'],
    why: 'Nobody outside can reach an address that the provider shares out.',
  }),
  rule({
    id: 'address.opens-by-itself',
    question: 'May it open a port of the router by itself?',
    source: 'UPnP Internet Gateway Device 2.0 §2.3',
    needs: ['opensByItself'],
    asks: (f) => f.host !== undefined && f.opensByItself !== undefined,
    isTight: (f) => f.opensByItself,
    severity: 'watch',
    title: () => 'It may open a port of the router by itself',
    because: () => 'The router lets devices do that, unasked.',
    do: ['Switch that off at the router.'],
    why: 'A camera that wants to be reached from outside sees to it, and tells nobody.',
  }),
];
