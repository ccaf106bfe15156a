import { bytesFromBase64 } from '../base/bytes.ts';
import { fault } from '../base/fault.ts';
import { STREAM_LIMITS, TEXT_LIMITS } from '../base/limits.ts';
import { parseSps } from '../video/sps.ts';
import { parseAacConfig } from './aac-config.ts';
import { mergedControl, resolveControl } from './control-url.ts';
import type { MediaDirection, MediaKind, SdpFault, SdpMedia, SdpSession } from './sdp-types.ts';
import { STATIC_PAYLOAD_TYPES } from './static-payload-types.ts';

/** A description with more sections than this is no camera's: a recorder with 64 channels offers each under its own path. */
const MAX_MEDIA = 32;
const MAX_LINES = 4096;
/** A line of parameter sets in Base64 stays below a few hundred characters. */
const MAX_LINE_CHARS = 8192;
/** RFC 3551 §3: 7 bits. */
const MAX_PAYLOAD_TYPE = 127;

interface Section {
  readonly line: number;
  readonly mediaLine: string | null;
  readonly attributes: { readonly name: string; readonly value: string; readonly line: number }[];
  readonly others: Map<string, string>;
}

/**
 * Reads an SDP into what a client needs to draw the streams. A line that is no SDP, or whose value its attribute cannot
 * have, is reported with its number and passed over; unknown lines are allowed by the standard and ignored.
 * @param contentBase URL that relative controls are appended to (Content-Base, Content-Location or the request URL)
 * Source: RFC 8866 §5, §9; control RFC 2326 §C.1; payloads RFC 6184 §8, RFC 7798 §7, RFC 3640 §4.1, RFC 3551.
 */
export function parseSdp(text: string, contentBase: string): { session: SdpSession; faults: readonly SdpFault[] } {
  const faults: SdpFault[] = [];
  const [head, ...sections] = splitSections(text, faults);
  const sessionControl = resolveControl(contentBase, attribute(head, 'control'));
  const media: SdpMedia[] = [];
  for (const section of sections.slice(0, MAX_MEDIA)) {
    const read = readMedia(section, sessionControl, faults);
    if (read) media.push(read);
  }
  if (sections.length > MAX_MEDIA)
    faults.push(fault('sdp.too-long', `Expected at most ${MAX_MEDIA} m= sections, got ${sections.length}`));
  const session = {
    name: head.others.get('s') ?? null,
    control: sessionControl,
    range: attribute(head, 'range'),
    media,
  };
  return { session, faults };
}

function splitSections(text: string, faults: SdpFault[]): [Section, ...Section[]] {
  const head: Section = { line: 0, mediaLine: null, attributes: [], others: new Map() };
  const sections: [Section, ...Section[]] = [head];
  const lines = text.split(/\r\n|\n|\r/);
  if (lines.length > MAX_LINES)
    faults.push(fault('sdp.too-long', `Expected at most ${MAX_LINES} lines, got ${lines.length}`));
  let current = head;
  for (const [index, line] of lines.slice(0, MAX_LINES).entries()) {
    if (line.trim() === '') continue;
    const number = index + 1;
    if (line.length > MAX_LINE_CHARS) {
      const message = `Line ${number}: expected up to ${MAX_LINE_CHARS} characters, got ${line.length}`;
      faults.push(fault('sdp.too-long', message, { line: number }));
      continue;
    }
    const match = /^([a-z])=(.*)$/.exec(line);
    if (!match) {
      faults.push(
        fault('sdp.malformed-line', `Line ${number}: expected “letter=value”, got “${line.slice(0, 60)}”`, {
          line: number,
        }),
      );
      continue;
    }
    const [, type = '', value = ''] = match;
    if (type === 'm') {
      current = { line: number, mediaLine: value, attributes: [], others: new Map() };
      sections.push(current);
    } else if (type === 'a') {
      const colon = value.indexOf(':');
      const name = (colon < 0 ? value : value.slice(0, colon)).trim().toLowerCase();
      current.attributes.push({ name, value: colon < 0 ? '' : value.slice(colon + 1), line: number });
    } else if (type === 'b' ? /^AS:/i.test(value.trim()) : !current.others.has(type)) current.others.set(type, value);
  }
  return sections;
}

