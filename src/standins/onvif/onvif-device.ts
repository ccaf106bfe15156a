import type { IncomingMessage } from 'node:http';
import { childOf, type Envelope, parseEnvelope, textIn } from '../../core/onvif/envelope.ts';
import { NAMESPACES } from '../../core/onvif/namespaces.ts';
import { LoginGuard } from '../login-guard.ts';
import type { Personality } from '../personality.ts';
import { EventService } from './event-service.ts';
import { headAnswer } from './head-service.ts';
import * as answers from './onvif-answers.ts';
import type { OnvifPersonality } from './onvif-personality.ts';
import type { Asked, OnvifAnswer, Speaker } from './onvif-service.ts';
import type { SimulatedHead } from './simulated-head.ts';
import { type Account, TokenGuard } from './token-guard.ts';

export interface OnvifDeviceOptions {
  readonly personality: Personality;
  readonly onvif: OnvifPersonality;
  readonly mac: string;
  readonly isDhcp: boolean;
  readonly accountOf: () => Account | null;
  readonly head: SimulatedHead | null;
  /** Where its stream really listens, for whoever calls it on this computer. */
  readonly rtspPort: () => number;
}

const SERVICE_PATH = '/onvif/';
const SNAPSHOT_PATH = '/onvif/snapshot';

/** What is answered without a login. Source: ONVIF Core §5.12.1. */
const OPEN: ReadonlySet<string> = new Set([
  'GetSystemDateAndTime',
  'GetServices',
  'GetCapabilities',
  'GetServiceCapabilities',
]);

const XML = { 'Content-Type': 'application/soap+xml; charset=utf-8' } as const;

/** The ONVIF service of a simulated device. */
export class OnvifDevice {
  readonly #tokens: TokenGuard;
  readonly #digest: LoginGuard;
  readonly #events: EventService | null;

