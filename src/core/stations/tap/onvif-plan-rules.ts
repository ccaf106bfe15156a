import { sayMany } from '../../base/say.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import type { Mend } from '../../findings/finding.ts';
import { rulesFor } from '../../findings/rule.ts';
import type { OnvifPlanFacts } from './onvif-plan-facts.ts';

/** What a plan could take from its device. */
export interface OnvifPlanOffers {
  readonly onvifPort: () => readonly Mend<SiteCommand>[];
  readonly paths: () => readonly Mend<SiteCommand>[];
  readonly port: () => readonly Mend<SiteCommand>[];
  readonly figures: () => readonly Mend<SiteCommand>[];
  readonly streams: () => readonly Mend<SiteCommand>[];
  readonly identity: () => readonly Mend<SiteCommand>[];
  readonly models: () => readonly Mend<SiteCommand>[];
  readonly card: () => readonly Mend<SiteCommand>[];
  readonly keeping: () => readonly Mend<SiteCommand>[];
}

const rule = rulesFor<OnvifPlanFacts, OnvifPlanOffers, SiteCommand>();

const sayIdentity = ({ toldSerial, toldMac }: { toldSerial: string; toldMac: string }): string =>
  [toldSerial && `serial ${toldSerial}`, toldMac && `MAC address ${toldMac}`].filter((part) => part !== '').join(', ');

