import type { Point, WallMaterial } from '../base/plan-geometry.ts';
import type { Site } from '../document/site.ts';
import type { WedgeShape } from '../optics/view-wedge.ts';
import { linkLengthM } from '../stations/power/site-links.ts';
import { LEVEL_FILL } from './level-fill.ts';

/** Units of the drawing for a metre. */
const SCALE = 24;
export const WALL_WIDTH_M: Readonly<Record<WallMaterial, number>> = {
  stone: 0.45,
  brick: 0.25,
  plaster: 0.12,
  glass: 0.06,
  fence: 0.06,
};

const escaped = (text: string): string => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);
const number = (value: number): string => String(Number((value * SCALE).toFixed(1)));
const at = ({ xM, yM }: Point): string => `${number(xM)},${number(yM)}`;

/** [A] Of a letter at 13 px, px: names are only as long as to tell whether there is room for them. */
const LETTER_PX = 7.4;
/** Whether a name to the right of its mark would run over the right edge: it is then written to the left. */
export const runsOver = (name: string, markPx: number, edgePx: number): boolean =>
  markPx + 13 + name.length * LETTER_PX > edgePx;

/** Letters stay readable over a wall: they wear a rim of paper. */
const RIM = 'stroke="#fbfaf6" stroke-width="4" stroke-linejoin="round" paint-order="stroke"';

/** The plan as a drawing in an open format, to scale, with a metre rule. `wedges` by camera, from the camera's place. */
export function planSvg(site: Site, wedges: ReadonlyMap<string, readonly WedgeShape[]>): string {
  const { plan } = site;
  const parts: string[] = [];
  const { picture } = plan;
  if (picture)
    parts.push(
      `<image href="${picture.dataUrl}" width="${number(picture.widthPx * picture.metresPerPx)}" height="${number(picture.heightPx * picture.metresPerPx)}" opacity="0.6"/>`,
    );
  for (const { id, position } of site.cameras)
    for (const { level, points } of (position && wedges.get(id)) || [])
      parts.push(
        `<polygon points="${shifted(points, position ?? { xM: 0, yM: 0 })}" fill="#1b7268" opacity="${(LEVEL_FILL[level] * 0.8).toFixed(2)}"><title>${level}</title></polygon>`,
      );
  for (const { from, to, material } of plan.walls)
    parts.push(
      `<line x1="${number(from.xM)}" y1="${number(from.yM)}" x2="${number(to.xM)}" y2="${number(to.yM)}" stroke="#17262d" stroke-width="${number(WALL_WIDTH_M[material])}"${material === 'fence' ? ' stroke-dasharray="6 6"' : ''}><title>${material}</title></line>`,
    );
  for (const link of site.links) {
    if (!link.route || link.route.length < 2) continue;
    const middle = link.route[Math.floor(link.route.length / 2)] ?? { xM: 0, yM: 0 };
    parts.push(
      `<polyline points="${link.route.map(at).join(' ')}" fill="none" stroke="#2c5f8a" stroke-width="2"/>`,
      `<text x="${number(middle.xM)}" y="${number(middle.yM - 0.2)}" font-size="11" fill="#2c5f8a" ${RIM}>${linkLengthM(link).toFixed(1)} m</text>`,
    );
  }
  const mark = (name: string, position: Point | null, shape: (point: Point) => string): void => {
    if (!position) return;
    const isLeft = runsOver(name, position.xM * SCALE, plan.widthM * SCALE);
    const [x, anchor] = isLeft ? [position.xM - 0.5, ' text-anchor="end"'] : [position.xM + 0.5, ''];
    parts.push(
      shape(position),
      `<text x="${number(x)}" y="${number(position.yM + 0.2)}"${anchor} font-size="13" fill="#17262d" ${RIM}>${escaped(name)}</text>`,
    );
  };
  for (const { name, position } of site.gear)
    mark(
      name,
      position,
      ({ xM, yM }) =>
        `<rect x="${number(xM - 0.3)}" y="${number(yM - 0.3)}" width="${number(0.6)}" height="${number(0.6)}" fill="#fbfaf6" stroke="#17262d"/>`,
    );
  for (const { name, position } of site.destinations)
    mark(
      name,
      position,
      ({ xM, yM }) =>
        `<circle cx="${number(xM)}" cy="${number(yM)}" r="${number(0.32)}" fill="#fbfaf6" stroke="#17262d"/>`,
    );
  for (const { name, position } of site.cameras)
    mark(
      name,
      position,
      ({ xM, yM }) => `<circle cx="${number(xM)}" cy="${number(yM)}" r="${number(0.3)}" fill="#17262d"/>`,
    );
  const foot = plan.heightM - 0.6;
  parts.push(
    `<path d="M${number(1)},${number(foot - 0.2)} v${number(0.2)} h${number(5)} v${number(-0.2)}" fill="none" stroke="#17262d"/>`,
    `<text x="${number(1)}" y="${number(foot - 0.35)}" font-size="11" fill="#17262d">5 m</text>`,
  );
  const [width, height] = [number(plan.widthM), number(plan.heightM)];
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="sans-serif"><title>${escaped(site.name)}</title><rect width="${width}" height="${height}" fill="#fbfaf6"/>${parts.join('')}</svg>\n`;
}

function shifted(points: readonly number[], by: Point): string {
  const pairs: string[] = [];
  for (let i = 0; i + 1 < points.length; i += 2)
    pairs.push(at({ xM: (points[i] ?? 0) + by.xM, yM: (points[i + 1] ?? 0) + by.yM }));
  return pairs.join(' ');
}
