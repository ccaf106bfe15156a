import type { SiteCommand } from '../../document/site-commands.ts';
import { type Facts, rulesFor, tightIf } from '../../findings/rule.ts';
import type { AddressFacts, AddressOffers, Way } from './address-facts.ts';

const rule = rulesFor<AddressFacts, AddressOffers, SiteCommand>();
const list = (words: readonly string[]): string => words.join(', ');
const across = ({ ways }: Facts<AddressFacts>): readonly Way[] => ways?.filter(({ isSame }) => !isSame) ?? [];
const closed = (f: Facts<AddressFacts>): readonly Way[] => across(f).filter(({ allowed }) => allowed === 'none');
const unsaid = (f: Facts<AddressFacts>): readonly Way[] => across(f).filter(({ allowed }) => allowed === null);
/** Where a way that nobody can judge begins and ends, as far as it is known. */
function whereOf({ destination, from, to }: Way): string {
  if (from === null) return `The network of ${destination} is not known.`;
  if (to === null) return `${destination} is in ${from}; the camera’s network is not known.`;
  return `${destination} is in ${from}, and the camera in ${to}.`;
}
/** It looks for devices by itself, from another network than the camera’s. */
const isSearchInVain = ({ looksByItself, from, to }: Way): boolean => looksByItself && from !== null && to !== null;
/** The provider shares the address: nothing that comes from outside can be meant for this house. */
const isShared = (kind: AddressFacts['outside']): boolean => kind === 'shared-cgnat' || kind === 'ds-lite';
const isCutOff = (f: Facts<AddressFacts>): boolean => f.internet === 'none' || f.internet === 'listed';

