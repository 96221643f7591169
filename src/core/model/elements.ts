import type { Point } from '@/core/geometry/vector';

/** Where an element came from. */
export interface Source {
  drawing: string;
  handles: string[];
}

/** A straight grid line or an arc of one. Lengths in metres, angles in degrees, in the project's coordinates. */
export type GridLine =
  | { label: string; kind: 'line'; start: Point; end: Point }
  | { label: string; kind: 'arc'; centre: Point; radius: number; startAngle: number; endAngle: number };

/**
 * A cross-section; the width runs along the rotated x, the depth along the rotated y, an outline about the position.
 */
export type Section =
  | { shape: 'rectangle'; width: number; depth: number }
  | { shape: 'circle'; diameter: number }
  | { shape: 'polygon'; outline: Point[] };

export interface Column {
  position: Point;
  rotation: number;
  section: Section;
  mark: string;
}

/** A wall by its centre line; straight, or bent by a bulge. */
export interface Wall {
  start: Point;
  end: Point;
  thickness: number;
  /** Null is its level's. */
  height: number | null;
  bulge: number;
  /** Whether one side of it is outside. */
  outer: boolean;
}

/** A door or a window in a wall; `offset` is from the wall's start to its near edge, the sill above the level. */
export interface Opening {
  wall: string;
  use: 'door' | 'window';
  offset: number;
  width: number;
  height: number;
  sill: number;
}

export const justifications = ['centre', 'left', 'right'] as const;

/**
 * A beam by the line it is drawn on, its top at the top of its level's storey, or `drop` below it. The line is the
 * section's middle, or its left or its right
 * side, seen from start to end.
 */
export interface Beam {
  start: Point;
  end: Point;
  section: Section;
  mark: string;
  drop?: number;
  justification?: (typeof justifications)[number];
}

export interface Slab {
  outline: Point[];
  holes: Point[][];
  thickness: number;
}

/** A room or another bounded part of a level, by the inner faces of what bounds it; a height of null is its level's. */
export interface Zone {
  name: string;
  number: string;
  outline: Point[];
  holes: Point[][];
  height: number | null;
}

/** A surface outside, or what stands on it. */
export interface Outdoor {
  name: string;
  outline: Point[];
  height: number;
}

export interface Shapes {
  grid: GridLine;
  column: Column;
  beam: Beam;
  wall: Wall;
  opening: Opening;
  slab: Slab;
  zone: Zone;
  outdoor: Outdoor;
}
export type ElementKind = keyof Shapes;
export const elementKinds = [
  'grid',
  'column',
  'beam',
  'wall',
  'opening',
  'slab',
  'zone',
  'outdoor',
] as const satisfies readonly ElementKind[];

/** An accepted or hand-drawn part of the model. */
export type ElementRow = {
  id: string;
  levelId: string | null;
  source: Source | null;
  /** The library's section or construction that its size comes from. */ libraryId?: string | null;
} & { [K in ElementKind]: { kind: K; shape: Shapes[K] } }[ElementKind];

/** A section's size in words, in millimetres: "400 x 400", "round 450", "L or other shape 600 x 800". */
export function sectionName(section: Section): string {
  const mm = (metres: number) => String(Number((metres * 1000).toFixed(1)));
  if (section.shape === 'rectangle') return `${mm(section.width)} \u00d7 ${mm(section.depth)}`;
  if (section.shape === 'circle') return `\u2300 ${mm(section.diameter)}`;
  const [xs, ys] = [section.outline.map((p) => p[0]), section.outline.map((p) => p[1])];
  return `${section.outline.length} corners, ${mm(Math.max(...xs) - Math.min(...xs))} \u00d7 ${mm(Math.max(...ys) - Math.min(...ys))}`;
}

/** The corners of a column's outline in the project's coordinates; a circle as 32. */
export function columnOutline({ position, rotation, section }: Column): Point[] {
  const angle = (rotation * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const local: Point[] =
    section.shape === 'rectangle'
      ? (
          [
            [-1, -1],
            [1, -1],
            [1, 1],
            [-1, 1],
          ] as Point[]
        ).map(([x, y]): Point => [(x * section.width) / 2, (y * section.depth) / 2])
      : section.shape === 'circle'
        ? Array.from({ length: 32 }, (_, i): Point => [
            (section.diameter / 2) * Math.cos((i * Math.PI) / 16),
            (section.diameter / 2) * Math.sin((i * Math.PI) / 16),
          ])
        : section.outline;
  return local.map(([x, y]): Point => [position[0] + c * x - s * y, position[1] + s * x + c * y]);
}
