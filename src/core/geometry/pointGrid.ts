/**
 * Points in square cells, to find those near a place: a hash table of cells with chains through the points, all in
 * typed arrays. The cells are as wide as the reach, so that nine of them hold all that is near.
 */
export class PointGrid {
  private heads: Int32Array;
  private next: Int32Array;
  private cellX: Float64Array;
  private cellY: Float64Array;
  private mask: number;

  /** @param cell how far `near` reaches, @param capacity how many points there will be at most */
  constructor(
    private cell: number,
    capacity: number,
  ) {
    const size = 2 ** Math.max(4, Math.ceil(Math.log2(Math.max(1, capacity) * 1.5)));
    this.mask = size - 1;
    this.heads = new Int32Array(size).fill(-1);
    this.next = new Int32Array(capacity);
    this.cellX = new Float64Array(capacity);
    this.cellY = new Float64Array(capacity);
  }

  /** Adds point number i; each number once. */
  add(i: number, x: number, y: number): void {
    const [cx, cy] = [Math.floor(x / this.cell), Math.floor(y / this.cell)];
    const bucket = this.bucket(cx, cy);
    this.cellX[i] = cx;
    this.cellY[i] = cy;
    this.next[i] = this.heads[bucket];
    this.heads[bucket] = i;
  }

  /** Calls back for every point in the cell of a place and the eight round it, which holds all within `cell` of it. */
  near(x: number, y: number, visit: (i: number) => void): void {
    const [cx, cy] = [Math.floor(x / this.cell), Math.floor(y / this.cell)];
    for (let dx = -1; dx <= 1; dx += 1) {
      for (let dy = -1; dy <= 1; dy += 1) {
        for (let i = this.heads[this.bucket(cx + dx, cy + dy)]; i >= 0; i = this.next[i]) {
          if (this.cellX[i] === cx + dx && this.cellY[i] === cy + dy) visit(i);
        }
      }
    }
  }

  private bucket(cx: number, cy: number): number {
    const h = Math.imul(cx | 0, 0x9e3779b1) ^ Math.imul(cy | 0, 0x85ebca6b);
    return (h ^ (h >>> 15)) & this.mask;
  }
}
