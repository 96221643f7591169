import { signOf } from '@/core/units/sign';
import { fail, ok, type Result } from '@/core/result';
import { Kind } from '@/core/drawing/drawing';
import { eachSide } from '@/core/underlay/pieces';
import type { Primitives } from '@/core/underlay/primitives';
import { centreOfText } from '@/core/underlay/textBox';
import { formatNumber, metresPer, type LengthUnit } from '@/core/units/length';
import { median } from './evidence/sizes';

/** An elevation written in a section: where it is drawn, and what is written. */
export interface HeightMark {
  name: string;
  /** As written, metres. */
  elevation: number;
  /** In the drawing's coordinates: of the level's line where there is one, else of the text. */
  at: [number, number];
  /** By how much the mark stands off where its elevation belongs, metres; upwards positive. */
  off: number;
}

/**
 * Horizontal edges that look like slabs, without anything written: the top, and the thickness where the underside is
 * drawn.
 */
export interface SlabEdge {
  at: [number, number];
  y: number;
  length: number;
  thickness: number | null;
}

export interface SectionHeights {
  marks: HeightMark[];
  /** The drawing's y at elevation zero, in drawing units; null where nothing is written. */
  zero: number | null;
  /** The edges of slabs, from the lowest up. */
  slabs: SlabEdge[];
}

/** A mark that is further off than this says something else than its place, metres. */
export const markAgreement = 0.03;
/** A slab is this thick, metres. */
const slab = { thin: 0.06, thick: 0.8 };
/** Edges longer than this share of the section's width are floors. */
const floorShare = 0.4;

/** An elevation as it is written: a sign and a number, in feet and inches too; what else the text says is its name. */
export function readElevation(
  text: string,
): { value: number; form: 'decimals' | 'whole' | 'feet'; name: string } | null {
  const words = text
    .replace(/\u2032/g, "'")
    .replace(/\u2033/g, '"')
    .replace(/\n/g, ' ');
  const feet = /(?<![\p{L}\d])([\u00b1+\-\u2212])\s*(\d+)\s*'\s*-?\s*(\d+(?:\.\d+)?)?\s*(?:(\d+)\/(\d+))?\s*"?/u.exec(
    words,
  );
  const plain = /(?<![\p{L}\d])([\u00b1+\-\u2212]|\+\/-)\s*(\d{1,6})(?:[.,](\d{1,4}))?(?!\d)/u.exec(words);
  const match = feet ?? plain;
  if (!match) return null;
  const name = words
    .replace(match[0], ' ')
    .replace(/\b(?:m|mm|cm)\b/g, ' ')
    .replace(/[()=:;,]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  const negative = match[1] === '-' || match[1] === '\u2212';
  const size = feet
    ? Number(feet[2]) * metresPer.ft +
      (Number(feet[3] ?? 0) + (feet[4] ? Number(feet[4]) / Number(feet[5]) : 0)) * metresPer.in
    : Number(`${match[2]}.${match[3] ?? '0'}`);
  const written = match[3] ? 'decimals' : 'whole';
  return { value: negative ? -size : size, form: feet ? 'feet' : written, name };
}

interface Edge {
  x1: number;
  x2: number;
  y: number;
}

/**
 * Reads storey heights from a section or an elevation: written elevations with the level lines beside them, set against
 * how they are drawn, and
 * the long horizontal edges of slabs.
 * @param metresPerUnit true metres of one drawing unit
 */
export function readSection(p: Primitives, metresPerUnit: number): Result<SectionHeights> {
  const edges = horizontalEdges(p);
  const [ox, oy] = p.origin;
  const found = p.texts.flatMap((text) => {
    const read = text.kind === Kind.dimension || Math.abs(Math.sin(text.angle)) > 0.1 ? null : readElevation(text.text);
    if (!read) return [];
    const [x, y] = centreOfText(text);
    return [{ ...read, x, y: lineBeside(edges, x, y, text.height) ?? y, height: text.height, textY: y }];
  });
  const slabs = slabEdges(edges, metresPerUnit).map(({ x, y, length, thickness }): SlabEdge => ({
    at: [x + ox, y + oy],
    y: y + oy,
    length,
    thickness,
  }));
  const written = found.length === 0 ? null : unitOfWritten(found, metresPerUnit);
  if (found.length > 0 && written === null)
    return fail(
      `${found.length} elevations are written, but none of them lie apart as they are drawn: ` +
        'the drawing is not a section, or its unit is wrong. Check the unit first, or give the ' +
        'heights by hand.',
    );
  if (written === null)
    return slabs.length > 0
      ? ok({ marks: [], zero: null, slabs })
      : fail(
          'No elevation is written in this drawing and no long horizontal edge is drawn. Is it a section? Give the heights by hand.',
        );
  const zero = written.zero;
  const marks = found.map((mark): HeightMark => {
    const elevation = mark.form === 'feet' ? mark.value : mark.value * written.metres;
    return {
      name: mark.name || nameBeside(p, mark),
      elevation: Number(elevation.toFixed(6)),
      at: [mark.x + ox, mark.y + oy],
      off: (mark.y - zero) * metresPerUnit - elevation,
    };
  });
  return ok({ marks: once(marks), zero: zero + oy, slabs });
}

