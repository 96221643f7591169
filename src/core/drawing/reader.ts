import { fail, ok, type Result } from '@/core/result';
import { Ledger, type Account, type LeftOutReason, type Reference } from './account';
import { BinaryScanner } from './binary';
import { encodingOf, StringDecoder } from './codePage';
import {
  byLayer,
  Flag,
  Kind,
  kindNames,
  trueColour,
  type Block,
  type Drawing,
  type DrawingHeader,
  type Layer,
  type Style,
} from './drawing';
import { builders, unreadable } from './entities';
import type { EntityBuilder, EntityContext } from './entities/context';
import { HeavyPolyline } from './entities/polylines';
import { Interner } from './interner';
import { defaultLimits, type ReadLimits } from './limits';
import { GroupScanner, type GroupSink, type Scanner } from './lines';
import { recognise } from './recognise';
import { Record } from './record';
import { Rows } from './rows';
import { plainText } from './strings';

/** What reading a file gave. */
export interface Reading {
  drawing: Drawing;
  account: Account;
}

interface OpenBlock extends Block {
  nameIndex: number;
  paper: boolean;
}

interface KindEntry {
  name: string;
  builder: EntityBuilder | null;
  read: number;
  refused: LeftOutReason;
}

/**
 * Reads a DXF that comes in chunks into the columns of a `Drawing` and the account of what was left out.
 *
 * ```ts
 * const reader = new DxfReader();
 * for (const chunk of chunks) if (!reader.push(chunk)) break;
 * const result = reader.finish();
 * ```
 * Source: DXF reference, group codes and ENTITIES section.
 */
export class DxfReader implements GroupSink {
  private scanner: Scanner;
  private record: Record;
  /** Filled anew for each entity. */
  private context: EntityContext;
  private rows = new Rows();
  private ledger: Ledger;
  private decoder = new StringDecoder('utf-8');
  private typeNames = new Interner(
    (name) => name,
    (raw) => raw.trim(),
  );
  private layerNames = new Interner(undefined, plainText);
  private blockNames = new Interner(undefined, plainText);
  private lineTypes = new Interner();
  private kinds: KindEntry[] = [];
  private styles: Style[] = [];
  private styleIndex = new Map<string, number>();
  private lastStyle = { colour: NaN, lineType: NaN, lineTypeScale: NaN, lineWeight: NaN, index: 0 };
  private layers = new Map<number, Layer>();
  private blocks: OpenBlock[] = [];
  /** Places in the drawing of the blocks, by the number of their name. */
  private finalBlock = new Map<number, number>();
  private header: DrawingHeader = {
    version: 'AC1009',
    codePage: '',
    insUnits: null,
    measurement: null,
    lengthFormat: null,
    dimensionFactor: null,
    lineTypeScale: 1,
    insertionBase: null,
    extMin: null,
    extMax: null,
  };
  private variable = '';
  private section = '';
  private type = -1;
  private handle = 0;
  private openBlock: OpenBlock | null = null;
  private modelFirst = -1;
  private modelCount = 0;
  private polyline: { heavy: HeavyPolyline; kind: KindEntry } | null = null;
  private ended = false;
  private sections = 0;
  private error: string | null = null;
  private head: Uint8Array | null = new Uint8Array(0);
  /** What positions in the file are counted in. */
  private place: 'line' | 'byte' = 'line';
  private references: Reference[] = [];
  private dashes = new Map<string, number[]>();

  constructor(private limits: ReadLimits = defaultLimits) {
    this.record = new Record(limits.groupsOfEntity);
    this.context = {
      record: this.record,
      rows: this.rows,
      blockNames: this.blockNames,
      decoder: this.decoder,
      layer: 0,
      style: 0,
      handle: 0,
      flags: 0,
    };
    this.ledger = new Ledger(limits.warnings);
    this.scanner = new GroupScanner(this, limits.lineBytes);
    this.layerNames.named('0');
    this.lineTypes.named('BYLAYER');
  }

