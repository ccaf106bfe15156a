import { attributeOf, childOf, textIn, type XmlNode } from '../../core/onvif/envelope.ts';
import { durationOf, numberOf } from '../../core/onvif/read-values.ts';
import * as answers from './onvif-answers.ts';
import type { Asked, OnvifAnswer, Speaker } from './onvif-service.ts';
import type { SimulatedHead } from './simulated-head.ts';

/** What a head answers to an operation of the PTZ service; `null` where it is none. */
export function headAnswer(
  head: SimulatedHead,
  { name, node }: Asked,
  { fault, clockMs }: Speaker,
): string | OnvifAnswer | null {
  const { personality } = head;
  const isTimed = personality.isTimedOnly === true;
  const unsupported = isTimed ? fault(400, 'ter:ActionNotSupported', `${name} is not implemented.`) : null;
  const done = (): string => `<tptz:${name}Response/>`;
  const noToken = (): OnvifAnswer => fault(400, 'ter:NoToken', 'There is no such preset.');
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
        answers.statusAnswer(answers.normOf(head.view, personality), head.isMovingAt(Date.now()), clockMs())
      );
    case 'GetPresets':
      return answers.presetsAnswer(head.presets, personality);
    case 'SetPreset': {
      const token = head.setPreset(textIn(node, 'PresetName'), textIn(node, 'PresetToken') || null);
      if (token === null) return fault(400, 'ter:TooManyPresets', 'No more presets fit.');
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
