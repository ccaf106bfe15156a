/** What came of drawing an SVG: a picture, none that is small enough, a broken file, or one that was given up. */
export type Drawn =
  | { readonly kind: 'drawn'; readonly dataUrl: string }
  | { readonly kind: 'too-large' }
  | { readonly kind: 'broken' }
  | { readonly kind: 'given-up' };

export interface Wanted {
  readonly width: number;
  readonly height: number;
  readonly qualities: readonly number[];
  /** Most characters of its data URL. */
  readonly most: number;
}

/** A plan of a house is drawn in a blink. */
const GIVE_UP_MS = 2000;

/**
 * Draws an SVG where it can be given up: in a frame that browsers draw apart from the page, since it is of nobody's
 * origin. A few hundred bytes of nested references take minutes to draw.
 */
export function drawSvg(bytes: Uint8Array<ArrayBuffer>, wanted: Wanted): Promise<Drawn> {
  return new Promise((resolve) => {
    const frame = document.createElement('iframe');
    frame.setAttribute('sandbox', 'allow-scripts');
    frame.src = '/draw-svg.html';
    frame.hidden = true;
    const end = (drawn: Drawn): void => {
      clearTimeout(timer);
      removeEventListener('message', hear);
      frame.remove();
      resolve(drawn);
    };
    const hear = ({ data, source }: MessageEvent<{ isReady?: true; isBroken?: true; dataUrl?: unknown }>): void => {
      if (source !== frame.contentWindow) return;
      if (data.isReady) frame.contentWindow?.postMessage({ ...wanted, bytes }, '*');
      else if (data.isBroken) end({ kind: 'broken' });
      else end(typeof data.dataUrl === 'string' ? { kind: 'drawn', dataUrl: data.dataUrl } : { kind: 'too-large' });
    };
    const timer = setTimeout(() => end({ kind: 'given-up' }), GIVE_UP_MS);
    addEventListener('message', hear);
    document.body.append(frame);
  });
}
