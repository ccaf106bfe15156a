import { attributeOf, childOf, childrenOf, textIn, type XmlNode } from '../envelope.ts';
import { element, operation } from '../operation.ts';
import { flagIn, numberIn, numberOf, said, saidIn, tokenIn, tokenOf, wholeIn, writeDuration } from '../read-values.ts';

// Source: ONVIF PTZ §5 (nodes, moves, status, presets).

export interface Span {
  readonly min: number;
  readonly max: number;
}
/** One space: which numbers it takes. Of a zoom, one axis. */
export interface Space {
  readonly uri: string;
  readonly x: Span;
  readonly y: Span | null;
}

export interface PtzNode {
  readonly token: string;
  readonly name: string;
  readonly absolute: Space | null;
  readonly absoluteZoom: Space | null;
  readonly relative: Space | null;
  readonly relativeZoom: Space | null;
  readonly continuous: Space | null;
  readonly continuousZoom: Space | null;
  readonly mostPresets: number | null;
  readonly hasHome: boolean | null;
}

const MOST_NODES = 16;
export const MOST_PRESETS = 300;

function spanIn(space: XmlNode, name: string): Span | null {
  const range = childOf(space, name);
  const [min, max] = [numberIn(range, 'Min'), numberIn(range, 'Max')];
  return min !== null && max !== null && max > min ? { min, max } : null;
}

/** The generic space of a kind before all others: it is the one that is known. */
function spaceIn(spaces: XmlNode | null, name: string): Space | null {
  const all = childrenOf(spaces, name)
    .slice(0, MOST_NODES)
    .flatMap((space): readonly Space[] => {
      const x = spanIn(space, 'XRange');
      return x ? [{ uri: saidIn(space, 'URI', 200), x, y: spanIn(space, 'YRange') }] : [];
    });
  return all.find(({ uri }) => uri.includes('GenericSpace')) ?? all[0] ?? null;
}

const readNode = (node: XmlNode): PtzNode => {
  const spaces = childOf(node, 'SupportedPTZSpaces');
  return {
    token: tokenOf(node),
    name: saidIn(node, 'Name'),
    absolute: spaceIn(spaces, 'AbsolutePanTiltPositionSpace'),
    absoluteZoom: spaceIn(spaces, 'AbsoluteZoomPositionSpace'),
    relative: spaceIn(spaces, 'RelativePanTiltTranslationSpace'),
    relativeZoom: spaceIn(spaces, 'RelativeZoomTranslationSpace'),
    continuous: spaceIn(spaces, 'ContinuousPanTiltVelocitySpace'),
    continuousZoom: spaceIn(spaces, 'ContinuousZoomVelocitySpace'),
    mostPresets: wholeIn(node, 'MaximumNumberOfPresets'),
    hasHome: flagIn(node, 'HomeSupported'),
  };
};

export const GET_NODES = operation({
  service: 'ptz',
  name: 'GetNodes',
  write: () => '',
  read: (answer) => childrenOf(answer, 'PTZNode').slice(0, MOST_NODES).map(readNode),
});

/** Where a head looks, in the numbers of its spaces. */
export interface PtzPosition {
  readonly pan: number;
  readonly tilt: number;
  readonly zoom: number | null;
}

export interface PtzStatus {
  readonly position: PtzPosition | null;
  /** `null` where it does not tell. */
  readonly isMoving: boolean | null;
  readonly error: string;
}

function readStatus(answer: XmlNode): PtzStatus {
  const status = childOf(answer, 'PTZStatus');
  const position = childOf(status, 'Position');
  const [turn, zoom] = [childOf(position, 'PanTilt'), childOf(position, 'Zoom')];
  const [pan, tilt] = [numberOf(attributeOf(turn, 'x')), numberOf(attributeOf(turn, 'y'))];
  const moves = childOf(status, 'MoveStatus');
  const words = [textIn(moves, 'PanTilt'), textIn(moves, 'Zoom')].map((word) => word.toUpperCase());
  return {
    position: pan === null || tilt === null ? null : { pan, tilt, zoom: numberOf(attributeOf(zoom, 'x')) },
    isMoving: words.includes('MOVING') ? true : words.includes('IDLE') ? false : null,
    error: saidIn(status, 'Error'),
  };
}