  /** Takes the next bytes. @returns false where reading on is no use; `finish` then says why. */
  push(part: Uint8Array, last = false): boolean {
    if (this.error !== null) return false;
    // Kinds of byte arrays beside the plain one (Node's buffers) make every loop over bytes several times slower where
    // both occur.
    const chunk = part.constructor === Uint8Array ? part : new Uint8Array(part.buffer, part.byteOffset, part.length);
    let bytes = chunk;
    if (this.head !== null) {
      bytes = new Uint8Array(this.head.length + chunk.length);
      bytes.set(this.head);
      bytes.set(chunk, this.head.length);
      if (bytes.length < 64 && !last) {
        this.head = bytes;
        return true;
      }
      this.head = null;
      const verdict = recognise(bytes);
      if (!verdict.ok) {
        this.error = verdict.message;
        return false;
      }
      if (verdict.value === 'binary') {
        this.scanner = new BinaryScanner(this, this.limits.lineBytes);
        this.place = 'byte';
      } else if (bytes[0] === 0xef) bytes = bytes.subarray(3);
    }
    if (!this.scanner.push(bytes, last)) {
      const at = this.scanner.line;
      const what = this.place === 'line' ? `Line ${at + 1}` : `The value at byte ${at.toLocaleString('en')}`;
      this.error =
        `${what} is longer than ${this.limits.lineBytes.toLocaleString('en')} bytes, which no DXF has. ` +
        'The file is damaged or not a DXF; export it again.';
    }
    return this.error === null;
  }

  /** Ends the reading. */
  finish(): Result<Reading> {
    if (this.error === null) this.push(new Uint8Array(0), true);
    if (this.error !== null) return fail(this.error);
    this.closeEntity();
    this.closePolyline();
    this.closeBlock();
    if (this.sections === 0)
      return fail(
        'No section was found in the file: it may be damaged from its first lines on. Export the drawing again.',
      );
    if (!this.ended)
      this.ledger.warn(
        'noEnd',
        'The file ends without its EOF mark: it may have been cut short. What was there has been read.',
        this.scanner.line,
      );
    this.tellMended();
    const drawing = this.drawing();
    const account = this.ledger.finish(
      (block) => (block === 0 ? drawing.model : (this.finalBlock.get(block - 1) ?? drawing.model)),
      this.references,
    );
    if (drawing.kind.length === 0 && account.leftOut.length === 0 && account.warnings.length === 0) {
      account.warnings.push({
        code: 'empty',
        message:
          'No entity was found in the file. If the plan should hold something, its ENTITIES ' +
          'section is missing or damaged; export it again.',
        line: this.scanner.line,
        handle: '',
      });
    }
    return ok({ drawing, account });
  }

  private tellMended(): void {
    const names = this.layerNames.mended + this.blockNames.mended + this.lineTypes.mended;
    const mended = names + this.rows.mended;
    if (mended === 0) return;
    this.ledger.warn(
      'characters',
      `${mended.toLocaleString('en')} texts or names were too long or held characters that are ` +
        'none, such as NUL; these are shown as \u201c\ufffd\u201d, and long names are cut.',
      this.scanner.line,
    );
  }

  group(code: number, bytes: Uint8Array, start: number, end: number): void {
    if (this.ended || this.error !== null) return;
    if (code === 0) {
      this.closeEntity();
      this.type = this.typeNames.intern(bytes, start, end, this.decoder);
      this.record.clear();
      return;
    }
    if (this.section === 'HEADER') {
      if (code === 9) this.variable = this.text(bytes, start, end);
      else if (this.variable === '$ACADVER' || this.variable === '$DWGCODEPAGE')
        this.setEncoding(this.text(bytes, start, end));
      return;
    }
    if (code === 2 && this.type >= 0 && this.typeNames.names[this.type] === 'SECTION') {
      this.section = this.decoder.decode(bytes.slice(start, end)).trim();
      this.sections += 1;
      this.type = -1;
      return;
    }
    this.record.add(code, bytes, start, end);
  }

  number(code: number, value: number): void {
    if (this.ended || this.error !== null) return;
    if (this.section === 'HEADER') this.headerNumber(code, value);
    else this.record.put(code, value);
  }

  lost(line: number, found: string): void {
    if (this.ended) return;
    this.ledger.warn(
      'outOfStep',
      `At ${this.place} ${line.toLocaleString('en')} a group code was expected and "${found}" ` +
        'was found: something was lost or doubled there. One entity was dropped and reading went ' +
        'on at the next.',
      line,
    );
    if (this.type >= 0 && this.record.length > 0) this.record.broken = true;
  }

  private text(bytes: Uint8Array, start: number, end: number): string {
    return this.decoder.decode(bytes.slice(start, end)).trim();
  }

  private setEncoding(text: string): void {
    if (this.variable === '$ACADVER') this.header.version = text;
    else this.header.codePage = text;
    this.decoder = new StringDecoder(encodingOf(this.header.version, this.header.codePage));
  }

