import { parseArgs } from 'node:util';
import { ASSUMPTIONS } from '../core/assumptions/assumptions.ts';
import { oneLine } from '../core/base/control-signs.ts';
import { sayStretch } from '../core/base/say.ts';
import type { Finding } from '../core/findings/finding.ts';
import { PORT_RANGE } from '../core/net/port-range.ts';
import { buildStreamUrl, urlHost } from '../core/net/stream-url.ts';
import { findingsOfReading } from '../core/onvif/judge-reading.ts';
import { motionTopics, type OnvifReading, type ReadUri, sizeOf } from '../core/onvif/reading.ts';
import { type OtherDoor, sayDoor } from '../core/onvif/service-place.ts';
import { accountOf, runOnvif } from '../server/works/run-onvif.ts';
import { cancelOnSignal } from './cancel-on-signal.ts';
import { linesOf, print, printJson } from './print.ts';
import { createWorld, readPositive } from './read-options.ts';
import { readSecret } from './read-secret.ts';
import { tellRefusedLogins } from './tell-refused-logins.ts';
import { UsageError } from './usage-error.ts';

const CLOCK_OK_S = ASSUMPTIONS.find(({ id }) => id === 'stream.clock')?.value ?? 5;
const USUAL_PORTS = { plain: 80, tls: 443 } as const;
/** SHA-256 with or without colons. */
const FINGERPRINT = /^[0-9A-F]{64}$/;

/** “10.77.4.21:80”, “[fd00::1]:80”, or a host alone. */
function readHostPort(text: string, usualPort: number): { readonly host: string; readonly port: number } {
  const found = /^(?:\[([0-9A-Fa-f:.]{2,45})\]|([^\s:/?#@[\]]{1,253}))(?::(\d{1,5}))?$/.exec(text);
  const host = found?.[1] ?? found?.[2];
  const port = found?.[3] === undefined ? usualPort : Number(found[3]);
  if (host === undefined || port < PORT_RANGE.min || port > PORT_RANGE.max)
    throw new UsageError(`Expected HOST:PORT, as 10.77.4.21:80, got “${text.replace(/\/\/[^@/]*@/, '//***@')}”.`);
  return { host, port };
}

/** As certificates are compared: upper case, a colon after each byte. */
function readFingerprint(text: string | undefined): string | null {
  if (text === undefined) return null;
  const digits = text.toUpperCase().replaceAll(':', '');
  if (!FINGERPRINT.test(digits))
    throw new UsageError(
      'Expected a SHA-256 fingerprint for --fingerprint: 64 hexadecimal digits, colons as you like.',
    );
  return digits.match(/../g)?.join(':') ?? null;
}

/** Other ports of the same host that the account may be told at too. */
const readDoors = (plain: readonly string[], tls: readonly string[]): readonly OtherDoor[] =>
  [...plain.map((text) => ({ text, isTls: false })), ...tls.map((text) => ({ text, isTls: true }))].map(
    ({ text, isTls }) => {
      const port = /^\d{1,5}$/.test(text) ? Number(text) : 0;
      if (port < PORT_RANGE.min || port > PORT_RANGE.max)
        throw new UsageError(`Expected a port from 1 to 65535, got “${text}”.`);
      return { port, isTls };
    },
  );

/** Reads a device once. Exit code 0 when it was read, 1 when not, 2 wrong usage. */
export async function onvifCommand(args: readonly string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      tls: { type: 'boolean', default: false },
      fingerprint: { type: 'string' },
      also: { type: 'string', multiple: true, default: [] },
      'also-tls': { type: 'string', multiple: true, default: [] },
      user: { type: 'string' },
      'pass-env': { type: 'string' },
      'pass-stdin': { type: 'boolean', default: false },
      timeout: { type: 'string', default: '5' },
      'allow-public': { type: 'boolean', default: false },
      json: { type: 'boolean', default: false },
    },
  });
  const [target, ...rest] = positionals;
  if (target === undefined || rest.length > 0) throw new UsageError('Expected one HOST:PORT.');
  const timeoutS = readPositive('timeout', values.timeout, 60);
  const called = readHostPort(target, USUAL_PORTS[values.tls ? 'tls' : 'plain']);
  const knownFingerprint = readFingerprint(values.fingerprint);
  if (knownFingerprint !== null && !values.tls) throw new UsageError('--fingerprint goes with --tls.');
  const alsoProve = readDoors(values.also, values['also-tls']);
  const credentials = accountOf(values.user ?? null, await readSecret(values['pass-env'], values['pass-stdin']));
  const world = createWorld(values['allow-public']);
  const run = {
    ...called,
    isTls: values.tls,
    knownFingerprint,
    alsoProve,
    credentials,
    timeoutMs: timeoutS * 1000,
  };
  const reading = await runOnvif(run, world, cancelOnSignal());
  const findings = findingsOfReading(reading, CLOCK_OK_S);
  if (values.json) printJson(told(reading, findings));
  else print(describe(reading, findings));
  tellRefusedLogins(world);
  return reading.cause === null ? 0 : 1;
}

