import type { Point } from '@/core/geometry/vector';
import type { Section } from '@/core/kinds/section';
import { derived, whole, word, type Attribute, type Ref, type StepFile } from './step';

type Space = readonly [number, number, number];

/** Shapes of IFC: places, profiles and what is swept of them. Metres. */
export class Shapes {
  readonly origin: Ref;
  /** Sub-contexts that bodies, axes and footprints belong to. */
  readonly body: Ref;
  readonly axis: Ref;
  readonly context: Ref;

  constructor(readonly file: StepFile) {
    this.origin = this.place([0, 0, 0]);
    this.context = file.add('IFCGEOMETRICREPRESENTATIONCONTEXT', null, 'Model', whole(3), 1e-5, this.origin, null);
    this.body = this.sub('Body', 'MODEL_VIEW');
    this.axis = this.sub('Axis', 'GRAPH_VIEW');
  }

  private sub = (name: string, view: string): Ref =>
    this.file.add(
      'IFCGEOMETRICREPRESENTATIONSUBCONTEXT',
      name,
      'Model',
      derived,
      derived,
      derived,
      derived,
      this.context,
      null,
      word(view),
      null,
    );

  private topology: Ref | null = null;
  /** The sub-context of what a calculation model consists of; there once it is asked for. */
  get reference(): Ref {
    this.topology ??= this.sub('Reference', 'GRAPH_VIEW');
    return this.topology;
  }

  point = (at: readonly number[]): Ref => this.file.once('IFCCARTESIANPOINT', [...at]);

  direction = (of: readonly number[]): Ref => this.file.once('IFCDIRECTION', [...of]);

  /** A place in space. @param along the local x, @param up the local z; the project's where they are left out */
  place(at: Space, along?: Space, up?: Space): Ref {
    const [x, z] = [along, up].map((way) => (way === undefined ? null : this.direction(way)));
    return this.file.once(
      'IFCAXIS2PLACEMENT3D',
      this.point(at),
      z ?? (x === null ? null : this.direction([0, 0, 1])),
      x,
    );
  }

  placement = (within: Ref | null, at: Ref): Ref => this.file.add('IFCLOCALPLACEMENT', within, at);

  private flat = (at: Point, turn = 0): Ref =>
    this.file.once(
      'IFCAXIS2PLACEMENT2D',
      this.point(at),
      turn === 0 ? null : this.direction([Math.cos(turn), Math.sin(turn)]),
    );

  polyline = (points: readonly (readonly number[])[]): Ref =>
    this.file.add(
      'IFCPOLYLINE',
      points.map((p) => this.point(p)),
    );

  private ring = ([first, ...rest]: readonly Point[]): Ref => this.polyline([first, ...rest, first]);

  /** The profile of a section, its middle at zero. */
  profile(name: string, section: Section): Ref {
    const { file } = this;
    const area = word('AREA');
    const middle = this.flat([0, 0]);
    if (section.shape === 'polygon') return this.region(section.outline, [], name);
    const { wall } = section;
    if (section.shape === 'circle') {
      const radius = section.diameter / 2;
      return wall === undefined
        ? file.once('IFCCIRCLEPROFILEDEF', area, name, middle, radius)
        : file.once('IFCCIRCLEHOLLOWPROFILEDEF', area, name, middle, radius, wall);
    }
    const { width, depth } = section;
    return wall === undefined
      ? file.once('IFCRECTANGLEPROFILEDEF', area, name, middle, width, depth)
      : file.once('IFCRECTANGLEHOLLOWPROFILEDEF', area, name, middle, width, depth, wall, null, null);
  }

  /** A profile by an outline and its holes. */
  region(outline: readonly Point[], holes: readonly (readonly Point[])[], name: string | null = null): Ref {
    const around = this.ring(outline);
    if (holes.length === 0) return this.file.add('IFCARBITRARYCLOSEDPROFILEDEF', word('AREA'), name, around);
    const inner = holes.map((hole) => this.ring(hole));
    return this.file.add('IFCARBITRARYPROFILEDEFWITHVOIDS', word('AREA'), name, around, inner);
  }

  /** A profile swept along the z of a place. */
  extruded = (profile: Ref, at: Ref, depth: number): Ref =>
    this.file.add('IFCEXTRUDEDAREASOLID', profile, at, this.direction([0, 0, 1]), depth);

  /** What a product looks like: its body, and its axis where it has one. */
  shape(solids: readonly Ref[], line: readonly (readonly number[])[] | null = null): Ref {
    const { file } = this;
    const body = file.add('IFCSHAPEREPRESENTATION', this.body, 'Body', 'SweptSolid', [...solids]);
    const axis: Attribute[] =
      line === null ? [] : [file.add('IFCSHAPEREPRESENTATION', this.axis, 'Axis', 'Curve3D', [this.polyline(line)])];
    return file.add('IFCPRODUCTDEFINITIONSHAPE', null, null, [...axis, body]);
  }

  /** Triangles in space, open at their border. */
  triangles(corners: readonly (readonly [Space, Space, Space])[]): Ref {
    const { file } = this;
    const numbers = new Map<string, number>();
    const points: Space[] = [];
    const numberOf = (p: Space): Attribute => {
      const key = p.join();
      const known = numbers.get(key) ?? points.push(p);
      numbers.set(key, known);
      return whole(known);
    };
    const faces = corners.map((own) => own.map(numberOf));
    const list = file.add('IFCCARTESIANPOINTLIST3D', points);
    const set = file.add('IFCTRIANGULATEDFACESET', list, null, false, faces, null);
    const body = file.add('IFCSHAPEREPRESENTATION', this.body, 'Body', 'Tessellation', [set]);
    return file.add('IFCPRODUCTDEFINITIONSHAPE', null, null, [body]);
  }
}
