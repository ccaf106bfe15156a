import { clipText } from '../../../core/base/clip.ts';
import { type Fault, fault } from '../../../core/base/fault.ts';
import { err, ok, type Result } from '../../../core/base/result.ts';
import { isSheet, type PlanPicture } from '../../../core/document/chapters/plan/drawn-plan.ts';
import { type PictureFaultCode, pictureSize } from '../../../core/imports/picture-size.ts';
import { type Drawn, drawSvg, type Wanted } from './draw-svg.ts';

/** Longest side that is kept: sharp enough to draw on, small enough to lie in every saved site. */
const KEPT_PX = 1800;
const KEPT_CHARS = 1_500_000;
const TYPES = { png: 'image/png', jpeg: 'image/jpeg' } as const;
const QUALITIES = [0.9, 0.7, 0.5] as const;

/**
 * Takes a picture in as the ground of the plan. It is drawn anew, so that neither a script in an SVG nor the place where a
 * photo was taken comes along.
 */
export async function takePlanPicture(
  file: File,
  widthM: number,
): Promise<Result<PlanPicture, Fault<PictureFaultCode>>> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const size = pictureSize(bytes);
  if (!size.ok) return size;
  const { kind } = size.value;
  const photo = kind === 'svg' ? null : await decodePhoto(bytes, TYPES[kind]);
  if (kind !== 'svg' && !photo) return err(FAULTS.broken);
  // A photo may lie on its side in its file; decoded it stands upright.
  const widthPx = photo?.naturalWidth ?? size.value.widthPx;
  const heightPx = photo?.naturalHeight ?? size.value.heightPx;
  const shrink = Math.min(1, KEPT_PX / Math.max(widthPx, heightPx));
  const [width, height] = [Math.max(1, Math.round(widthPx * shrink)), Math.max(1, Math.round(heightPx * shrink))];
  if (!isSheet((height / width) * widthM))
    return err(
      fault('picture.not-a-plan', `${widthPx} × ${heightPx} pixels are too narrow for a plan. Crop it to the house.`),
    );
  const wanted = { width, height, qualities: QUALITIES, most: KEPT_CHARS };
  const drawn = photo ? drawPhoto(photo, wanted) : await drawSvg(bytes, wanted);
  if (drawn.kind !== 'drawn') return err(FAULTS[drawn.kind]);
  return ok({
    name: clipText(file.name, 200),
    dataUrl: drawn.dataUrl,
    widthPx: width,
    heightPx: height,
    metresPerPx: widthM / width,
    isScaled: false,
  });
}

const FAULTS: Readonly<Record<Exclude<Drawn['kind'], 'drawn'>, Fault<PictureFaultCode>>> = {
  'too-large': fault('picture.too-large', 'The picture is too large even when scaled down. Crop it to the house.'),
  broken: fault('picture.broken', 'The file begins as a picture and cannot be displayed: it is cut off or broken.'),
  'given-up': fault(
    'picture.too-large',
    'The SVG was not rendered within two seconds: it is too complex. Save it as PNG.',
  ),
};

/** PNG and JPEG say how many pixels they have; more than a page can draw were refused before. `null` for a broken one. */
async function decodePhoto(bytes: Uint8Array<ArrayBuffer>, type: string): Promise<HTMLImageElement | null> {
  const url = URL.createObjectURL(new Blob([bytes], { type }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    return image;
  } catch {
    return null;
  } finally {
    URL.revokeObjectURL(url);
  }
}

function drawPhoto(image: HTMLImageElement, { width, height, qualities, most }: Wanted): Drawn {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const context = canvas.getContext('2d');
  if (!context) return { kind: 'broken' };
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, width, height);
  context.drawImage(image, 0, 0, width, height);
  for (const quality of qualities) {
    const dataUrl = canvas.toDataURL('image/jpeg', quality);
    if (dataUrl.length <= most) return { kind: 'drawn', dataUrl };
  }
  return { kind: 'too-large' };
}
