import { createRequire } from 'node:module';
import * as v from 'valibot';
import type * as WebIfc from 'web-ifc';
import type { Shell } from '@/core/cut/body';

/** A public reader of IFC; its program for Node.js stands in a file of its own. */
const library = (): typeof WebIfc => createRequire(import.meta.url)('web-ifc') as typeof WebIfc;

/** Circles are read as so many chords: 5 mm off an arc of 9 m, and exact in their corners. */
const chords = 96;

/** Numbers of a vertex: where it lies, and its normal. */
const perVertex = 6;

export const text = v.object({ value: v.string() });
export const reference = v.object({ value: v.pipe(v.number(), v.integer()) });
/** A number, with or without its measure. */
export const number = v.pipe(
  v.union([v.number(), v.object({ value: v.number() })]),
  v.transform((found) => (typeof found === 'number' ? found : found.value)),
);

/** Something of a file in its place: its class, and the shells about it in metres, z up. */
export interface Mesh {
  id: number;
  shells: Shell[];
}

/** A file of ISO 16739 that is open: its entities by number, class and place. */
export class IfcFile {
  private constructor(
    readonly names: typeof WebIfc,
    private readonly api: WebIfc.IfcAPI,
    private readonly file: number,
  ) {}

  /** @throws what the reader says of a file that is none */
  static async open(bytes: Uint8Array): Promise<IfcFile> {
    const names = library();
    const api = new names.IfcAPI();
    await api.Init();
    api.SetLogLevel(names.LogLevel.LOG_LEVEL_OFF);
    return new IfcFile(names, api, api.OpenModel(bytes, { COORDINATE_TO_ORIGIN: false, CIRCLE_SEGMENTS: chords }));
  }

  close(): void {
    this.api.CloseModel(this.file);
  }

  /** The edition of the standard that the file was written by: IFC2X3, IFC4. */
  schema = (): string => this.api.GetModelSchema(this.file) ?? '';

  /** The entities of a class, in the order of the file. @param kinds whether those of its kinds count too */
  idsOf(type: number, kinds = false): number[] {
    return [...this.api.GetLineIDsWithType(this.file, type, kinds)];
  }

  /** The class of an entity, as the standard writes it: IfcWall. */
  classOf = (id: number): string => this.api.GetNameFromTypeCode(this.typeOf(id)) ?? '';

  typeOf = (id: number): number => Number(this.api.GetLineType(this.file, id));

  /**
   * An entity by a schema of what of it is needed; null where the file has it otherwise.
   * @param deep whether what it refers to stands in the place of references
   */
  line<T extends v.GenericSchema>(id: number, schema: T, deep = false): v.InferOutput<T> | null {
    const { success, output } = v.safeParse(schema, this.api.GetLine(this.file, id, deep));
    return success ? output : null;
  }

  /** The place of something in the world, as a matrix by columns; lengths in the unit of the file. */
  placeOf = (placement: number): number[] => this.api.GetWorldTransformMatrix(this.file, placement);

  /** Everything that has a shape, but rooms and openings. */
  eachMesh(take: (mesh: Mesh) => void): void {
    this.api.StreamAllMeshes(this.file, (mesh) => take(this.meshOf(mesh)));
  }

  /** What has a shape of some classes. */
  eachOf(types: number[], take: (mesh: Mesh) => void): void {
    this.api.StreamAllMeshesWithTypes(this.file, types, (mesh) => take(this.meshOf(mesh)));
  }

  private meshOf({ expressID, geometries }: WebIfc.FlatMesh): Mesh {
    const shells = Array.from({ length: geometries.size() }, (_, i): Shell => {
      const { geometryExpressID, flatTransformation } = geometries.get(i);
      const geometry = this.api.GetGeometry(this.file, geometryExpressID);
      const vertices = this.api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
      const triangles = Uint32Array.from(this.api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize()));
      geometry.delete();
      return { corners: placed(vertices, flatTransformation), triangles };
    });
    return { id: expressID, shells };
  }
}

/** Vertices in their place. The reader's y is up, and its z is away from ours. */
function placed(vertices: Float32Array, m: readonly number[]): Float64Array {
  const corners = new Float64Array((vertices.length / perVertex) * 3);
  for (let i = 0, to = 0; i + 2 < vertices.length; i += perVertex, to += 3) {
    const [x, y, z] = [vertices[i], vertices[i + 1], vertices[i + 2]];
    corners[to] = m[0] * x + m[4] * y + m[8] * z + m[12];
    corners[to + 1] = -(m[2] * x + m[6] * y + m[10] * z + m[14]);
    corners[to + 2] = m[1] * x + m[5] * y + m[9] * z + m[13];
  }
  return corners;
}
