import { escapeXml } from '../../core/onvif/envelope.ts';
import type { StreamPersonality } from '../personality.ts';
import type { HeadPersonality } from './onvif-personality.ts';
import type { ToldEvent } from './pull-points.ts';
import type { HeadPreset, HeadView } from './simulated-head.ts';

// Answers of a simulated device, as XML. Source: schemas of ONVIF Core, Media, Media2, PTZ, Imaging, Events.

const SPACES = 'http://www.onvif.org/ver10/tptz';

export const envelopeOf = (body: string, header = ''): string =>
  '<?xml version="1.0" encoding="UTF-8"?><SOAP-ENV:Envelope xmlns:SOAP-ENV="http://www.w3.org/2003/05/soap-envelope" ' +
  'xmlns:wsa5="http://www.w3.org/2005/08/addressing" xmlns:wsnt="http://docs.oasis-open.org/wsn/b-2" ' +
  'xmlns:wstop="http://docs.oasis-open.org/wsn/t-1" xmlns:tns1="http://www.onvif.org/ver10/topics" ' +
  'xmlns:tds="http://www.onvif.org/ver10/device/wsdl" xmlns:trt="http://www.onvif.org/ver10/media/wsdl" ' +
  'xmlns:tr2="http://www.onvif.org/ver20/media/wsdl" xmlns:tptz="http://www.onvif.org/ver20/ptz/wsdl" ' +
  'xmlns:timg="http://www.onvif.org/ver20/imaging/wsdl" xmlns:tev="http://www.onvif.org/ver10/events/wsdl" ' +
  'xmlns:tse="http://www.onvif.org/ver10/search/wsdl" xmlns:tt="http://www.onvif.org/ver10/schema" ' +
  `xmlns:ter="http://www.onvif.org/ver10/error">${header === '' ? '' : `<SOAP-ENV:Header>${header}</SOAP-ENV:Header>`}` +
  `<SOAP-ENV:Body>${body}</SOAP-ENV:Body></SOAP-ENV:Envelope>`;

export const faultOf = (code: string, reason: string): string =>
  envelopeOf(
    '<SOAP-ENV:Fault><SOAP-ENV:Code><SOAP-ENV:Value>SOAP-ENV:Sender</SOAP-ENV:Value><SOAP-ENV:Subcode>' +
      `<SOAP-ENV:Value>${code}</SOAP-ENV:Value></SOAP-ENV:Subcode></SOAP-ENV:Code>` +
      `<SOAP-ENV:Reason><SOAP-ENV:Text xml:lang="en">${escapeXml(reason)}</SOAP-ENV:Text></SOAP-ENV:Reason></SOAP-ENV:Fault>`,
  );

/** The same in the words of SOAP 1.1. */
export const oldFaultOf = (code: string, reason: string): string =>
  '<?xml version="1.0" encoding="UTF-8"?><SOAP-ENV:Envelope xmlns:SOAP-ENV="http://schemas.xmlsoap.org/soap/envelope/">' +
  `<SOAP-ENV:Body><SOAP-ENV:Fault><faultcode>SOAP-ENV:Client.${escapeXml(code.replace(/^ter:/, ''))}</faultcode>` +
  `<faultstring>${escapeXml(reason)}</faultstring></SOAP-ENV:Fault></SOAP-ENV:Body></SOAP-ENV:Envelope>`;

const isoOf = (unixMs: number): string => new Date(unixMs).toISOString().replace(/\.\d{3}Z$/, 'Z');