  constructor(private readonly options: OnvifDeviceOptions) {
    const { onvif, personality } = options;
    const accountOf = (): Account | null => onvif.account ?? options.accountOf();
    this.#tokens = new TokenGuard(accountOf, this.#clockMs, onvif.tokenLifeS);
    this.#digest = new LoginGuard({
      get account() {
        return accountOf();
      },
      realm: personality.realm,
      login: 'digest',
      digestQop: 'auth',
    });
    this.#events =
      onvif.walks || onvif.endsSubscriptionsAfterMs !== undefined
        ? new EventService({
            walks: onvif.walks,
            endsSubscriptionsAfterMs: onvif.endsSubscriptionsAfterMs ?? null,
            isKnownByHeader: onvif.tellsPullsByHeader === true,
            clockErrorMs: personality.clockErrorMs,
            baseFor: (host) => this.#baseFor(host),
            speaker: this.#speaker,
          })
        : null;
  }

  close(): void {
    this.#events?.close();
  }

  isMine(path: string): boolean {
    return path.startsWith(SERVICE_PATH) && !path.startsWith(SNAPSHOT_PATH);
  }

  /** Which stream a still is asked of; `null` where it is no such path. */
  snapshotOf(path: string): answers.ShownProfile | null {
    const [before, query] = path.split('?', 2);
    if (before !== SNAPSHOT_PATH) return null;
    return this.#profiles.find(({ token }) => query === `profile=${token}`) ?? this.#profiles[0] ?? null;
  }
  admitsStill({ url, headers }: IncomingMessage): boolean {
    return (
      this.options.onvif.login === 'none' || this.#digest.admits('GET', url ?? '', headers.authorization) === 'admitted'
    );
  }
  get challenge(): string {
    return this.#digest.challenges[0] ?? '';
  }

  async answer(body: string, request: IncomingMessage, signal: AbortSignal): Promise<OnvifAnswer> {
    const read = parseEnvelope(body);
    if (!read.ok) return this.#fault(400, 'ter:WellFormed', 'That is no envelope.');
    const name = Object.keys(read.value.body).find((key) => !key.startsWith('@') && !key.startsWith('#')) ?? '';
    const refusal = OPEN.has(name) ? null : this.#refusal(read.value, request);
    if (refusal) return refusal;
    const node = childOf(read.value.body, name) ?? {};
    const asked = {
      name,
      node,
      header: read.value.header,
      host: request.headers.host ?? '',
      path: request.url ?? '',
      signal,
    };
    const answer = await this.#answerTo(asked);
    if (answer === null) return this.#fault(400, 'ter:ActionNotSupported', `${name} is not implemented.`);
    return typeof answer === 'string' ? { status: 200, headers: XML, body: answers.envelopeOf(answer) } : answer;
  }

  readonly #clockMs = (): number => Date.now() + this.options.personality.clockErrorMs;

  readonly #fault = (status: number, code: string, reason: string): OnvifAnswer => {
    const write = this.options.onvif.saysSoap11 ? answers.oldFaultOf : answers.faultOf;
    return { status, headers: XML, body: write(code, reason) };
  };

  readonly #speaker: Speaker = { fault: this.#fault, clockMs: this.#clockMs };

  #refusal({ header }: Envelope, { url = '', headers }: IncomingMessage): OnvifAnswer | null {
    const { login } = this.options.onvif;
    if (login === 'none') return null;
    const proven = login === 'digest' ? 'none' : this.#tokens.judge(header);
    if (proven === 'ok') return null;
    if (login !== 'token' && this.#digest.admits('POST', url, headers.authorization) === 'admitted') return null;
    if (login === 'digest' || (login === 'either' && proven === 'none'))
      return { status: 401, headers: { 'WWW-Authenticate': this.challenge }, body: '' };
    return this.#fault(400, 'ter:NotAuthorized', 'Sender not authorized.');
  }

  get #profiles(): readonly answers.ShownProfile[] {
    const { personality, onvif, head } = this.options;
    // streams of one label prefix look through one picture: a box has one for each channel
    const sources: string[] = [];
    const all = personality.streams.map((stream, at) => {
      const channel = stream.channel ?? 1;
      const source = `source-${channel}`;
      if (!sources.includes(source)) sources.push(source);
      return { token: `profile-${at + 1}`, source, stream, head: head?.personality ?? null };
    });
    const shown = sources.slice(0, onvif.sourcesShown ?? sources.length);
    return all.filter(({ source }) => shown.includes(source));
  }

  get #services(): readonly answers.ShownService[] {
    const { onvif, head } = this.options;
    return [
      { namespace: NAMESPACES.device, path: '/onvif/device_service', version: [17, 6], capability: 'Device' },
      { namespace: NAMESPACES.media, path: '/onvif/media', version: [2, 60], capability: 'Media' },
      ...(onvif.isOld
        ? []
        : [{ namespace: NAMESPACES.media2, path: '/onvif/media2', version: [2, 10], capability: null } as const]),
      ...(head
        ? [{ namespace: NAMESPACES.ptz, path: '/onvif/ptz', version: [2, 40], capability: 'PTZ' } as const]
        : []),
      { namespace: NAMESPACES.imaging, path: '/onvif/imaging', version: [2, 40], capability: 'Imaging' },
      ...(onvif.recordings
        ? [{ namespace: NAMESPACES.search, path: '/onvif/search', version: [2, 50], capability: null } as const]
        : []),
      ...(this.#events
        ? [{ namespace: NAMESPACES.events, path: '/onvif/events', version: [2, 60], capability: 'Events' } as const]
        : []),
    ];
  }

  /** As whoever asks calls it, or by an inner address. */
  #baseFor(host: string): string {
    const { innerHost } = this.options.onvif;
    return `http://${innerHost ?? host}`;
  }

  #answerTo(asked: Asked): Promise<string | OnvifAnswer | null> | string | OnvifAnswer | null {
    const isSecond = asked.path.startsWith('/onvif/media2');
    const { onvif, head } = this.options;
    if (onvif.isOld && (asked.name === 'GetServices' || isSecond)) return null;
    return (
      this.#deviceAnswer(asked) ??
      this.#mediaAnswer(asked, isSecond) ??
      (head && headAnswer(head, asked, this.#speaker)) ??
      this.#events?.answer(asked) ??
      null
    );
  }

  #deviceAnswer({ name, host }: Asked): string | null {
    const { onvif, personality, mac, isDhcp } = this.options;
    switch (name) {
      case 'GetSystemDateAndTime':
        return answers.timeAnswer(this.#clockMs(), onvif.timeServer ? 'NTP' : 'Manual');
      case 'GetServices':
        return answers.servicesAnswer(this.#services, this.#baseFor(host));
      case 'GetCapabilities':
        return answers.capabilitiesAnswer(this.#services, this.#baseFor(host));
      case 'GetDeviceInformation':
        return (
          `<tds:GetDeviceInformationResponse><tds:Manufacturer>${onvif.make}</tds:Manufacturer><tds:Model>${onvif.model}</tds:Model>` +
          `<tds:FirmwareVersion>${onvif.firmware}</tds:FirmwareVersion><tds:SerialNumber>${onvif.serial}</tds:SerialNumber>` +
          `<tds:HardwareId>${onvif.hardware}</tds:HardwareId></tds:GetDeviceInformationResponse>`
        );
      case 'GetNetworkInterfaces': {
        const kind = isDhcp ? 'FromDHCP' : 'Manual';
        return (
          '<tds:GetNetworkInterfacesResponse><tds:NetworkInterfaces token="eth0"><tt:Enabled>true</tt:Enabled>' +
          `<tt:Info><tt:Name>eth0</tt:Name><tt:HwAddress>${mac}</tt:HwAddress><tt:MTU>1500</tt:MTU></tt:Info>` +
          `<tt:IPv4><tt:Enabled>true</tt:Enabled><tt:Config><tt:${kind}><tt:Address>${personality.host}</tt:Address><tt:PrefixLength>24</tt:PrefixLength></tt:${kind}>` +
          `<tt:DHCP>${isDhcp}</tt:DHCP></tt:Config></tt:IPv4></tds:NetworkInterfaces></tds:GetNetworkInterfacesResponse>`
        );
      }
      case 'GetNTP':
        return (
          '<tds:GetNTPResponse><tds:NTPInformation><tt:FromDHCP>false</tt:FromDHCP>' +
          `${onvif.timeServer ? `<tt:NTPManual><tt:Type>IPv4</tt:Type><tt:IPv4Address>${onvif.timeServer}</tt:IPv4Address></tt:NTPManual>` : ''}` +
          '</tds:NTPInformation></tds:GetNTPResponse>'
        );
      case 'GetScopes':
        return (
          '<tds:GetScopesResponse>' +
          [
            `name/${encodeURIComponent(personality.name)}`,
            `hardware/${onvif.hardware}`,
            `location/${encodeURIComponent(onvif.location)}`,
          ]
            .map(
              (scope) =>
                `<tds:Scopes><tt:ScopeDef>Fixed</tt:ScopeDef><tt:ScopeItem>onvif://www.onvif.org/${scope}</tt:ScopeItem></tds:Scopes>`,
            )
            .join('') +
          '</tds:GetScopesResponse>'
        );
      case 'GetRecordingSummary':
        return onvif.recordings ? answers.recordingsAnswer(onvif.recordings, this.#clockMs()) : null;
      case 'GetHostname':
        return '<tds:GetHostnameResponse><tds:HostnameInformation><tt:FromDHCP>false</tt:FromDHCP></tds:HostnameInformation></tds:GetHostnameResponse>';
      default:
        return null;
    }
  }

  #mediaAnswer({ name, node, host }: Asked, isSecond: boolean): string | OnvifAnswer | null {
    const profiles = this.#profiles;
    switch (name) {
      case 'GetProfiles':
        return isSecond ? answers.profiles2Answer(profiles) : answers.profilesAnswer(profiles);
      case 'GetVideoSources':
        return answers.videoSourcesAnswer(profiles);
      case 'GetStreamUri':
      case 'GetSnapshotUri': {
        const profile = profiles.find(({ token }) => token === textIn(node, 'ProfileToken'));
        if (!profile) return this.#fault(400, 'ter:NoProfile', 'There is no such profile.');
        const uri =
          name === 'GetStreamUri'
            ? this.#streamUri(profile, host)
            : `${this.#baseFor(host)}${SNAPSHOT_PATH}?profile=${profile.token}`;
        return answers.uriAnswer(name, isSecond, uri);
      }
      case 'GetImagingSettings':
        return (
          '<timg:GetImagingSettingsResponse><timg:ImagingSettings><tt:Focus><tt:AutoFocusMode>AUTO</tt:AutoFocusMode></tt:Focus>' +
          '<tt:IrCutFilter>AUTO</tt:IrCutFilter><tt:WideDynamicRange><tt:Mode>OFF</tt:Mode></tt:WideDynamicRange></timg:ImagingSettings></timg:GetImagingSettingsResponse>'
        );
      default:
        return null;
    }
  }

  #streamUri({ stream }: answers.ShownProfile, host: string): string {
    const { personality, onvif, rtspPort } = this.options;
    const [name = ''] = host.split(':', 1);
    const isHere = name === '127.0.0.1' || name === 'localhost';
    const inner = onvif.innerHost?.split(':', 1)[0];
    return `rtsp://${inner ?? name}:${isHere ? rtspPort() : personality.port}${stream.path}`;
  }
}