const attribute = (section: Section, name: string): string | null =>
  section.attributes.find((candidate) => candidate.name === name)?.value.trim() ?? null;

const KINDS: readonly string[] = ['video', 'audio', 'application'] satisfies readonly MediaKind[];
const isKind = (text: string): text is MediaKind => KINDS.includes(text);
const DIRECTIONS: readonly MediaDirection[] = ['sendrecv', 'sendonly', 'recvonly', 'inactive'];

function readMedia(section: Section, base: string, faults: SdpFault[]): SdpMedia | null {
  const [kind = '', portText = '', transport = '', firstFormat = ''] = (section.mediaLine ?? '').trim().split(/\s+/);
  if (!/^\d+(\/\d+)?$/.test(portText) || transport === '') {
    const message = `Line ${section.line}: expected “m=kind port transport formats”, got “m=${(section.mediaLine ?? '').slice(0, 60)}”`;
    faults.push(fault('sdp.malformed-line', message, { line: section.line }));
    return null;
  }
  if (!isKind(kind)) return null; // text, message: nothing a viewer draws
  const typed = /^\d{1,3}$/.test(firstFormat) ? Number(firstFormat) : MAX_PAYLOAD_TYPE + 1;
  const payloadType = typed <= MAX_PAYLOAD_TYPE ? typed : null;
  const map = readRtpmap(section, payloadType, faults);
  const fmtp = readFmtp(section, payloadType);
  const direction = DIRECTIONS.find((name) => attribute(section, name) !== null) ?? 'sendrecv';
  return {
    kind,
    transport,
    payloadType,
    codec: map?.codec ?? null,
    clockRate: map?.clockRate ?? null,
    channels: kind === 'audio' ? (map?.channels ?? 1) : null,
    fmtp,
    control: resolveControl(base, attribute(section, 'control')),
    otherControl: mergedControl(base, attribute(section, 'control')),
    direction,
    bandwidthKbps: readBandwidth(section.others.get('b') ?? ''),
    framerate: readFramerate(section, faults),
    dimensions: readDimensions(section),
    sps: readSps(map?.codec ?? '', fmtp),
    aac: map?.codec === 'MPEG4-GENERIC' && fmtp.config !== undefined ? parseAacConfig(fmtp.config) : null,
    backchannel: kind === 'audio' && direction === 'sendonly',
  };
}

/** a=rtpmap:<payload type> <encoding name>/<clock rate>[/<channels>], RFC 8866 §6.6. */
function readRtpmap(section: Section, payloadType: number | null, faults: SdpFault[]) {
  if (payloadType === null) return null;
  for (const { name, value, line } of section.attributes) {
    if (name !== 'rtpmap') continue;
    const match = /^\s*(\d+)\s+([^/\s]+)\/(\d+)(?:\/(\d+))?\s*$/.exec(value);
    if (!match) {
      faults.push(
        fault('sdp.bad-value', `Line ${line}: expected “rtpmap:type name/clock”, got “${value.slice(0, 60)}”`, {
          line,
        }),
      );
      continue;
    }
    if (Number(match[1]) !== payloadType) continue;
    const clockRate = Number(match[3]);
    const channels = match[4] ? Number(match[4]) : null;
    const codec = match[2] ?? '';
    const isIn = clockRate >= 1 && clockRate <= STREAM_LIMITS.clockHz && (channels ?? 1) <= STREAM_LIMITS.channels;
    if (!isIn || codec.length > TEXT_LIMITS.codec) {
      const message = `Line ${line}: expected a clock rate of 1 to ${STREAM_LIMITS.clockHz} Hz and a short name, got “${value.slice(0, 60)}”`;
      faults.push(fault('sdp.bad-value', message, { line }));
      continue;
    }
    return { codec: codec.toUpperCase(), clockRate, channels };
  }
  return STATIC_PAYLOAD_TYPES[payloadType] ?? null;
}

