import * as v from 'valibot';
import type { Drawing } from '@/core/drawing/drawing';
import { arcOfBulge } from '@/core/geometry/bulge';
import { area } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { matches } from '@/core/pattern';
import { isStorable } from '@/core/storable';
import { pathCount, PathFlag, type Primitives } from '@/core/underlay/primitives';

/** What something drawn is in itself. */
export const forms = ['line', 'chain', 'outline', 'circle', 'text'] as const;
export type Form = (typeof forms)[number];

const words = v.pipe(v.string(), v.minLength(1), v.maxLength(400), v.check(isStorable));
const measure = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(1e9));

/**
 * What makes things of a drawing alike; null where it does not count. Lengths in metres, so that it holds in the next
 * drawing in whatever unit.
 */
export const likenessSchema = v.strictObject({
  form: v.picklist(forms),
  /** Vertices of a chain or an outline. */
  corners: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1e6))),
  /** A layer, or a pattern of layers in which `*` stands for anything. */
  layer: v.nullable(words),
  /** As primitives have it. */
  colour: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(0x1000000))),
  /** Length along its lines and the area within, or the height of a text and nothing. */
  size: v.nullable(v.strictTuple([measure, measure])),
  /** How a text is written: `A` for letters, `9` for figures, all else as it is. */
  written: v.nullable(words),
});
export type Likeness = v.InferOutput<typeof likenessSchema>;
/** What can count or not. */
export const traits = ['layer', 'colour', 'size', 'written'] as const;
export type Trait = (typeof traits)[number];

/** Something of a drawing that can be pointed at: a path or a text, by its number among the primitives. */
export type Pointed = { path: number } | { text: number };

/** Lengths and roots of areas are the same within this, metres, or within a hundredth of themselves. */
const sameSize = 0.005;
const sameShare = 0.01;

/** How a text is written: "B12" and "C7" are both `A9`. */
export const patternOf = (text: string): string =>
  text
    .trim()
    .replace(/\p{L}+/gu, 'A')
    .replace(/\p{Nd}+/gu, '9');

function formOf({ start, flags }: Primitives, path: number): Form {
  if ((flags[path] & PathFlag.circle) !== 0) return 'circle';
  if ((flags[path] & PathFlag.closed) !== 0) return 'outline';
  return start[path + 1] - start[path] === 2 ? 'line' : 'chain';
}

const cornersOf = (p: Primitives, path: number, form: Form): number | null =>
  form === 'chain' || form === 'outline' ? p.start[path + 1] - p.start[path] : null;

/** Length and area of a path, in metres. */
function sizeOfPath(p: Primitives, path: number, metres: number): [number, number] {
  const points: Point[] = [];
  for (let v = p.start[path]; v < p.start[path + 1]; v += 1) points.push([p.xy[2 * v], p.xy[2 * v + 1]]);
  const closed = (p.flags[path] & PathFlag.closed) !== 0;
  let length = 0;
  for (let i = 0; i < points.length - (closed ? 0 : 1); i += 1) {
    const [a, b, bulge] = [points[i], points[(i + 1) % points.length], p.bulge[p.start[path] + i]];
    length += bulge === 0 ? distance(a, b) : Math.abs(arcOfBulge(a, b, bulge).radius * 4 * Math.atan(bulge));
  }
  return [length * metres, closed ? Math.abs(area(points)) * metres * metres : 0];
}

/**
 * What something pointed at is like, with everything about it that can count.
 * @param metres metres per drawing unit
 */
export function likenessOf(drawing: Drawing, p: Primitives, pointed: Pointed, metres: number): Likeness {
  const nameOf = (layer: number): string => drawing.layers[layer].name;
  if ('text' in pointed) {
    const { layer, colour, height, text } = p.texts[pointed.text];
    const written = patternOf(text) || null;
    return { form: 'text', corners: null, layer: nameOf(layer), colour, size: [height * metres, 0], written };
  }
  const { path } = pointed;
  const form = formOf(p, path);
  return {
    form,
    corners: cornersOf(p, path, form),
    layer: nameOf(p.layer[path]),
    colour: p.colour[path],
    size: sizeOfPath(p, path, metres),
    written: null,
  };
}

const near = (a: number, b: number): boolean => Math.abs(a - b) <= Math.max(sameSize, sameShare * b);

const sameAs = (size: readonly [number, number], wanted: readonly [number, number]): boolean =>
  near(size[0], wanted[0]) && near(Math.sqrt(size[1]), Math.sqrt(wanted[1]));

/** Everything of a drawing that is alike, by its numbers among the primitives. @param metres per drawing unit */
export function alikeIn(
  drawing: Drawing,
  p: Primitives,
  { form, corners, layer, colour, size, written }: Likeness,
  metres: number,
): { paths: number[]; texts: number[] } {
  const onLayer = drawing.layers.map(({ name }) => layer === null || matches(layer, name));
  const looks = (at: { layer: number; colour: number }): boolean =>
    onLayer[at.layer] && (colour === null || at.colour === colour);
  if (form === 'text') {
    const isAlike = (text: Primitives['texts'][number]): boolean =>
      looks(text) &&
      (written === null || patternOf(text.text) === written) &&
      (size === null || near(text.height * metres, size[0]));
    return { paths: [], texts: [...p.texts.keys()].filter((i) => isAlike(p.texts[i])) };
  }
  const paths: number[] = [];
  for (let path = 0; path < pathCount(p); path += 1)
    if (
      looks({ layer: p.layer[path], colour: p.colour[path] }) &&
      formOf(p, path) === form &&
      cornersOf(p, path, form) === corners &&
      (size === null || sameAs(sizeOfPath(p, path, metres), size))
    )
      paths.push(path);
  return { paths, texts: [] };
}

/**
 * What counts of something pointed at until a person says otherwise: shapes go by their size, lines by their layer and
 * colour, texts by how they are written; on a layer of its own everything by that layer.
 */
export function usualTraits({ form }: Likeness): Trait[] {
  if (form === 'text') return ['layer', 'written'];
  return form === 'line' || form === 'chain' ? ['layer', 'colour'] : ['layer', 'size'];
}

/** A likeness of which only some traits count. */
export const countingOnly = (like: Likeness, counting: ReadonlySet<Trait>): Likeness => ({
  ...like,
  layer: counting.has('layer') ? like.layer : null,
  colour: counting.has('colour') ? like.colour : null,
  size: counting.has('size') ? like.size : null,
  written: counting.has('written') ? like.written : null,
});