export function timeAnswer(unixMs: number, kept: 'Manual' | 'NTP'): string {
  const at = new Date(unixMs);
  return (
    `<tds:GetSystemDateAndTimeResponse><tds:SystemDateAndTime><tt:DateTimeType>${kept}</tt:DateTimeType>` +
    '<tt:DaylightSavings>false</tt:DaylightSavings><tt:TimeZone><tt:TZ>UTC0</tt:TZ></tt:TimeZone><tt:UTCDateTime>' +
    `<tt:Time><tt:Hour>${at.getUTCHours()}</tt:Hour><tt:Minute>${at.getUTCMinutes()}</tt:Minute><tt:Second>${at.getUTCSeconds()}</tt:Second></tt:Time>` +
    `<tt:Date><tt:Year>${at.getUTCFullYear()}</tt:Year><tt:Month>${at.getUTCMonth() + 1}</tt:Month><tt:Day>${at.getUTCDate()}</tt:Day></tt:Date>` +
    '</tt:UTCDateTime></tds:SystemDateAndTime></tds:GetSystemDateAndTimeResponse>'
  );
}

/** A service that the device has, with the namespace that names it and its path. */
export interface ShownService {
  readonly namespace: string;
  readonly path: string;
  readonly version: readonly [number, number];
  /** What the older question calls it; `null` where that does not know it. */
  readonly capability: string | null;
}

export const servicesAnswer = (services: readonly ShownService[], base: string): string =>
  `<tds:GetServicesResponse>${services
    .map(
      ({ namespace, path, version: [major, minor] }) =>
        `<tds:Service><tds:Namespace>${namespace}</tds:Namespace><tds:XAddr>${base}${path}</tds:XAddr>` +
        `<tds:Version><tt:Major>${major}</tt:Major><tt:Minor>${minor}</tt:Minor></tds:Version></tds:Service>`,
    )
    .join('')}</tds:GetServicesResponse>`;

export const capabilitiesAnswer = (services: readonly ShownService[], base: string): string =>
  `<tds:GetCapabilitiesResponse><tds:Capabilities>${services
    .flatMap(({ capability, path }) =>
      capability === null ? [] : [`<tt:${capability}><tt:XAddr>${base}${path}</tt:XAddr></tt:${capability}>`],
    )
    .join('')}</tds:Capabilities></tds:GetCapabilitiesResponse>`;

/** A stream as a profile shows it. */
export interface ShownProfile {
  readonly token: string;
  readonly source: string;
  readonly stream: StreamPersonality;
  readonly head: HeadPersonality | null;
}

const encoding = (codec: string): string => (codec === 'JPEG' ? 'JPEG' : codec);

function encoderOf({ token, stream }: ShownProfile, isSecond: boolean): string {
  const { width, height, fps, groupFrames } = stream.format;
  // the first media service has no word for H.265: devices write another there
  const codec = isSecond && stream.loop === 'h265' ? 'H265' : stream.format.codec;
  const size = `<tt:Resolution><tt:Width>${width}</tt:Width><tt:Height>${height}</tt:Height></tt:Resolution><tt:Quality>4</tt:Quality>`;
  const gop = codec === 'JPEG' ? '' : isSecond ? ` GovLength="${groupFrames}" Profile="Baseline"` : '';
  const name = isSecond ? 'tr2:VideoEncoder' : 'tt:VideoEncoderConfiguration';
  const rate = isSecond
    ? `<tt:RateControl><tt:FrameRateLimit>${fps}</tt:FrameRateLimit><tt:BitrateLimit>2048</tt:BitrateLimit></tt:RateControl>`
    : `<tt:RateControl><tt:FrameRateLimit>${fps}</tt:FrameRateLimit><tt:EncodingInterval>1</tt:EncodingInterval><tt:BitrateLimit>2048</tt:BitrateLimit></tt:RateControl>` +
      (codec === 'H264'
        ? `<tt:H264><tt:GovLength>${groupFrames}</tt:GovLength><tt:H264Profile>Baseline</tt:H264Profile></tt:H264>`
        : '');
  return `<${name} token="enc-${token}"${gop}><tt:Name>${escapeXml(stream.label)}</tt:Name><tt:UseCount>1</tt:UseCount><tt:Encoding>${encoding(codec)}</tt:Encoding>${size}${rate}<tt:SessionTimeout>PT60S</tt:SessionTimeout></${name}>`;
}