export const GET_STATUS = operation({
  service: 'ptz',
  name: 'GetStatus',
  write: (profile: string) => element('ProfileToken', profile),
  read: readStatus,
});

export interface PtzPreset {
  /** Given back as it came: devices number them from 0, from 1, or not at all. */
  readonly token: string;
  readonly name: string;
  readonly position: PtzPosition | null;
}

export const GET_PRESETS = operation({
  service: 'ptz',
  name: 'GetPresets',
  write: (profile: string) => element('ProfileToken', profile),
  read: (answer): readonly PtzPreset[] =>
    childrenOf(answer, 'Preset')
      .slice(0, MOST_PRESETS)
      .flatMap((preset): readonly PtzPreset[] => {
        const token = tokenOf(preset);
        const at = childOf(preset, 'PTZPosition');
        const turn = childOf(at, 'PanTilt');
        const [pan, tilt] = [numberOf(attributeOf(turn, 'x')), numberOf(attributeOf(turn, 'y'))];
        const position =
          pan === null || tilt === null ? null : { pan, tilt, zoom: numberOf(attributeOf(childOf(at, 'Zoom'), 'x')) };
        return token === '' ? [] : [{ token, name: said(textIn(preset, 'Name')), position }];
      }),
});

/** A share of the top speed, −1…1 each. */
export interface PtzVelocity {
  readonly pan: number;
  readonly tilt: number;
  readonly zoom: number;
}

const number = (value: number): string => String(Number(value.toFixed(5)));
const vector = ({ pan, tilt, zoom }: { pan: number; tilt: number; zoom: number | null }): string =>
  `<tt:PanTilt x="${number(pan)}" y="${number(tilt)}"/>${zoom === null ? '' : `<tt:Zoom x="${number(zoom)}"/>`}`;

/** It runs until it is stopped, or so long at most: a stop may get lost. */
export const CONTINUOUS_MOVE = operation({
  service: 'ptz',
  name: 'ContinuousMove',
  write: ({ profile, velocity, timeoutS }: { profile: string; velocity: PtzVelocity; timeoutS: number }) =>
    `${element('ProfileToken', profile)}<Velocity>${vector({ ...velocity, zoom: velocity.zoom === 0 ? null : velocity.zoom })}</Velocity>` +
    element('Timeout', writeDuration(timeoutS)),
  read: () => null,
});

export const ABSOLUTE_MOVE = operation({
  service: 'ptz',
  name: 'AbsoluteMove',
  write: ({ profile, position }: { profile: string; position: PtzPosition }) =>
    `${element('ProfileToken', profile)}<Position>${vector(position)}</Position>`,
  read: () => null,
});

export const RELATIVE_MOVE = operation({
  service: 'ptz',
  name: 'RelativeMove',
  isOnce: true,
  write: ({ profile, by }: { profile: string; by: PtzPosition }) =>
    `${element('ProfileToken', profile)}<Translation>${vector(by)}</Translation>`,
  read: () => null,
});

export const STOP = operation({
  service: 'ptz',
  name: 'Stop',
  write: (profile: string) => `${element('ProfileToken', profile)}<PanTilt>true</PanTilt><Zoom>true</Zoom>`,
  read: () => null,
});

export const GOTO_HOME = operation({
  service: 'ptz',
  name: 'GotoHomePosition',
  write: (profile: string) => element('ProfileToken', profile),
  read: () => null,
});

export const SET_PRESET = operation({
  service: 'ptz',
  name: 'SetPreset',
  isOnce: true,
  write: ({ profile, name, token }: { profile: string; name: string; token: string | null }) =>
    `${element('ProfileToken', profile)}${element('PresetName', name)}${token === null ? '' : element('PresetToken', token)}`,
  read: (answer): string => tokenIn(answer, 'PresetToken'),
});

export const GOTO_PRESET = operation({
  service: 'ptz',
  name: 'GotoPreset',
  write: ({ profile, token }: { profile: string; token: string }) =>
    `${element('ProfileToken', profile)}${element('PresetToken', token)}`,
  read: () => null,
});

export const REMOVE_PRESET = operation({
  service: 'ptz',
  name: 'RemovePreset',
  write: ({ profile, token }: { profile: string; token: string }) =>
    `${element('ProfileToken', profile)}${element('PresetToken', token)}`,
  read: () => null,
});
