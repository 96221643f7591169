import { Flag, Kind } from '../drawing';
import type { LeftOutReason } from '../account';
import { Growable } from '../growable';
import { elevationFlag, extrusionOf, pushElevation, type EntityBuilder, type EntityContext, type Extrusion } from './context';

/** Vertices gathered for one polyline, from the groups of one entity or from the entities that follow it. */
class Vertices {
  xy = new Growable(new Float64Array(64));
  bulge = new Growable(new Float64Array(32));
  bulged = false;

  clear(): void {
    this.xy.length = 0;
    this.bulge.length = 0;
    this.bulged = false;
  }

  add(x: number, y: number): void {
    this.xy.push(x);
    this.xy.push(y);
    this.bulge.push(0);
  }

  setBulge(value: number): void {
    if (value === 0 || this.bulge.length === 0) return;
    this.bulge.array[this.bulge.length - 1] = value;
    this.bulged = true;
  }

  /** Writes the row. */
  write({ rows, layer, style, handle, flags }: EntityContext, closed: boolean, plane: Extrusion, z: number, kind: number): LeftOutReason | null {
    if (this.bulge.length < 2) return 'noGeometry';
    rows.begin(kind, flags | (closed ? Flag.closed : 0) | (this.bulged ? Flag.bulges : 0) | elevationFlag(z), layer, style, handle);
    const sign = plane === 'mirrored' ? -1 : 1;
    rows.numbers.reserve(this.xy.length + this.bulge.length);
    for (let i = 0; i < this.xy.length; i += 2) {
      rows.numbers.push(sign * this.xy.array[i]);
      rows.numbers.push(this.xy.array[i + 1]);
    }
    if (this.bulged) for (let i = 0; i < this.bulge.length; i += 1) rows.numbers.push(sign * this.bulge.array[i]);
    pushElevation(rows, z);
    return null;
  }
}

const shared = new Vertices();

/** LWPOLYLINE: vertices 10/20 with a bulge 42 each, elevation 38. */
export const lightPolyline: EntityBuilder = (context) => {
  const { record } = context;
  const plane = extrusionOf(record);
  if (plane === 'tilted') return 'tilted';
  shared.clear();
  for (let i = 0; i < record.length; i += 1) {
    const code = record.codes[i];
    if (code === 10) shared.add(record.values[i], 0);
    else if (code === 20 && shared.xy.length > 0) shared.xy.array[shared.xy.length - 1] = record.values[i];
    else if (code === 42) shared.setBulge(record.values[i]);
  }
  return shared.write(context, (record.number(70, 0) & 1) === 1, plane, record.number(38, 0), Kind.polyline);
};

/** POLYLINE of the older kind, whose vertices follow as entities of their own until SEQEND. */
export class HeavyPolyline {
  private vertices = new Vertices();
  private plane: Extrusion;
  private closed: boolean;
  private z: number;
  private mesh: boolean;

  constructor(readonly context: EntityContext) {
    const flags = context.record.number(70, 0);
    this.plane = extrusionOf(context.record);
    this.closed = (flags & 1) === 1;
    this.mesh = (flags & (16 | 64)) !== 0;
    this.z = context.record.number(30, 0);
  }

  vertex({ record }: EntityContext): void {
    // 16 marks a spline's control frame, which is not drawn.
    if ((record.number(70, 0) & 16) !== 0) return;
    this.vertices.add(record.number(10, 0), record.number(20, 0));
    this.vertices.setBulge(record.number(42, 0));
  }

  finish(): LeftOutReason | null {
    if (this.mesh) return 'solid';
    if (this.plane === 'tilted') return 'tilted';
    return this.vertices.write(this.context, this.closed, this.plane, this.z, Kind.heavyPolyline);
  }
}
