import { groupBy } from '@/core/groupBy';
import { pushAll } from '@/core/lists';
import { BoxIndex, boxOf, type Box } from '@/core/geometry/boxIndex';
import { distance, nearestOnPiece, type Point } from '@/core/geometry/vector';
import { fewestDashes, healed } from '@/core/patterns/dashes';
import { doubled, facesOf, inPlan } from '@/core/patterns/faces';
import { defaultTolerance } from '@/core/tolerance';
import type { Primitives } from '@/core/underlay/primitives';
import { shortPiece, shortWhy } from './walls';
import type { Drawn } from './drawn';
import { asPath, type AllLooks, type Line, type Stretch } from './looks';

/** A beam's drawn end is this near to a column, metres: half of one, and what the line stops short of it. */
const nearColumn = 0.4;
/** A mark or a size of a beam stands this near to its line, metres, and along it within this angle, as a sine. */
const nearMark = { away: 0.7, turned: 0.1 };
/** Marks as T1, B-12 and sizes as 30/60, 12 x 24. */
const beamMark = /^\p{L}{1,3}[-. ]?\d{1,3}\b|\d\s*[x\u00d7/]\s*\d/u;
/** So many lines of a layer, and so many of their ends at columns or of them with marks, speak for beams. */
const enough = { lines: 4, share: 0.6, dashes: 12 };
/** The middle one of a layer's beams is as long as this, metres: panes between columns are shorter. */
const usualSpan = 2;
/** So many other things that look like walls tell that the walls are elsewhere. */
const wallsElsewhere = 8;

/**
 * Lines in pairs or in dashes that run from column to column or have marks beside them, on a layer without ends and
 * jambs of walls, where walls are on another layer: beams. Without such a layer the pairs stay walls.
 */
export function beams(looks: AllLooks, drawn: Drawn, lines: readonly Line[], sides: readonly Line[]): void {
  const walls = new Map<number, number>();
  looks.forEach((look, path) => {
    if (look?.role === 'wall') walls.set(drawn.p.layer[path], (walls.get(drawn.p.layer[path]) ?? 0) + 1);
  });
  const all = [...walls.values()].reduce((sum, count) => sum + count, 0);
  const pairs = new Map<number, Line[]>();
  const short = new Set<number>();
  for (const line of lines) {
    const look = looks[line.path];
    const layer = drawn.p.layer[line.path];
    if (look?.role !== 'wall') continue;
    if (look.why === shortWhy) short.add(layer);
    else if (pairs.has(layer)) pairs.get(layer)!.push(line);
    else pairs.set(layer, [line]);
  }
  for (const { path, length } of sides)
    if (looks[path]?.role === 'wall' && length <= shortPiece) short.add(drawn.p.layer[path]);
  const columns = new BoxIndex(columnBoxes(looks, drawn), (box) => box);
  const isMarked = markedBy(drawn);
  const atColumn = (end: Point): boolean => columns.touching(boxOf([end], nearColumn)).length > 0;
  const speakFor = (own: readonly Stretch[]): string | null => {
    if (own.length < enough.lines || medianLength(own) < usualSpan) return null;
    const ends = own.flatMap(({ a, b }) => [a, b]);
    if (ends.filter(atColumn).length >= enough.share * ends.length) return 'from column to column';
    return own.filter(isMarked).length >= enough.share * own.length ? 'with a mark beside it' : null;
  };
  for (const [layer, own] of dashedLines(looks, drawn.p, lines)) {
    const how = all - (walls.get(layer) ?? 0) < wallsElsewhere ? null : speakFor(own.whole);
    if (how === null) continue;
    for (const path of own.paths) looks[path] = { role: 'beam', why: `a dashed line ${how}` };
    pairs.delete(layer);
  }
  for (const [layer, own] of singleLines(looks, drawn.p, lines)) {
    if (all - (walls.get(layer) ?? 0) < wallsElsewhere || own.filter(isMarked).length < enough.share * own.length)
      continue;
    if (speakFor(own) !== null)
      for (const { path } of own) looks[path] = { role: 'beam', why: 'a line with a mark beside it' };
  }
  for (const [layer, own] of pairs) {
    if (short.has(layer) || all - walls.get(layer)! < wallsElsewhere) continue;
    const how = speakFor(own);
    if (how === null) continue;
    for (const { path } of own) looks[path] = { role: 'beam', why: `a pair of lines ${how}` };
  }
}

/** Lines that look like nothing yet, on layers that hold little else. */
function singleLines(looks: AllLooks, p: Primitives, lines: readonly Line[]): Map<number, Line[]> {
  const layers = groupBy(lines, ({ path }) => p.layer[path]);
  const found = new Map<number, Line[]>();
  for (const [layer, own] of layers) {
    const open = own.filter(({ path, length }) => looks[path] === null && length >= usualSpan / 2);
    if (open.length >= enough.share * own.length) found.set(layer, open);
  }
  return found;
}

/** Layers nearly all of whose lines are dashes, with the lines these make and their paths. */
function dashedLines(
  looks: AllLooks,
  p: Primitives,
  lines: readonly Line[],
): Map<number, { whole: Stretch[]; paths: number[] }> {
  const isOpen = ({ path }: Line): boolean => looks[path] === null || looks[path].role === 'wall';
  const found = new Map<number, { whole: Stretch[]; paths: number[] }>();
  for (const [layer, own] of groupBy(lines.filter(isOpen), ({ path }) => p.layer[path])) {
    if (own.length < enough.dashes) continue;
    const paths = own.map(asPath);
    const whole: Stretch[] = [];
    const dashes: number[] = [];
    for (const family of facesOf(paths, defaultTolerance.offAxis, doubled, defaultTolerance.gap).families)
      for (const { offset, spans } of healed(family, () => false).faces)
        for (const { from, to, sources } of spans) {
          if (sources.length < fewestDashes) continue;
          whole.push({ a: inPlan(family, from, offset), b: inPlan(family, to, offset), length: to - from });
          pushAll(
            dashes,
            sources.map(({ entity }) => entity),
          );
        }
    if (dashes.length >= enough.share * own.length) found.set(layer, { whole, paths: dashes });
  }
  return found;
}

const medianLength = (lines: readonly Stretch[]): number =>
  lines.map(({ length }) => length).sort((a, b) => a - b)[lines.length >> 1];

/** Whether a text that may be a beam's mark stands beside a line and runs along it. */
function markedBy(drawn: Drawn): (line: Stretch) => boolean {
  const marks = drawn.p.texts
    .filter(({ text }) => beamMark.test(text.trim()))
    .map((text) => ({ at: drawn.middleOf(text), angle: text.angle }));
  const index = new BoxIndex(marks, ({ at }) => boxOf([at]));
  return ({ a, b, length }) =>
    index.touching(boxOf([a, b], nearMark.away)).some(({ at, angle }) => {
      const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
      const turned = Math.abs(Math.cos(angle) * uy - Math.sin(angle) * ux);
      return turned <= nearMark.turned && distance(nearestOnPiece(a, b, at), at) <= nearMark.away;
    });
}

const columnBoxes = (looks: AllLooks, drawn: Drawn): Box[] =>
  looks.flatMap((look, path) => (look?.role === 'column' ? [boxOf(drawn.placed(path).points)] : []));
