/** Why an entity was left out; the words stand in `reasonOf`. */
export type LeftOutReason = 'notRead' | 'tilted' | 'damaged' | 'paper' | 'solid' | 'proxy' | 'noGeometry' | 'missingBlock';

export interface ReadWarning { code: string; message: string; line: number; handle: string }

/** The full account of a reading: every entity of the file is in `read` or in `leftOut`. */
export interface Account {
  /** Rows: kind, layer number, block number (the model space included), count. */
  read: { kind: string; layer: number; count: number }[];
  leftOut: { kind: string; layer: number; reason: LeftOutReason; count: number }[];
  warnings: ReadWarning[];
  /** Warnings by code, those beyond the limit included. */
  warningCounts: Record<string, number>;
}

/** Counts while reading. */
export class Ledger {
  private counts = new Map<number, number>();
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

  count(key: number, layer: number): void {
    const place = key * 65536 + layer;
    this.counts.set(place, (this.counts.get(place) ?? 0) + 1);
  }

  warn(code: string, message: string, line: number, handle = ''): void {
    const before = this.warningCounts[code] ?? 0;
    this.warningCounts[code] = before + 1;
    if (before < this.maxWarnings) this.warnings.push({ code, message, line, handle });
  }

  finish(): Account {
    const account: Account = { read: [], leftOut: [], warnings: this.warnings, warningCounts: this.warningCounts };
    for (const [place, count] of this.counts) {
      const { kind, reason } = this.keys[Math.floor(place / 65536)];
      const layer = place % 65536;
      if (reason === null) account.read.push({ kind, layer, count });
      else account.leftOut.push({ kind, layer, reason, count });
    }
    return account;
  }
}

/** The reason in plain words and what to do about it. */
export const reasonOf: Record<LeftOutReason, { reason: string; remedy: string }> = {
  notRead: { reason: 'This kind of entity is not read in this version.', remedy: 'Break it up into lines, arcs and texts in the drawing program, if it matters here.' },
  tilted: { reason: 'It lies in a plane that is tilted against the plan.', remedy: 'Ask for a flattened 2D plan.' },
  damaged: { reason: 'Its numbers are missing, not finite or out of range.', remedy: 'Check the drawing in its own program and save it again.' },
  paper: { reason: 'It stands on a printed sheet (paper space), not in the plan.', remedy: 'Nothing to do, unless the plan itself was drawn there.' },
  solid: { reason: 'It is a solid or surface model, not lines.', remedy: 'Ask for a 2D export of this view.' },
  proxy: { reason: 'It is an object of another program that only that program can draw.', remedy: 'Ask for an export with such objects broken up.' },
  noGeometry: { reason: 'It has no geometry: fewer than two points, a radius of zero or an empty text.', remedy: 'Nothing to do.' },
  missingBlock: { reason: 'Its block is not in the file.', remedy: 'Ask for the drawing with its external references bound in.' },
};
