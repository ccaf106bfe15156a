import { parseMac } from '../../net/mac.ts';
import { below, childOf, childrenOf, textIn, type XmlNode } from '../envelope.ts';
import { NAMESPACES, SERVICE_NAMES, type ServiceName } from '../namespaces.ts';
import { MOST_URI } from '../onvif-limits.ts';
import { operation } from '../operation.ts';
import { flagIn, saidIn, wholeIn } from '../read-values.ts';

// Source: ONVIF Core §8 (device service).

/** What a device's clock says. */
export interface DeviceTime {
  readonly unixMs: number;
  /** Who keeps it: set by hand, or asked of a time server. */
  readonly kept: 'manual' | 'ntp' | null;
  readonly zone: string;
}

const within = (value: number | null, from: number, to: number): value is number =>
  value !== null && value >= from && value <= to;

/** `null` where it gives no whole date: a time that was guessed would be worse than none. */
function readTime(answer: XmlNode): DeviceTime | null {
  const all = childOf(answer, 'SystemDateAndTime');
  const utc = childOf(all, 'UTCDateTime');
  const [date, time] = [childOf(utc, 'Date'), childOf(utc, 'Time')];
  const [year, month, day] = [wholeIn(date, 'Year'), wholeIn(date, 'Month'), wholeIn(date, 'Day')];
  const [hour, minute, second] = [wholeIn(time, 'Hour'), wholeIn(time, 'Minute'), wholeIn(time, 'Second')];
  const isWhole =
    within(year, 1970, 9999) &&
    within(month, 1, 12) &&
    within(day, 1, 31) &&
    within(hour, 0, 23) &&
    within(minute, 0, 59) &&
    within(second, 0, 61);
  if (!isWhole) return null;
  const kind = textIn(all, 'DateTimeType').toLowerCase();
  return {
    unixMs: Date.UTC(year, month - 1, day, hour, minute, second),
    kept: kind === 'ntp' ? 'ntp' : kind === 'manual' ? 'manual' : null,
    zone: saidIn(childOf(all, 'TimeZone'), 'TZ'),
  };
}

export interface DeviceInformation {
  readonly make: string;
  readonly model: string;
  readonly firmware: string;
  readonly serial: string;
  readonly hardware: string;
}

/** One service as the device tells of it. */
export interface ToldService {
  readonly name: ServiceName;
  readonly url: string;
  /** “2.60”; empty where it says none. */
  readonly version: string;
}

/** More are no services of ONVIF. */
const MOST_SERVICES = 64;

const NAME_OF_NAMESPACE: ReadonlyMap<string, ServiceName> = new Map(
  SERVICE_NAMES.map((name) => [NAMESPACES[name].toLowerCase(), name]),
);

const readServices = (answer: XmlNode): readonly ToldService[] =>
  childrenOf(answer, 'Service')
    .slice(0, MOST_SERVICES)
    .flatMap((service): readonly ToldService[] => {
      const name = NAME_OF_NAMESPACE.get(textIn(service, 'Namespace').replace(/\/$/, '').toLowerCase());
      const version = childOf(service, 'Version');
      const [major, minor] = [wholeIn(version, 'Major'), wholeIn(version, 'Minor')];
      if (!name) return [];
      const url = saidIn(service, 'XAddr', MOST_URI);
      return [{ name, url, version: major === null ? '' : `${major}.${String(minor ?? 0).padStart(2, '0')}` }];
    });

/** How the older question names them. */
const CAPABILITIES: readonly (readonly [string, ServiceName])[] = [
  ['Device', 'device'],
  ['Media', 'media'],
  ['PTZ', 'ptz'],
  ['Imaging', 'imaging'],
  ['Events', 'events'],
  ['Analytics', 'analytics'],
];
const EXTENDED: readonly (readonly [string, ServiceName])[] = [
  ['Recording', 'recording'],
  ['Search', 'search'],
  ['Replay', 'replay'],
  ['DeviceIO', 'deviceio'],
];

function readCapabilities(answer: XmlNode): readonly ToldService[] {
  const all = childOf(answer, 'Capabilities');
  const pick = (node: XmlNode | null, names: typeof CAPABILITIES): readonly ToldService[] =>
    names.flatMap(([element, name]) => {
      const url = saidIn(childOf(node, element), 'XAddr', MOST_URI);
      return url === '' ? [] : [{ name, url, version: '' }];
    });
  return [...pick(all, CAPABILITIES), ...pick(childOf(all, 'Extension'), EXTENDED)];
}

export interface NetworkPlug {
  readonly mac: string;
  readonly dhcp: boolean | null;
  readonly addresses: readonly string[];
}

const MOST_PLUGS = 8;

function readPlugs(answer: XmlNode): readonly NetworkPlug[] {
  return childrenOf(answer, 'NetworkInterfaces')
    .slice(0, MOST_PLUGS)
    .map((plug) => {
      const config = below(plug, 'IPv4', 'Config');
      const addresses = ['Manual', 'FromDHCP', 'LinkLocal'].flatMap((kind) =>
        childrenOf(config, kind)
          .slice(0, MOST_PLUGS)
          .map((one) => saidIn(one, 'Address')),
      );
      return {
        mac: parseMac(saidIn(childOf(plug, 'Info'), 'HwAddress'))?.mac ?? '',
        dhcp: flagIn(config, 'DHCP'),
        addresses: addresses.filter((address) => address !== ''),
      };
    });
}

export const GET_TIME = operation({
  service: 'device',
  name: 'GetSystemDateAndTime',
  isOpen: true,
  write: () => '',
  read: readTime,
});

export const GET_SERVICES = operation({
  service: 'device',
  name: 'GetServices',
  isOpen: true,
  write: () => '<IncludeCapability>false</IncludeCapability>',
  read: readServices,
});

/** The question of older devices. */
export const GET_CAPABILITIES = operation({
  service: 'device',
  name: 'GetCapabilities',
  isOpen: true,
  write: () => '<Category>All</Category>',
  read: readCapabilities,
});

export const GET_INFORMATION = operation({
  service: 'device',
  name: 'GetDeviceInformation',
  write: () => '',
  read: (answer): DeviceInformation => ({
    make: saidIn(answer, 'Manufacturer'),
    model: saidIn(answer, 'Model'),
    firmware: saidIn(answer, 'FirmwareVersion'),
    serial: saidIn(answer, 'SerialNumber'),
    hardware: saidIn(answer, 'HardwareId'),
  }),
});

export const GET_PLUGS = operation({
  service: 'device',
  name: 'GetNetworkInterfaces',
  write: () => '',
  read: readPlugs,
});

/** Where it asks for the time; empty where nowhere. */
export const GET_NTP = operation({
  service: 'device',
  name: 'GetNTP',
  write: () => '',
  read: (answer): readonly string[] => {
    const all = childOf(answer, 'NTPInformation');
    return ['NTPManual', 'NTPFromDHCP'].flatMap((kind) =>
      childrenOf(all, kind)
        .slice(0, MOST_PLUGS)
        .map((host) => saidIn(host, 'IPv4Address') || saidIn(host, 'DNSname') || saidIn(host, 'IPv6Address'))
        .filter((host) => host !== ''),
    );
  },
});