/** Asked of a camera that was read by ONVIF at its present address. */
export const ONVIF_PLAN_RULES = [
  rule({
    id: 'onvif.seen-elsewhere',
    question: 'Did its ONVIF answer on another port?',
    source: 'the last scan of its network: a port that answered GetSystemDateAndTime',
    needs: ['seenPort', 'askedPort'],
    asks: (f) => f.seenPort !== undefined,
    isTight: () => true,
    severity: 'fix',
    title: (f) => `ONVIF on port ${f.seenPort}`,
    because: (f) => `Port ${f.askedPort} was tried without success.`,
    do: ['Try that port.'],
    mends: (_, offers) => offers.onvifPort(),
    why: 'Makers choose the port as they like, and few document it.',
  }),
  rule({
    id: 'onvif.path-not-offered',
    question: 'Does the device offer the planned path?',
    source: 'ONVIF Media §5.15: the addresses of its profiles',
    needs: ['strayPaths', 'strayStream', 'strayPath', 'offeredPath'],
    asks: (f) => f.strayPaths !== undefined,
    isTight: (f) => f.strayPaths > 0,
    severity: (f) => (f.strayPath === '' ? 'note' : 'caution'),
    title: (f) => `${f.strayStream}: path ${f.strayPath || '(none)'} not offered`,
    because: (f) => `By ONVIF it offers ${f.offeredPath || 'other paths'}.`,
    do: ['Use the path of a profile.', 'Keep it, if a probe got its picture: not every path is offered.'],
    mends: (_, offers) => offers.paths(),
    why: 'A path from a list on the internet may work today, and be gone with the next firmware.',
  }),
  rule({
    id: 'onvif.port-other',
    question: 'Is its RTSP port the planned one?',
    source: 'ONVIF Media §5.15: the port of its stream addresses',
    needs: ['plannedPort', 'toldPort'],
    isTight: (f) => f.plannedPort !== f.toldPort,
    severity: 'caution',
    title: (f) => `RTSP port reported as ${f.toldPort}`,
    because: (f) => `Planned is ${f.plannedPort}.`,
    do: ['Use the reported port.', 'Keep yours if it is a port forward.'],
    mends: (_, offers) => offers.port(),
    why: 'Destinations are set up with this port.',
  }),
  rule({
    id: 'onvif.figures-other',
    question: 'Is its encoder set as planned?',
    source: 'encoder configuration of the profile',
    needs: ['otherFigures'],
    isTight: (f) => f.otherFigures !== '',
    severity: 'caution',
    title: () => 'Encoder set differently than planned',
    because: (f) => `${f.otherFigures}.`,
    do: ['Set the encoder as planned, or plan it as it is set.'],
    mends: (_, offers) => offers.figures(),
    why: 'Storage and links were computed for the plan.',
  }),
  rule({
    id: 'onvif.stream-left-out',
    question: 'Are all its profiles among the streams here?',
    source: 'profiles of the device against the streams of the plan',
    needs: ['leftOut'],
    isTight: (f) => f.leftOut !== '',
    severity: 'note',
    title: () => 'More profiles than planned',
    because: (f) => `Not among its streams here: ${f.leftOut}.`,
    do: ['Use the sub stream, for viewers and for detection.'],
    mends: (_, offers) => offers.streams(),
    why: 'A sub stream saves the main one: its sessions, its link, the decoder of a tablet.',
  }),
  rule({
    id: 'onvif.identity-unknown',
    question: 'Is its identity recorded?',
    source: 'ONVIF Core §8.3.14, §8.2.5: serial number, MAC address',
    needs: ['isKnownByNothing', 'toldSerial', 'toldMac'],
    isTight: (f) => f.isKnownByNothing && (f.toldSerial !== '' || f.toldMac !== ''),
    severity: 'note',
    title: () => 'Identity not recorded',
    because: (f) => `It reports its ${sayIdentity(f)}.`,
    do: ['Save it: then the camera is found again when its address changes.'],
    mends: (_, offers) => offers.identity(),
    why: 'By its IP address alone nobody knows whether it is still the same camera.',
  }),
  rule({
    id: 'onvif.identity-other',
    question: 'Is it the recorded device?',
    source: 'ONVIF Core §8.3.14, §8.2.5 against the recorded identity',
    needs: ['otherIdentity', 'toldSerial', 'toldMac'],
    asks: (f) => f.otherIdentity !== undefined,
    fails: (f) => f.otherIdentity !== '',
    severity: 'fix',
    title: () => 'Another device at its address',
    because: (f) => `Recorded is ${f.otherIdentity}; this device reports ${sayIdentity(f)}.`,
    do: ['Look for it on the network: its address may have changed.', 'Save the new identity, if it was replaced.'],
    mends: (_, offers) => offers.identity(),
    why: 'Everything measured and handed over under this name would be another camera’s.',
  }),
  rule({
    id: 'onvif.model-unknown',
    question: 'Is its model card chosen?',
    source: 'ONVIF Core §8.3.14: manufacturer and model',
    needs: ['hasModel', 'toldModel'],
    isTight: (f) => !f.hasModel && f.toldModel !== '',
    severity: 'note',
    title: (f) => `Model reported: ${f.toldModel}`,
    because: () => 'No model card is chosen for it here.',
    do: ['Choose its model card, or create one: what is known of the model then counts for it.'],
    mends: (_, offers) => offers.models(),
    why: 'Power, storage and sessions are computed from its model card.',
  }),
  rule({
    id: 'onvif.model-other',
    question: 'Is it the chosen model?',
    source: 'ONVIF Core §8.3.14: manufacturer and model',
    needs: ['isModelOther', 'model', 'toldModel'],
    asks: (f) => f.isModelOther !== undefined,
    isTight: (f) => f.isModelOther,
    severity: 'fix',
    title: (f) => `Reports itself as ${f.toldModel}`,
    because: (f) => `Chosen is ${f.model}. Some devices report the name of whoever built them.`,
    do: [
      'Choose the model card of the reported model.',
      'Rename the model card as the device reports, if it is the same model.',
    ],
    mends: (_, offers) => offers.models(),
    why: 'Its figures are computed for another model.',
  }),
  rule({
    id: 'onvif.card-lacks',
    question: 'Has its model card what it reported?',
    source: 'what the device told against the card of its model',
    needs: ['cardLacks', 'model'],
    isTight: (f) => f.cardLacks !== '',
    severity: 'note',
    title: (f) => `Model card of ${f.model} can be completed`,
    because: (f) => `Not on the model card: ${f.cardLacks}.`,
    do: ['Add it to the model card: the next camera of this model is filled in from it.'],
    mends: (_, offers) => offers.card(),
    why: 'What was found out once need not be found out again.',
  }),
  rule({
    id: 'onvif.keeping-other',
    question: 'Is its address assigned as planned, as it reports?',
    source: 'ONVIF Core §8.2.5: DHCP of its network interface',
    needs: ['keeping', 'dhcp'],
    asks: (f) => f.keeping !== undefined && f.dhcp !== undefined,
    isTight: (f) => (f.dhcp ? f.keeping === 'static' : f.keeping !== 'static'),
    severity: 'fix',
    title: (f) => (f.dhcp ? 'Reports DHCP' : 'Reports a static address'),
    because: (f) =>
      f.dhcp
        ? 'It is planned with a static address; it reports DHCP.'
        : 'It is planned with DHCP; it reports a static address.',
    do: ['Plan it as it is, or change it at the device.'],
    mends: (_, offers) => offers.keeping(),
    why: 'A static address inside the DHCP range is assigned to another device one day; one by DHCP can change.',
  }),
  rule({
    id: 'onvif.first-channel',
    question: 'Does its ONVIF list all channels of the recorder?',
    source: 'video sources by GetVideoSources against the model card of the recorder',
    needs: ['sourcesShown', 'channels'],
    asks: (f) => (f.channels ?? 1) > 1,
    isTight: (f) => f.sourcesShown < f.channels,
    severity: 'caution',
    title: (f) => `ONVIF lists ${f.sourcesShown} of ${sayMany(f.channels, 'channel')}`,
    because: (f) =>
      `Its model card says ${f.channels}; ${sayMany(f.channelsOnSite ?? 0, 'channel')} of it are cameras here.`,
    do: [
      'Pull its other channels by their paths: “Channels of the recorder” tries them.',
      'Add them one by one at a destination, by RTSP.',
    ],
    why: 'Whoever adds the recorder by ONVIF gets its first camera, and believes the others are broken.',
  }),
] as const;
