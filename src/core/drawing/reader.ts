import { fail, ok, type Result } from '@/core/result';
import { Ledger, type Account, type LeftOutReason } from './account';
import { encodingOf, StringDecoder } from './codePage';
import { byLayer, Flag, trueColour, type Block, type Drawing, type DrawingHeader, type Layer, type Style } from './drawing';
import { builders, unreadable } from './entities';
import type { EntityBuilder, EntityContext } from './entities/context';
import { HeavyPolyline } from './entities/polylines';
import { Interner } from './interner';
import { defaultLimits, type ReadLimits } from './limits';
import { GroupScanner, type GroupSink } from './lines';
import { parseFloatBytes, parseIntBytes } from './numerals';
import { recognise } from './recognise';
import { Record } from './record';
import { Rows } from './rows';
import { plainText } from './strings';

/** What reading a file gave. */
export interface Reading { drawing: Drawing; account: Account }

interface KindEntry { name: string; builder: EntityBuilder | null; read: number; refused: LeftOutReason }

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
  private scanner: GroupScanner;
  private record: Record;
  private rows = new Rows();
  private ledger: Ledger;
  private decoder = new StringDecoder('utf-8');
  private typeNames = new Interner((name) => name, (raw) => raw.trim());
  private layerNames = new Interner(undefined, plainText);
  private blockNames = new Interner(undefined, plainText);
  private lineTypes = new Interner();
  private kinds: KindEntry[] = [];
  private styles: Style[] = [];
  private styleIndex = new Map<string, number>();
  private lastStyle = { colour: NaN, lineType: NaN, lineWeight: NaN, index: 0 };
  private layers = new Map<number, Layer>();
  private blocks: (Block & { nameIndex: number })[] = [];
  private header: DrawingHeader = { version: 'AC1009', codePage: '', insUnits: null, measurement: null, extMin: null, extMax: null };
  private variable = '';
  private section = '';
  private type = -1;
  private handle = 0;
  private openBlock: (Block & { nameIndex: number }) | null = null;
  private modelFirst = -1;
  private modelCount = 0;
  private polyline: { heavy: HeavyPolyline; kind: KindEntry } | null = null;
  private ended = false;
  private sections = 0;
  private error: string | null = null;
  private head: Uint8Array | null = new Uint8Array(0);

  constructor(private limits: ReadLimits = defaultLimits) {
    this.record = new Record(limits.groupsOfEntity);
    this.ledger = new Ledger(limits.warnings);
    this.scanner = new GroupScanner(this, limits.lineBytes);
    this.layerNames.named('0');
    this.lineTypes.named('BYLAYER');
  }

  /** Takes the next bytes. @returns false where reading on is no use; `finish` then says why. */
  push(chunk: Uint8Array, last = false): boolean {
    if (this.error !== null) return false;
    let bytes = chunk;
    if (this.head !== null) {
      bytes = new Uint8Array(this.head.length + chunk.length);
      bytes.set(this.head);
      bytes.set(chunk, this.head.length);
      if (bytes.length < 64 && !last) { this.head = bytes; return true; }
      this.head = null;
      const verdict = recognise(bytes);
      if (!verdict.ok) { this.error = verdict.message; return false; }
      if (bytes[0] === 0xef) bytes = bytes.subarray(3);
    }
    if (!this.scanner.push(bytes, last)) {
      this.error = `Line ${this.scanner.line + 1} is longer than ${this.limits.lineBytes.toLocaleString('en')} bytes, which no DXF has. The file is damaged or not a DXF; export it again.`;
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
    if (this.sections === 0) return fail('No section was found in the file: it may be damaged from its first lines on. Export the drawing again.');
    if (!this.ended) this.ledger.warn('noEnd', 'The file ends without its EOF mark: it may have been cut short. What was there has been read.', this.scanner.line);
    const drawing = this.drawing();
    const account = this.ledger.finish();
    if (drawing.kind.length === 0 && account.leftOut.length === 0 && account.warnings.length === 0) {
      account.warnings.push({ code: 'empty', message: 'No entity was found in the file. If the plan should hold something, its ENTITIES section is missing or damaged; export it again.', line: this.scanner.line, handle: '' });
    }
    return ok({ drawing, account });
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
      this.headerGroup(code, bytes, start, end);
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

  lost(line: number, found: string): void {
    if (this.ended) return;
    this.ledger.warn('outOfStep', `At line ${line} a group code was expected and "${found}" was found: a line was lost or doubled there. One entity was dropped and reading went on at the next.`, line);
    if (this.type >= 0 && this.record.length > 0) this.record.broken = true;
  }

  private headerGroup(code: number, bytes: Uint8Array, start: number, end: number): void {
    if (code === 9) { this.variable = this.decoder.decode(bytes.slice(start, end)).trim(); return; }
    const header = this.header;
    switch (this.variable) {
      case '$ACADVER':
      case '$DWGCODEPAGE': {
        const text = this.decoder.decode(bytes.slice(start, end)).trim();
        if (this.variable === '$ACADVER') header.version = text; else header.codePage = text;
        this.decoder = new StringDecoder(encodingOf(header.version, header.codePage));
        break;
      }
      case '$INSUNITS': header.insUnits = finite(parseIntBytes(bytes, start, end)); break;
      case '$MEASUREMENT': header.measurement = finite(parseIntBytes(bytes, start, end)); break;
      case '$EXTMIN':
      case '$EXTMAX': {
        const value = finite(parseFloatBytes(bytes, start, end));
        if (value === null || (code !== 10 && code !== 20)) break;
        const corner = (this.variable === '$EXTMIN' ? header.extMin : header.extMax) ?? [0, 0];
        corner[code === 10 ? 0 : 1] = value;
        if (this.variable === '$EXTMIN') header.extMin = corner; else header.extMax = corner;
      }
    }
  }

  /** Ends what the groups since the last 0 described. */
  private closeEntity(): void {
    if (this.type < 0) return;
    const name = this.typeNames.names[this.type];
    const type = this.type;
    this.type = -1;
    if (name === 'ENDSEC') { this.closePolyline(); this.closeBlock(); this.section = ''; this.variable = ''; return; }
    if (name === 'EOF') { this.ended = true; return; }
    if (this.section === 'TABLES') { if (name === 'LAYER') this.layerEntry(); return; }
    if (this.section === 'BLOCKS') {
      if (name === 'BLOCK') return this.beginBlock();
      if (name === 'ENDBLK') { this.closePolyline(); return this.closeBlock(); }
      if (this.openBlock !== null) this.entity(this.kindOf(type, name));
    } else if (this.section === 'ENTITIES') {
      if (this.modelFirst < 0) this.modelFirst = this.rows.count;
      this.entity(this.kindOf(type, name));
      this.modelCount = this.rows.count - this.modelFirst;
    }
  }

  private kindOf(type: number, name: string): KindEntry {
    return (this.kinds[type] ??= {
      name, builder: builders.get(name) ?? null, read: this.ledger.key(name, null), refused: unreadable.get(name) ?? 'notRead',
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
    const context: EntityContext = {
      record, rows: this.rows, blockNames: this.blockNames, decoder: this.decoder, layer, style: this.styleOf(record),
      handle: record.handle(), flags: (record.number(67, 0) === 1 ? Flag.paper : 0) | (record.number(60, 0) === 1 ? Flag.invisible : 0),
    };
    this.handle = context.handle;
    if (this.rows.count >= this.limits.entities) {
      this.error = `The file holds more than ${this.limits.entities.toLocaleString('en')} entities, the limit set for reading. Cut the drawing into parts, or raise the limit.`;
      return;
    }
    if (record.overfull) this.ledger.warn('tooLong', `An entity has more than ${this.limits.groupsOfEntity.toLocaleString('en')} groups; the rest of it was dropped.`, this.scanner.line, hex(this.handle));
    if (record.broken) return this.leaveOut(kind, 'damaged', layer);
    if ((context.flags & Flag.paper) !== 0) return this.leaveOut(kind, 'paper', layer);
    if (kind.name === 'POLYLINE') { this.polyline = { heavy: new HeavyPolyline(context), kind }; return; }
    if (kind.builder === null) return this.leaveOut(kind, kind.refused, layer);
    const refused = kind.builder(context);
    if (refused !== null) return this.leaveOut(kind, refused, layer);
    this.ledger.count(kind.read, layer);
  }

  private leaveOut(kind: KindEntry, reason: LeftOutReason, layer: number): void {
    this.ledger.count(this.ledger.key(kind.name, reason), layer);
    if (reason === 'damaged') this.ledger.warn('damaged', `A ${kind.name} near line ${this.scanner.line} has numbers that are missing, not finite or out of range; it was left out.`, this.scanner.line, hex(this.handle));
  }

  private closePolyline(): void {
    if (this.polyline === null) return;
    const { heavy, kind } = this.polyline;
    this.polyline = null;
    const refused = heavy.finish();
    if (refused !== null) this.leaveOut(kind, refused, heavy.context.layer);
    else this.ledger.count(kind.read, heavy.context.layer);
    if (this.modelFirst >= 0) this.modelCount = this.rows.count - this.modelFirst;
  }

  private layerOf(record: Record): number {
    const name = record.bytes(8);
    if (name === null) return 0;
    const index = this.layerNames.intern(name, 0, name.length, this.decoder);
    if (index < 65535) return index;
    this.ledger.warn('layers', 'The file has more than 65,535 layers; what lies on the rest is shown on layer 0.', this.scanner.line);
    return 0;
  }

  private styleOf(record: Record): number {
    const lineTypeBytes = record.bytes(6);
    const lineType = lineTypeBytes === null ? 0 : this.lineTypes.intern(lineTypeBytes, 0, lineTypeBytes.length, this.decoder);
    const colour = record.has(420) ? trueColour + (record.number(420, 0) & 0xffffff) : Math.abs(record.number(62, byLayer));
    const lineWeight = record.number(370, -1);
    const last = this.lastStyle;
    if (last.colour === colour && last.lineType === lineType && last.lineWeight === lineWeight) return last.index;
    const key = `${colour}/${lineType}/${lineWeight}`;
    let index = this.styleIndex.get(key);
    if (index === undefined) {
      index = this.styles.length;
      if (index > 65535) return 0;
      this.styles.push({ colour, lineType: this.lineTypes.names[lineType], lineWeight });
      this.styleIndex.set(key, index);
    }
    this.lastStyle = { colour, lineType, lineWeight, index };
    return index;
  }

  private layerEntry(): void {
    const name = this.record.bytes(2);
    if (name === null) return;
    const index = this.layerNames.intern(name, 0, name.length, this.decoder);
    const flags = this.record.number(70, 0);
    const colour = this.record.number(62, 7);
    this.layers.set(index, {
      name: this.layerNames.names[index], colour: this.record.has(420) ? trueColour + (this.record.number(420, 0) & 0xffffff) : Math.abs(colour),
      off: colour < 0, frozen: (flags & 1) === 1, locked: (flags & 4) === 4, plot: this.record.number(290, 1) !== 0,
    });
  }

  private beginBlock(): void {
    this.closeBlock();
    const name = this.record.bytes(2) ?? new Uint8Array(0);
    const nameIndex = this.blockNames.intern(name, 0, name.length, this.decoder);
    const reference = (this.record.number(70, 0) & 4) === 4 ? this.record.string(1, this.decoder) : null;
    this.openBlock = {
      name: this.blockNames.names[nameIndex], nameIndex, base: [this.record.number(10, 0), this.record.number(20, 0)],
      first: this.rows.count, count: 0, reference,
    };
    if (this.record.broken) { this.openBlock.base = [0, 0]; this.ledger.warn('damaged', `The base point of block "${this.openBlock.name}" is not a number; zero was taken.`, this.scanner.line); }
    if (reference) this.ledger.warn('reference', `The external reference "${reference}" is not in this file. Ask for the drawing with its references bound in.`, this.scanner.line);
  }

  private closeBlock(): void {
    if (this.openBlock === null) return;
    this.openBlock.count = this.rows.count - this.openBlock.first;
    this.blocks.push(this.openBlock);
    this.openBlock = null;
  }

  private drawing(): Drawing {
    const blockOfName = new Map(this.blocks.map((block, i) => [block.nameIndex, i]));
    this.rows.eachInsert((at) => {
      const block = blockOfName.get(this.rows.numbers.array[at]);
      if (block === undefined) {
        const name = this.blockNames.names[this.rows.numbers.array[at]];
        this.ledger.warn('missingBlock', `Block "${name}" is inserted but not in the file; nothing is shown for it. Ask for the drawing again.`, 0);
      }
      this.rows.numbers.array[at] = block ?? -1;
    });
    const layers = this.layerNames.names.map((name, i) => this.layers.get(i) ?? { name, colour: 7, off: false, frozen: false, locked: false, plot: true });
    const model: Block = { name: '', base: [0, 0], first: Math.max(0, this.modelFirst), count: this.modelCount, reference: null };
    const blocks = this.blocks.map(({ name, base, first, count, reference }): Block => ({ name, base, first, count, reference }));
    return { header: this.header, layers, styles: this.styles.length > 0 ? this.styles : [{ colour: byLayer, lineType: 'BYLAYER', lineWeight: -1 }], blocks: [...blocks, model], model: blocks.length, ...this.rows.finish() };
  }
}

const finite = (value: number) => (Number.isFinite(value) ? value : null);
const hex = (handle: number) => (handle === 0 ? '' : handle.toString(16).toUpperCase());

/** Reads a DXF that is in memory whole. */
export function readDxf(bytes: Uint8Array, limits: ReadLimits = defaultLimits): Result<Reading> {
  const reader = new DxfReader(limits);
  const step = 1 << 20;
  for (let at = 0; at < bytes.length; at += step) if (!reader.push(bytes.subarray(at, at + step))) break;
  return reader.finish();
}
