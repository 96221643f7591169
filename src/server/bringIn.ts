import { roleId } from '@/core/model/roles';
import { storable } from '@/core/storable';
import { randomUUID } from 'node:crypto';
import type { Transaction } from 'kysely';
import type { UnitVerdict } from '@/core/datum/evidence/judge';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import { put, type Change } from '@/core/model/edits';
import { lengthUnits, type LengthUnit } from '@/core/units/length';
import type { Database } from './database/schema';
import { applyEdit } from './edits/applyEdit';
import { loadState } from './rows/rows';

/** Makes a drawing of a file that was read: one edit, so that bringing in can be undone. @returns the drawing's id */
export async function bringIn(
  tx: Transaction<Database>,
  project: string,
  file: { id: string; name: string; levelId: string | null; person?: string | null },
  intake: IntakeFile,
  unit: UnitVerdict,
): Promise<string> {
  const id = randomUUID();
  const name = storable(file.name.replace(/\.dxf$/i, '').slice(0, 120)) || 'Drawing';
  const level =
    file.levelId === null
      ? undefined
      : await tx
          .selectFrom('levels')
          .select('id')
          .where('id', '=', file.levelId)
          .where('project_id', '=', project)
          .executeTakeFirst();
  const changes: Change[] = [
    put('drawing', {
      id,
      name,
      fileId: file.id,
      fileName: file.name,
      revision: 1,
      levelId: level?.id ?? null,
      alsoOn: [],
      discarded: false,
      setAside: false,
    }),
    put('placement', {
      id,
      confirmed: false,
      unit: likeliest(unit),
      scale: unit.scale,
      origin: [0, 0],
      target: [0, 0],
      turning: 0,
      mirrored: false,
      upright: null,
    }),
    ...intake.layers.map((layer) =>
      put('role', {
        id: roleId(id, layer.name),
        drawingId: id,
        layer: layer.name,
        role: layer.role,
        suggested: true,
        shown: true,
        libraryId: null,
      }),
    ),
  ];
  await applyEdit(project, null, { label: `Bring in ${file.name}`, changes }, { within: tx, person: file.person });
  return id;
}

/**
 * Gives a drawing the file as its next revision: placement, recipe, display and roles stay, layers that are new get a
 * suggested role.
 */
export async function bringInRevision(
  tx: Transaction<Database>,
  project: string,
  drawingId: string,
  file: { id: string; name: string; person?: string | null },
  intake: IntakeFile,
): Promise<void> {
  const state = await loadState(tx, project);
  const drawing = state.drawing[drawingId];
  if (!drawing) throw new Error('The drawing to be revised is not part of the project');
  const last = await tx
    .selectFrom('revisions')
    .select(({ fn }) => fn.max('number').as('number'))
    .where('drawing_id', '=', drawingId)
    .executeTakeFirstOrThrow();
  const changes: Change[] = [
    put('drawing', {
      ...drawing,
      fileId: file.id,
      fileName: file.name,
      revision: Number(last.number) + 1,
      discarded: false,
    }),
    ...intake.layers
      .filter(({ name }) => !state.role[roleId(drawingId, name)])
      .map((layer) =>
        put('role', {
          id: roleId(drawingId, layer.name),
          drawingId,
          layer: layer.name,
          role: layer.role,
          suggested: true,
          shown: true,
          libraryId: null,
        }),
      ),
  ];
  await applyEdit(
    project,
    null,
    { label: `Revise ${drawing.name} by ${file.name}`, changes },
    { within: tx, person: file.person },
  );
}

/** The unit that is taken until a person confirms one. */
const likeliest = (unit: UnitVerdict): LengthUnit =>
  lengthUnits.reduce((a, b) => (unit.probabilities[b] > unit.probabilities[a] ? b : a));
