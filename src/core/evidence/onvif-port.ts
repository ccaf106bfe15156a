import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Model } from '../document/chapters/models/model-card.ts';

export const USUAL_ONVIF_PORT = 80;
/** Where ONVIF is asked: as somebody said, as the card has it, or where it usually is. */
export const onvifPortOf = ({ onvifPort }: Pick<Camera, 'onvifPort'>, model: Model | undefined): number =>
  onvifPort ?? model?.onvifPort ?? USUAL_ONVIF_PORT;
