import type { Drawing } from '@/core/drawing/drawing';
import { atOnce, type Stepwise } from '@/core/stepwise';
import type { Primitives } from '@/core/underlay/primitives';
import { suggestRole } from '../suggest';
import { beams } from './beams';
import { blockOpenings } from './blockOpenings';
import { blockColumns, columnStrokes, crossingsOf, filledColumns, looseColumns, shapeColumns } from './columns';
import { crowds } from './crowds';
import { dimensions } from './dimensions';
import { doors } from './doors';
import { Drawn } from './drawn';
import { frame } from './frame';
import { furniture } from './furniture';
import { gridLines, gridRuns } from './grid';
import { islands } from './islands';
import type { AllLooks, Line, Looks, Told } from './looks';
import { piecesOf } from './pieces';
import { roomOutlines } from './rooms';
import { slabs } from './slabs';
import { doorLeaves } from './doorLeaves';
import { tables } from './tables';
import { shortPieces, stubs, walls } from './walls';
import { paneLines, panes } from './panes';
import { sills } from './sills';
import { thresholds } from './thresholds';
import { windowOutlines } from './windowOutlines';
import { bundled, windows } from './windows';
import { insulations } from './zigzags';

/**
 * What every path of a drawing looks like by its geometry alone: ruled rows with words are tables; bubbles with labels
 * and the long lines that end in them are grid, and what runs round all bubbles is the sheet's frame; lines between two
 * slanting strokes are dimensions; small shapes of one size, four of them or more, on crossings of the grid where it is
 * known, columns; arcs with a leaf doors; three or more lines between common ends, close together, in a wall, windows;
 * outlines on the faces of walls rooms, rectangles that stand free furniture; lines in pairs at a wall's distance
 * walls, or beams where they run from column to column on a layer of their own. What came by a block is what the
 * block's name or its geometry says, else furniture. What is told is not told again: the order counts. One
 * step a stage.
 * @param metresPerUnit true metres of one drawing unit
 */
function* classified(drawing: Drawing, p: Primitives, metresPerUnit: number): Stepwise<AllLooks> {
  const drawn = new Drawn(p, metresPerUnit);
  const looks: AllLooks = Array.from({ length: drawn.count }, () => null);
  const { lines, sides, arcs, shapes, tags, figures, written } = piecesOf(looks, drawn);
  yield;
  crowds(looks, [...lines, ...sides]);
  yield;
  tables(looks, lines, written);
  insulations(looks, drawn);
  const fromJambToJamb = paneLines(looks, lines, sides);
  yield;
  const isOpen = ({ path }: Line): boolean => looks[path] === null;
  const inWalls = new Set([...fromJambToJamb, ...bundled(lines.filter(isOpen))].map(({ path }) => path));
  yield;
  const { bubbles, axes } = yield* gridLines(looks, drawn, arcs, inWalls);
  yield;
  const onCrossing = crossingsOf(axes);
  for (const path of tags) looks[path] ??= { role: 'label', why: 'a frame about a short text' };
  windowOutlines(looks, drawn);
  const sizes = shapeColumns(looks, drawn, shapes, onCrossing);
  frame(looks, drawn, bubbles, lines);
  filledColumns(looks, drawn, onCrossing);
  yield;
  dimensions(looks, lines, figures);
  looseColumns(looks, lines, sizes, onCrossing, 'on crossings');
  yield;
  windows(looks, lines, sides, { panes: fromJambToJamb, blocks: windowBlocks(drawing, drawn) });
  thresholds(looks, lines, sides);
  yield;
  looseColumns(looks, lines, sizes, onCrossing, 'anywhere');
  columnStrokes(looks, drawn, lines);
  yield;
  doors(looks, arcs, [...lines, ...sides]);
  doorLeaves(looks, drawn, lines, sides);
  yield;
  panes(looks, lines, sides);
  sills(looks, lines, sides);
  yield;
  gridRuns(looks, p, lines, inWalls);
  blockColumns(looks, drawn, onCrossing);
  roomOutlines(looks, drawn);
  yield;
  furniture(looks, drawn, lines);
  yield;
  const loose = islands(looks, lines, sides);
  yield;
  walls(looks, drawn, loose);
  yield;
  shortPieces(looks, lines, loose);
  stubs(looks, drawn);
  beams(looks, drawn, lines, sides);
  yield;
  slabs(looks, drawn);
  blockOpenings(looks, drawn, (block) => isNamed(drawing, block));
  blocks(looks, drawing, drawn);
  return looks;
}

/** What was last said of a drawing, and at which scale: each of its readings asks for the same. */
const known = new WeakMap<Primitives, { metresPerUnit: number; looks: Told }>();

/** What every path of a drawing looks like, in steps; at once where it was asked for before. */
export function* classifySteps(drawing: Drawing, p: Primitives, metresPerUnit: number): Stepwise<Told> {
  const before = known.get(p);
  if (before?.metresPerUnit === metresPerUnit) return before.looks;
  const looks = yield* classified(drawing, p, metresPerUnit);
  known.set(p, { metresPerUnit, looks });
  return looks;
}

/** What every path of a drawing looks like. */
export const classify = (drawing: Drawing, p: Primitives, metresPerUnit: number): Told =>
  atOnce(classifySteps(drawing, p, metresPerUnit));

/** Whether a block's name says what it is. */
const isNamed = (drawing: Drawing, block: number): boolean => suggestRole(drawing.blocks[block]?.name ?? '') !== null;

/** How often a block is inserted whose name says that it is a window. */
function windowBlocks(drawing: Drawing, drawn: Drawn): number {
  const isWindow = drawing.blocks.map(({ name }) => suggestRole(name)?.role === 'window');
  const { chain, top } = drawn.p;
  const inserts = new Set<number>();
  for (let path = 0; path < drawn.count; path += 1)
    if (chain[path] !== 0 && isWindow[drawn.outermost(path)]) inserts.add(top[path]);
  return inserts.size;
}

/** What is left of what came by blocks. */
function blocks(looks: AllLooks, drawing: Drawing, drawn: Drawn): void {
  const told = new Map<number, Looks>();
  for (let path = 0; path < looks.length; path += 1) {
    if (drawn.p.chain[path] === 0 || looks[path] !== null) continue;
    const block = drawn.outermost(path);
    const look = told.get(block) ?? blockLooks(drawing.blocks[block]?.name ?? '');
    told.set(block, look);
    looks[path] = look;
  }
}

/** What a block's name says; most blocks of a plan are furniture. */
function blockLooks(name: string): Looks {
  const suggestion = suggestRole(name);
  return suggestion
    ? { role: suggestion.role, why: `the block is called ${name}` }
    : { role: 'ignore', why: 'came by a block' };
}