const range = (name: string, min: number, max: number): string =>
  `<tt:${name}><tt:Min>${min}</tt:Min><tt:Max>${max}</tt:Max></tt:${name}>`;

const ptzOf = (name: string): string =>
  `<${name} token="ptz-1"><tt:Name>head</tt:Name><tt:UseCount>2</tt:UseCount><tt:NodeToken>node-1</tt:NodeToken><tt:DefaultPTZTimeout>PT5S</tt:DefaultPTZTimeout></${name}>`;

const sourceOf = (name: string, { source, stream }: ShownProfile): string => {
  const { width, height } = stream.format;
  return `<${name} token="look-${source}"><tt:Name>${source}</tt:Name><tt:UseCount>2</tt:UseCount><tt:SourceToken>${source}</tt:SourceToken><tt:Bounds x="0" y="0" width="${width}" height="${height}"/></${name}>`;
};

export const profilesAnswer = (profiles: readonly ShownProfile[]): string =>
  `<trt:GetProfilesResponse>${profiles
    .map(
      (profile) =>
        `<trt:Profiles token="${profile.token}" fixed="true"><tt:Name>${escapeXml(profile.stream.label)}</tt:Name>` +
        sourceOf('tt:VideoSourceConfiguration', profile) +
        encoderOf(profile, false) +
        `${profile.head ? ptzOf('tt:PTZConfiguration') : ''}</trt:Profiles>`,
    )
    .join('')}</trt:GetProfilesResponse>`;

export const profiles2Answer = (profiles: readonly ShownProfile[]): string =>
  `<tr2:GetProfilesResponse>${profiles
    .map(
      (profile) =>
        `<tr2:Profiles token="${profile.token}" fixed="true"><tr2:Name>${escapeXml(profile.stream.label)}</tr2:Name><tr2:Configurations>` +
        sourceOf('tr2:VideoSource', profile) +
        encoderOf(profile, true) +
        `${profile.head ? ptzOf('tr2:PTZ') : ''}</tr2:Configurations></tr2:Profiles>`,
    )
    .join('')}</tr2:GetProfilesResponse>`;

export const videoSourcesAnswer = (profiles: readonly ShownProfile[]): string => {
  const seen = new Map(profiles.map((profile) => [profile.source, profile]));
  return `<trt:GetVideoSourcesResponse>${[...seen.values()]
    .map(({ source, stream: { format } }) => {
      const size = `<tt:Resolution><tt:Width>${format.width}</tt:Width><tt:Height>${format.height}</tt:Height></tt:Resolution>`;
      return `<trt:VideoSources token="${source}"><tt:Framerate>${format.fps}</tt:Framerate>${size}</trt:VideoSources>`;
    })
    .join('')}</trt:GetVideoSourcesResponse>`;
};

export function uriAnswer(operation: string, isSecond: boolean, uri: string): string {
  const text = escapeXml(uri);
  return isSecond
    ? `<tr2:${operation}Response><tr2:Uri>${text}</tr2:Uri></tr2:${operation}Response>`
    : `<trt:${operation}Response><trt:MediaUri><tt:Uri>${text}</tt:Uri><tt:InvalidAfterConnect>false</tt:InvalidAfterConnect><tt:InvalidAfterReboot>false</tt:InvalidAfterReboot><tt:Timeout>PT60S</tt:Timeout></trt:MediaUri></trt:${operation}Response>`;
}

const space = (element: string, uri: string, x: readonly [number, number], y?: readonly [number, number]): string =>
  `<tt:${element}><tt:URI>${SPACES}/${uri}</tt:URI>${range('XRange', ...x)}${y ? range('YRange', ...y) : ''}</tt:${element}>`;