  private headerNumber(code: number, value: number): void {
    const header = this.header;
    if (!Number.isFinite(value)) return;
    const corner = (before: [number, number] | null): [number, number] | null => {
      if (code === 10) return [value, before?.[1] ?? 0];
      if (code === 20) return [before?.[0] ?? 0, value];
      return before;
    };
    switch (this.variable) {
      case '$INSUNITS':
        header.insUnits = Math.trunc(value);
        break;
      case '$MEASUREMENT':
        header.measurement = Math.trunc(value);
        break;
      case '$LUNITS':
        header.lengthFormat = Math.trunc(value);
        break;
      case '$DIMLFAC':
        header.dimensionFactor = value;
        break;
      case '$LTSCALE':
        if (value > 0) header.lineTypeScale = value;
        break;
      case '$INSBASE':
        header.insertionBase = corner(header.insertionBase);
        break;
      case '$EXTMIN':
        header.extMin = corner(header.extMin);
        break;
      case '$EXTMAX':
        header.extMax = corner(header.extMax);
        break;
    }
  }

  /** Ends what the groups since the last 0 described. */
  private closeEntity(): void {
    if (this.type < 0) return;
    const name = this.typeNames.names[this.type];
    const type = this.type;
    this.type = -1;
    if (name === 'ENDSEC') {
      this.closePolyline();
      this.closeBlock();
      this.section = '';
      this.variable = '';
      return;
    }
    if (name === 'EOF') {
      this.ended = true;
      return;
    }
    if (this.section === 'TABLES') {
      if (name === 'LAYER') this.layerEntry();
      else if (name === 'LTYPE') this.lineTypeEntry();
      return;
    }
    if (this.section === 'OBJECTS') return this.definition(name);
    if (this.section === 'BLOCKS') {
      if (name === 'BLOCK') return this.beginBlock();
      if (name === 'ENDBLK') {
        this.closePolyline();
        return this.closeBlock();
      }
      if (this.openBlock !== null) this.entity(this.kindOf(type, name));
    } else if (this.section === 'ENTITIES') {
      if (this.modelFirst < 0) this.modelFirst = this.rows.count;
      this.entity(this.kindOf(type, name));
      this.modelCount = this.rows.count - this.modelFirst;
    }
  }

  /** Objects that name a file which the drawing points at. */
  private definition(name: string): void {
    let kind: Reference['kind'] | null;
    if (name === 'IMAGEDEF') kind = 'picture';
    else if (/^(PDF|DWF|DGN)DEFINITION$/.test(name)) kind = 'document';
    else kind = null;

    const path = kind === null ? '' : this.record.string(1, this.decoder).trim();
    if (kind !== null && path !== '' && !this.references.some((known) => known.path === path))
      this.references.push({ kind, path, name: '' });
  }

  private lineTypeEntry(): void {
    const name = this.record.string(2, this.decoder);
    const dashes: number[] = [];
    for (let i = 0; i < this.record.length; i += 1) if (this.record.codes[i] === 49) dashes.push(this.record.values[i]);
    if (dashes.length > 0 && !this.record.broken) this.dashes.set(name.toLowerCase(), dashes);
  }

  private kindOf(type: number, name: string): KindEntry {
    return (this.kinds[type] ??= {
      name,
      builder: builders.get(name) ?? null,
      read: this.ledger.key(name, null),
      refused: unreadable.get(name) ?? 'notRead',
    });
  }

  private entity(kind: KindEntry): void {
    if (this.polyline !== null) {
      if (kind.name === 'VERTEX') {
        if (!this.record.broken) this.polyline.heavy.vertex(this.polyline.heavy.context);
        return;
      }
      this.closePolyline();
    }
    if (kind.name === 'SEQEND' || kind.name === 'VERTEX') return;
    const record = this.record;
    const layer = this.layerOf(record);
    const context = this.context;
    context.decoder = this.decoder;
    context.layer = layer;
    context.style = this.styleOf(record);
    context.handle = record.handle();
    context.flags = record.number(60, 0) === 1 ? Flag.invisible : 0;
    this.handle = context.handle;
    if (this.rows.count >= this.limits.entities) {
      this.error =
        `The file holds more than ${this.limits.entities.toLocaleString('en')} entities, the limit set for reading. ` +
        'Cut the drawing into parts, or raise the limit.';
      return;
    }
    if (record.overfull)
      this.ledger.warn(
        'tooLong',
        `An entity has more than ${this.limits.groupsOfEntity.toLocaleString('en')} groups; the rest of it was dropped.`,
        this.scanner.line,
        hex(this.handle),
      );
    if (record.broken) return this.leaveOut(kind, 'damaged', layer);
    if (record.number(67, 0) === 1 || this.openBlock?.paper === true) return this.leaveOut(kind, 'paper', layer);
    if (kind.name === 'POLYLINE') {
      this.polyline = { heavy: new HeavyPolyline({ ...context }), kind };
      return;
    }
    if (kind.builder === null) return this.leaveOut(kind, kind.refused, layer);
    const refused = kind.builder(context);
    if (refused !== null) return this.leaveOut(kind, refused, layer);
    this.ledger.count(kind.read, layer, this.blockCounted());
  }

