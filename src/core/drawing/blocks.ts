import type { Ledger, LeftOutReason, Reference } from './account';
import type { StringDecoder } from './codePage';
import { Kind, kindNames, type Block } from './drawing';
import { Interner } from './interner';
import type { Record } from './record';
import type { Rows } from './rows';
import { plainText } from './strings';

interface OpenBlock extends Block {
  nameIndex: number;
  paper: boolean;
}

/** The blocks of a drawing: the one whose entities come, those that are whole, and what inserts ask for. */
export class Blocks {
  readonly names = new Interner(undefined, plainText);
  private readonly whole: OpenBlock[] = [];
  /** Places in the drawing of the blocks, by the number of their name. */
  private readonly places = new Map<number, number>();
  private open: OpenBlock | null = null;

  constructor(private readonly rows: Rows) {}

  /** Whether the entities that come are a block's. */
  get isOpen(): boolean {
    return this.open !== null;
  }

  /** Whether they are those of a page. */
  get isPaper(): boolean {
    return this.open?.paper === true;
  }

  /** The number under which the ledger counts what comes: the open block's, else the model space's. */
  get counted(): number {
    return this.open === null ? 0 : this.open.nameIndex + 1;
  }

  /** A block begins. @returns its name, and the file that it stands for */
  begin(record: Record, decoder: StringDecoder): Pick<Block, 'name' | 'reference'> {
    this.close();
    const bytes = record.bytes(2) ?? new Uint8Array(0);
    const nameIndex = this.names.intern(bytes, 0, bytes.length, decoder);
    const name = this.names.names[nameIndex];
    const reference = (record.number(70, 0) & 4) === 4 ? record.string(1, decoder) : null;
    this.open = {
      name,
      nameIndex,
      base: record.broken ? [0, 0] : [record.number(10, 0), record.number(20, 0)],
      first: this.rows.count,
      count: 0,
      reference,
      paper: /^[*$]paper_space/i.test(name),
    };
    return { name, reference };
  }

  close(): void {
    if (this.open === null) return;
    this.open.count = this.rows.count - this.open.first;
    this.whole.push(this.open);
    this.open = null;
  }

  /** The drawing's number of a block that the ledger counted under one of its own. */
  placeOf(counted: number): number {
    return counted === 0 ? this.whole.length : (this.places.get(counted - 1) ?? this.whole.length);
  }

  /** The blocks with the model space after them. @param model where its rows are */
  finish(ledger: Ledger, model: { first: number; count: number }): { blocks: Block[]; model: number } {
    this.whole.forEach((block, i) => this.places.set(block.nameIndex, i));
    this.resolve(ledger);
    // Some writers keep the model space in the block of its name.
    const held = this.whole.find(({ name }) => /^[*$]model_space$/i.test(name));
    const { first, count } = model.count === 0 && held ? held : model;
    const blocks = this.whole.map(({ name, base, first: from, count: length, reference }): Block => ({
      name,
      base,
      first: from,
      count: length,
      reference,
    }));
    const space: Block = { name: '', base: [0, 0], first: Math.max(0, first), count, reference: null };
    return { blocks: [...blocks, space], model: blocks.length };
  }

  /** Puts blocks' places for their names' numbers, and accounts for what stands for a block with nothing to show. */
  private resolve(ledger: Ledger): void {
    const missing = new Map<string, number>();
    let at = 0;
    const inOrder = [...this.whole].sort((a, b) => a.first - b.first);
    this.rows.eachBlockRow((row, place) => {
      while (at < inOrder.length && row >= inOrder[at].first + inOrder[at].count) at += 1;
      const holder = at < inOrder.length && row >= inOrder[at].first ? inOrder[at].nameIndex + 1 : 0;
      const nameIndex = this.rows.numbers.array[place];
      const block = this.places.get(nameIndex);
      this.rows.numbers.array[place] = block ?? -1;
      const kind = this.rows.kind.array[row];
      // A dimension without its picture is drawn from its points.
      if (kind === Kind.dimension || (block !== undefined && this.whole[block].count > 0)) return;
      const layer = this.rows.layer.array[row];
      ledger.count(ledger.key(kindNames[kind], null), layer, holder, -1);
      ledger.count(ledger.key(kindNames[kind], this.whyNothing(block)), layer, holder);
      const name = this.names.names[nameIndex];
      if (block === undefined) missing.set(name, (missing.get(name) ?? 0) + 1);
    });
    for (const [name, count] of missing)
      ledger.warn(
        'missingBlock',
        `Block "${name}" is inserted ` +
          `${count === 1 ? 'once' : `${count.toLocaleString('en')} times`} but is not in the file; ` +
          'nothing is shown for it. Ask for the drawing again.',
        0,
      );
  }

  /** Why nothing is shown for a block. */
  private whyNothing(block: number | undefined): LeftOutReason {
    if (block === undefined) return 'missingBlock';
    return this.whole[block].reference !== null ? 'reference' : 'emptyBlock';
  }
}

/** The file that an object of a drawing points at; null where it points at none. */
export function referenceOf(name: string, record: Record, decoder: StringDecoder): Reference | null {
  let kind: Reference['kind'];
  if (name === 'IMAGEDEF') kind = 'picture';
  else if (/^(PDF|DWF|DGN)DEFINITION$/.test(name)) kind = 'document';
  else return null;
  const path = record.string(1, decoder).trim();
  return path === '' ? null : { kind, path, name: '' };
}
