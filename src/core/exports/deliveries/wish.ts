import * as v from 'valibot';
import { point, textUpTo, uuid } from '@/core/kinds/limits';
import { lengthUnits, type LengthUnit } from '@/core/units/length';

/** The formats that a model is handed over in. */
export const formatNames = [
  'ifc',
  'gbxml',
  'xlsx',
  'csv',
  'analysis',
  'pdf',
  'svg',
  'results',
  'report',
  'dxf',
  'json',
] as const;
export type FormatName = (typeof formatNames)[number];

/** The lists of a model that a delivery may hold; what they refer to goes with them. */
export const contentNames = [
  'grids',
  'columns',
  'beams',
  'walls',
  'openings',
  'slabs',
  'roofs',
  'zones',
  'outdoor',
  'terrain',
  'supports',
  'loads',
  'luminaires',
  'calculationAreas',
] as const;
export type ContentName = (typeof contentNames)[number];

/** Where a delivery's DXF has its zero. */
const origin = v.variant('at', [
  v.strictObject({ at: v.literal('project') }),
  v.strictObject({ at: v.literal('survey') }),
  /** As a drawing of the project lies, in its own unit: what is written overlays it. */
  v.strictObject({ at: v.literal('drawing'), drawing: uuid }),
  /** A point of the project, such as a crossing of grid lines; its axes turned by so many degrees. */
  v.strictObject({ at: v.literal('point'), point, turn: v.pipe(v.number(), v.minValue(-360), v.maxValue(360)) }),
]);

/** What is to be handed over, and how. */
export const deliveryWish = v.strictObject({
  name: v.pipe(textUpTo(80), v.trim(), v.minLength(1)),
  formats: v.pipe(v.array(v.picklist(formatNames)), v.minLength(1, 'Choose at least one format.')),
  content: v.pipe(v.array(v.picklist(contentNames)), v.minLength(1, 'Choose something to hand over.')),
  /** Ids of levels; null is all of them. */
  levels: v.nullable(v.pipe(v.array(v.string()), v.minLength(1))),
  /** Of the DXF; every other format has metres. */
  unit: v.picklist(lengthUnits),
  origin,
});
export type DeliveryWish = v.InferOutput<typeof deliveryWish>;

type Discipline = Pick<DeliveryWish, 'name' | 'formats' | 'content'>;

/** What receivers of each discipline usually take. */
export const disciplines: readonly Discipline[] = [
  {
    name: 'For structure',
    formats: ['ifc', 'xlsx', 'analysis', 'dxf'],
    content: ['grids', 'columns', 'beams', 'walls', 'openings', 'slabs', 'roofs', 'supports', 'loads'],
  },
  {
    name: 'For energy',
    formats: ['gbxml', 'ifc', 'xlsx'],
    content: ['walls', 'openings', 'slabs', 'roofs', 'zones', 'terrain'],
  },
  {
    name: 'For lighting',
    formats: ['ifc', 'dxf', 'xlsx'],
    content: ['columns', 'walls', 'openings', 'slabs', 'roofs', 'zones', 'outdoor', 'luminaires', 'calculationAreas'],
  },
  { name: 'Everything', formats: [...formatNames], content: [...contentNames] },
];

/** A wish of a discipline, in the project's own coordinates. */
export const plainWish = (of: Discipline, unit: LengthUnit): DeliveryWish => ({
  ...of,
  formats: [...of.formats],
  content: [...of.content],
  levels: null,
  unit,
  origin: { at: 'project' },
});
