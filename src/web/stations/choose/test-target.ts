import type { Need } from '../../../core/document/chapters/cameras/need.ts';
import type { Raster } from '../../../core/optics/resample.ts';

export const TARGETS = ['text', 'figure', 'face'] as const;
export type Target = (typeof TARGETS)[number];
export const TARGET_WORDS: Readonly<Record<Target, string>> = {
  text: 'the text',
  figure: 'a person',
  face: 'a face',
};

/** Shape of every picture, wide to high: the framing is the same for all cameras. */
export const FRAME_ASPECT = 2.4;
/** Drawn finer than any camera would see it; a picture with more pixels than this shows all there is. */
const MASTER_WIDTH = 1200;

const fontOf = (px: number): string => `650 ${px}px "Atkinson Hyperlegible Next Variable", sans-serif`;
export const TARGET_FONT = fontOf(40);

/** Metres that a picture of a target is wide. */
export function framingM(target: Target, need: Need): number {
  if (target === 'figure') return 2.1 * FRAME_ASPECT;
  if (target === 'face') return 0.42 * FRAME_ASPECT;
  const charM = (need.text?.charHeightMm ?? 60) / 1000;
  return Math.max(charM * (need.text?.line.length ?? 8) * 0.86 + charM * 2, charM * 1.9 * FRAME_ASPECT);
}

/** The target as it is, drawn by us: the pixels of each camera are made from this. */
export function drawTarget(target: Target, need: Need): Raster {
  const canvas = document.createElement('canvas');
  canvas.width = MASTER_WIDTH;
  canvas.height = Math.round(MASTER_WIDTH / FRAME_ASPECT);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('This browser gives no canvas to draw on.');
  const perM = MASTER_WIDTH / framingM(target, need);
  context.fillStyle = '#b9ab8c';
  context.fillRect(0, 0, canvas.width, canvas.height);
  if (target === 'text') drawText(context, need, perM);
  else if (target === 'figure') drawFigure(context, perM);
  else drawFace(context, perM);
  const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
  return { width: canvas.width, height: canvas.height, rgba: data };
}

/** A label with letters of the height that was asked for, measured on its capitals. */
function drawText(context: CanvasRenderingContext2D, need: Need, perM: number): void {
  const { width, height } = context.canvas;
  const line = need.text?.line ?? 'PRESS 7B';
  const charPx = ((need.text?.charHeightMm ?? 60) / 1000) * perM;
  context.fillStyle = '#f3ecd9';
  context.fillRect(width * 0.04, height / 2 - charPx * 0.85, width * 0.92, charPx * 1.7);
  context.font = fontOf(charPx);
  const capital = context.measureText('H').actualBoundingBoxAscent || charPx * 0.7;
  context.font = fontOf((charPx * charPx) / capital);
  context.textAlign = 'center';
  context.fillStyle = '#1d2428';
  context.fillText(line, width / 2, height / 2 + charPx / 2, width * 0.9);
}

function drawFigure(context: CanvasRenderingContext2D, perM: number): void {
  const { width, height } = context.canvas;
  context.fillStyle = '#8f9a78';
  context.fillRect(0, height * 0.93, width, height * 0.07);
  const [x, ground] = [width / 2, height * 0.97];
  const at = (xM: number, yM: number): [number, number] => [x + xM * perM, ground - yM * perM];
  const block = (colour: string, points: readonly (readonly [number, number])[]): void => {
    context.fillStyle = colour;
    context.beginPath();
    for (const [xM, yM] of points) context.lineTo(...at(xM, yM));
    context.fill();
  };
  block('#2e3b4e', [
    [-0.17, 0.9],
    [-0.15, 0],
    [-0.03, 0],
    [0, 0.8],
    [0.03, 0],
    [0.15, 0],
    [0.17, 0.9],
  ]);
  block('#7a3b2e', [
    [-0.22, 1.46],
    [0.22, 1.46],
    [0.3, 0.85],
    [0.22, 0.85],
    [0.17, 1.2],
    [0.18, 0.85],
    [-0.18, 0.85],
    [-0.17, 1.2],
    [-0.22, 0.85],
    [-0.3, 0.85],
  ]);
  block('#e9dfc4', [
    [-0.06, 1.42],
    [0.06, 1.42],
    [0.06, 1.1],
    [-0.06, 1.1],
  ]);
  context.fillStyle = '#c99b7c';
  disc(context, ...at(0, 1.62), 0.115 * perM);
  context.fillStyle = '#3a2a22';
  context.beginPath();
  context.arc(...at(0, 1.66), 0.118 * perM, Math.PI, 0);
  context.fill();
}

/** A face of ordinary size beside bars of known width: 8, 4 and 2 mm. */
function drawFace(context: CanvasRenderingContext2D, perM: number): void {
  const { width, height } = context.canvas;
  const [x, y] = [width * 0.36, height * 0.5];
  const mm = perM / 1000;
  context.fillStyle = '#c99b7c';
  context.beginPath();
  context.ellipse(x, y, 75 * mm, 105 * mm, 0, 0, 2 * Math.PI);
  context.fill();
  context.fillStyle = '#3a2a22';
  context.beginPath();
  context.ellipse(x, y - 62 * mm, 78 * mm, 58 * mm, 0, Math.PI, 0);
  context.fill();
  for (const side of [-1, 1]) {
    context.fillStyle = '#f5f1e6';
    context.beginPath();
    context.ellipse(x + side * 31 * mm, y - 14 * mm, 14 * mm, 7 * mm, 0, 0, 2 * Math.PI);
    context.fill();
    context.fillStyle = '#2b3440';
    disc(context, x + side * 31 * mm, y - 14 * mm, 6 * mm);
    context.fillRect(x + side * 31 * mm - 16 * mm, y - 30 * mm, 32 * mm, 5 * mm);
  }
  context.fillStyle = '#a5745a';
  context.fillRect(x - 6 * mm, y - 5 * mm, 12 * mm, 32 * mm);
  context.fillStyle = '#8c3f3a';
  context.fillRect(x - 24 * mm, y + 50 * mm, 48 * mm, 9 * mm);
  context.fillStyle = '#f3ecd9';
  context.fillRect(width * 0.64, y - 90 * mm, 230 * mm, 180 * mm);
  context.fillStyle = '#1d2428';
  for (const [row, barMm] of [8, 4, 2].entries())
    for (let bar = 0; bar * barMm * 2 < 200; bar++)
      context.fillRect(width * 0.64 + (15 + bar * barMm * 2) * mm, y + (-75 + row * 55) * mm, barMm * mm, 40 * mm);
}

function disc(context: CanvasRenderingContext2D, x: number, y: number, radius: number): void {
  context.beginPath();
  context.arc(x, y, radius, 0, 2 * Math.PI);
  context.fill();
}
