/** Columns that are eliminated before what lies behind them is changed: they stay in the processor's cache. */
const panel = 48;
/** Rows and columns that are changed at once: sixteen sums stay in the processor's registers. */
const tile = 4;

/** What a pivot is held against: the diagonal before anything was eliminated, and where pivots that vanish go. */
export interface Pivoting {
  /** A pivot smaller than this share of its diagonal vanishes. */
  least: number;
  /** The diagonal of the whole matrix by the columns of the front. */
  diagonal: Float64Array;
  vanished: (column: number) => void;
}

/**
 * Eliminates the first columns of a dense symmetric matrix in place, L D L^T without exchanges: below them remain the
 * factor's columns, behind them what is left of the matrix. A column whose pivot vanishes is held at zero.
 * @param f the lower triangle, row by row, m x m
 * @param d takes the pivots; infinite where one vanished
 */
export function eliminate(f: Float64Array, m: number, columns: number, d: Float64Array, pivoting: Pivoting): void {
  new Elimination(f, m, d, pivoting).run(columns);
}

class Elimination {
  /** The rows of a panel in groups of a tile, each group column by column: as they are, and times the pivots. */
  private readonly plain: Float64Array;
  private readonly scaled: Float64Array;

  constructor(
    private readonly f: Float64Array,
    private readonly m: number,
    private readonly d: Float64Array,
    private readonly pivoting: Pivoting,
  ) {
    // Room for the last tile.
    this.plain = new Float64Array((m + tile) * panel);
    this.scaled = new Float64Array((m + tile) * panel);
  }

  run(columns: number): void {
    for (let from = 0; from < columns; from += panel) {
      const to = Math.min(columns, from + panel);
      for (let k = from; k < to; k += 1) this.column(from, k);
      this.behind(from, to);
    }
  }

  /** Brings a column up to the columns of its panel before it, and divides it by its pivot. */
  private column(from: number, k: number): void {
    const { f, m, d, pivoting } = this;
    const row = new Float64Array(k - from);
    for (let j = from; j < k; j += 1) row[j - from] = Number.isFinite(d[j]) ? f[k * m + j] * d[j] : 0;
    for (let i = k; i < m; i += 1) {
      let sum = f[i * m + k];
      const at = i * m + from;
      for (let j = 0; j < row.length; j += 1) sum -= f[at + j] * row[j];
      f[i * m + k] = sum;
    }
    const pivot = f[k * m + k];
    const vanishes = !(Math.abs(pivot) > pivoting.least * pivoting.diagonal[k]);
    if (vanishes) pivoting.vanished(k);
    d[k] = vanishes ? Infinity : pivot;
    const inverse = vanishes ? 0 : 1 / pivot;
    for (let i = k + 1; i < m; i += 1) f[i * m + k] *= inverse;
    f[k * m + k] = 1;
  }

  /** Takes a panel's share off all that lies behind it, tile by tile. */
  private behind(from: number, to: number): void {
    const { m } = this;
    const width = to - from;
    this.pack(from, to);
    for (let i = to; i < m; i += tile)
      for (let j = to; j <= i; j += tile) {
        const whole = i + tile <= m && j + tile <= i + 1;
        if (whole) this.fullTile(i, j, (i - to) * width, (j - to) * width, width);
        else this.edgeTile(i, j, to, width);
      }
  }

  private pack(from: number, to: number): void {
    const { f, m, d, plain, scaled } = this;
    const width = to - from;
    for (let i = to; i < m; i += tile)
      for (let t = 0; t < tile; t += 1) {
        const row = (i + t) * m + from;
        const at = (i - to) * width + t;
        for (let k = 0; k < width; k += 1) {
          const value = i + t < m ? f[row + k] : 0;
          plain[at + k * tile] = value;
          scaled[at + k * tile] = Number.isFinite(d[from + k]) ? value * d[from + k] : 0;
        }
      }
  }

  private fullTile(i: number, j: number, a: number, b: number, width: number): void {
    const { f, m, plain, scaled } = this;
    let s00 = 0,
      s01 = 0,
      s02 = 0,
      s03 = 0;
    let s10 = 0,
      s11 = 0,
      s12 = 0,
      s13 = 0;
    let s20 = 0,
      s21 = 0,
      s22 = 0,
      s23 = 0;
    let s30 = 0,
      s31 = 0,
      s32 = 0,
      s33 = 0;
    const end = a + width * tile;
    for (let p = a, q = b; p < end; p += tile, q += tile) {
      const x0 = plain[p],
        x1 = plain[p + 1],
        x2 = plain[p + 2],
        x3 = plain[p + 3];
      const y0 = scaled[q],
        y1 = scaled[q + 1],
        y2 = scaled[q + 2],
        y3 = scaled[q + 3];
      s00 += x0 * y0;
      s01 += x0 * y1;
      s02 += x0 * y2;
      s03 += x0 * y3;
      s10 += x1 * y0;
      s11 += x1 * y1;
      s12 += x1 * y2;
      s13 += x1 * y3;
      s20 += x2 * y0;
      s21 += x2 * y1;
      s22 += x2 * y2;
      s23 += x2 * y3;
      s30 += x3 * y0;
      s31 += x3 * y1;
      s32 += x3 * y2;
      s33 += x3 * y3;
    }
    const r0 = i * m + j,
      r1 = r0 + m,
      r2 = r1 + m,
      r3 = r2 + m;
    f[r0] -= s00;
    f[r0 + 1] -= s01;
    f[r0 + 2] -= s02;
    f[r0 + 3] -= s03;
    f[r1] -= s10;
    f[r1 + 1] -= s11;
    f[r1 + 2] -= s12;
    f[r1 + 3] -= s13;
    f[r2] -= s20;
    f[r2 + 1] -= s21;
    f[r2 + 2] -= s22;
    f[r2 + 3] -= s23;
    f[r3] -= s30;
    f[r3 + 1] -= s31;
    f[r3 + 2] -= s32;
    f[r3 + 3] -= s33;
  }

  /** A tile on the diagonal or at the end, of which some lies outside the triangle. */
  private edgeTile(i: number, j: number, to: number, width: number): void {
    const { f, m, plain, scaled } = this;
    for (let r = i; r < Math.min(m, i + tile); r += 1)
      for (let c = j; c < Math.min(m, j + tile) && c <= r; c += 1) {
        let sum = 0;
        const [p, q] = [(i - to) * width + r - i, (j - to) * width + c - j];
        for (let k = 0; k < width * tile; k += tile) sum += plain[p + k] * scaled[q + k];
        f[r * m + c] -= sum;
      }
  }
}
