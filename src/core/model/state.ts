import type { ElementKind, ElementRow } from '@/core/kinds/element';
import type { Kind } from '@/core/kinds/kind';
import { kinds } from '@/core/kinds/kinds';
import { libraryRow } from '@/core/kinds/libraryEntry';
import {
  coordinate,
  drawnCoordinate,
  drawnName,
  finite,
  handle,
  key,
  name,
  point,
  positive,
  inRadians,
  surveyed,
  textUpTo,
  uuid,
} from '@/core/kinds/limits';
import * as v from 'valibot';
import { chosenBy } from '@/core/chosenBy';
import { angleConventions } from '@/core/units/angle';
import { displayUnits, lengthUnits } from '@/core/units/length';
import { settingsSchema } from '@/core/patterns/settings';
import { likenessSchema } from '@/core/sorting/alike';
import { answerSchema } from '@/core/sorting/answers';
import { roles } from '@/core/sorting/roles';
import { displaySchema } from '@/core/underlay/display';
import { viewRow } from './look';
import { siteSettings } from './siteSettings';
import { structureSettings } from './structureSettings';
import { recipeSchema } from '@/core/underlay/recipe/steps';

/**
 * The rows that make up a project, with their limits: what the database holds, what edits change, what a
 * window shows. Lengths in metres, angles in degrees unless said otherwise. What came later than the first edits has a
 * default, so that an edit logged before can still be taken back.
 */

/** Of a row that hangs on a drawing: the drawing's id, and what tells it from the others of that drawing. */
const derivedId = v.pipe(key, v.regex(/^[0-9a-f-]{36}\//, 'The id begins with that of a drawing.'));
const otherId = 'The id of a row is not what its fields make it.';

/** Where the project lies in the survey; angles in radians. */
const survey = v.strictObject({
  easting: surveyed,
  northing: surveyed,
  elevation: coordinate,
  north: inRadians,
  /** What the system of coordinates is called. */
  system: v.optional(textUpTo(120)),
});

/** Axes to work along, such as those of a wing that stands askew; the angle in radians. */
const workingAxes = v.strictObject({ id: uuid, name, origin: point, angle: inRadians });

const pattern = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'A pattern needs at least one character.'),
  v.maxLength(80),
);

/** How sections and constructions are named: {w} width or diameter, {d} depth, {t} thickness, {n} a number. */
const naming = v.strictObject({
  rectangle: pattern,
  circle: pattern,
  polygon: pattern,
  wall: pattern,
  slab: pattern,
  glazing: pattern,
});
export type Naming = v.InferOutput<typeof naming>;

/** A finding that somebody accepts, with the reason: by its rule, the elements it is about, and what it says. */
export const acceptanceRow = v.strictObject({
  id: uuid,
  rule: v.pipe(v.string(), v.minLength(1), v.maxLength(60)),
  elements: v.pipe(v.array(v.pipe(v.string(), v.maxLength(100))), v.maxLength(100_000)),
  message: v.pipe(v.string(), v.maxLength(2000)),
  reason: v.pipe(v.string(), v.trim(), v.minLength(1, 'Say why it is accepted.'), v.maxLength(500)),
});

export const projectRow = v.strictObject({
  id: uuid,
  name,
  displayUnit: v.picklist(displayUnits),
  /**
   * Decimal places of lengths, or the power of two of the smallest fraction of an inch; null is what suits the unit.
   */
  places: v.optional(v.nullable(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(6))), null),
  angles: v.optional(v.picklist(angleConventions), 'east'),
  survey: v.optional(v.nullable(survey), null),
  axes: v.optional(v.pipe(v.array(workingAxes), v.maxLength(100)), []),
  /** Null is as the program names by itself. */
  naming: v.optional(v.nullable(naming), null),
  /** What reading takes for granted; null is as the program does by itself. */
  reading: v.optional(v.nullable(settingsSchema), null),
  /** What the structural trial starts from; null is as the program does by itself. */
  structure: v.optional(v.nullable(structureSettings), null),
  /** What the trial of heat starts from; null is as the program does by itself. */
  site: v.optional(v.nullable(siteSettings), null),
});