  /** The number under which the ledger counts the block that is open. */
  private blockCounted(): number {
    return this.openBlock === null ? 0 : this.openBlock.nameIndex + 1;
  }

  private leaveOut(kind: KindEntry, reason: LeftOutReason, layer: number): void {
    this.ledger.count(this.ledger.key(kind.name, reason), layer, this.blockCounted());
    if (reason === 'damaged')
      this.ledger.warn(
        'damaged',
        `A ${kind.name} near ${this.place} ${this.scanner.line.toLocaleString('en')} has numbers ` +
          'that are missing, not finite or out of range; it was left out.',
        this.scanner.line,
        hex(this.handle),
      );
  }

  private closePolyline(): void {
    if (this.polyline === null) return;
    const { heavy, kind } = this.polyline;
    this.polyline = null;
    const refused = heavy.finish();
    if (refused !== null) this.leaveOut(kind, refused, heavy.context.layer);
    else this.ledger.count(kind.read, heavy.context.layer, this.blockCounted());
    if (this.modelFirst >= 0) this.modelCount = this.rows.count - this.modelFirst;
  }

  private layerOf(record: Record): number {
    const index = record.internIn(this.layerNames, 8, this.decoder);
    if (index < 0) return 0;
    if (index < 65535) return index;
    this.ledger.warn(
      'layers',
      'The file has more than 65,535 layers; what lies on the rest is shown on layer 0.',
      this.scanner.line,
    );
    return 0;
  }

  private styleOf(record: Record): number {
    const lineType = Math.max(0, record.internIn(this.lineTypes, 6, this.decoder));
    const colour = record.has(420)
      ? trueColour + (record.number(420, 0) & 0xffffff)
      : Math.abs(record.number(62, byLayer));
    const lineWeight = record.number(370, -1);
    const lineTypeScale = record.number(48, 1);
    const last = this.lastStyle;
    if (
      last.colour === colour &&
      last.lineType === lineType &&
      last.lineWeight === lineWeight &&
      last.lineTypeScale === lineTypeScale
    )
      return last.index;
    const key = `${colour}/${lineType}/${lineWeight}/${lineTypeScale}`;
    let index = this.styleIndex.get(key);
    if (index === undefined) {
      index = this.styles.length;
      if (index > 65535) return 0;
      this.styles.push({ colour, lineType: this.lineTypes.names[lineType], lineTypeScale, lineWeight });
      this.styleIndex.set(key, index);
    }
    this.lastStyle = { colour, lineType, lineTypeScale, lineWeight, index };
    return index;
  }

  private layerEntry(): void {
    const name = this.record.bytes(2);
    if (name === null) return;
    const index = this.layerNames.intern(name, 0, name.length, this.decoder);
    const flags = this.record.number(70, 0);
    const colour = this.record.number(62, 7);
    this.layers.set(index, {
      name: this.layerNames.names[index],
      colour: this.record.has(420) ? trueColour + (this.record.number(420, 0) & 0xffffff) : Math.abs(colour),
      off: colour < 0,
      frozen: (flags & 1) === 1,
      locked: (flags & 4) === 4,
      plot: this.record.number(290, 1) !== 0,
      lineType: this.record.string(6, this.decoder) || 'CONTINUOUS',
      lineWeight: this.record.number(370, -3),
    });
  }

  private beginBlock(): void {
    this.closeBlock();
    const name = this.record.bytes(2) ?? new Uint8Array(0);
    const nameIndex = this.blockNames.intern(name, 0, name.length, this.decoder);
    const reference = (this.record.number(70, 0) & 4) === 4 ? this.record.string(1, this.decoder) : null;
    this.openBlock = {
      name: this.blockNames.names[nameIndex],
      nameIndex,
      base: [this.record.number(10, 0), this.record.number(20, 0)],
      first: this.rows.count,
      count: 0,
      reference,
      paper: /^[*$]paper_space/i.test(this.blockNames.names[nameIndex]),
    };
    if (this.record.broken) {
      this.openBlock.base = [0, 0];
      this.ledger.warn(
        'damaged',
        `The base point of block "${this.openBlock.name}" is not a number; zero was taken.`,
        this.scanner.line,
      );
    }
    if (reference) this.references.push({ kind: 'drawing', path: reference, name: this.openBlock.name });
  }

