import * as v from 'valibot';
import { distance, middle, subtract, type Point } from '@/core/geometry/vector';
import { coordinates, words } from './fields';
import { metres } from './figures';
import type { Field, Kind } from './kind';
import { drop, inDegrees, label, point } from './limits';
import { awayFromLine, bandOutline, dragLine, lineGrips } from './lines';
import { materialField, materialId } from './material';
import { scaleSection, sectionFields, sectionName, sectionSchema, sectionSize, type Section } from './section';
import { freedoms, type Freedom } from './support';
import { endTies, type EndTies } from './tie';

export const justifications = ['centre', 'left', 'right'] as const;
/** What a member does: carry floors, stiffen, or be part of a truss. */
export const memberUses = ['beam', 'brace', 'member'] as const;

/**
 * A beam or another straight member by the line it is drawn on. The line lies `drop` below the top of its level's
 * storey at the start and `endDrop` below it at the end; without an `endDrop` it is level. It is a beam's top, and the
 * middle of a brace and of a member of a truss. The line is the section's middle, or
 * its left or its right side, seen from start to end.
 */
export interface Beam {
  start: Point;
  end: Point;
  section: Section;
  mark: string;
  drop?: number;
  endDrop?: number;
  justification?: (typeof justifications)[number];
  use?: (typeof memberUses)[number];
  /** Its section turned about its axis, seen from its start, degrees. */
  angle?: number;
  /** Left out where its kind's is taken. */
  material?: string;
  /** What its ends do not pass on, about its own axes; rigid where nothing is said. */
  releases?: { start: Freedom[]; end: Freedom[] };
  /** Ends whose tops lie at levels instead. */
  ties?: EndTies;
}

/** How far the top lies below the storey's at the start and at the end, metres. */
export const dropsOf = ({ drop: start = 0, endDrop = start }: Beam): [start: number, end: number] => [start, endDrop];

/** Metres from end to end, in space. */
export function memberLength(beam: Beam): number {
  const [from, to] = dropsOf(beam);
  return Math.hypot(distance(beam.start, beam.end), to - from);
}

/** How far the section's middle lies to the left of the line, by its justification. */
function leftBy({ justification, section }: Beam): number {
  const half = sectionSize(section).width / 2;
  if (justification === 'left') return -half;
  return justification === 'right' ? half : 0;
}

/** The middle of a beam's width: its line, or beside it where that is one of its sides. */
export function middleOfBeam(beam: Beam): [Point, Point] {
  const { start, end } = beam;
  const [length, by] = [distance(start, end), leftBy(beam)];
  if (by === 0 || length === 0) return [start, end];
  const along = subtract(end, start);
  const [nx, ny] = [(-along[1] / length) * by, (along[0] / length) * by];
  return [
    [start[0] + nx, start[1] + ny],
    [end[0] + nx, end[1] + ny],
  ];
}

/** Left and right change places in a mirror. */
export const otherSide = { left: 'right', right: 'left', centre: 'centre' } as const;

const released = v.pipe(v.array(v.picklist(freedoms)), v.maxLength(freedoms.length));

/** How an end is joined: a hinge passes on no bending; another set of freedoms is told as it is. */
const joints = ['rigid', 'hinged'] as const;
const hinge: readonly Freedom[] = ['ry', 'rz'];

function jointWord(own: readonly Freedom[]): string {
  if (own.length === 0) return joints[0];
  return own.length === hinge.length && hinge.every((one) => own.includes(one)) ? joints[1] : own.join(', ');
}

const joint = (end: 'start' | 'end'): Field<'beam'> => ({
  label: end === 'start' ? 'Joint at its start' : 'Joint at its end',
  kind: 'choice',
  options: joints,
  get: ({ releases }) => jointWord(releases?.[end] ?? []),
  set({ releases = { start: [], end: [] }, ...shape }, word) {
    const next = { ...releases, [end]: word === joints[1] ? [...hinge] : [] };
    return next.start.length + next.end.length === 0 ? shape : { ...shape, releases: next };
  },
});