/** Marks of one elevation told once, the one with a name first. */
function once(marks: readonly HeightMark[]): HeightMark[] {
  const kept: HeightMark[] = [];
  for (const mark of [...marks].sort(
    (a, b) => a.elevation - b.elevation || Math.abs(a.off) - Math.abs(b.off) || b.name.length - a.name.length,
  )) {
    const twin = kept.find(({ elevation }) => Math.abs(elevation - mark.elevation) < 1e-4);
    if (!twin) kept.push({ ...mark });
    else if (twin.name === '' && mark.name !== '') twin.name = mark.name;
  }
  return kept;
}

/** The written unit with which most pairs of marks lie as far apart as they are written, and where zero then is. */
function unitOfWritten(
  found: readonly { value: number; form: string; y: number }[],
  metresPerUnit: number,
): { metres: number; zero: number } | null {
  let best: { metres: number; zero: number; agree: number } | null = null;
  for (const unit of ['m', 'mm', 'cm', 'ft', 'in'] as LengthUnit[]) {
    const zeros = found.map(
      ({ value, form, y }) => y - (value * (form === 'feet' ? 1 : metresPer[unit])) / metresPerUnit,
    );
    const zero = median(zeros);
    const agree = zeros.filter((other) => Math.abs(other - zero) * metresPerUnit < markAgreement).length;
    if (best === null || agree > best.agree) best = { metres: metresPer[unit], zero, agree };
  }
  // One mark fixes the zero, but says nothing about whether heights are true.
  return best !== null && best.agree >= Math.min(2, found.length) && best.agree >= found.length / 2 ? best : null;
}

/** The nearest long level line close to a text, on its height or just under or over it. */
function lineBeside(edges: readonly Edge[], x: number, y: number, height: number): number | null {
  let best: { y: number; away: number } | null = null;
  for (const edge of edges) {
    let across;
    if (x < edge.x1) across = edge.x1 - x;
    else if (x > edge.x2) across = x - edge.x2;
    else across = 0;

    const away = Math.abs(edge.y - y);
    if (
      away < 2.2 * height &&
      across < 8 * height &&
      edge.x2 - edge.x1 > 1.5 * height &&
      (best === null || away + across * 0.05 < best.away)
    )
      best = { y: edge.y, away: away + across * 0.05 };
  }
  return best?.y ?? null;
}

/** The nearest text of letters at the height of a mark. */
function nameBeside(p: Primitives, mark: { x: number; textY: number; height: number }): string {
  let best: { name: string; away: number } | null = null;
  for (const text of p.texts) {
    const [x, y] = centreOfText(text);
    if (Math.abs(y - mark.textY) > 2.5 * mark.height || readElevation(text.text) || !/\p{L}{2}/u.test(text.text))
      continue;
    const away = Math.hypot(x - mark.x, 3 * (y - mark.textY));
    if (away < 40 * mark.height && (best === null || away < best.away))
      best = { name: text.text.replace(/\n/g, ' ').trim(), away };
  }
  return best?.name ?? '';
}

/** Horizontal sides, joined where they touch on one height. */
function horizontalEdges(p: Primitives): Edge[] {
  const sides: Edge[] = [];
  eachSide(p, (_, v, w) => {
    if (p.bulge[v] !== 0 || v === w) return;
    const [x1, y1, x2, y2] = [p.xy[2 * v], p.xy[2 * v + 1], p.xy[2 * w], p.xy[2 * w + 1]];
    if (Math.abs(y2 - y1) <= 1e-4 * Math.abs(x2 - x1) && x1 !== x2)
      sides.push({ x1: Math.min(x1, x2), x2: Math.max(x1, x2), y: (y1 + y2) / 2 });
  });
  sides.sort((a, b) => a.y - b.y || a.x1 - b.x1);
  const joined: Edge[] = [];
  for (const side of sides) {
    const last = joined[joined.length - 1];
    const reach = 1e-3 * (side.x2 - side.x1);
    if (last && Math.abs(last.y - side.y) <= reach * 0.1 && side.x1 <= last.x2 + reach)
      last.x2 = Math.max(last.x2, side.x2);
    else joined.push({ ...side });
  }
  return joined;
}

/** Long edges with the underside of their slab below them. */
function slabEdges(
  edges: readonly Edge[],
  k: number,
): { x: number; y: number; length: number; thickness: number | null }[] {
  const widest = Math.max(0, ...edges.map(({ x1, x2 }) => x2 - x1));
  const long = edges.filter(({ x1, x2 }) => x2 - x1 >= floorShare * widest).sort((a, b) => b.y - a.y);
  const undersides = new Set<Edge>();
  const tops = long.flatMap((edge) => {
    if (undersides.has(edge)) return [];
    const below = long.find(
      (other) =>
        !undersides.has(other) &&
        (edge.y - other.y) * k >= slab.thin &&
        (edge.y - other.y) * k <= slab.thick &&
        Math.min(edge.x2, other.x2) - Math.max(edge.x1, other.x1) > 0.5 * (edge.x2 - edge.x1),
    );
    if (below) undersides.add(below);
    return below
      ? [
          {
            x: (edge.x1 + edge.x2) / 2,
            y: edge.y,
            length: edge.x2 - edge.x1,
            thickness: Number(((edge.y - below.y) * k).toFixed(6)),
          },
        ]
      : [];
  });
  return tops.reverse();
}

/** A mark in words, for a list: "+3.900". */
export const signedMetres = (metres: number): string => `${signOf(metres)}${formatNumber(metres, 3)}`;
