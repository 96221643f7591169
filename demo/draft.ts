import type { XY } from './building';

type Value = string | number;
type Place = (p: XY) => XY;

/** Layer names and colours of the drawings, in the manner of an architect's office. */
export interface DraftLayer {
  name: string;
  colour: number;
}

/**
 * Drafts a DXF of version AC1024 by hand, independent of the product's own writer. Geometry comes in metres
 * and goes out in the drawing's unit, through a placement that can turn and shift it.
 */
export class Draft {
  private handle = 0x30;
  private model: string[] = [];
  private blocks: string[] = [];
  private out: string[] = this.model;
  private place: Place = (p) => p;
  /** Degrees that the placement turns. */
  private turn = 0;
  /** Entities written, by kind; the reader's account is compared with it. */
  readonly counts: Record<string, number> = {};

  /** @param oneLayer the layer on which all is drawn, whatever layer it is meant for */
  constructor(
    private unitsPerMetre: number,
    private headerUnit: number,
    private layers: DraftLayer[],
    private oneLayer: string | null = null,
  ) {}

  /** What follows has handles of its own range, so that a revision keeps those of what it does not change. */
  section(number: number): void {
    this.handle = number * 0x1000;
  }

  /** Draws what follows through a placement. */
  through(place: Place, turn: number, draw: () => void): void {
    const [before, beforeTurn] = [this.place, this.turn];
    this.place = (p) => before(place(p));
    this.turn = beforeTurn + turn;
    draw();
    [this.place, this.turn] = [before, beforeTurn];
  }

  private g(code: number, value: Value): void {
    this.out.push(String(code).padStart(3), typeof value === 'number' ? String(Number(value.toFixed(9))) : value);
  }

  private begin(kind: string, layer: string, subclass: string): void {
    this.counts[kind] = (this.counts[kind] ?? 0) + 1;
    this.g(0, kind);
    this.g(5, (this.handle += 1).toString(16).toUpperCase());
    this.g(330, '1F');
    this.g(100, 'AcDbEntity');
    this.g(8, this.oneLayer ?? layer);
    this.g(100, subclass);
  }

  private at(code: number, p: XY): void {
    const [x, y] = this.place(p);
    this.g(code, x * this.unitsPerMetre);
    this.g(code + 10, y * this.unitsPerMetre);
    this.g(code + 20, 0);
  }

  line(layer: string, a: XY, b: XY): void {
    this.begin('LINE', layer, 'AcDbLine');
    this.at(10, a);
    this.at(11, b);
  }

  polyline(layer: string, points: XY[], closed: boolean, bulges: number[] = []): void {
    this.begin('LWPOLYLINE', layer, 'AcDbPolyline');
    this.g(90, points.length);
    this.g(70, closed ? 1 : 0);
    points.forEach((p, i) => {
      const [x, y] = this.place(p);
      this.g(10, x * this.unitsPerMetre);
      this.g(20, y * this.unitsPerMetre);
      if (bulges[i]) this.g(42, bulges[i]);
    });
  }

  rectangle(layer: string, [x1, y1]: XY, [x2, y2]: XY): void {
    this.polyline(
      layer,
      [
        [x1, y1],
        [x2, y1],
        [x2, y2],
        [x1, y2],
      ],
      true,
    );
  }

  circle(layer: string, centre: XY, radius: number): void {
    this.begin('CIRCLE', layer, 'AcDbCircle');
    this.at(10, centre);
    this.g(40, radius * this.unitsPerMetre);
  }

  arc(layer: string, centre: XY, radius: number, from: number, to: number): void {
    this.begin('ARC', layer, 'AcDbCircle');
    this.at(10, centre);
    this.g(40, radius * this.unitsPerMetre);
    this.g(100, 'AcDbArc');
    this.g(50, from + this.turn);
    this.g(51, to + this.turn);
  }

  point(layer: string, at: XY): void {
    this.begin('POINT', layer, 'AcDbPoint');
    this.at(10, at);
  }

  /** An ellipse; the major axis is given from the centre. */
  ellipse(layer: string, centre: XY, major: XY, ratio: number): void {
    this.begin('ELLIPSE', layer, 'AcDbEllipse');
    this.at(10, centre);
    const [[x0, y0], [x1, y1]] = [this.place([0, 0]), this.place(major)];
    this.g(11, (x1 - x0) * this.unitsPerMetre);
    this.g(21, (y1 - y0) * this.unitsPerMetre);
    this.g(31, 0);
    this.g(210, 0);
    this.g(220, 0);
    this.g(230, 1);
    this.g(40, ratio);
    this.g(41, 0);
    this.g(42, 2 * Math.PI);
  }

