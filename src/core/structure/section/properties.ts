import type { Point } from '@/core/geometry/vector';
import type { Section } from '@/core/kinds/section';
import { torsionOfPolygon } from './torsion';

/**
 * What a cross-section resists with, about the axes through its centroid: y along its width, z along its depth.
 * Square metres and metres to the fourth power.
 */
export interface SectionProperties {
  area: number;
  /** Of z squared: for bending in the plane of x and z. */
  iy: number;
  /** Of y squared: for bending in the plane of x and y. */
  iz: number;
  /** Of y times z. */
  iyz: number;
  /** Saint-Venant's torsion constant. */
  j: number;
  /** Where the centroid lies from the section's position, along y and z, metres. */
  centroid: Point;
}

/** Odd terms of the series of a rectangle: the next one is smaller than 1e-10 of the first. */
const terms = 50;

/** Saint-Venant's torsion constant of a solid rectangle (Timoshenko and Goodier, Theory of Elasticity, art. 109). */
export function torsionOfRectangle(b: number, d: number): number {
  const [long, short] = b >= d ? [b, d] : [d, b];
  let sum = 0;
  for (let n = 1; n < 2 * terms; n += 2) sum += Math.tanh((n * Math.PI * long) / (2 * short)) / n ** 5;
  return (long * short ** 3 * (1 - ((192 * short) / (Math.PI ** 5 * long)) * sum)) / 3;
}

const middle: Point = [0, 0];

function rectangle(b: number, d: number, wall?: number): SectionProperties {
  const [bi, di] = wall === undefined ? [0, 0] : [b - 2 * wall, d - 2 * wall];
  return {
    area: b * d - bi * di,
    iy: (b * d ** 3 - bi * di ** 3) / 12,
    iz: (d * b ** 3 - di * bi ** 3) / 12,
    iyz: 0,
    j: wall === undefined ? torsionOfRectangle(b, d) : torsionOfBox(b, d, wall),
    centroid: middle,
  };
}

/** A closed thin wall (Bredt's second formula) and the wall's own share. */
function torsionOfBox(b: number, d: number, wall: number): number {
  const [bm, dm] = [b - wall, d - wall];
  const round = 2 * (bm + dm);
  return (4 * (bm * dm) ** 2 * wall) / round + (round * wall ** 3) / 3;
}

function circle(diameter: number, wall?: number): SectionProperties {
  const inner = wall === undefined ? 0 : diameter - 2 * wall;
  const i = (Math.PI * (diameter ** 4 - inner ** 4)) / 64;
  return { area: (Math.PI * (diameter ** 2 - inner ** 2)) / 4, iy: i, iz: i, iyz: 0, j: 2 * i, centroid: middle };
}

/** The area and its moments by Green's theorem over the sides. */
function polygon(outline: readonly Point[]): SectionProperties {
  let [area, sy, sz, iz, iy, iyz] = [0, 0, 0, 0, 0, 0];
  outline.forEach(([y1, z1], i) => {
    const [y2, z2] = outline[(i + 1) % outline.length];
    const c = y1 * z2 - y2 * z1;
    area += c / 2;
    sy += ((y1 + y2) * c) / 6;
    sz += ((z1 + z2) * c) / 6;
    iz += ((y1 * y1 + y1 * y2 + y2 * y2) * c) / 12;
    iy += ((z1 * z1 + z1 * z2 + z2 * z2) * c) / 12;
    iyz += ((y1 * z2 + 2 * y1 * z1 + 2 * y2 * z2 + y2 * z1) * c) / 24;
  });
  const turn = area < 0 ? -1 : 1;
  const [a, cy, cz] = [area * turn, sy / area, sz / area];
  return {
    area: a,
    iy: iy * turn - a * cz * cz,
    iz: iz * turn - a * cy * cy,
    iyz: iyz * turn - a * cy * cz,
    j: a > 0 ? torsionOfPolygon(outline) : 0,
    centroid: [cy, cz],
  };
}

const known = new Map<string, SectionProperties>();

/** The properties of a section; worked out once for each shape and size. */
export function propertiesOf(section: Section): SectionProperties {
  const key = JSON.stringify(section);
  const before = known.get(key);
  if (before !== undefined) return before;
  const made = propertiesAnew(section);
  known.set(key, made);
  return made;
}

function propertiesAnew(section: Section): SectionProperties {
  if (section.shape === 'rectangle') return rectangle(section.width, section.depth, section.wall);
  if (section.shape === 'circle') return circle(section.diameter, section.wall);
  return polygon(section.outline);
}
