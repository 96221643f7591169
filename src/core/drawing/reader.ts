import { fail, ok, type Result } from '@/core/result';
import { Ledger, type Account, type LeftOutReason, type Reference } from './account';
import { BinaryScanner } from './binary';
import { Blocks, referenceOf } from './blocks';
import { StringDecoder } from './codePage';
import { Flag, type Drawing } from './drawing';
import { builders, unreadable } from './entities';
import type { EntityBuilder, EntityContext } from './entities/context';
import { HeavyPolyline } from './entities/polylines';
import { HeaderReader } from './header';
import { Interner } from './interner';
import { defaultLimits, type ReadLimits } from './limits';
import { GroupScanner, type GroupSink, type Scanner } from './lines';
import { recognise } from './recognise';
import { Record } from './record';
import { Rows } from './rows';
import { Tables } from './tables';

/** What reading a file gave. */
export interface Reading {
  drawing: Drawing;
  account: Account;
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
  private tables = new Tables();
  private blocks = new Blocks(this.rows);
  private header = new HeaderReader();
  private kinds: KindEntry[] = [];
  private section = '';
  private type = -1;
  private handle = 0;
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

  constructor(private limits: ReadLimits = defaultLimits) {
    this.record = new Record(limits.groupsOfEntity);
    this.context = {
      record: this.record,
      rows: this.rows,
      blockNames: this.blocks.names,
      decoder: this.decoder,
      layer: 0,
      style: 0,
      handle: 0,
      flags: 0,
    };
    this.ledger = new Ledger(limits.warnings);
    this.scanner = new GroupScanner(this, limits.lineBytes);
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
    this.blocks.close();
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
    const account = this.ledger.finish((block) => this.blocks.placeOf(block), this.references);
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
    const mended = this.tables.mended + this.blocks.names.mended + this.rows.mended;
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
      if (code === 9) this.header.begin(this.text(bytes, start, end));
      else if (this.header.tellsEncoding) this.decoder = this.header.encoding(this.text(bytes, start, end));
      return;
    }
    if (code === 2 && this.type >= 0 && this.typeNames.names[this.type] === 'SECTION') {
      this.section = this.text(bytes, start, end);
      this.sections += 1;
      this.type = -1;
      return;
    }
    this.record.add(code, bytes, start, end);
  }

  number(code: number, value: number): void {
    if (this.ended || this.error !== null) return;
    if (this.section === 'HEADER') this.header.number(code, value);
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

  /** Ends what the groups since the last 0 described. */
  private closeEntity(): void {
    if (this.type < 0) return;
    const name = this.typeNames.names[this.type];
    const type = this.type;
    this.type = -1;
    if (name === 'ENDSEC') {
      this.closePolyline();
      this.blocks.close();
      this.section = '';
      this.header.begin();
      return;
    }
    if (name === 'EOF') {
      this.ended = true;
      return;
    }
    if (this.section === 'TABLES') {
      if (name === 'LAYER') this.tables.addLayer(this.record, this.decoder);
      else if (name === 'LTYPE') this.tables.addLineType(this.record, this.decoder);
      return;
    }
    if (this.section === 'OBJECTS') return this.definition(name);
    if (this.section === 'BLOCKS') {
      if (name === 'BLOCK') return this.beginBlock();
      if (name === 'ENDBLK') {
        this.closePolyline();
        return this.blocks.close();
      }
      if (this.blocks.isOpen) this.entity(this.kindOf(type, name));
    } else if (this.section === 'ENTITIES') {
      if (this.modelFirst < 0) this.modelFirst = this.rows.count;
      this.entity(this.kindOf(type, name));
      this.modelCount = this.rows.count - this.modelFirst;
    }
  }

  /** Objects that name a file which the drawing points at. */
  private definition(name: string): void {
    const found = referenceOf(name, this.record, this.decoder);
    if (found !== null && !this.references.some(({ path }) => path === found.path)) this.references.push(found);
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
    context.style = this.tables.styleOf(record, this.decoder);
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
    if (record.number(67, 0) === 1 || this.blocks.isPaper) return this.leaveOut(kind, 'paper', layer);
    if (kind.name === 'POLYLINE') {
      this.polyline = { heavy: new HeavyPolyline({ ...context }), kind };
      return;
    }
    if (kind.builder === null) return this.leaveOut(kind, kind.refused, layer);
    const refused = kind.builder(context);
    if (refused !== null) return this.leaveOut(kind, refused, layer);
    this.ledger.count(kind.read, layer, this.blocks.counted);
  }

  private leaveOut(kind: KindEntry, reason: LeftOutReason, layer: number): void {
    this.ledger.count(this.ledger.key(kind.name, reason), layer, this.blocks.counted);
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
    else this.ledger.count(kind.read, heavy.context.layer, this.blocks.counted);
    if (this.modelFirst >= 0) this.modelCount = this.rows.count - this.modelFirst;
  }

  private layerOf(record: Record): number {
    const layer = this.tables.layerOf(record, this.decoder);
    if (layer !== null) return layer;
    this.ledger.warn(
      'layers',
      'The file has more than 65,535 layers; what lies on the rest is shown on layer 0.',
      this.scanner.line,
    );
    return 0;
  }

  private beginBlock(): void {
    const { name, reference } = this.blocks.begin(this.record, this.decoder);
    if (this.record.broken)
      this.ledger.warn(
        'damaged',
        `The base point of block "${name}" is not a number; zero was taken.`,
        this.scanner.line,
      );
    if (reference) this.references.push({ kind: 'drawing', path: reference, name });
  }

  private drawing(): Drawing {
    const space = { first: this.modelFirst, count: this.modelCount };
    const { blocks, model } = this.blocks.finish(this.ledger, space);
    return { header: this.header.header, ...this.tables.finish(), blocks, model, ...this.rows.finish() };
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
