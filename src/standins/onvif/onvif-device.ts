import type { IncomingMessage } from 'node:http';
import { attributeOf, childOf, type Envelope, parseEnvelope, textIn, type XmlNode } from '../../core/onvif/envelope.ts';
import { NAMESPACES } from '../../core/onvif/operation.ts';
import { durationOf, momentOf, numberOf } from '../../core/onvif/read-values.ts';
import { LoginGuard } from '../login-guard.ts';
import type { Personality } from '../personality.ts';
import * as answers from './onvif-answers.ts';
import type { OnvifPersonality } from './onvif-personality.ts';
import { PullPoints } from './pull-points.ts';
import type { SimulatedHead } from './simulated-head.ts';
import { type Account, TokenGuard } from './token-guard.ts';
import { walkAt } from './walker.ts';

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

export interface OnvifAnswer {
  readonly status: number;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string;
}

const SERVICE_PATH = '/onvif/';
const SNAPSHOT_PATH = '/onvif/snapshot';
const WALK_STEP_MS = 200;
/** Of a subscription whose length nobody said. */
const USUAL_LIFE_S = 60;
const MOST_LIFE_S = 3600;

/** What is answered without a login. Source: ONVIF Core §5.12.1. */
const OPEN: ReadonlySet<string> = new Set([
  'GetSystemDateAndTime',
  'GetServices',
  'GetCapabilities',
  'GetServiceCapabilities',
]);

interface Asked {
  readonly name: string;
  readonly node: XmlNode;
  readonly host: string;
  readonly path: string;
  readonly signal: AbortSignal;
}

const XML = { 'Content-Type': 'application/soap+xml; charset=utf-8' } as const;