/** a=fmtp:<format> <parameters>; keys lower-cased, values kept byte for byte. RFC 8866 §6.15. */
function readFmtp(section: Section, payloadType: number | null): Readonly<Record<string, string>> {
  const params: Record<string, string> = {};
  for (const { name, value } of section.attributes) {
    const match = name === 'fmtp' ? /^\s*(\d+)\s/.exec(value) : null;
    if (!match || Number(match[1]) !== payloadType) continue;
    for (const pair of value.slice(match[0].length).split(';')) {
      const equals = pair.indexOf('=');
      const key = (equals < 0 ? pair : pair.slice(0, equals)).trim().toLowerCase();
      if (key !== '' && key !== '__proto__') params[key] = equals < 0 ? '' : pair.slice(equals + 1).trim();
    }
  }
  return params;
}

/** a=framerate:<frames per second>, RFC 8866 §6.13. */
function readFramerate(section: Section, faults: SdpFault[]): number | null {
  const found = section.attributes.find((candidate) => candidate.name === 'framerate');
  if (!found) return null;
  const text = found.value.trim();
  if (/^\d+(\.\d+)?$/.test(text) && Number(text) > 0 && Number(text) <= STREAM_LIMITS.fps) return Number(text);
  faults.push(
    fault('sdp.bad-value', `Line ${found.line}: expected frames a second, got “${text.slice(0, 60)}”`, {
      line: found.line,
    }),
  );
  return null;
}

/** b=AS:<kilobits a second>, RFC 8866 §5.8; beyond what any camera sends it is not believed. */
function readBandwidth(value: string): number | null {
  const kbps = Number(/^AS:(\d{1,9})$/i.exec(value.trim())?.[1] ?? 0);
  return kbps > 0 && kbps <= STREAM_LIMITS.bitrateKbps ? kbps : null;
}

/** a=x-dimensions:<width>,<height>: no standard, but common. */
function readDimensions(section: Section): readonly [number, number] | null {
  const match = /^(\d{1,5})\s*,\s*(\d{1,5})$/.exec(attribute(section, 'x-dimensions') ?? '');
  const sides = [Number(match?.[1] ?? 0), Number(match?.[2] ?? 0)] as const;
  return sides.every((side) => side >= 1 && side <= STREAM_LIMITS.sidePx) ? sides : null;
}

/** Parameter sets that the description carries: RFC 6184 §8.1 sprop-parameter-sets, RFC 7798 §7.1 sprop-sps. */
export function declaredParameterSets(media: Pick<SdpMedia, 'codec' | 'fmtp'>): readonly Uint8Array[] {
  const keys =
    media.codec === 'H264'
      ? ['sprop-parameter-sets']
      : media.codec === 'H265'
        ? ['sprop-vps', 'sprop-sps', 'sprop-pps']
        : [];
  const sets: Uint8Array[] = [];
  for (const key of keys)
    for (const part of (media.fmtp[key] ?? '').split(',')) {
      const bytes = bytesFromBase64(part.trim());
      if (bytes.ok && bytes.value.length > 0) sets.push(bytes.value);
    }
  return sets;
}

function readSps(codec: string, fmtp: Readonly<Record<string, string>>): SdpMedia['sps'] {
  if (codec !== 'H264' && codec !== 'H265') return null;
  for (const nal of declaredParameterSets({ codec, fmtp })) {
    const sps = parseSps(codec === 'H264' ? 'h264' : 'h265', nal);
    if (sps.ok) return { width: sps.value.width, height: sps.value.height, fps: sps.value.fps };
  }
  return null;
}
