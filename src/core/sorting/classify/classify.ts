import type { Drawing } from '@/core/drawing/drawing';
import { pathCount, type Primitives } from '@/core/underlay/primitives';
import { suggestRole } from '../suggest';
import { beams } from './beams';
import { blockOpenings } from './blockOpenings';
import { blockColumns, columnStrokes, crossingsOf, filledColumns, looseColumns, shapeColumns } from './columns';
import { crowds } from './crowds';
import { dimensions } from './dimensions';
import { doors } from './doors';
import { frame } from './frame';
import { furniture } from './furniture';
import { gridLines, gridRuns } from './grid';
import { islands } from './islands';
import type { AllLooks, Line, Looks } from './looks';
import { piecesOf } from './pieces';
import { roomOutlines } from './rooms';
import { slabs } from './slabs';
import { slidingDoors } from './slidingDoors';
import { tables } from './tables';
import { shortPieces, stubs, walls } from './walls';
import { paneLines, panes } from './panes';
import { sills } from './sills';
import { windowOutlines } from './windowOutlines';
import { bundled, windows } from './windows';

/**
 * What every path of a drawing looks like by its geometry alone: ruled rows with words are tables; bubbles with labels
 * and the long lines that end in them are grid, and what runs round all bubbles is the sheet's frame; lines between two
 * slanting strokes are dimensions; small shapes of one size, four of them or more, on crossings of the grid where it is
 * known, columns; arcs with a leaf doors; three or more lines between common ends, close together, in a wall, windows;
 * outlines on the faces of walls rooms, rectangles that stand free furniture; lines in pairs at a wall's distance
 * walls, or beams where they run from column to column on a layer of their own. What came by a block is what the
 * block's name or its geometry says, else furniture. What is told is not told again: the order counts.
 * @param metresPerUnit true metres of one drawing unit
 */
export function classify(drawing: Drawing, p: Primitives, metresPerUnit: number): AllLooks {
  const looks: AllLooks = Array.from({ length: pathCount(p) }, () => null);
  const { lines, sides, arcs, shapes, tags, figures, written } = piecesOf(looks, p, metresPerUnit);
  crowds(looks, [...lines, ...sides]);
  tables(looks, lines, written);
  const fromJambToJamb = paneLines(looks, lines, sides);
  const isOpen = ({ path }: Line): boolean => looks[path] === null;
  const inWalls = new Set([...fromJambToJamb, ...bundled(lines.filter(isOpen))].map(({ path }) => path));
  const { bubbles, axes } = gridLines(looks, p, metresPerUnit, arcs, inWalls);
  const onCrossing = crossingsOf(axes);
  for (const path of tags) looks[path] ??= { role: 'label', why: 'a frame about a short text' };
  windowOutlines(looks, p, metresPerUnit);
  const sizes = shapeColumns(looks, p, metresPerUnit, shapes, onCrossing);
  frame(looks, p, metresPerUnit, bubbles, lines);
  filledColumns(looks, p, metresPerUnit, onCrossing);
  dimensions(looks, lines, figures);
  looseColumns(looks, lines, sizes, onCrossing, 'on crossings');
  windows(looks, lines, sides, { panes: fromJambToJamb, blocks: windowBlocks(drawing, p) });
  looseColumns(looks, lines, sizes, onCrossing, 'anywhere');
  columnStrokes(looks, p, metresPerUnit, lines);
  doors(looks, arcs, [...lines, ...sides]);
  slidingDoors(looks, p, metresPerUnit, lines, sides);
  panes(looks, lines, sides);
  sills(looks, lines, sides);
  gridRuns(looks, p, lines, inWalls);
  blockColumns(looks, p, metresPerUnit, onCrossing, (chain) => outermost(p, chain));
  roomOutlines(looks, p, metresPerUnit);
  furniture(looks, p, metresPerUnit, lines);
  const loose = islands(looks, lines, sides);
  walls(looks, p, metresPerUnit, loose);
  shortPieces(looks, lines, loose);
  stubs(looks, p, metresPerUnit);
  beams(looks, p, metresPerUnit, lines, sides);
  slabs(looks, p, metresPerUnit);
  blockOpenings(looks, p, metresPerUnit, (chain) => unnamed(drawing, outermost(p, chain)));
  blocks(looks, drawing, p);
  return looks;
}

/** The block in the model space through which a chain of blocks is there. */
function outermost(p: Primitives, chain: number): number {
  let c = chain;
  while (c > 0 && p.chains[c].parent > 0) c = p.chains[c].parent;
  return p.chains[c].block;
}

/** A block, where its name says nothing of what it is. */
const unnamed = (drawing: Drawing, block: number): number | null =>
  suggestRole(drawing.blocks[block]?.name ?? '') === null ? block : null;

/** How often a block is inserted whose name says that it is a window. */
function windowBlocks(drawing: Drawing, p: Primitives): number {
  const isWindow = drawing.blocks.map(({ name }) => suggestRole(name)?.role === 'window');
  const inserts = new Set<number>();
  for (let path = 0; path < p.chain.length; path += 1)
    if (p.chain[path] !== 0 && isWindow[outermost(p, p.chain[path])]) inserts.add(p.top[path]);
  return inserts.size;
}

/** What is left of what came by blocks. */
function blocks(looks: AllLooks, drawing: Drawing, p: Primitives): void {
  const known = new Map<number, Looks>();
  for (let path = 0; path < looks.length; path += 1) {
    if (p.chain[path] === 0 || looks[path] !== null) continue;
    const block = outermost(p, p.chain[path]);
    const look = known.get(block) ?? blockLooks(drawing.blocks[block]?.name ?? '');
    known.set(block, look);
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
