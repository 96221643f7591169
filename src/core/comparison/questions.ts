import type { Differing } from '@/core/datum/dimensionCheck';
import { handleOf, type Drawing } from '@/core/drawing/drawing';
import { degrees, distance, middle, type Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import { showsBuilding, type Role } from '@/core/sorting/roles';
import { closeGaps } from '@/core/underlay/recipe/closeGaps';
import { doubledPaths, overlaps } from '@/core/underlay/recipe/duplicates';
import { takeOut } from '@/core/underlay/recipe/edit';
import { straighten } from '@/core/underlay/recipe/straighten';
import type { Primitives } from '@/core/underlay/primitives';
import { formatNumber } from '@/core/units/length';

export const questionKinds = ['gap', 'double', 'askew', 'dimension'] as const;
export type QuestionKind = (typeof questionKinds)[number];

/** Something to ask the author of a drawing. */
export interface Question {
  kind: QuestionKind;
  /** In the drawing's own coordinates. */
  at: Point;
  layer: string;
  handle: string;
  words: string;
}

/** What there is to ask, the first of each kind, and how many there are in all. */
export interface Questions {
  asked: Question[];
  counts: Record<QuestionKind, number>;
}

/** What is asked about a drawing before anything is built on it. */
export interface QuestionTask {
  drawing: Drawing;
  /** As the file has it, before any clean-up. */
  primitives: Primitives;
  metresPerUnit: number;
  /** By layer. */
  roles: readonly (Role | null)[];
  /** Dimensions that say something else than they measure. */
  differ: readonly Differing[];
}

/** Ends that miss one another by up to this are meant to meet; lines that lie on one another do within this, metres. */
const [gapWidth, doubleWithin] = [0.05, 0.001];
/** Lines that overlap by less than this only meet carelessly, metres. */
const leastOverlap = 0.01;
/** A line within this angle of a main direction is meant to lie in it, degrees; so little of it is rounding, metres. */
const [askewBy, leastOff] = [0.5, 0.0005];
/** So many of each kind are asked: nobody answers more. */
const mostAsked = 200;

const millimetres = (metres: number): string => `${formatNumber(metres * 1000, 1)} mm`;

/** Gaps, doubles and askew lines on the layers of the building, and dimensions that disagree. */
export function questionsOf({ drawing, primitives, metresPerUnit, roles, differ }: QuestionTask): Questions {
  const sorted = roles.some((role) => role !== null);
  const lines = takeOut(
    primitives,
    (path) => sorted && !showsBuilding(roles[primitives.layer[path]] ?? null),
    () => true,
  ).primitives;
  const of: Lines = { drawing, p: lines, metresPerUnit };
  const found: Record<QuestionKind, Question[]> = {
    gap: gapsIn(of),
    double: doublesIn(of),
    askew: askewIn(of),
    dimension: differ.map(({ handle, ends, text, written, measured, kind }) => ({
      kind: 'dimension',
      at: middle(ends[0], ends[1]),
      layer: '',
      handle,
      words:
        kind === 'angle'
          ? `\u201c${text}\u201d is written, ${measured.toFixed(2)}\u00b0 is drawn. Which is right?`
          : `\u201c${text}\u201d (${written.toFixed(3)} m) is written, ${measured.toFixed(3)} m is drawn. Which is right?`,
    })),
  };
  const counts = Object.fromEntries(questionKinds.map((kind) => [kind, found[kind].length]));
  return {
    asked: questionKinds.flatMap((kind) => found[kind].slice(0, mostAsked)),
    counts: counts as Record<QuestionKind, number>,
  };
}

interface Lines {
  drawing: Drawing;
  p: Primitives;
  metresPerUnit: number;
}

const vertexAt = ({ xy, origin }: Primitives, v: number): Point => [xy[2 * v] + origin[0], xy[2 * v + 1] + origin[1]];

const question = ({ drawing, p }: Lines, kind: QuestionKind, path: number, at: Point, words: string): Question => ({
  kind,
  at,
  layer: drawing.layers[p.layer[path]].name,
  handle: handleOf(drawing, p.top[path]),
  words,
});

function gapsIn(of: Lines): Question[] {
  const { p, metresPerUnit } = of;
  const closed = closeGaps(p, gapWidth / metresPerUnit);
  const moved = closed.paths.flatMap((path) =>
    [p.start[path], p.start[path + 1] - 1].flatMap((v) => {
      const [from, to] = [vertexAt(p, v), vertexAt(closed.primitives, v)];
      return distance(from, to) > 0 ? [{ path, from, to }] : [];
    }),
  );
  // Both ends of a gap may have moved to where they meet.
  return [...groupBy(moved, ({ to: [x, y] }) => `${x} ${y}`).values()].flatMap((ends) => {
    const [{ path, from, to }] = ends;
    const other = ends.length > 1 ? ends[1].from : to;
    const width = distance(from, other) * metresPerUnit;
    if (width < doubleWithin) return [];
    return [
      question(
        of,
        'gap',
        path,
        middle(from, other),
        `Two ends miss one another by ${millimetres(width)}. Do they meet?`,
      ),
    ];
  });
}

function doublesIn(of: Lines): Question[] {
  const { p, metresPerUnit } = of;
  const within = doubleWithin / metresPerUnit;
  const doubled = doubledPaths(p, within);
  const whole = doubled.map((path) => {
    const [a, b] = [vertexAt(p, p.start[path]), vertexAt(p, p.start[path + 1] - 1)];
    return question(of, 'double', path, middle(a, b), 'It lies on another line of its layer. May one of them go?');
  });
  const partly = overlaps(p, doubled, within).flatMap(({ path, from, to }) => {
    const length = distance(from, to) * metresPerUnit;
    if (length < leastOverlap) return [];
    const [x, y] = middle(from, to);
    const words = `It lies on another line of its layer over ${millimetres(length)}. May the two become one?`;
    return [question(of, 'double', path, [x + p.origin[0], y + p.origin[1]], words)];
  });
  return [...whole, ...partly];
}

function askewIn(of: Lines): Question[] {
  const { p, metresPerUnit } = of;
  const straight = straighten(p, askewBy);
  return straight.paths.flatMap((path) => {
    let worst = { turn: 0, off: 0, at: vertexAt(p, p.start[path]) };
    for (let v = p.start[path]; v + 1 < p.start[path + 1]; v += 1) {
      const [a, b] = [vertexAt(p, v), vertexAt(p, v + 1)];
      const [c, d] = [vertexAt(straight.primitives, v), vertexAt(straight.primitives, v + 1)];
      const was = Math.atan2(b[1] - a[1], b[0] - a[0]);
      const turn = Math.abs(Math.asin(Math.sin(Math.atan2(d[1] - c[1], d[0] - c[0]) - was)));
      const off = turn * distance(a, b) * metresPerUnit;
      if (off > worst.off) worst = { turn, off, at: middle(a, b) };
    }
    if (worst.off < leastOff) return [];
    const words = `It is ${degrees(worst.turn).toFixed(3)}\u00b0 askew, ${millimetres(worst.off)} over its length. Is it meant so?`;
    return [question(of, 'askew', path, worst.at, words)];
  });
}