export const levelKinds = ['foundation', 'ground', 'floor', 'roof'] as const;

export const levelRow = v.strictObject({
  id: uuid,
  name,
  /** Of the finished floor. */
  elevation: coordinate,
  /** To the next level, or of the topmost storey. */
  height: positive,
  kind: v.optional(v.picklist(levelKinds), 'floor'),
  /** Of the floor's finish: the structure's top lies lower than the finished floor by this. */
  buildUp: v.optional(v.pipe(finite, v.minValue(0), v.maxValue(10)), 0),
  /** Thickness of the slab below the structure's top; zero where there is none. */
  slab: v.optional(v.pipe(finite, v.minValue(0), v.maxValue(20)), 0),
  /** The level that this one repeats, or null where it is its own. */
  repeats: v.optional(v.nullable(uuid), null),
});

export const drawingRow = v.strictObject({
  id: uuid,
  name,
  fileId: uuid,
  fileName: v.pipe(textUpTo(255), v.minLength(1)),
  revision: v.pipe(v.number(), v.integer(), v.minValue(1)),
  /** The level that elements read from it belong to. */
  levelId: v.nullable(uuid),
  /** Further levels that it is shown on. */
  alsoOn: v.optional(v.pipe(v.array(uuid), v.maxLength(300)), []),
  /** Taken out of the project; its file stays, so that this can be undone. */
  discarded: v.boolean(),
  /** Not shown for now, its placement kept. */
  setAside: v.boolean(),
});

export const placementRow = v.strictObject({
  /** The drawing's. */
  id: uuid,
  unit: v.picklist(lengthUnits),
  /** True sizes per drawn size: 1 for a drawing at true size. */
  scale: v.optional(v.pipe(finite, v.minValue(1e-6), v.maxValue(1e6)), 1),
  /** Whether a person has confirmed the unit. */
  confirmed: v.boolean(),
  /** In drawing units. */
  origin: v.strictTuple([drawnCoordinate, drawnCoordinate]),
  target: point,
  /** Radians, counter-clockwise. */
  turning: inRadians,
  mirrored: v.optional(v.boolean(), false),
  /** For a drawing that stands upright the elevation of its origin; null for a plan. */
  upright: v.optional(v.nullable(coordinate), null),
});

/** The clean-up of a drawing, under the drawing's id. */
export const recipeRow = v.strictObject({ id: uuid, steps: recipeSchema });

/** How a drawing is shown, under the drawing's id. */
export const displayRow = v.strictObject({ id: uuid, ...displaySchema.entries });

export const roleRow = v.pipe(
  v.strictObject({
    /** The drawing's id and the layer. */
    id: derivedId,
    drawingId: uuid,
    layer: drawnName,
    role: v.nullable(v.picklist(roles)),
    /** Whether the role is a suggestion that nobody has touched. */
    suggested: v.boolean(),
    shown: v.boolean(),
    /** The section or construction that everything read from the layer is made of. */
    libraryId: v.optional(v.nullable(uuid), null),
  }),
  v.check((row) => row.id === `${row.drawingId}/${row.layer}`, otherId),
);

/**
 * A role that goes before those of layers: of a block by its name, of lines picked by hand, by their handles, or of
 * everything that is alike.
 */
export const pickRow = v.variant('kind', [
  v.strictObject({
    id: uuid,
    drawingId: uuid,
    kind: v.literal('block'),
    name: drawnName,
    role: v.picklist(roles),
  }),
  v.strictObject({
    id: uuid,
    drawingId: uuid,
    kind: v.literal('lines'),
    name,
    role: v.picklist(roles),
    handles: v.pipe(v.array(handle), v.minLength(1), v.maxLength(50_000)),
  }),
  v.strictObject({
    id: uuid,
    drawingId: uuid,
    kind: v.literal('alike'),
    name,
    role: v.picklist(roles),
    like: likenessSchema,
  }),
  v.strictObject({
    id: uuid,
    drawingId: uuid,
    kind: v.literal('answer'),
    name,
    answer: answerSchema,
  }),
]);

const shortText = textUpTo(1000);

