import { boxesOf, liesIn } from '@/core/exports/deliveries/boxes';
import { litres, within } from '@/core/exports/deliveries/report';
import { globalId } from '@/core/exports/ifc/globalId';
import type { ReadBack } from '@/core/exports/ifc/readBack';
import { columnReach } from '@/core/exports/sizes';
import type { Shell } from '@/core/cut/body';
import type { ReadModel } from '@/core/handover/model/readModel';
import * as v from 'valibot';
import { IfcFile, text } from '../ifc/ifcFile';

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

const rooted = v.object({ GlobalId: text });

/**
 * Opens an IFC file with a reader that did not write it, and looks for every element by its identifier; where they lie
 * is measured by their corners, and columns with a rectangle for their section by their triangles, in litres.
 */
export async function openIfc(content: string, model: ReadModel): Promise<ReadBack[]> {
  const file = await IfcFile.open(new TextEncoder().encode(content));
  try {
    const counted = kinds
      .filter((kind) => model[kind].length > 0)
      .map((kind): ReadBack => {
        const there = new Set(
          entities[kind].flatMap((name) => file.idsOf(file.names[name]).map((id) => guidOf(file, id))),
        );
        const back = model[kind].filter(({ id }) => there.has(globalId(id)));
        return { kind, model: model[kind].length, file: back.length };
      });
    return [...counted, ...measured(file, model)];
  } finally {
    file.close();
  }
}

const guidOf = (file: IfcFile, id: number): string => file.line(id, rooted)?.GlobalId.value ?? '';

/** How many elements lie where the model has them, and what columns hold. */
function measured(file: IfcFile, model: ReadModel): ReadBack[] {
  const boxes = new Map([...boxesOf(model)].map(([id, box]) => [globalId(id), box]));
  const volumes = volumesOf(model);
  let [inPlace, found] = [0, 0];
  file.eachMesh(({ id, shells }) => {
    const guid = guidOf(file, id);
    const box = boxes.get(guid);
    if (
      box !== undefined &&
      liesIn(
        shells.map(({ corners }) => corners),
        box,
      )
    )
      inPlace += 1;
    if (volumes.has(guid)) found += shells.reduce((sum, shell) => sum + volumeOf(shell), 0);
  });
  const said = [...volumes.values()].reduce((sum, value) => sum + value, 0);
  const [expected, back] = [said, found].map((cubic) => Math.round(cubic * 1000));
  const agrees = Math.abs(found - said) <= alike * said;
  return [
    ...(boxes.size === 0 ? [] : [{ kind: within, model: boxes.size, file: inPlace }]),
    ...(volumes.size === 0 ? [] : [{ kind: litres, model: expected, file: agrees ? expected : back }]),
  ];
}

/** What columns with a rectangle for their section hold, by their identifiers, cubic metres. */
const volumesOf = (model: ReadModel): Map<string, number> =>
  new Map(
    model.columns.flatMap((column) => {
      const { section } = column;
      const [low, high] = columnReach(column, model);
      if (section.shape !== 'rectangle' || section.wall !== undefined || high <= low) return [];
      return [[globalId(column.id), section.width * section.depth * (high - low)] as const];
    }),
  );

/** The volume within triangles, a sixth of the product of each one's corners. */
function volumeOf({ corners, triangles }: Shell): number {
  const at = (corner: number, axis: number): number => corners[corner * 3 + axis];
  let six = 0;
  for (let i = 0; i + 2 < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i], triangles[i + 1], triangles[i + 2]];
    six +=
      at(a, 0) * (at(b, 1) * at(c, 2) - at(b, 2) * at(c, 1)) -
      at(a, 1) * (at(b, 0) * at(c, 2) - at(b, 2) * at(c, 0)) +
      at(a, 2) * (at(b, 0) * at(c, 1) - at(b, 1) * at(c, 0));
  }
  return Math.abs(six) / 6;
}