/** Members shorter than this are none, metres. */
const shortest = 0.01;

export const beam: Kind<'beam'> = {
  kind: 'beam',
  names: ['beam', 'beams'],
  schema: v.strictObject({
    start: point,
    end: point,
    section: sectionSchema,
    mark: label,
    drop: v.optional(drop),
    endDrop: v.optional(drop),
    justification: v.optional(v.picklist(justifications)),
    use: v.optional(v.picklist(memberUses)),
    material: materialId,
    releases: v.optional(v.strictObject({ start: released, end: released })),
    angle: v.optional(inDegrees),
    ties: endTies,
  }),
  roles: { own: ['beam'], from: ['beam'] },
  style: { area: true, place: 5 },
  outlines: (shape) => [bandOutline(middleOfBeam(shape), sectionSize(shape.section).width)],
  points: (shape) => bandOutline(middleOfBeam(shape), sectionSize(shape.section).width),
  anchor: ({ start, end }) => middle(start, end),
  ends: ({ start, end }) => [start, end],
  away: (shape, p) => Math.max(0, awayFromLine(middleOfBeam(shape), p) - sectionSize(shape.section).width / 2),
  standsBack: 3,
  grips: lineGrips,
  drag: dragLine,
  move: (shape, { at, factor, mirrored }) => ({
    ...shape,
    ...(mirrored && shape.justification ? { justification: otherSide[shape.justification] } : {}),
    start: at(shape.start),
    end: at(shape.end),
    section: scaleSection(shape.section, factor, mirrored),
    ...(mirrored && shape.angle ? { angle: -shape.angle } : {}),
  }),
  name: ({ mark }) => mark,
  size: ({ section }) => sectionName(section),
  facts(shape) {
    const [from, to] = dropsOf(shape);
    const inclined = from === to ? '' : `, its end ${metres(Math.abs(to - from))} ${to > from ? 'lower' : 'higher'}`;
    return `${metres(distance(shape.start, shape.end))} from support to support, ${sectionName(shape.section)} mm${inclined}`;
  },
  fields: ({ section }) => [
    ...sectionFields<'beam'>(section),
    words<'beam'>('Mark', 'mark'),
    materialField<'beam'>(
      ({ material }) => material,
      (shape, material) => ({ ...shape, material }),
    ),
    joint('start'),
    joint('end'),
    {
      label: 'Top below the storey\u2019s',
      kind: 'length',
      least: -100,
      get: (shape) => dropsOf(shape)[0],
      set: (shape, value) => ({ ...shape, drop: value }),
    },
    {
      label: 'The same at its end',
      kind: 'length',
      least: -100,
      get: (shape) => dropsOf(shape)[1],
      set: (shape, value) => ({ ...shape, endDrop: value }),
    },
    {
      label: 'Its line is',
      kind: 'choice',
      options: justifications,
      get: ({ justification = 'centre' }) => justification,
      set: (shape, value) => ({ ...shape, justification: justifications.find((one) => one === value) ?? 'centre' }),
    },
    {
      label: 'It is a',
      kind: 'choice',
      options: memberUses,
      get: ({ use = 'beam' }) => use,
      set: (shape, value) => ({ ...shape, use: memberUses.find((one) => one === value) ?? 'beam' }),
    },
    {
      label: 'Turned about its axis',
      kind: 'number',
      unit: '\u00b0',
      least: -360,
      most: 360,
      get: ({ angle = 0 }) => angle,
      set: (shape, value) => ({ ...shape, angle: value }),
    },
    ...coordinates<'beam'>(
      'Start',
      ({ start }) => start,
      (shape, start) => ({ ...shape, start }),
    ),
    ...coordinates<'beam'>(
      'End',
      ({ end }) => end,
      (shape, end) => ({ ...shape, end }),
    ),
  ],
  checks: (shape) =>
    memberLength(shape) < shortest
      ? [`It is ${(memberLength(shape) * 1000).toFixed(1)} mm long; at least ${shortest * 1000} mm were expected.`]
      : [],
};
