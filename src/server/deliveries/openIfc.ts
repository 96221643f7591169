import { createRequire } from 'node:module';
import type * as WebIfc from 'web-ifc';
import { litres } from '@/core/exports/deliveries/report';
import { globalId } from '@/core/exports/ifc/globalId';
import type { ReadBack } from '@/core/exports/ifc/readBack';
import { columnReach } from '@/core/exports/sizes';
import type { ReadModel } from '@/core/handover/model/readModel';

/** A public reader of IFC; its program for Node.js stands in a file of its own. */
const library = (): typeof WebIfc => createRequire(import.meta.url)('web-ifc') as typeof WebIfc;

/** The entities that elements of a kind become. */
const entities = {
  columns: ['IFCCOLUMN'],
  beams: ['IFCBEAM', 'IFCMEMBER'],
  walls: ['IFCWALL'],
  openings: ['IFCDOOR', 'IFCWINDOW'],
  slabs: ['IFCSLAB'],
  zones: ['IFCSPACE'],
} as const;
type Kind = keyof typeof entities;
const kinds = Object.keys(entities) as Kind[];

/** Volumes agree within this share: the reader's vertices have 32 bits. */
const alike = 1e-4;

/** Numbers of a vertex: where it lies, and its normal. */
const perVertex = 6;

/**
 * Opens an IFC file with a reader that did not write it, and looks for every element by its identifier; columns with a
 * rectangle for their section are measured by their triangles, in litres.
 */
export async function openIfc(text: string, model: ReadModel): Promise<ReadBack[]> {
  const reader = library();
  const api = new reader.IfcAPI();
  await api.Init();
  api.SetLogLevel(reader.LogLevel.LOG_LEVEL_OFF);
  const file = api.OpenModel(new TextEncoder().encode(text));
  try {
    const idsOf = (kind: Kind): Set<string> =>
      new Set(
        entities[kind].flatMap((name) => {
          const lines = api.GetLineIDsWithType(file, reader[name]);
          return Array.from({ length: lines.size() }, (_, i) => guidOf(api.GetLine(file, lines.get(i))));
        }),
      );
    const counted = kinds
      .filter((kind) => model[kind].length > 0)
      .map((kind): ReadBack => {
        const there = idsOf(kind);
        const back = model[kind].filter(({ id }) => there.has(globalId(id)));
        return { kind, model: model[kind].length, file: back.length };
      });
    return [...counted, ...litresOf(api, file, model)];
  } finally {
    api.CloseModel(file);
  }
}

const guidOf = (line: { GlobalId?: { value?: string } }): string => line.GlobalId?.value ?? '';

/** What columns hold by their sections and heights, and by the triangles that the reader makes of them. */
function litresOf(api: WebIfc.IfcAPI, file: number, model: ReadModel): ReadBack[] {
  const volumes = new Map(
    model.columns.flatMap((column) => {
      const { section } = column;
      const [low, high] = columnReach(column, model);
      if (section.shape !== 'rectangle' || section.wall !== undefined || high <= low) return [];
      return [[globalId(column.id), section.width * section.depth * (high - low)] as const];
    }),
  );
  if (volumes.size === 0) return [];
  let measured = 0;
  api.StreamAllMeshes(file, ({ expressID, geometries }) => {
    if (!volumes.has(guidOf(api.GetLine(file, expressID)))) return;
    for (let i = 0; i < geometries.size(); i += 1) {
      const geometry = api.GetGeometry(file, geometries.get(i).geometryExpressID);
      const vertices = api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
      const corners = api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize());
      measured += volumeOf(vertices, corners);
      geometry.delete();
    }
  });
  const said = [...volumes.values()].reduce((sum, value) => sum + value, 0);
  const [expected, found] = [said, measured].map((cubic) => Math.round(cubic * 1000));
  const agrees = Math.abs(measured - said) <= alike * said;
  return [{ kind: litres, model: expected, file: agrees ? expected : found }];
}

/** The volume within triangles, a sixth of the product of each one's corners. */
function volumeOf(vertices: Float32Array, corners: Uint32Array): number {
  const at = (corner: number, axis: number): number => vertices[corner * perVertex + axis];
  let six = 0;
  for (let i = 0; i + 2 < corners.length; i += 3) {
    const [a, b, c] = [corners[i], corners[i + 1], corners[i + 2]];
    six +=
      at(a, 0) * (at(b, 1) * at(c, 2) - at(b, 2) * at(c, 1)) -
      at(a, 1) * (at(b, 0) * at(c, 2) - at(b, 2) * at(c, 0)) +
      at(a, 2) * (at(b, 0) * at(c, 1) - at(b, 1) * at(c, 0));
  }
  return Math.abs(six) / 6;
}
