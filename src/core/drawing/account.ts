/** Why an entity was left out; the words stand in `reasonOf`. */
export type LeftOutReason =
  | 'notRead'
  | 'damaged'
  | 'paper'
  | 'solid'
  | 'proxy'
  | 'noGeometry'
  | 'missingBlock'
  | 'reference'
  | 'emptyBlock'
  | 'document'
  | 'embedded'
  | 'shape'
  | 'noLines';

export interface ReadWarning {
  code: string;
  message: string;
  line: number;
  handle: string;
}

/** Another file that a drawing points at: a drawing, a picture or a document, by its path. */
export interface Reference {
  kind: 'drawing' | 'picture' | 'document';
  path: string;
  name: string;
}

/** The full account of a reading: every entity of the file is in `read` or in `leftOut`. */
export interface Account {
  /** By kind, layer number and block number (`drawing.model` for the model space). */
  read: { kind: string; layer: number; block: number; count: number }[];
  leftOut: { kind: string; layer: number; block: number; reason: LeftOutReason; count: number }[];
  /** Files that the drawing points at and does not hold. */
  references: Reference[];
  warnings: ReadWarning[];
  /** Warnings by code, those beyond the limit included. */
  warningCounts: Record<string, number>;
}

/** Counts while reading. */
export class Ledger {
  /** Per block, the model space first: counts by key and layer. */
  private counts: Map<number, number>[] = [];
  private keys: { kind: string; reason: LeftOutReason | null }[] = [];
  private keyIndex = new Map<string, number>();
  readonly warnings: ReadWarning[] = [];
  readonly warningCounts: Record<string, number> = {};

  constructor(private maxWarnings: number) {}

  /** A number for a kind read, or left out for a reason; made once a kind, not once an entity. */
  key(kind: string, reason: LeftOutReason | null): number {
    const name = `${reason ?? ''}/${kind}`;
    let index = this.keyIndex.get(name);
    if (index === undefined) {
      index = this.keys.length;
      this.keys.push({ kind, reason });
      this.keyIndex.set(name, index);
    }
    return index;
  }

  /** @param block 0 for the model space, else the block's number plus one */
  count(key: number, layer: number, block: number, n = 1): void {
    const counts = (this.counts[block] ??= new Map());
    const place = key * 65536 + layer;
    counts.set(place, (counts.get(place) ?? 0) + n);
  }

  warn(code: string, message: string, line: number, handle = ''): void {
    const before = this.warningCounts[code] ?? 0;
    this.warningCounts[code] = before + 1;
    if (before < this.maxWarnings) this.warnings.push({ code, message, line, handle });
  }

  /**
   * The account.
   * @param blockOf the drawing's number of each block counted, in the order of `count`'s numbers
   */
  finish(blockOf: (block: number) => number, references: Reference[]): Account {
    const account: Account = {
      read: [],
      leftOut: [],
      references,
      warnings: this.warnings,
      warningCounts: this.warningCounts,
    };
    this.counts.forEach((counts, block) => {
      for (const [place, count] of counts) {
        if (count === 0) continue;
        const { kind, reason } = this.keys[Math.floor(place / 65536)];
        const where = { kind, layer: place % 65536, block: blockOf(block), count };
        if (reason === null) account.read.push(where);
        else account.leftOut.push({ ...where, reason });
      }
    });
    return account;
  }
}

/** The reason in plain words and what to do about it. */
export const reasonOf: Record<LeftOutReason, { reason: string; remedy: string }> = {
  notRead: {
    reason: 'This kind of entity is not read in this version.',
    remedy: 'Break it up into lines, arcs and texts in the drawing program, if it matters here.',
  },
  damaged: {
    reason: 'Its numbers are missing, not finite or out of range.',
    remedy: 'Check the drawing in its own program and save it again.',
  },
  paper: {
    reason: 'It stands on a printed sheet (paper space), not in the plan.',
    remedy: 'Nothing to do, unless the plan itself was drawn there.',
  },
  solid: { reason: 'It is a solid or surface model, not lines.', remedy: 'Ask for a 2D export of this view.' },
  proxy: {
    reason: 'It is an object of another program that only that program can draw.',
    remedy: 'Ask for an export with such objects broken up.',
  },
  noGeometry: {
    reason: 'It has no geometry: fewer than two points, a radius of zero or an empty text.',
    remedy: 'Nothing to do.',
  },
  reference: {
    reason: 'It stands for another drawing that is not in this file.',
    remedy: 'Ask for the drawing with its external references bound in, or bring that drawing in too.',
  },
  emptyBlock: {
    reason: 'Its block is empty.',
    remedy: 'Nothing to do, unless something is missing in the plan; then ask for the drawing again.',
  },
  document: {
    reason: 'It shows a page of another document that is not in this file.',
    remedy: 'Ask for that document as a drawing, if it matters here.',
  },
  embedded: {
    reason: 'It is a piece of another program embedded in the drawing, not lines.',
    remedy: 'Ask for its content as a drawing, if it matters here.',
  },
  shape: {
    reason: 'It is a glyph of a shape file that is not in this file.',
    remedy: 'Ask for the drawing with shapes broken up into lines.',
  },
  noLines: {
    reason: 'It is a light, a camera or a section mark: it has no lines of its own.',
    remedy: 'Nothing to do.',
  },
  missingBlock: {
    reason: 'Its block is not in the file.',
    remedy: 'Ask for the drawing with its external references bound in.',
  },
};
