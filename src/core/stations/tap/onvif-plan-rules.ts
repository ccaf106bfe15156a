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
  [toldSerial && `serial ${toldSerial}`, toldMac && `hardware address ${toldMac}`]
    .filter((part) => part !== '')
    .join(', ');

/** Asked of a camera that was read by ONVIF at its present address. */
export const ONVIF_PLAN_RULES = [
  rule({
    id: 'onvif.seen-elsewhere',
    question: 'Was its ONVIF seen on another port than it was asked on?',
    source: 'the last look through its network: a door that answered GetSystemDateAndTime',
    needs: ['seenPort', 'askedPort'],
    asks: (f) => f.seenPort !== undefined,
    isTight: () => true,
    severity: 'fix',
    title: (f) => `Its ONVIF was seen on port ${f.seenPort}`,
    because: (f) => `It was asked on port ${f.askedPort}, in vain.`,
    do: ['Ask it there.'],
    mends: (_, offers) => offers.onvifPort(),
    why: 'Makers choose the port as they like, and few write it down.',
  }),
  rule({
    id: 'onvif.path-not-offered',
    question: 'Does the device offer the path that is planned?',
    source: 'ONVIF Media §5.15: the addresses of its profiles',
    needs: ['strayPaths', 'strayStream', 'strayPath', 'offeredPath'],
    asks: (f) => f.strayPaths !== undefined,
    isTight: (f) => f.strayPaths > 0,
    severity: (f) => (f.strayPath === '' ? 'note' : 'watch'),
    title: (f) => `${f.strayStream}: it does not offer ${f.strayPath || 'a stream without a path'}`,
    because: (f) => `By ONVIF it offers ${f.offeredPath || 'other paths'}.`,
    do: ['Take the path of a profile.', 'Keep it, if a probe gave its picture: not all that a device has is offered.'],
    mends: (_, offers) => offers.paths(),
    why: 'A path from a list of the internet may work today, and is gone with the next firmware.',
  }),
  rule({
    id: 'onvif.port-other',
    question: 'Does it give its streams on the port that is planned?',
    source: 'ONVIF Media §5.15: the port of its stream addresses',
    needs: ['plannedPort', 'toldPort'],
    isTight: (f) => f.plannedPort !== f.toldPort,
    severity: 'watch',
    title: (f) => `It gives its streams on port ${f.toldPort}`,
    because: (f) => `Planned is ${f.plannedPort}.`,
    do: ['Take its port.', 'Keep yours where a router leads another one in.'],
    mends: (_, offers) => offers.port(),
    why: 'What is entered at destinations comes from here.',
  }),
  rule({
    id: 'onvif.figures-other',
    question: 'Is its encoder set as planned?',
    source: 'encoder configuration of the profile',
    needs: ['otherFigures'],
    isTight: (f) => f.otherFigures !== '',
    severity: 'watch',
    title: () => 'Its encoder is set otherwise than planned',
    because: (f) => `${f.otherFigures}.`,
    do: ['Set the encoder as planned, or plan it as it is set.'],
    mends: (_, offers) => offers.figures(),
    why: 'Storage and links were worked out for what is planned.',
  }),
  rule({
    id: 'onvif.stream-left-out',
    question: 'Is all that it offers among its streams here?',
    source: 'profiles of the device against the streams of the plan',
    needs: ['leftOut'],
    isTight: (f) => f.leftOut !== '',
    severity: 'note',
    title: () => 'It offers more than is planned',
    because: (f) => `Not among its streams here: ${f.leftOut}.`,
    do: ['Take the small one, for viewers and for detection.'],
    mends: (_, offers) => offers.streams(),
    why: 'A small stream spares the large one: its sessions, its link, the decoder of a tablet.',
  }),
  rule({
    id: 'onvif.identity-unknown',
    question: 'Is it known by something that stays?',
    source: 'ONVIF Core §8.3.14, §8.2.5: serial number, hardware address',
    needs: ['isKnownByNothing', 'toldSerial', 'toldMac'],
    isTight: (f) => f.isKnownByNothing && (f.toldSerial !== '' || f.toldMac !== ''),
    severity: 'note',
    title: () => 'It told what it can be known by',
    because: (f) => `Its ${sayIdentity(f)}.`,
    do: ['Keep it: then it is found again wherever its address goes.'],
    mends: (_, offers) => offers.identity(),
    why: 'By its address alone nobody knows whether it is still the same camera.',
  }),
  rule({
    id: 'onvif.identity-other',
    question: 'Is it the device that it is known to be?',
    source: 'ONVIF Core §8.3.14, §8.2.5 against what it is known by here',
    needs: ['otherIdentity', 'toldSerial', 'toldMac'],
    asks: (f) => f.otherIdentity !== undefined,
    fails: (f) => f.otherIdentity !== '',
    severity: 'fix',
    title: () => 'Another device answers at its address',
    because: (f) => `Known is ${f.otherIdentity}; what answers has ${sayIdentity(f)}.`,
    do: ['Look it up on the network: the camera may have moved.', 'Keep the new one, if it was exchanged.'],
    mends: (_, offers) => offers.identity(),
    why: 'All that is measured and handed over under this name would be another camera’s.',
  }),
  rule({
    id: 'onvif.model-unknown',
    question: 'Is its model chosen?',
    source: 'ONVIF Core §8.3.14: manufacturer and model',
    needs: ['hasModel', 'toldModel'],
    isTight: (f) => !f.hasModel && f.toldModel !== '',
    severity: 'note',
    title: (f) => `It is a ${f.toldModel}`,
    because: () => 'No model is chosen for it here.',
    do: ['Choose its card, or make one: what is known of the model then counts for it.'],
    mends: (_, offers) => offers.models(),
    why: 'Power, storage and sessions are worked out from its card.',
  }),
  rule({
    id: 'onvif.model-other',
    question: 'Is it of the model that is chosen?',
    source: 'ONVIF Core §8.3.14: manufacturer and model',
    needs: ['isModelOther', 'model', 'toldModel'],
    asks: (f) => f.isModelOther !== undefined,
    isTight: (f) => f.isModelOther,
    severity: 'fix',
    title: (f) => `It says that it is a ${f.toldModel}`,
    because: (f) => `Chosen is ${f.model}. Some devices carry the name of whoever built them.`,
    do: ['Choose the card of the model that it is.', 'Name the card as the device does, if it is the same thing.'],
    mends: (_, offers) => offers.models(),
    why: 'What is worked out for it is worked out for another model.',
  }),
  rule({
    id: 'onvif.card-lacks',
    question: 'Does the card know what it told?',
    source: 'what the device told against the card of its model',
    needs: ['cardLacks', 'model'],
    isTight: (f) => f.cardLacks !== '',
    severity: 'note',
    title: (f) => `The card of ${f.model} can learn from it`,
    because: (f) => `Not on the card: ${f.cardLacks}.`,
    do: ['Let the card learn it: the next one of this model is filled in from there.'],
    mends: (_, offers) => offers.card(),
    why: 'What was found out once need not be found out again, on no site.',
  }),
  rule({
    id: 'onvif.keeping-other',
    question: 'Does its address stay as planned, by its own word?',
    source: 'ONVIF Core §8.2.5: DHCP of its network interface',
    needs: ['keeping', 'dhcp'],
    asks: (f) => f.keeping !== undefined && f.dhcp !== undefined,
    isTight: (f) => (f.dhcp ? f.keeping === 'static' : f.keeping !== 'static'),
    severity: 'fix',
    title: (f) => (f.dhcp ? 'It asks for its address' : 'Its address is set on the device'),
    because: (f) =>
      f.dhcp
        ? 'Here it stands as set on the device; by its own word it takes what the router hands out.'
        : 'Here it stands as handed out; by its own word it has a fixed one.',
    do: ['Plan it as it is, or change it at the device.'],
    mends: (_, offers) => offers.keeping(),
    why: 'A fixed address inside the pool is handed out to another one day; one that asks moves.',
  }),
  rule({
    id: 'onvif.first-channel',
    question: 'Does its ONVIF show all channels of the box?',
    source: 'pictures told by GetVideoSources against the card of the box',
    needs: ['sourcesShown', 'channels'],
    asks: (f) => (f.channels ?? 1) > 1,
    isTight: (f) => f.sourcesShown < f.channels,
    severity: 'watch',
    title: (f) => `By ONVIF it shows ${f.sourcesShown} of ${sayMany(f.channels, 'channel')}`,
    because: (f) => `Its card says ${f.channels}; ${sayMany(f.channelsOnSite ?? 0, 'channel')} of it are cameras here.`,
    do: [
      'Draw its other channels by their paths: “Channels of the box” tries them.',
      'Add them one by one at a destination, by RTSP.',
    ],
    why: 'Who adds the box by ONVIF gets its first camera, and thinks that the others are broken.',
  }),
] as const;
