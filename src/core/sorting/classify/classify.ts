import { pushAll } from '@/core/lists';
import type { Drawing } from '@/core/drawing/drawing';
import { pathCount, type Primitives } from '@/core/underlay/primitives';
import { suggestRole } from '../suggest';
import { beams } from './beams';
import { blockOpenings } from './blockOpenings';
import { blockColumns, looseColumns, shapeColumns } from './columns';
import { doors } from './doors';
import { frame } from './frame';
import { gridLines, gridRuns, polygonBubbles } from './grid';
import type { AllLooks, Looks } from './looks';
import { piecesOf } from './pieces';
import { slabs } from './slabs';
import { shortPieces, walls } from './walls';
import { panes, windows } from './windows';

/**
 * What every path of a drawing looks like by its geometry alone: bubbles with labels and the long lines that end in
 * them are grid, and what runs round all bubbles is the sheet's frame; small shapes of one size, four of them or more,
 * columns; quarter arcs with a leaf doors; three or more lines between common ends, close together, windows; lines in
 * pairs at a wall's distance walls, or beams where they run from column to column on a layer of their own. What came by
 * a block is what the block's name or its geometry says, else furniture. What is told is not told again: the order
 * counts.
 * @param metresPerUnit true metres of one drawing unit
 */
export function classify(drawing: Drawing, p: Primitives, metresPerUnit: number): AllLooks {
  const looks: AllLooks = Array.from({ length: pathCount(p) }, () => null);
  const { bubbles, rings, lines, arcs, shapes } = piecesOf(looks, p, metresPerUnit);
  pushAll(bubbles, polygonBubbles(looks, rings, lines));
  const sizes = shapeColumns(looks, shapes);
  gridLines(looks, bubbles, lines, arcs);
  frame(looks, p, metresPerUnit, bubbles, lines);
  looseColumns(looks, lines, sizes);
  doors(looks, arcs, lines);
  windows(looks, lines);
  panes(looks, lines);
  const gridParts = gridRuns(looks, lines);
  blockColumns(looks, p, metresPerUnit, gridParts, (chain) => outermost(p, chain));
  walls(looks, p, metresPerUnit);
  shortPieces(looks, lines);
  beams(looks, p, metresPerUnit, lines);
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