  /** A cubic spline by its control points, with clamped even knots. */
  spline(layer: string, controls: XY[]): void {
    this.begin('SPLINE', layer, 'AcDbSpline');
    const inner = controls.length - 4;
    const knots = [
      0,
      0,
      0,
      0,
      ...Array.from({ length: inner }, (_, i) => i + 1),
      ...Array.from({ length: 4 }, () => inner + 1),
    ];
    this.g(70, 8);
    this.g(71, 3);
    this.g(72, knots.length);
    this.g(73, controls.length);
    this.g(74, 0);
    for (const knot of knots) this.g(40, knot);
    for (const p of controls) this.at(10, p);
  }

  text(layer: string, at: XY, height: number, text: string, middle = true): void {
    this.begin('TEXT', layer, 'AcDbText');
    this.at(10, at);
    this.g(40, height * this.unitsPerMetre);
    this.g(1, text);
    this.g(50, this.turn);
    if (middle) {
      this.g(72, 1);
      this.at(11, at);
    }
    this.g(100, 'AcDbText');
    if (middle) this.g(73, 2);
  }

  mtext(layer: string, at: XY, height: number, text: string): void {
    this.begin('MTEXT', layer, 'AcDbMText');
    this.at(10, at);
    this.g(40, height * this.unitsPerMetre);
    this.g(71, 5);
    this.g(1, text);
    this.g(50, this.turn);
  }

  insert(
    layer: string,
    block: string,
    at: XY,
    { angle = 0, scale = [1, 1] as XY, attribute = null as null | { tag: string; text: string; height: number } } = {},
  ): void {
    this.begin('INSERT', layer, 'AcDbBlockReference');
    if (attribute) this.g(66, 1);
    this.g(2, block);
    this.at(10, at);
    this.g(41, scale[0]);
    this.g(42, scale[1]);
    this.g(50, angle + this.turn);
    if (!attribute) return;
    this.begin('ATTRIB', layer, 'AcDbText');
    this.at(10, at);
    this.g(40, attribute.height * this.unitsPerMetre);
    this.g(1, attribute.text);
    this.g(72, 1);
    this.at(11, at);
    this.g(100, 'AcDbAttribute');
    this.g(2, attribute.tag);
    this.g(70, 0);
    this.g(74, 2);
    this.g(0, 'SEQEND');
    this.g(5, (this.handle += 1).toString(16).toUpperCase());
    this.g(100, 'AcDbEntity');
    this.g(8, this.oneLayer ?? layer);
  }

  /** A linear dimension, its picture in a block of its own as drawing programs keep it. */
  dimension(layer: string, a: XY, b: XY, line: XY, written?: string): void {
    const name = `*D${(this.counts.DIMENSION ?? 0) + 1}`;
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const shift: XY = [line[0] - a[0], line[1] - a[1]];
    this.block(name, () => {
      this.line(layer, [a[0] + shift[0], a[1] + shift[1]], [b[0] + shift[0], b[1] + shift[1]]);
      this.mtext(
        layer,
        [(a[0] + b[0]) / 2 + shift[0], (a[1] + b[1]) / 2 + shift[1] + 0.15],
        0.18,
        written ?? String(Math.round(length * 1000)),
      );
    });
    this.begin('DIMENSION', layer, 'AcDbDimension');
    this.g(2, name);
    this.at(10, [b[0] + shift[0], b[1] + shift[1]]);
    this.at(11, [(a[0] + b[0]) / 2 + shift[0], (a[1] + b[1]) / 2 + shift[1]]);
    this.g(70, 33);
    this.g(42, length * this.unitsPerMetre);
    this.g(100, 'AcDbAlignedDimension');
    this.at(13, a);
    this.at(14, b);
  }

