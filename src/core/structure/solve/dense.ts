import { panelKernel } from './panelKernel';

/** Columns that are eliminated before what lies behind them is changed: they stay in the processor's cache. */
const panel = 48;
/** Rows and columns that are changed at once, as in panel.wat: their sums stay in the processor's registers. */
const tile = 4;
const bytesOfNumber = Float64Array.BYTES_PER_ELEMENT;
/** How WebAssembly counts its memory. */
const bytesOfPage = 65536;

/** What a pivot is held against: the diagonal before anything was eliminated, and where pivots that vanish go. */
export interface Pivoting {
  /** A pivot smaller than this share of its diagonal vanishes. */
  least: number;
  /** The diagonal of the whole matrix by the columns of the front. */
  diagonal: Float64Array;
  vanished: (column: number) => void;
}

/**
 * Room for one dense symmetric matrix after another, and their elimination in place. It lies in the memory of the
 * kernel of panel.wat, which does the bulk of the work two numbers at a time.
 */
export class DenseFront {
  /** The lower triangle, row by row, `stride` numbers a row; what lies above the diagonal means nothing. */
  readonly values: Float64Array;
  size = 0;
  stride = 0;

  private readonly kernel: ReturnType<typeof panelKernel>;
  /** The rows of a panel in groups of a tile, each group column by column: as they are, and times the pivots. */
  private readonly plain: Float64Array;
  private readonly scaled: Float64Array;
  /** The entries of a row within the panel times the pivots, and a zero. */
  private readonly row: Float64Array;

  /** @param largest rows of the largest matrix */
  constructor(largest: number) {
    // Room for the last tile, below and beside.
    const rows = largest + tile;
    const lengths = [rows * rows, rows * panel, rows * panel, panel + 1];
    const bytes = lengths.reduce((sum, length) => sum + length, 0) * bytesOfNumber;
    const memory = new WebAssembly.Memory({ initial: Math.ceil(bytes / bytesOfPage) });
    let at = 0;
    [this.values, this.plain, this.scaled, this.row] = lengths.map((length) => {
      const part = new Float64Array(memory.buffer, at, length);
      at += part.byteLength;
      return part;
    });
    this.kernel = panelKernel(memory);
  }

  /** Begins a matrix of zeros. */
  begin(size: number): void {
    this.size = size;
    this.stride = size + tile;
    this.values.fill(0, 0, this.stride * this.stride);
  }

  /**
   * Eliminates the first columns, L D L^T without exchanges: below them remain the factor's columns, behind them what
   * is left of the matrix. A column whose pivot vanishes is held at zero.
   * @param d takes the pivots; infinite where one vanished
   */
  eliminate(columns: number, d: Float64Array, pivoting: Pivoting): void {
    for (let from = 0; from < columns; from += panel) {
      const to = Math.min(columns, from + panel);
      for (let k = from; k < to; k += 1) this.column(from, k, d, pivoting);
      if (to < this.size) this.takeOff(from, to, d);
    }
  }

  /** Brings a column up to the columns of its panel before it, and divides it by its pivot. */
  private column(from: number, k: number, d: Float64Array, pivoting: Pivoting): void {
    const { values: f, size, stride, row } = this;
    for (let j = from; j < k; j += 1) row[j - from] = Number.isFinite(d[j]) ? f[k * stride + j] * d[j] : 0;
    row[k - from] = 0;
    const place = (i: number, j: number): number => f.byteOffset + (i * stride + j) * bytesOfNumber;
    if (k > from)
      this.kernel.column(
        place(k, k),
        place(k, from),
        stride * bytesOfNumber,
        size - k,
        row.byteOffset,
        (k - from) * bytesOfNumber,
      );
    const pivot = f[k * stride + k];
    const vanishes = !(Math.abs(pivot) > pivoting.least * pivoting.diagonal[k]);
    if (vanishes) pivoting.vanished(k);
    d[k] = vanishes ? Infinity : pivot;
    const inverse = vanishes ? 0 : 1 / pivot;
    for (let i = k + 1; i < size; i += 1) f[i * stride + k] *= inverse;
    f[k * stride + k] = 1;
  }

  /** Takes a panel's share off all that lies behind it. */
  private takeOff(from: number, to: number, d: Float64Array): void {
    const { values: f, size, stride, plain, scaled } = this;
    const width = to - from;
    for (let i = to; i < size; i += tile)
      for (let t = 0; t < tile; t += 1) {
        const row = (i + t) * stride + from;
        const at = (i - to) * width + t;
        for (let k = 0; k < width; k += 1) {
          const value = i + t < size ? f[row + k] : 0;
          plain[at + k * tile] = value;
          scaled[at + k * tile] = Number.isFinite(d[from + k]) ? value * d[from + k] : 0;
        }
      }
    const corner = f.byteOffset + (to * stride + to) * bytesOfNumber;
    this.kernel.behind(corner, stride * bytesOfNumber, size - to, plain.byteOffset, scaled.byteOffset, width);
  }
}