/** What the head takes. Source: ONVIF PTZ §5.1 (nodes), §5.7 (spaces). */
export function nodesAnswer({ isTimedOnly, zoomMax, mostPresets }: HeadPersonality): string {
  const whole = [-1, 1] as const;
  const spaces = [
    ...(isTimedOnly
      ? []
      : [
          space('AbsolutePanTiltPositionSpace', 'PanTiltSpaces/PositionGenericSpace', whole, whole),
          ...(zoomMax > 1 ? [space('AbsoluteZoomPositionSpace', 'ZoomSpaces/PositionGenericSpace', [0, 1])] : []),
          space('RelativePanTiltTranslationSpace', 'PanTiltSpaces/TranslationGenericSpace', whole, whole),
          ...(zoomMax > 1 ? [space('RelativeZoomTranslationSpace', 'ZoomSpaces/TranslationGenericSpace', whole)] : []),
        ]),
    space('ContinuousPanTiltVelocitySpace', 'PanTiltSpaces/VelocityGenericSpace', whole, whole),
    ...(zoomMax > 1 ? [space('ContinuousZoomVelocitySpace', 'ZoomSpaces/VelocityGenericSpace', whole)] : []),
  ];
  return (
    '<tptz:GetNodesResponse><tptz:PTZNode token="node-1" FixedHomePosition="true"><tt:Name>head</tt:Name>' +
    `<tt:SupportedPTZSpaces>${spaces.join('')}</tt:SupportedPTZSpaces>` +
    `<tt:MaximumNumberOfPresets>${mostPresets}</tt:MaximumNumberOfPresets><tt:HomeSupported>${isTimedOnly ? 'false' : 'true'}</tt:HomeSupported>` +
    '</tptz:PTZNode></tptz:GetNodesResponse>'
  );
}

export interface NormView {
  readonly pan: number;
  readonly tilt: number;
  readonly zoom: number;
}

/** A view in the numbers of the generic spaces, −1…1 and 0…1. */
export const normOf = ({ panDeg, tiltDeg, zoom }: HeadView, head: HeadPersonality): NormView => ({
  pan: (2 * (panDeg - head.panMin)) / (head.panMax - head.panMin) - 1,
  tilt: (2 * (tiltDeg - head.tiltMin)) / (head.tiltMax - head.tiltMin) - 1,
  zoom: head.zoomMax > 1 ? (zoom - 1) / (head.zoomMax - 1) : 0,
});

const position = (view: NormView): string =>
  `<tt:PanTilt x="${view.pan.toFixed(5)}" y="${view.tilt.toFixed(5)}" space="${SPACES}/PanTiltSpaces/PositionGenericSpace"/>` +
  `<tt:Zoom x="${view.zoom.toFixed(5)}" space="${SPACES}/ZoomSpaces/PositionGenericSpace"/>`;

export const statusAnswer = (view: NormView, isMoving: boolean, unixMs: number): string => {
  const word = isMoving ? 'MOVING' : 'IDLE';
  return (
    `<tptz:GetStatusResponse><tptz:PTZStatus><tt:Position>${position(view)}</tt:Position>` +
    `<tt:MoveStatus><tt:PanTilt>${word}</tt:PanTilt><tt:Zoom>${word}</tt:Zoom></tt:MoveStatus>` +
    `<tt:UtcTime>${isoOf(unixMs)}</tt:UtcTime></tptz:PTZStatus></tptz:GetStatusResponse>`
  );
};

export const presetsAnswer = (presets: readonly HeadPreset[], head: HeadPersonality): string =>
  `<tptz:GetPresetsResponse>${presets
    .map((preset) => {
      const at = head.isTimedOnly ? '' : `<tt:PTZPosition>${position(normOf(preset, head))}</tt:PTZPosition>`;
      return `<tptz:Preset token="${preset.token}"><tt:Name>${escapeXml(preset.name)}</tt:Name>${at}</tptz:Preset>`;
    })
    .join('')}</tptz:GetPresetsResponse>`;

export const MOTION_TOPIC = 'tns1:RuleEngine/CellMotionDetector/Motion';
export const LINE_TOPIC = 'tns1:RuleEngine/LineDetector/Crossed';

