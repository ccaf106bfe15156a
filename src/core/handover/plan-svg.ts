import type { Point, WallMaterial } from '../base/plan-geometry.ts';
import type { DrawnPlan } from '../document/chapters/plan/drawn-plan.ts';
import type { Site } from '../document/site.ts';
import { thingsOf } from '../document/subjects.ts';
import type { WedgeShape } from '../optics/view-wedge.ts';
import { linkLength, sayLength } from '../site/link-length.ts';
import { type LabelPlace, placeLabels } from './label-places.ts';
import { LEVEL_FILL } from './level-fill.ts';

/** Units of the drawing for a metre. */
const SCALE = 24;
export const WALL_WIDTH_M: Readonly<Record<WallMaterial, number>> = {
  stone: 0.45,
  brick: 0.25,
  plaster: 0.12,
  glass: 0.06,
  door: 0.08,
  fence: 0.06,
};

const escaped = (text: string): string => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);
const number = (value: number): string => String(Number((value * SCALE).toFixed(1)));
const at = ({ xM, yM }: Point): string => `${number(xM)},${number(yM)}`;

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
  for (const { name, from, to, material } of plan.walls)
    parts.push(
      `<line x1="${number(from.xM)}" y1="${number(from.yM)}" x2="${number(to.xM)}" y2="${number(to.yM)}" stroke="#17262d" stroke-width="${number(WALL_WIDTH_M[material])}"${material === 'fence' ? ' stroke-dasharray="6 6"' : ''}><title>${escaped(name || material)}</title></line>`,
    );
  for (const link of site.links) {
    if (!link.route || link.route.length < 2) continue;
    const middle = link.route[Math.floor(link.route.length / 2)] ?? { xM: 0, yM: 0 };
    parts.push(
      `<polyline points="${link.route.map(at).join(' ')}" fill="none" stroke="#2c5f8a" stroke-width="2"/>`,
      `<text x="${number(middle.xM)}" y="${number(middle.yM - 0.2)}" font-size="11" fill="#2c5f8a" ${RIM}>${sayLength(linkLength(site, link))}</text>`,
    );
  }
  const things = thingsOf(site).flatMap(({ kind, subject, item }) =>
    item.position ? [{ kind, id: subject, name: item.name, position: item.position }] : [],
  );
  const places = placeLabels(
    // Cameras choose their places first: they are what is looked for.
    things.toReversed().map(({ id, name, position }) => ({ id, name, x: position.xM * SCALE, y: position.yM * SCALE })),
    plan.widthM * SCALE,
  );
  for (const { kind, id, name, position } of things)
    parts.push(MARKS[kind](position), label(name, position, places.get(id) ?? 'none'));
  const foot = plan.heightM - 0.6;
  parts.push(
    `<path d="M${number(1)},${number(foot - 0.2)} v${number(0.2)} h${number(5)} v${number(-0.2)}" fill="none" stroke="#17262d"/>`,
    `<text x="${number(1)}" y="${number(foot - 0.35)}" font-size="11" fill="#17262d">5 m</text>`,
  );
  parts.push(northArrow(plan));
  const [width, height] = [number(plan.widthM), number(plan.heightM)];
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="sans-serif"><title>${escaped(site.name)}</title><rect width="${width}" height="${height}" fill="#fbfaf6"/>${parts.join('')}</svg>\n`;
}

const MARKS = {
  gear: ({ xM, yM }: Point) =>
    `<rect x="${number(xM - 0.3)}" y="${number(yM - 0.3)}" width="${number(0.6)}" height="${number(0.6)}" fill="#fbfaf6" stroke="#17262d"/>`,
  destination: ({ xM, yM }: Point) =>
    `<circle cx="${number(xM)}" cy="${number(yM)}" r="${number(0.32)}" fill="#fbfaf6" stroke="#17262d"/>`,
  camera: ({ xM, yM }: Point) => `<circle cx="${number(xM)}" cy="${number(yM)}" r="${number(0.3)}" fill="#17262d"/>`,
} as const;

/** A name beside its mark; on paper one that has no place of its own stands over others, since nothing can be selected. */
function label(name: string, { xM, yM }: Point, place: LabelPlace): string {
  const [dx, dy, anchor] =
    place === 'left'
      ? [-0.5, 0.2, ' text-anchor="end"']
      : place === 'below'
        ? [0, 0.95, ' text-anchor="middle"']
        : place === 'above'
          ? [0, -0.55, ' text-anchor="middle"']
          : [0.5, 0.2, ''];
  return `<text x="${number(xM + dx)}" y="${number(yM + dy)}"${anchor} font-size="13" fill="#17262d" ${RIM}>${escaped(name)}</text>`;
}

/** Where north lies, at the upper right corner; nothing where nobody said. */
function northArrow({ northDeg, widthM }: DrawnPlan): string {
  if (northDeg === null) return '';
  const [x, y] = [number(widthM - 1.5), number(1.8)];
  return `<g transform="translate(${x} ${y}) rotate(${northDeg})"><path d="M0,-24 L7,12 L0,6 L-7,12 Z" fill="#17262d"/><text y="-28" font-size="12" text-anchor="middle" fill="#17262d">N</text></g>`;
}

function shifted(points: readonly number[], by: Point): string {
  const pairs: string[] = [];
  for (let i = 0; i + 1 < points.length; i += 2)
    pairs.push(at({ xM: (points[i] ?? 0) + by.xM, yM: (points[i + 1] ?? 0) + by.yM }));
  return pairs.join(' ');
}