/** Who may reach it, and what it may reach. */
export const REACH_RULES = [
  rule({
    id: 'address.firewall',
    question: 'May each of its destinations connect to it?',
    source: 'firewall rules between networks; RFC 2326 §1.4',
    needs: ['ways'],
    asks: (f) => across(f).length > 0,
    judge: (f) => (closed(f).length > 0 ? 'will-not-work' : unsaid(f).length > 0 ? 'unknown' : 'ok'),
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `Firewall blocks ${closed(f)[0]?.destination}`,
        because: (f) =>
          closed(f)
            .map(
              ({ destination, from, to, port }) =>
                `${destination} in ${from} may not connect to ${to}, and needs port ${port}`,
            )
            .join('; ')
            .concat('.'),
        do: ['Allow only the port that it needs, or move both into one network.'],
      },
      unknown: {
        severity: 'caution',
        title: (f) => `Firewall between ${unsaid(f)[0]?.destination} and the camera not known`,
        because: (f) => unsaid(f).map(whereOf).join(' '),
        do: ['Enter the network of each, and the firewall rules between the two.'],
      },
    },
    mends: (_, offers) => offers.allowListed(),
    why: 'A firewall without the rule is why a scan does not show the camera, and why the recorder says “offline”.',
  }),
  rule({
    id: 'address.discovery-across',
    question: 'Will a destination find it by discovery?',
    source: 'WS-Discovery §2.4: multicast stays in its network',
    needs: ['ways'],
    asks: (f) => across(f).some(isSearchInVain),
    isTight: () => true,
    severity: 'note',
    title: (f) => `${across(f).find(isSearchInVain)?.destination ?? 'A destination'} will not find it by discovery`,
    because: () => 'They are in two networks, and discovery does not cross.',
    do: ['Add it by its IP address.'],
    why: 'A discovery without results looks like a camera that does not work.',
  }),
  rule({
    id: 'address.open-to-others',
    question: 'May a network connect to it that has no destination for it?',
    source: 'only what a tap needs [A]',
    needs: ['openFrom'],
    asks: (f) => f.openFrom !== undefined && f.host !== undefined,
    isTight: (f) => f.openFrom.length > 0,
    severity: 'caution',
    title: (f) => `Open to all devices in ${list(f.openFrom)}`,
    because: () => 'No destination there pulls its stream.',
    do: ['Block it, or allow only what is needed.'],
    mends: (_, offers) => offers.closeOthers(),
    why: 'Any guest can try logins all night.',
  }),
  rule({
    id: 'address.internet',
    question: 'May it connect to any address on the internet?',
    source: 'blocked unless something needs it [A]',
    needs: ['internet'],
    asks: (f) => f.host !== undefined && f.internet !== undefined,
    isTight: (f) => f.internet === 'all',
    severity: 'caution',
    title: () => 'Unrestricted internet access',
    because: (f) => `${f.network ?? 'Its network'} may open any connection to the internet.`,
    do: ['Block its network from the internet; use the router as time server.'],
    mends: (_, offers) => offers.cutOff(),
    why: 'A camera is a small computer that nobody updates: what it cannot dial, it cannot leak.',
  }),
  rule({
    id: 'address.loses-cut-off',
    question: 'Does it lose a function without the internet?',
    source: 'its model card; how it streams',
    needs: ['losesWithoutInternet'],
    asks: (f) => isCutOff(f) && f.losesWithoutInternet !== undefined,
    isTight: (f) => f.losesWithoutInternet.length > 0,
    severity: 'note',
    title: () => 'Functions lost without the internet',
    because: (f) => `${list(f.losesWithoutInternet)}.`,
    do: ['Tell the customer which functions stop, and what replaces them in the house.'],
    why: 'What nobody mentioned is missed a week later.',
  }),
  rule({
    id: 'address.time',
    question: 'Can it reach its time server?',
    source: 'RFC 5905 §1: a clock without a source drifts',
    needs: ['ntp', 'ntpReach', 'ntpPlace'],
    asks: (f) => f.host !== undefined && (isCutOff(f) || f.ntpReach === 'blocked'),
    judge: (f) => (f.ntpReach === 'blocked' ? 'will-not-work' : f.ntpReach === 'unknown' ? 'unknown' : 'ok'),
    when: {
      'will-not-work': {
        severity: 'fix',
        title: () => 'Time server not reachable',
        because: (f) =>
          `Its time server ${f.ntp} is ${f.ntpPlace}, and ${f.network ?? 'its network'} may not connect to it.`,
        do: ['Use the router as time server, or a recorder in the house.'],
      },
      unknown: {
        severity: 'note',
        title: () => 'Whether it reaches its time server is not known',
        because: (f) => `Its time server ${f.ntp} is ${f.ntpPlace}.`,
        do: ['Enter the firewall rule between the two, or use the router as time server.'],
      },
    },
    mends: (_, offers) => offers.gatewayTime(),
    why: 'A time-stamped login by ONVIF fails when the clock is off, and recordings are filed under the wrong hour.',
  }),
  rule({
    id: 'address.port-forward',
    question: 'Is there a port forward to it?',
    source: 'no port forward to a camera [A]',
    needs: ['forwards'],
    asks: (f) => f.host !== undefined,
    fails: (f) => f.forwards.length > 0,
    severity: 'fix',
    title: () => 'Port forward: open to the whole internet',
    because: (f) => `The router forwards port ${list(f.forwards)} to it.`,
    do: ['Remove the port forward, and use a VPN for remote access.', 'Test from outside that the port is closed.'],
    mends: (_, offers) => offers.dropForwards(),
    why: 'Open camera ports are found within hours, and logins are tried until one works.',
  }),
  rule({
    id: 'address.port-forward-recorder',
    question: 'Is there a port forward to a destination that pulls it?',
    source: 'no port forward to a recorder [A]',
    needs: ['recorderForwards'],
    asks: (f) => f.host !== undefined,
    fails: (f) => f.recorderForwards.length > 0,
    severity: 'fix',
    title: () => 'Port forward to its recorder: open to the whole internet',
    because: (f) => `The router forwards a port: ${list(f.recorderForwards)}.`,
    do: ['Remove the port forward, and use a VPN for remote access.', 'Test from outside that the port is closed.'],
    mends: (_, offers) => offers.dropRecorderForwards(),
    why: 'Whoever gets into the recorder sees every camera, and has their passwords.',
  }),
  rule({
    id: 'address.remote-access',
    question: 'Is remote access decided?',
    source: 'what is not known is not fine',
    needs: ['forwards'],
    asks: (f) => f.host !== undefined && f.hasNetworks === true && f.forwards?.length === 0,
    judge: (f) => (f.lookIn === undefined || f.lookIn === 'forward' ? 'unknown' : 'ok'),
    when: {
      unknown: {
        severity: 'note',
        title: () => 'Port forwards to it not known',
        because: (f) =>
          f.lookIn === 'forward'
            ? 'Remote access is by port forward, and no port forward is entered.'
            : 'Remote access is not decided.',
        do: ['Look at the port forwards on the router’s page, and enter them and the kind of remote access.'],
      },
    },
    why: 'A port forward made years ago is still open, and forgotten.',
  }),
  rule({
    id: 'address.port-forward-in-vain',
    question: 'Can a port forward work here?',
    source: 'RFC 6598 §1 (carrier-grade NAT), RFC 6333 §4 (DS-Lite), RFC 1918 §3',
    needs: ['outside'],
    asks: (f) =>
      f.host !== undefined &&
      (f.lookIn === 'forward' || (f.forwards?.length ?? 0) > 0 || (f.recorderForwards?.length ?? 0) > 0),
    judge: (f) => (isShared(f.outside) ? 'will-not-work' : tightIf(f.outside === 'private')),
    when: {
      'will-not-work': {
        severity: 'caution',
        title: () => 'Port forward cannot work here',
        because: (f) =>
          f.outside === 'ds-lite'
            ? 'DS-Lite: the provider shares one public IPv4 address between its customers.'
            : 'Carrier-grade NAT: the router shares its public address.',
        do: ['Use a VPN that is opened from inside.'],
      },
      tight: {
        severity: 'caution',
        title: () => 'Double NAT: port forward needed at both routers',
        because: () => 'The router’s own address outside is private: another router is in front of it.',
        do: ['Use a VPN that is opened from inside.', 'Or switch the router in front to bridge mode.'],
      },
    },
    why: 'Nobody outside can reach an address that the provider shares, or one behind another router.',
  }),
  rule({
    id: 'address.upnp',
    question: 'May it open a port by UPnP?',
    source: 'UPnP Internet Gateway Device 2.0 §2.3',
    needs: ['opensByItself'],
    asks: (f) => f.host !== undefined && f.opensByItself !== undefined,
    isTight: (f) => f.opensByItself,
    severity: 'caution',
    title: () => 'UPnP port mapping allowed',
    because: () => 'The router lets devices open ports by themselves.',
    do: ['Switch UPnP off at the router.'],
    why: 'A camera made for remote access opens a port silently.',
  }),
];
