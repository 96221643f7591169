import { escaped, put } from './groups';
import { putTables, type OutLayer } from './tables';
import { headerCodeOf, type LengthUnit } from '@/core/units/length';
import type { Point } from '@/core/geometry/vector';

/** A place in space, in the drawing's unit. */
export type Spot = readonly [x: number, y: number, z: number];

/** The blocks that every file has: its model and its paper; what they hold stands elsewhere. */
const spaces = [
  { name: '*Model_Space', record: '1F', begin: '20', end: '21', body: [] },
  { name: '*Paper_Space', record: '1B', begin: '1C', end: '1D', body: [] },
];

/**
 * Writes a DXF of version AC1015 (R2000), the oldest that states its unit: header, the tables that readers
 * ask for, empty blocks for model and paper space, entities and the root dictionary.
 * Source: DXF reference, section by section. Strings beyond ASCII are written as \U+XXXX.
 */
export class DxfWriter {
  private lines: string[] = [];
  /** Entities of the model, and while a block is drawn that block's. */
  private body: string[] = [];
  /** What owns them: model space, or the block that is being drawn. */
  private owner = '1F';
  private readonly blocks: { name: string; record: string; begin: string; end: string; body: string[] }[] = [];
  private next = 0x100;
  private low: [number, number] = [Infinity, Infinity];
  private high: [number, number] = [-Infinity, -Infinity];

  constructor(
    private unit: LengthUnit,
    private layers: readonly OutLayer[],
  ) {}

  line(layer: string, a: Point, b: Point): void {
    this.edge(layer, [...a, 0], [...b, 0]);
  }

  /** A line in space. */
  edge(layer: string, [ax, ay, az]: Spot, [bx, by, bz]: Spot): void {
    this.entity(
      'LINE',
      layer,
      'AcDbLine',
      [
        [10, ax],
        [20, ay],
        [30, az],
        [11, bx],
        [21, by],
        [31, bz],
      ],
      [
        [ax, ay],
        [bx, by],
      ],
    );
  }

  /** Whether a block of this name is there. */
  hasBlock = (name: string): boolean => this.blocks.some((block) => block.name === name);

  /** A block about zero. @param draw draws it */
  block(name: string, draw: () => void): void {
    const [outside, low, high] = [this.body, this.low, this.high];
    const made = { name, record: this.handle(), begin: this.handle(), end: this.handle(), body: [] };
    [this.body, this.owner] = [made.body, made.record];
    draw();
    // What is drawn about zero is no part of the drawing's extent.
    [this.body, this.owner, this.low, this.high] = [outside, '1F', low, high];
    this.blocks.push(made);
  }

  /** A block at a place. @param turn degrees, counter-clockwise @param flipped whether its y is mirrored first */
  insert(layer: string, name: string, at: Point, turn: number, flipped: boolean): void {
    this.entity(
      'INSERT',
      layer,
      'AcDbBlockReference',
      [
        [2, escaped(name)],
        [10, at[0]],
        [20, at[1]],
        [30, 0],
        [41, 1],
        [42, flipped ? -1 : 1],
        [43, 1],
        [50, turn],
      ],
      [at],
    );
  }

  circle(layer: string, centre: Point, radius: number): void {
    this.entity(
      'CIRCLE',
      layer,
      'AcDbCircle',
      [
        [10, centre[0]],
        [20, centre[1]],
        [30, 0],
        [40, radius],
      ],
      [
        [centre[0] - radius, centre[1] - radius],
        [centre[0] + radius, centre[1] + radius],
      ],
    );
  }

  /** @param startAngle degrees, @param endAngle degrees, counter-clockwise */
  arc(layer: string, centre: Point, radius: number, startAngle: number, endAngle: number): void {
    this.entity(
      'ARC',
      layer,
      'AcDbCircle',
      [
        [10, centre[0]],
        [20, centre[1]],
        [30, 0],
        [40, radius],
        [100, 'AcDbArc'],
        [50, startAngle],
        [51, endAngle],
      ],
      [
        [centre[0] - radius, centre[1] - radius],
        [centre[0] + radius, centre[1] + radius],
      ],
    );
  }

  /**
   * Closed, unless it is said to be open.
   * @param elevation in the drawing's unit
   * @param bulges of the sides that begin at the points; none where all are straight
   */
  polyline(
    layer: string,
    points: readonly Point[],
    {
      open = false,
      elevation = 0,
      bulges = [],
    }: { open?: boolean; elevation?: number; bulges?: readonly number[] } = {},
  ): void {
    this.entity(
      'LWPOLYLINE',
      layer,
      'AcDbPolyline',
      [
        [90, points.length],
        [70, open ? 0 : 1],
        ...(elevation === 0 ? [] : [[38, elevation] as [number, number]]),
        ...points.flatMap(([x, y], i): [number, number][] => [
          [10, x],
          [20, y],
          ...((bulges[i] ?? 0) === 0 ? [] : [[42, bulges[i]] as [number, number]]),
        ]),
      ],
      points,
    );
  }

