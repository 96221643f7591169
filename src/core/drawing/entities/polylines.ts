import { Flag, Kind } from '../drawing';
import type { LeftOutReason } from '../account';
import { Doubles } from '../growable';
import { beginRow, endRow, planeOf, type EntityBuilder, type EntityContext } from './context';
import { writeRuns, type Run } from './runs';

/** Vertices gathered for one polyline, from the groups of one entity or from the entities that follow it. */
class Vertices {
  xy = new Doubles(64);
  z = new Doubles(32);
  bulge = new Doubles(32);
  bulged = false;

  clear(): void {
    this.xy.length = 0;
    this.z.length = 0;
    this.bulge.length = 0;
    this.bulged = false;
  }

  add(x: number, y: number, z: number): void {
    this.xy.push(x);
    this.xy.push(y);
    this.z.push(z);
    this.bulge.push(0);
  }

  setBulge(value: number): void {
    if (value === 0 || this.bulge.length === 0) return;
    this.bulge.array[this.bulge.length - 1] = value;
    this.bulged = true;
  }

  get count(): number {
    return this.bulge.length;
  }

  /** Writes the row. @param heights whether the vertices have heights of their own */
  write(
    context: EntityContext,
    closed: boolean,
    plane: number,
    z: number,
    kind: number,
    heights = false,
  ): LeftOutReason | null {
    if (this.count < 2) return 'noGeometry';
    const { rows } = context;
    beginRow(
      context,
      kind,
      (closed ? Flag.closed : 0) | (this.bulged ? Flag.bulges : 0) | (heights ? Flag.heights : 0),
      z,
      plane,
    );
    rows.numbers.append(this.xy);
    if (this.bulged) rows.numbers.append(this.bulge);
    if (heights) rows.numbers.append(this.z);
    endRow(rows, z, plane);
    return null;
  }
}

const shared = new Vertices();

/** LWPOLYLINE: vertices 10/20 with a bulge 42 each, elevation 38. */
export const lightPolyline: EntityBuilder = (context) => {
  const { record } = context;
  shared.clear();
  for (let i = 0; i < record.length; i += 1) {
    const code = record.codes[i];
    if (code === 10) shared.add(record.values[i], 0, 0);
    else if (code === 20 && shared.xy.length > 0) shared.xy.array[shared.xy.length - 1] = record.values[i];
    else if (code === 42) shared.setBulge(record.values[i]);
  }
  return shared.write(context, (record.number(70, 0) & 1) === 1, planeOf(context), record.number(38, 0), Kind.polyline);
};

/**
 * POLYLINE of the older kind, whose vertices follow as entities of their own until SEQEND: flat, in space, or a mesh.
 */
export class HeavyPolyline {
  private vertices = new Vertices();
  /** Corners of faces, counted from 1, negative where the side that begins there is not drawn. */
  private faces: number[][] = [];
  private plane: number;
  private flags: number;
  private z: number;
  private size: [number, number];

  constructor(readonly context: EntityContext) {
    const { record } = context;
    this.flags = record.number(70, 0);
    this.plane = planeOf(context);
    this.z = record.number(30, 0);
    // A smoothed surface has the size of its density, not of its control net.
    const smooth = (this.flags & 4) !== 0;
    this.size = [record.number(smooth ? 73 : 71, 0), record.number(smooth ? 74 : 72, 0)];
  }

  vertex({ record }: EntityContext): void {
    const flags = record.number(70, 0);
    // 16 marks a control frame, which is not drawn.
    if ((flags & 16) !== 0) return;
    if ((flags & 128) !== 0 && (flags & 64) === 0) {
      this.faces.push([71, 72, 73, 74].map((code) => record.number(code, 0)).filter((corner) => corner !== 0));
      return;
    }
    this.vertices.add(record.number(10, 0), record.number(20, 0), record.number(30, 0));
    this.vertices.setBulge(record.number(42, 0));
  }

  finish(): LeftOutReason | null {
    const closed = (this.flags & 1) === 1;
    if ((this.flags & 64) !== 0) return writeRuns(this.context, Kind.mesh, this.faceSides());
    if ((this.flags & 16) !== 0)
      return writeRuns(this.context, Kind.mesh, this.netSides(closed, (this.flags & 32) !== 0));
    if ((this.flags & 8) !== 0) return this.vertices.write(this.context, closed, -1, 0, Kind.heavyPolyline, true);
    return this.vertices.write(this.context, closed, this.plane, this.z, Kind.heavyPolyline);
  }

  private at(i: number): [number, number] {
    return [this.vertices.xy.array[2 * i], this.vertices.xy.array[2 * i + 1]];
  }

  /** The drawn sides of a polyface mesh, each once. */
  private faceSides(): Run[] {
    const seen = new Set<number>();
    return this.faces.flatMap((corners) =>
      corners.flatMap((corner, i): Run[] => {
        const [a, b] = [Math.abs(corner) - 1, Math.abs(corners[(i + 1) % corners.length]) - 1];
        const key = Math.min(a, b) * 4_194_304 + Math.max(a, b);
        if (corner < 0 || a === b || a >= this.vertices.count || b >= this.vertices.count || seen.has(key)) return [];
        seen.add(key);
        return [{ points: [this.at(a), this.at(b)], closed: false }];
      }),
    );
  }

  /** The lines of an m by n net, along both directions. */
  private netSides(closedM: boolean, closedN: boolean): Run[] {
    const [m, n] = this.size;
    if (m < 2 || n < 2 || m * n > this.vertices.count) return [];
    const line = (count: number, index: (i: number) => number, closed: boolean): Run => ({
      points: Array.from({ length: count }, (_, i) => this.at(index(i))),
      closed,
    });
    return [
      ...Array.from({ length: m }, (_, row) => line(n, (i) => row * n + i, closedN)),
      ...Array.from({ length: n }, (_, column) => line(m, (i) => i * n + column, closedM)),
    ];
  }
}