/** The ONVIF service of a simulated device. */
export class OnvifDevice {
  readonly #tokens: TokenGuard;
  readonly #digest: LoginGuard;
  readonly #points: PullPoints;
  #walk: NodeJS.Timeout | null = null;
  #isWalking = false;

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
    this.#points = new PullPoints(Date.now, onvif.endsSubscriptionsAfterMs ?? null);
    if (onvif.walks) this.#watch(onvif.walks);
  }

  close(): void {
    if (this.#walk) clearInterval(this.#walk);
    this.#points.close();
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
    return this.options.onvif.login === 'none' || this.#digest.admits('GET', url ?? '', headers.authorization);
  }
  get challenge(): string {
    return this.#digest.challenge;
  }

  async answer(body: string, request: IncomingMessage, signal: AbortSignal): Promise<OnvifAnswer> {
    const read = parseEnvelope(body);
    if (!read.ok) return this.#fault(400, 'ter:WellFormed', 'That is no envelope.');
    const name = Object.keys(read.value.body).find((key) => !key.startsWith('@') && !key.startsWith('#')) ?? '';
    const refusal = OPEN.has(name) ? null : this.#refusal(read.value, request);
    if (refusal) return refusal;
    const node = childOf(read.value.body, name) ?? {};
    const asked = { name, node, host: request.headers.host ?? '', path: request.url ?? '', signal };
    const answer = await this.#answerTo(asked);
    if (answer === null) return this.#fault(400, 'ter:ActionNotSupported', `${name} is not implemented.`);
    return typeof answer === 'string' ? { status: 200, headers: XML, body: answers.envelopeOf(answer) } : answer;
  }

  readonly #clockMs = (): number => Date.now() + this.options.personality.clockErrorMs;

  #fault(status: number, code: string, reason: string): OnvifAnswer {
    const write = this.options.onvif.saysSoap11 ? answers.oldFaultOf : answers.faultOf;
    return { status, headers: XML, body: write(code, reason) };
  }

  #refusal({ header }: Envelope, { url = '', headers }: IncomingMessage): OnvifAnswer | null {
    const { login } = this.options.onvif;
    if (login === 'none') return null;
    const proven = login === 'digest' ? 'none' : this.#tokens.judge(header);
    if (proven === 'ok') return null;
    if (login !== 'token' && this.#digest.admits('POST', url, headers.authorization)) return null;
    if (login === 'digest' || (login === 'either' && proven === 'none'))
      return { status: 401, headers: { 'WWW-Authenticate': this.#digest.challenge }, body: '' };
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
      ...(onvif.walks || onvif.endsSubscriptionsAfterMs
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
      (head && this.#headAnswer(head, asked)) ??
      this.#eventAnswer(asked)
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

  #headAnswer(head: SimulatedHead, { name, node }: Asked): string | OnvifAnswer | null {
    const { personality } = head;
    const isTimed = personality.isTimedOnly === true;
    const unsupported = isTimed ? this.#fault(400, 'ter:ActionNotSupported', `${name} is not implemented.`) : null;
    const done = (): string => `<tptz:${name}Response/>`;
    const noToken = (): OnvifAnswer => this.#fault(400, 'ter:NoToken', 'There is no such preset.');
    switch (name) {
      case 'GetNodes':
        return answers.nodesAnswer(personality);
      case 'GetConfigurations':
        return (
          '<tptz:GetConfigurationsResponse><tptz:PTZConfiguration token="ptz-1"><tt:Name>head</tt:Name><tt:UseCount>2</tt:UseCount>' +
          '<tt:NodeToken>node-1</tt:NodeToken><tt:DefaultPTZTimeout>PT5S</tt:DefaultPTZTimeout></tptz:PTZConfiguration></tptz:GetConfigurationsResponse>'
        );
      case 'GetStatus':
        return (
          unsupported ??
          answers.statusAnswer(answers.normOf(head.view, personality), head.isMovingAt(Date.now()), this.#clockMs())
        );
      case 'GetPresets':
        return answers.presetsAnswer(head.presets, personality);
      case 'SetPreset': {
        const token = head.setPreset(textIn(node, 'PresetName'), textIn(node, 'PresetToken') || null);
        if (token === null) return this.#fault(400, 'ter:TooManyPresets', 'No more presets fit.');
        return `<tptz:SetPresetResponse><tptz:PresetToken>${token}</tptz:PresetToken></tptz:SetPresetResponse>`;
      }
      case 'GotoPreset':
        return head.goToPreset(textIn(node, 'PresetToken')) ? done() : noToken();
      case 'RemovePreset':
        return head.removePreset(textIn(node, 'PresetToken')) ? done() : noToken();
      case 'GotoHomePosition':
        if (unsupported) return unsupported;
        head.goTo({ panDeg: 0, tiltDeg: 0, zoom: 1 });
        return done();
      case 'ContinuousMove': {
        const asked = vectorIn(childOf(node, 'Velocity'));
        head.run(
          { pan: asked.pan ?? 0, tilt: asked.tilt ?? 0, zoom: asked.zoom ?? 0 },
          durationOf(textIn(node, 'Timeout')),
        );
        return done();
      }
      case 'AbsoluteMove':
        if (unsupported) return unsupported;
        head.goTo(
          viewOf({ ...answers.normOf(head.view, personality), ...told(vectorIn(childOf(node, 'Position'))) }, head),
        );
        return done();
      case 'RelativeMove': {
        if (unsupported) return unsupported;
        const by = vectorIn(childOf(node, 'Translation'));
        const now = answers.normOf(head.view, personality);
        // generic translations: the whole range of a translation is the whole range of the head
        const sum = { pan: now.pan + (by.pan ?? 0), tilt: now.tilt + (by.tilt ?? 0), zoom: now.zoom + (by.zoom ?? 0) };
        head.goTo(viewOf(sum, head));
        return done();
      }
      case 'Stop':
        head.stop();
        return done();
      default:
        return null;
    }
  }

  async #eventAnswer({ name, node, host, path, signal }: Asked): Promise<string | OnvifAnswer | null> {
    const { walks, endsSubscriptionsAfterMs } = this.options.onvif;
    if (!walks && endsSubscriptionsAfterMs === undefined) return null;
    const lifeMs =
      1000 *
      Math.min(MOST_LIFE_S, this.#lifeOf(textIn(node, 'InitialTerminationTime') || textIn(node, 'TerminationTime')));
    const point = path.split('/').at(-1) ?? '';
    const gone = (): OnvifAnswer => this.#fault(400, 'ter:InvalidArgVal', 'There is no such subscription.');
    const offset = this.options.personality.clockErrorMs;
    switch (name) {
      case 'GetEventProperties':
        return answers.eventPropertiesAnswer();
      case 'CreatePullPointSubscription': {
        const first = {
          topic: answers.MOTION_TOPIC,
          change: 'Initialized' as const,
          item: { name: 'IsMotion', value: String(this.#isWalking) },
          unixMs: this.#clockMs(),
        };
        const made = this.#points.create(lifeMs, [first]);
        if (made === null) return this.#fault(500, 'ter:MaxSubscriptions', 'No more subscriptions fit.');
        return answers.pullPointAnswer(
          `${this.#baseFor(host)}/onvif/pull/${made}`,
          this.#clockMs(),
          this.#clockMs() + lifeMs,
        );
      }
      case 'PullMessages': {
        const waitMs = 1000 * Math.min(60, durationOf(textIn(node, 'Timeout')) ?? 1);
        const events = await this.#points.pull(point, waitMs, Number(textIn(node, 'MessageLimit')) || 10, signal);
        const ends = this.#points.endOf(point);
        return events === null || ends === null
          ? gone()
          : answers.pulledAnswer(events, 'look-source-1', this.#clockMs(), ends + offset);
      }
      case 'Renew': {
        const ends = this.#points.renew(point, lifeMs);
        return ends === null ? gone() : answers.renewAnswer(this.#clockMs(), ends + offset);
      }
      case 'Unsubscribe':
        return this.#points.remove(point) ? '<wsnt:UnsubscribeResponse/>' : gone();
      default:
        return null;
    }
  }

  /** A length, or a moment until which it is to stand. */
  #lifeOf(text: string): number {
    const until = momentOf(text);
    return durationOf(text) ?? (until === null ? USUAL_LIFE_S : Math.max(1, (until - this.#clockMs()) / 1000));
  }

  #watch(walks: NonNullable<OnvifPersonality['walks']>): void {
    this.#walk = setInterval(() => {
      const isWalking = walkAt(Date.now(), walks) !== null;
      if (isWalking === this.#isWalking) return;
      this.#isWalking = isWalking;
      if (!this.#points.isHeard) return;
      const unixMs = this.#clockMs();
      this.#points.tell({
        topic: answers.MOTION_TOPIC,
        change: 'Changed',
        item: { name: 'IsMotion', value: String(isWalking) },
        unixMs,
      });
      if (!isWalking)
        this.#points.tell({
          topic: answers.LINE_TOPIC,
          change: 'Changed',
          item: { name: 'ObjectId', value: '1' },
          unixMs,
        });
    }, WALK_STEP_MS);
    this.#walk.unref();
  }
}

interface Told {
  readonly pan: number | null;
  readonly tilt: number | null;
  readonly zoom: number | null;
}

function vectorIn(node: XmlNode | null): Told {
  const turn = childOf(node, 'PanTilt');
  return {
    pan: numberOf(attributeOf(turn, 'x')),
    tilt: numberOf(attributeOf(turn, 'y')),
    zoom: numberOf(attributeOf(childOf(node, 'Zoom'), 'x')),
  };
}

/** What was told of a vector, without what was not. */
const told = ({ pan, tilt, zoom }: Told): Partial<answers.NormView> => ({
  ...(pan === null ? {} : { pan }),
  ...(tilt === null ? {} : { tilt }),
  ...(zoom === null ? {} : { zoom }),
});

const viewOf = ({ pan, tilt, zoom }: answers.NormView, { personality: head }: SimulatedHead) => ({
  panDeg: head.panMin + ((pan + 1) / 2) * (head.panMax - head.panMin),
  tiltDeg: head.tiltMin + ((tilt + 1) / 2) * (head.tiltMax - head.tiltMin),
  zoom: 1 + zoom * (head.zoomMax - 1),
});