function isPlain(value: unknown): boolean {
  if (typeof value === 'string') return v.is(shortText, value);
  if (typeof value === 'number') return !Number.isNaN(value);
  return typeof value === 'boolean' || value === null;
}

/** The plain values of a shape in their order, as `decisions/likeness` compares them. */
const values = v.pipe(
  v.array(
    v.custom<number | string | boolean | null>(isPlain, 'A value is a number, a short text, true, false or null.'),
  ),
  v.maxLength(100_000),
);

export const decisionRow = v.pipe(
  v.strictObject({
    /** The drawing's id and the key. */
    id: derivedId,
    drawingId: uuid,
    key,
    verdict: v.picklist(['accepted', 'rejected']),
    elementId: v.nullable(uuid),
    /** What was read when it was decided. The log may have a short text in its place, which no longer says anything. */
    seen: v.optional(
      v.nullable(
        v.union([
          values,
          v.pipe(
            v.string(),
            v.transform(() => null),
          ),
        ]),
      ),
      null,
    ),
  }),
  v.check((row) => row.id === `${row.drawingId}/${row.key}`, otherId),
);

const source = v.nullable(v.strictObject({ drawing: uuid, handles: v.pipe(v.array(handle), v.maxLength(10_000)) }));

/** An element of one kind, with the limits of that kind's shape. */
const elementOf = <K extends ElementKind>({ kind, schema }: Kind<K>) =>
  v.strictObject({
    id: uuid,
    levelId: v.nullable(uuid),
    source,
    /** What its size comes from. */
    libraryId: v.optional(v.nullable(uuid), null),
    /** Whether somebody has checked it: then it is not changed. */
    held: v.optional(v.literal(true)),
    kind: v.literal(kind),
    shape: schema,
  });

export const elementRow: v.GenericSchema<unknown, ElementRow> = chosenBy<ElementRow>('kind', {
  grid: elementOf(kinds.grid),
  column: elementOf(kinds.column),
  beam: elementOf(kinds.beam),
  wall: elementOf(kinds.wall),
  opening: elementOf(kinds.opening),
  slab: elementOf(kinds.slab),
  zone: elementOf(kinds.zone),
  outdoor: elementOf(kinds.outdoor),
  roof: elementOf(kinds.roof),
  support: elementOf(kinds.support),
  pointLoad: elementOf(kinds.pointLoad),
  lineLoad: elementOf(kinds.lineLoad),
  areaLoad: elementOf(kinds.areaLoad),
  luminaire: elementOf(kinds.luminaire),
  calculationArea: elementOf(kinds.calculationArea),
  contour: elementOf(kinds.contour),
});

export const tableSchemas = {
  project: projectRow,
  level: levelRow,
  library: libraryRow,
  drawing: drawingRow,
  placement: placementRow,
  recipe: recipeRow,
  display: displayRow,
  role: roleRow,
  pick: pickRow,
  decision: decisionRow,
  element: elementRow,
  view: viewRow,
  acceptance: acceptanceRow,
};

/** The form of the ids of each table. */
export const idSchema = (table: TableName) => (table === 'role' || table === 'decision' ? derivedId : uuid);

export type TableName = keyof typeof tableSchemas;
export type Rows = { [T in TableName]: v.InferOutput<(typeof tableSchemas)[T]> };
export type ProjectRow = Rows['project'];
export type LevelRow = Rows['level'];
export type LevelKind = LevelRow['kind'];
export type DrawingRow = Rows['drawing'];
export type AcceptanceRow = Rows['acceptance'];
export type PlacementRow = Rows['placement'];
export type RoleRow = Rows['role'];
export type PickRow = Rows['pick'];
export type LibraryRow = Rows['library'];
export type DisplayRow = Rows['display'];
export type DecisionRow = Rows['decision'];

/** All rows of a project by table and id. */
export type ProjectState = { readonly [T in TableName]: Readonly<Record<string, Rows[T]>> };

export const emptyState: ProjectState = {
  project: {},
  level: {},
  library: {},
  drawing: {},
  placement: {},
  recipe: {},
  display: {},
  role: {},
  pick: {},
  decision: {},
  element: {},
  view: {},
  acceptance: {},
};

export const tableNames = Object.keys(tableSchemas) as TableName[];
