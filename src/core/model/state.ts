import * as v from 'valibot';
import { displayUnits, lengthUnits } from '@/core/units/length';
import { roles } from '@/core/sorting/roles';
import { displaySchema } from '@/core/underlay/display';
import { recipeSchema } from '@/core/underlay/recipe/steps';

/**
 * The rows that make up a project, with their limits: what the database holds, what edits change, what a
 * window shows. Lengths in metres, angles in degrees unless said otherwise.
 */
const finite = v.pipe(v.number(), v.finite());
const coordinate = v.pipe(finite, v.minValue(-1e9), v.maxValue(1e9));
const point = v.strictTuple([coordinate, coordinate]);
const positive = v.pipe(finite, v.gtValue(0), v.maxValue(1e6));
const id = v.pipe(v.string(), v.minLength(1), v.maxLength(2000));
const uuid = v.pipe(v.string(), v.uuid());
const name = v.pipe(v.string(), v.trim(), v.minLength(1, 'A name needs at least one character.'), v.maxLength(120, 'A name has at most 120 characters.'));

export const projectRow = v.strictObject({ id: uuid, name, displayUnit: v.picklist(displayUnits) });

export const levelRow = v.strictObject({ id: uuid, name, elevation: coordinate, height: positive });

export const drawingRow = v.strictObject({
  id: uuid, name, fileId: uuid, fileName: v.string(), revision: v.pipe(v.number(), v.integer(), v.minValue(1)),
  levelId: v.nullable(uuid),
  /** Taken out of the project; its file stays, so that this can be undone. */
  discarded: v.boolean(),
  /** Not shown for now, its placement kept. */
  setAside: v.boolean(),
});

export const placementRow = v.strictObject({
  /** The drawing's. */
  id: uuid,
  unit: v.picklist(lengthUnits),
  /** Whether a person has confirmed the unit. */
  confirmed: v.boolean(),
  /** In drawing units. */
  origin: v.strictTuple([finite, finite]),
  target: point,
  /** Radians, counter-clockwise. */
  turning: finite,
});

/** The clean-up of a drawing, under the drawing's id. */
export const recipeRow = v.strictObject({ id: uuid, steps: recipeSchema });

/** How a drawing is shown, under the drawing's id. */
export const displayRow = v.strictObject({ id: uuid, ...displaySchema.entries });

export const roleRow = v.strictObject({
  id, drawingId: uuid, layer: v.string(), role: v.nullable(v.picklist(roles)),
  /** Whether the role is a suggestion that nobody has touched. */
  suggested: v.boolean(),
  shown: v.boolean(),
});

export const decisionRow = v.strictObject({ id, drawingId: uuid, key: id, verdict: v.picklist(['accepted', 'rejected']), elementId: v.nullable(uuid) });

const gridLine = v.variant('kind', [
  v.strictObject({ label: v.string(), kind: v.literal('line'), start: point, end: point }),
  v.strictObject({ label: v.string(), kind: v.literal('arc'), centre: point, radius: positive, startAngle: finite, endAngle: finite }),
]);
const section = v.variant('shape', [
  v.strictObject({ shape: v.literal('rectangle'), width: positive, depth: positive }),
  v.strictObject({ shape: v.literal('circle'), diameter: positive }),
  v.strictObject({ shape: v.literal('polygon'), outline: v.pipe(v.array(point), v.minLength(3), v.maxLength(1000)) }),
]);
const source = v.nullable(v.strictObject({ drawing: uuid, handles: v.pipe(v.array(v.string()), v.maxLength(10_000)) }));
const common = { id: uuid, levelId: v.nullable(uuid), source };

export const elementRow = v.variant('kind', [
  v.strictObject({ ...common, kind: v.literal('grid'), shape: gridLine }),
  v.strictObject({ ...common, kind: v.literal('column'), shape: v.strictObject({ position: point, rotation: finite, section, mark: v.string() }) }),
]);

export const tableSchemas = { project: projectRow, level: levelRow, drawing: drawingRow, placement: placementRow, recipe: recipeRow, display: displayRow, role: roleRow, decision: decisionRow, element: elementRow };

export type TableName = keyof typeof tableSchemas;
export type Rows = { [T in TableName]: v.InferOutput<(typeof tableSchemas)[T]> };
export type LevelRow = Rows['level'];
export type DrawingRow = Rows['drawing'];
export type PlacementRow = Rows['placement'];
export type RoleRow = Rows['role'];
export type DisplayRow = Rows['display'];
export type DecisionRow = Rows['decision'];
export type ElementOfState = Rows['element'];

/** All rows of a project by table and id. */
export type ProjectState = { readonly [T in TableName]: Readonly<Record<string, Rows[T]>> };

export const emptyState: ProjectState = { project: {}, level: {}, drawing: {}, placement: {}, recipe: {}, display: {}, role: {}, decision: {}, element: {} };

export const tableNames = Object.keys(tableSchemas) as TableName[];