  /** A hatch of lines, or a solid one, with one straight-edged boundary. */
  hatch(layer: string, points: XY[], solid = false): void {
    this.begin('HATCH', layer, 'AcDbHatch');
    this.g(10, 0);
    this.g(20, 0);
    this.g(30, 0);
    this.g(210, 0);
    this.g(220, 0);
    this.g(230, 1);
    this.g(2, solid ? 'SOLID' : 'ANSI31');
    this.g(70, solid ? 1 : 0);
    this.g(71, 0);
    this.g(91, 1);
    this.g(92, 2);
    this.g(72, 0);
    this.g(73, 1);
    this.g(93, points.length);
    for (const p of points) {
      const [x, y] = this.place(p);
      this.g(10, x * this.unitsPerMetre);
      this.g(20, y * this.unitsPerMetre);
    }
    this.g(97, 0);
    this.g(75, 0);
    this.g(76, 1);
    if (!solid) {
      this.g(52, 0);
      this.g(41, 0.1 * this.unitsPerMetre);
      this.g(77, 0);
      this.g(78, 1);
      this.g(53, 45);
      this.g(43, 0);
      this.g(44, 0);
      this.g(45, -0.2 * this.unitsPerMetre);
      this.g(46, 0.2 * this.unitsPerMetre);
      this.g(79, 0);
    }
    this.g(98, 0);
  }

  /** Defines a block; what is drawn inside is about the block's own zero, unless it is a dimension's. */
  block(name: string, draw: () => void): void {
    const [out, place, turn] = [this.out, this.place, this.turn];
    this.out = this.blocks;
    if (!name.startsWith('*')) {
      this.place = (p) => p;
      this.turn = 0;
    }
    this.g(0, 'BLOCK');
    this.g(5, (this.handle += 1).toString(16).toUpperCase());
    this.g(100, 'AcDbEntity');
    this.g(8, '0');
    this.g(100, 'AcDbBlockBegin');
    this.g(2, name);
    this.g(70, 0);
    this.g(10, 0);
    this.g(20, 0);
    this.g(30, 0);
    this.g(3, name);
    this.g(1, '');
    draw();
    this.g(0, 'ENDBLK');
    this.g(5, (this.handle += 1).toString(16).toUpperCase());
    this.g(100, 'AcDbEntity');
    this.g(8, '0');
    this.g(100, 'AcDbBlockEnd');
    [this.out, this.place, this.turn] = [out, place, turn];
  }

  finish(): string {
    this.out = [];
    const g = this.g.bind(this);
    g(0, 'SECTION');
    g(2, 'HEADER');
    g(9, '$ACADVER');
    g(1, 'AC1024');
    g(9, '$DWGCODEPAGE');
    g(3, 'ANSI_1252');
    g(9, '$INSUNITS');
    g(70, this.headerUnit);
    g(9, '$MEASUREMENT');
    g(70, 1);
    g(0, 'ENDSEC');
    g(0, 'SECTION');
    g(2, 'TABLES');
    g(0, 'TABLE');
    g(2, 'LTYPE');
    g(5, '5');
    g(100, 'AcDbSymbolTable');
    g(70, 1);
    g(0, 'LTYPE');
    g(5, '16');
    g(100, 'AcDbSymbolTableRecord');
    g(100, 'AcDbLinetypeTableRecord');
    g(2, 'Continuous');
    g(70, 0);
    g(3, '');
    g(72, 65);
    g(73, 0);
    g(40, 0);
    g(0, 'ENDTAB');
    const layers = this.oneLayer === null ? this.layers : [{ name: this.oneLayer, colour: 7 }];
    g(0, 'TABLE');
    g(2, 'LAYER');
    g(5, '2');
    g(100, 'AcDbSymbolTable');
    g(70, layers.length);
    for (const layer of layers) {
      g(0, 'LAYER');
      g(5, (this.handle += 1).toString(16).toUpperCase());
      g(100, 'AcDbSymbolTableRecord');
      g(100, 'AcDbLayerTableRecord');
      g(2, layer.name);
      g(70, 0);
      g(62, layer.colour);
      g(6, 'Continuous');
    }
    g(0, 'ENDTAB');
    g(0, 'ENDSEC');
    g(0, 'SECTION');
    g(2, 'BLOCKS');
    const head = this.out;
    this.out = [];
    g(0, 'ENDSEC');
    g(0, 'SECTION');
    g(2, 'ENTITIES');
    const middle = this.out;
    this.out = [];
    g(0, 'ENDSEC');
    g(0, 'EOF');
    return [...head, ...this.blocks, ...middle, ...this.model, ...this.out].join('\r\n') + '\r\n';
  }
}