/** As it can be dialled from here, whatever address the device gives as its own. */
const uriOf = ({ host }: OnvifReading, uri: ReadUri | null): string | null =>
  uri && (uri.scheme === 'rtsp' || uri.scheme === 'rtsps' || uri.scheme === 'http' || uri.scheme === 'https')
    ? buildStreamUrl({
        scheme: uri.scheme,
        user: null,
        password: null,
        host,
        port: uri.port,
        path: uri.path,
        query: null,
      })
    : null;

const orNull = (text: string): string | null => (text === '' ? null : text);

function told(reading: OnvifReading, findings: readonly Finding[]) {
  const { ptz, events, host } = reading;
  return {
    target: { host, port: reading.port, path: reading.path, tls: reading.isTls },
    cause: reading.cause,
    note: orNull(reading.note),
    device: reading.device,
    login: reading.login,
    certificate: reading.tls,
    notAskedAt: reading.heldDoors.map(({ port, isTls }) => ({ port, tls: isTls })),
    services: reading.services.map(({ name, version, port, path, isTls, elsewhere }) => ({
      name,
      version: orNull(version),
      url: `${isTls ? 'https' : 'http'}://${urlHost(host)}:${port}${path}`,
      elsewhere: orNull(elsewhere),
    })),
    clockErrorSeconds: reading.clock?.skewS ?? null,
    network: reading.network,
    sources: reading.sources,
    profiles: reading.profiles.map((profile) => ({
      token: profile.token,
      name: profile.name,
      source: orNull(profile.source),
      codec: profile.codec,
      width: profile.width,
      height: profile.height,
      fps: profile.fps,
      uri: uriOf(reading, profile.stream),
      snapshotUri: uriOf(reading, profile.still),
      elsewhere: orNull(profile.stream?.elsewhere ?? ''),
      via: profile.via,
      steered: profile.hasPtz,
    })),
    ptz: ptz && {
      profile: ptz.profile,
      absolute: ptz.node.absolute !== null,
      relative: ptz.node.relative !== null,
      continuous: ptz.node.continuous !== null,
      zoom: ptz.node.continuousZoom !== null || ptz.node.absoluteZoom !== null,
      tells: ptz.tells,
      presets: ptz.presets?.map(({ token, name }) => ({ token, name })) ?? null,
      mostPresets: ptz.node.mostPresets,
    },
    events: events && { topics: events.topics, motion: motionTopics(events.topics), pullPoint: events.canPull },
    imaging: reading.imaging,
    recordings: reading.recordings,
    answers: reading.answers,
    meanAnswerMs: reading.meanAnswerMs,
    findings,
  };
}

/** The reading for eyes. */
function describe(reading: OnvifReading, findings: readonly Finding[]): string {
  const { device, clock, ptz, events } = reading;
  const lines = [`${urlHost(reading.host)}:${reading.port}: ${reading.cause ?? 'read'}`];
  if (reading.note) lines.push(`  ${oneLine(reading.note)}`);
  if (device)
    lines.push(
      '',
      `  ${device.make} ${device.model}, firmware ${device.firmware || '?'}, serial ${device.serial || '?'}`,
    );
  if (clock)
    lines.push(
      `  clock: ${clock.skewS === 0 ? 'right' : `${sayStretch(clock.skewS)} ${clock.skewS > 0 ? 'fast' : 'slow'}`}`,
    );
  for (const door of reading.heldDoors) lines.push(`  services at ${sayDoor(door)} were not asked`);
  for (const profile of reading.profiles)
    lines.push(
      `  ${profile.name || profile.token}: ${[profile.codec, sizeOf(profile), profile.fps === null ? null : `${profile.fps}/s`, uriOf(reading, profile.stream)].filter((part) => part !== null).join(', ')}`,
    );
  if (ptz)
    lines.push(
      `  PTZ: ${ptz.node.absolute ? 'absolute moves' : ptz.node.relative ? 'relative moves' : 'timed moves'}, reports ${ptz.tells}, ${ptz.presets?.length ?? 0} presets`,
    );
  if (events)
    lines.push(`  events: ${events.topics.length} topics, ${events.canPull ? 'can be pulled' : 'cannot be pulled'}`);
  lines.push(...linesOf(findings));
  return `${lines.join('\n')}\n`;
}