  /** A text about its middle. */
  text(layer: string, at: Point, height: number, text: string): void {
    this.entity(
      'TEXT',
      layer,
      'AcDbText',
      [
        [10, at[0]],
        [20, at[1]],
        [30, 0],
        [40, height],
        [1, escaped(text)],
        [72, 1],
        [11, at[0]],
        [21, at[1]],
        [31, 0],
        [100, 'AcDbText'],
        [73, 2],
      ],
      [at],
    );
  }

  /** A text that begins at a point, on its base line. */
  note(layer: string, at: Point, height: number, text: string): void {
    this.entity(
      'TEXT',
      layer,
      'AcDbText',
      [
        [10, at[0]],
        [20, at[1]],
        [30, 0],
        [40, height],
        [1, escaped(text)],
        [100, 'AcDbText'],
      ],
      [at],
    );
  }

  private entity(
    kind: string,
    layer: string,
    subclass: string,
    groups: [number, string | number][],
    extent: readonly Point[],
  ): void {
    for (const [x, y] of extent) {
      this.low = [Math.min(this.low[0], x), Math.min(this.low[1], y)];
      this.high = [Math.max(this.high[0], x), Math.max(this.high[1], y)];
    }
    put(this.body, 0, kind);
    put(this.body, 5, this.handle());
    put(this.body, 330, this.owner);
    put(this.body, 100, 'AcDbEntity');
    put(this.body, 8, escaped(layer));
    put(this.body, 100, subclass);
    for (const [code, value] of groups) put(this.body, code, value);
  }

  private handle(): string {
    this.next += 1;
    return this.next.toString(16).toUpperCase();
  }

  /** The whole file as text. */
  finish(): string {
    const out = this.lines;
    const g = (code: number, value: string | number) => put(out, code, value);
    const [low, high] =
      this.low[0] <= this.high[0]
        ? [this.low, this.high]
        : [
            [0, 0],
            [0, 0],
          ];
    g(0, 'SECTION');
    g(2, 'HEADER');
    g(9, '$ACADVER');
    g(1, 'AC1015');
    g(9, '$DWGCODEPAGE');
    g(3, 'ANSI_1252');
    g(9, '$INSUNITS');
    g(70, headerCodeOf[this.unit]);
    g(9, '$MEASUREMENT');
    g(70, this.unit === 'in' || this.unit === 'ft' ? 0 : 1);
    g(9, '$EXTMIN');
    g(10, low[0]);
    g(20, low[1]);
    g(30, 0);
    g(9, '$EXTMAX');
    g(10, high[0]);
    g(20, high[1]);
    g(30, 0);
    g(9, '$HANDSEED');
    g(5, (this.next + 0x100).toString(16).toUpperCase());
    g(0, 'ENDSEC');
    g(0, 'SECTION');
    g(2, 'TABLES');
    putTables(out, {
      layers: this.layers,
      blocks: [...spaces, ...this.blocks],
      handle: () => this.handle(),
    });
    g(0, 'ENDSEC');
    g(0, 'SECTION');
    g(2, 'BLOCKS');
    for (const { name, record, begin, end, body } of [...spaces, ...this.blocks]) {
      g(0, 'BLOCK');
      g(5, begin);
      g(330, record);
      g(100, 'AcDbEntity');
      g(8, '0');
      g(100, 'AcDbBlockBegin');
      g(2, escaped(name));
      g(70, 0);
      g(10, 0);
      g(20, 0);
      g(30, 0);
      g(3, escaped(name));
      g(1, '');
      for (const line of body) out.push(line);
      g(0, 'ENDBLK');
      g(5, end);
      g(330, record);
      g(100, 'AcDbEntity');
      g(8, '0');
      g(100, 'AcDbBlockEnd');
    }
    g(0, 'ENDSEC');
    g(0, 'SECTION');
    g(2, 'ENTITIES');
    for (const line of this.body) out.push(line);
    g(0, 'ENDSEC');
    g(0, 'SECTION');
    g(2, 'OBJECTS');
    g(0, 'DICTIONARY');
    g(5, 'C');
    g(330, '0');
    g(100, 'AcDbDictionary');
    g(281, 1);
    g(3, 'ACAD_GROUP');
    g(350, 'D');
    g(0, 'DICTIONARY');
    g(5, 'D');
    g(330, 'C');
    g(100, 'AcDbDictionary');
    g(281, 1);
    g(0, 'ENDSEC');
    g(0, 'EOF');
    return out.join('\n') + '\n';
  }
}
