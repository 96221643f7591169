import * as v from 'valibot';
import { arcSagitta, arcOfBulge, chordCount, pointOnArc } from '@/core/geometry/bulge';
import { contains } from '@/core/geometry/polygon';
import { dot, subtract, type Point } from '@/core/geometry/vector';
import { length } from './fields';
import { metres } from './figures';
import type { Kind } from './kind';
import { finite, positive, size, uuid } from './limits';
import { awayFromLine, bandOutline } from './lines';
import { wallLength, type Wall } from './wall';

/** What an opening is for. */
const uses = ['door', 'window'] as const;

/** A door or a window in a wall; `offset` is from the wall's start to its near edge, the sill above the level. */
export interface Opening {
  /** The wall's id. */
  wall: string;
  use: (typeof uses)[number];
  offset: number;
  width: number;
  height: number;
  sill: number;
  /** The share of the sun that shades and overhangs let through; left out where it is all of it. */
  shading?: number;
}

/** The centre line of an opening: the piece of its wall's. */
function openingLine({ offset, width }: Pick<Opening, 'offset' | 'width'>, host: Wall): Point[] {
  const whole = wallLength(host) || 1;
  if (host.bulge !== 0) {
    const arc = arcOfBulge(host.start, host.end, host.bulge);
    const chords = Math.max(2, chordCount(arc.radius, width / arc.radius, arcSagitta));
    return Array.from({ length: chords + 1 }, (_, i) => pointOnArc(arc, (offset + (width * i) / chords) / whole));
  }
  const [along, { start }] = [subtract(host.end, host.start), host];
  const at = (metresAlong: number): Point => [
    start[0] + (along[0] * metresAlong) / whole,
    start[1] + (along[1] * metresAlong) / whole,
  ];
  return [at(offset), at(offset + width)];
}

/** The outline of an opening across its wall. */
export const openingOutline = (shape: Pick<Opening, 'offset' | 'width'>, host: Wall): Point[] =>
  bandOutline(openingLine(shape, host), host.thickness);

/** How far along its wall, from the start, a point lies, metres; of a curved wall along the arc. */
export function alongWall(host: Wall, p: Point): number {
  if (host.bulge === 0) {
    const along = subtract(host.end, host.start);
    return dot(subtract(p, host.start), along) / (Math.hypot(...along) || 1);
  }
  const arc = arcOfBulge(host.start, host.end, host.bulge);
  const turn = (Math.atan2(p[1] - arc.centre[1], p[0] - arc.centre[0]) - arc.start) * Math.sign(arc.sweep);
  return arc.radius * (turn - 2 * Math.PI * Math.round((turn - Math.abs(arc.sweep) / 2) / (2 * Math.PI)));
}

/** An opening ends at most this far beyond its wall's end, metres; more is told. */
const beyond = 0.001;

export const opening: Kind<'opening'> = {
  kind: 'opening',
  names: ['opening', 'openings'],
  schema: v.strictObject({
    wall: uuid,
    use: v.picklist(uses),
    offset: size,
    width: positive,
    height: positive,
    sill: size,
    shading: v.optional(v.pipe(finite, v.minValue(0), v.maxValue(1))),
  }),
  roles: { own: ['door', 'window'], from: ['door', 'window', 'wall'] },
  style: { area: true, place: 4 },
  outlines: (shape, host) => (host === null ? [] : [openingOutline(shape, host)]),
  points: (shape, host) => (host === null ? [] : openingOutline(shape, host)),
  anchor(shape, host) {
    if (host === null) return null;
    const line = openingLine({ offset: shape.offset + shape.width / 2, width: 0 }, host);
    return line[0];
  },
  ends: () => [],
  away(shape, p, host) {
    if (host === null) return Infinity;
    const outline = openingOutline(shape, host);
    return contains(outline, p) ? 0 : awayFromLine([...outline, outline[0]], p);
  },
  standsBack: 1,
  grips(shape, host) {
    if (host === null) return [];
    const line = openingLine(shape, host);
    const [middle] = openingLine({ offset: shape.offset + shape.width / 2, width: 0 }, host);
    return [
      { name: 'start', at: line[0] },
      { name: 'end', at: line[line.length - 1] },
      { name: 'middle', at: middle },
    ];
  },
  drag(shape, grip, to, host) {
    if (host === null) return shape;
    const at = alongWall(host, to);
    const end = shape.offset + shape.width;
    if (grip === 'start' && at < end) return { ...shape, offset: Math.max(0, at), width: end - Math.max(0, at) };
    if (grip === 'end' && at > shape.offset) return { ...shape, width: at - shape.offset };
    if (grip !== 'middle') return shape;
    return { ...shape, offset: Math.max(0, Math.min(wallLength(host) - shape.width, at - shape.width / 2)) };
  },
  move: (shape, { factor }) => ({ ...shape, offset: shape.offset * factor, width: shape.width * factor }),
  name: ({ use }) => use,
  size: ({ width }) => metres(width),
  facts: ({ width, offset, height, sill }) =>
    `${metres(width)} wide, ${metres(offset)} from its wall\u2019s start, ${metres(height)} ` +
    `high${sill > 0 ? `, sill at ${metres(sill)}` : ''}`,
  fields: () => [
    {
      label: 'It is a',
      kind: 'choice',
      options: uses,
      get: ({ use }) => use,
      set: (shape, value) => ({ ...shape, use: uses.find((one) => one === value) ?? shape.use }),
    },
    length<'opening'>('Width', 'width', 0.05),
    length<'opening'>('Height', 'height', 0.05),
    length<'opening'>('Sill', 'sill', 0),
    {
      label: 'Lets the sun through',
      kind: 'number',
      unit: '%',
      least: 0,
      most: 100,
      get: ({ shading }) => Number(((shading ?? 1) * 100).toFixed(6)),
      set: (shape, percent) => ({ ...shape, shading: percent / 100 }),
    },
    { ...length<'opening'>('From the wall\u2019s start', 'offset', 0), end: true },
  ],
  checks(shape, host) {
    if (host === null) return ['Its wall is not in the model.'];
    const over = shape.offset + shape.width - wallLength(host);
    return over > beyond ? [`It ends ${metres(over)} beyond the end of its wall.`] : [];
  },
};
