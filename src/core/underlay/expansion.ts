import { blockKinds, type Drawing } from '@/core/drawing/drawing';

/** Where an insert's columns, rows and block stand among its numbers. */
const [blockAt, columnsAt, rowsAt] = [5, 6, 7];

/**
 * How many parts the inserts of a drawing come to when blocks are taken apart, counted and not made: a few bytes can
 * ask for more than any machine holds.
 */
export class Expansion {
  /** Parts of each block's content; NaN while it is counted, which a block within itself finds. */
  private readonly weights: (number | undefined)[];

  constructor(private readonly drawing: Drawing) {
    this.weights = new Array<number | undefined>(drawing.blocks.length);
  }

  /** The parts of an insert, with every block in it. @param row of an insert, a table or a dimension */
  ofInsert(row: number): number {
    const { at, numbers } = this.drawing;
    const block = numbers[at[row] + blockAt];
    if (block < 0) return 1;
    return numbers[at[row] + columnsAt] * numbers[at[row] + rowsAt] * (1 + this.ofBlock(block));
  }

  private ofBlock(block: number): number {
    const known = this.weights[block];
    if (known !== undefined) return Number.isNaN(known) ? 0 : known;
    this.weights[block] = NaN;
    const { first, count } = this.drawing.blocks[block];
    let sum = 0;
    for (let row = first; row < first + count; row += 1)
      sum += blockKinds[this.drawing.kind[row]] === 1 ? this.ofInsert(row) : 1;
    this.weights[block] = sum;
    return sum;
  }
}