  private closeBlock(): void {
    if (this.openBlock === null) return;
    this.openBlock.count = this.rows.count - this.openBlock.first;
    this.blocks.push(this.openBlock);
    this.openBlock = null;
  }

  private drawing(): Drawing {
    this.blocks.forEach((block, i) => this.finalBlock.set(block.nameIndex, i));
    this.resolveBlocks();
    const layers = this.layerNames.names.map(
      (name, i) =>
        this.layers.get(i) ?? {
          name,
          colour: 7,
          off: false,
          frozen: false,
          locked: false,
          plot: true,
          lineType: 'CONTINUOUS',
          lineWeight: -3,
        },
    );
    const model: Block = {
      name: '',
      base: [0, 0],
      first: Math.max(0, this.modelFirst),
      count: this.modelCount,
      reference: null,
    };
    // Some writers keep the model space in the block of its name.
    const held = this.blocks.find(({ name }) => /^[*$]model_space$/i.test(name));
    if (model.count === 0 && held) {
      model.first = held.first;
      model.count = held.count;
    }
    const blocks = this.blocks.map(({ name, base, first, count, reference }): Block => ({
      name,
      base,
      first,
      count,
      reference,
    }));
    const lineTypes = this.lineTypes.names.flatMap((name) => {
      const dashes = this.dashes.get(name.toLowerCase());
      return dashes ? [{ name, dashes }] : [];
    });
    for (const layer of layers) {
      const dashes = this.dashes.get(layer.lineType.toLowerCase());
      if (dashes && !lineTypes.some(({ name }) => name.toLowerCase() === layer.lineType.toLowerCase()))
        lineTypes.push({ name: layer.lineType, dashes });
    }
    return {
      header: this.header,
      layers,
      styles:
        this.styles.length > 0
          ? this.styles
          : [{ colour: byLayer, lineType: 'BYLAYER', lineTypeScale: 1, lineWeight: -1 }],
      lineTypes,
      blocks: [...blocks, model],
      model: blocks.length,
      ...this.rows.finish(),
    };
  }

  /**
   * Puts blocks' places for their names' numbers, and accounts for what stands for a block that has nothing to show.
   */
  private resolveBlocks(): void {
    const missing = new Map<string, number>();
    let blockOfRow = 0;
    const inOrder = [...this.blocks].sort((a, b) => a.first - b.first);
    this.rows.eachBlockRow((row, at) => {
      while (blockOfRow < inOrder.length && row >= inOrder[blockOfRow].first + inOrder[blockOfRow].count)
        blockOfRow += 1;
      const holder =
        blockOfRow < inOrder.length && row >= inOrder[blockOfRow].first ? inOrder[blockOfRow].nameIndex + 1 : 0;
      const nameIndex = this.rows.numbers.array[at];
      const block = this.finalBlock.get(nameIndex);
      this.rows.numbers.array[at] = block ?? -1;
      const kind = this.rows.kind.array[row];
      // A dimension without its picture is drawn from its points.
      if (kind === Kind.dimension || (block !== undefined && this.blocks[block].count > 0)) return;
      let reason: LeftOutReason;
      if (block === undefined) reason = 'missingBlock';
      else if (this.blocks[block].reference !== null) reason = 'reference';
      else reason = 'emptyBlock';

      const layer = this.rows.layer.array[row];
      this.ledger.count(this.ledger.key(kindNames[kind], null), layer, holder, -1);
      this.ledger.count(this.ledger.key(kindNames[kind], reason), layer, holder);
      if (block === undefined)
        missing.set(this.blockNames.names[nameIndex], (missing.get(this.blockNames.names[nameIndex]) ?? 0) + 1);
    });
    for (const [name, count] of missing)
      this.ledger.warn(
        'missingBlock',
        `Block "${name}" is inserted ` +
          `${count === 1 ? 'once' : `${count.toLocaleString('en')} times`} but is not in the file; ` +
          'nothing is shown for it. Ask for the drawing again.',
        0,
      );
  }
}

const hex = (handle: number) => (handle === 0 ? '' : handle.toString(16).toUpperCase());

/** Reads a DXF that is in memory whole. */
export function readDxf(bytes: Uint8Array, limits: ReadLimits = defaultLimits): Result<Reading> {
  const reader = new DxfReader(limits);
  const step = 1 << 20;
  for (let at = 0; at < bytes.length; at += step) if (!reader.push(bytes.subarray(at, at + step))) break;
  return reader.finish();
}