export const eventPropertiesAnswer = (): string =>
  '<tev:GetEventPropertiesResponse><tev:TopicNamespaceLocation>http://www.onvif.org/onvif/ver10/topics/topicns.xml</tev:TopicNamespaceLocation>' +
  '<wsnt:FixedTopicSet>true</wsnt:FixedTopicSet><wstop:TopicSet><tns1:RuleEngine>' +
  '<CellMotionDetector><Motion wstop:topic="true"><tt:MessageDescription IsProperty="true"><tt:Data><tt:SimpleItemDescription Name="IsMotion" Type="xs:boolean"/></tt:Data></tt:MessageDescription></Motion></CellMotionDetector>' +
  '<LineDetector><Crossed wstop:topic="true"><tt:MessageDescription IsProperty="false"><tt:Data><tt:SimpleItemDescription Name="ObjectId" Type="xs:integer"/></tt:Data></tt:MessageDescription></Crossed></LineDetector>' +
  '</tns1:RuleEngine></wstop:TopicSet></tev:GetEventPropertiesResponse>';

/** Known by its address, or by an element that has to come back in the header (WS-Addressing 1.0 SOAP Binding §4). */
export const pullPointAnswer = (url: string, number: string | null, nowMs: number, endsMs: number): string =>
  `<tev:CreatePullPointSubscriptionResponse xmlns:own="urn:example:subscriptions"><tev:SubscriptionReference><wsa5:Address>${escapeXml(url)}</wsa5:Address>` +
  `${number === null ? '' : `<wsa5:ReferenceParameters><own:SubscriptionId>${number}</own:SubscriptionId></wsa5:ReferenceParameters>`}</tev:SubscriptionReference>` +
  `<wsnt:CurrentTime>${isoOf(nowMs)}</wsnt:CurrentTime><wsnt:TerminationTime>${isoOf(endsMs)}</wsnt:TerminationTime></tev:CreatePullPointSubscriptionResponse>`;

const messageOf = ({ topic, change, item, unixMs }: ToldEvent, source: string): string =>
  `<wsnt:NotificationMessage><wsnt:Topic Dialect="http://www.onvif.org/ver10/tev/topicExpression/ConcreteSet">${topic}</wsnt:Topic>` +
  `<wsnt:Message><tt:Message UtcTime="${isoOf(unixMs)}" PropertyOperation="${change}"><tt:Source><tt:SimpleItem Name="VideoSourceConfigurationToken" Value="${source}"/></tt:Source>` +
  `<tt:Data><tt:SimpleItem Name="${item.name}" Value="${item.value}"/></tt:Data></tt:Message></wsnt:Message></wsnt:NotificationMessage>`;

export const pulledAnswer = (events: readonly ToldEvent[], source: string, nowMs: number, endsMs: number): string =>
  `<tev:PullMessagesResponse><tev:CurrentTime>${isoOf(nowMs)}</tev:CurrentTime><tev:TerminationTime>${isoOf(endsMs)}</tev:TerminationTime>` +
  `${events.map((event) => messageOf(event, source)).join('')}</tev:PullMessagesResponse>`;

export const renewAnswer = (nowMs: number, endsMs: number): string =>
  `<wsnt:RenewResponse><wsnt:TerminationTime>${isoOf(endsMs)}</wsnt:TerminationTime><wsnt:CurrentTime>${isoOf(nowMs)}</wsnt:CurrentTime></wsnt:RenewResponse>`;

const DAY_MS = 86_400_000;
export const recordingsAnswer = (
  { count, days }: { readonly count: number; readonly days: number },
  nowMs: number,
): string =>
  `<tse:GetRecordingSummaryResponse><tse:Summary><tt:DataFrom>${isoOf(nowMs - days * DAY_MS)}</tt:DataFrom>` +
  `<tt:DataUntil>${isoOf(nowMs)}</tt:DataUntil><tt:NumberRecordings>${count}</tt:NumberRecordings></tse:Summary></tse:GetRecordingSummaryResponse>`;
