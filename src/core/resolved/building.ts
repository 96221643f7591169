import type { ElementKind, ElementOf } from '@/core/kinds/element';
import type { LevelRow } from '@/core/model/state';
import type { Boundary } from './boundaries';
import type { Profile, UnderRoofs } from './roofs';

/** A level with the heights that follow from it, metres above the project's zero. */
export interface Storey {
  level: LevelRow;
  /** Of the finished floor. */
  base: number;
  /** Of the storey above, or of the roof. */
  top: number;
  /** Of the floor's structure, below its finish. */
  structuralTop: number;
}

/**
 * An element as it stands in the building. On a level that repeats another it has an id of its own, made of the
 * element's and the level's.
 */
export type Placed<K extends ElementKind> = Omit<ElementOf<K>, 'levelId'> & {
  /** The element of the model that it is. */
  elementId: string;
  storey: Storey;
};

export type PlacedColumn = Placed<'column'> & { base: number; top: number };
/** A member with the heights of its top at its start and its end. */
export type PlacedBeam = Placed<'beam'> & { startTop: number; endTop: number };
/** A wall; where it ends under a roof it has the heights of its top along it, of which `top` is the greatest. */
export type PlacedWall = Placed<'wall'> & {
  base: number;
  top: number;
  profile: Profile | null;
  openings: PlacedOpening[];
};
/** An opening; `wall` is the placed wall's id. */
export type PlacedOpening = Placed<'opening'> & { wall: string };
/** A slab with the height of its structure's top. */
export type PlacedSlab = Placed<'slab'> & { top: number };
/** A zone; where it ends under a roof it has what lies under its planes. */
export type PlacedZone = Placed<'zone'> & {
  base: number;
  height: number;
  underRoofs: UnderRoofs | null;
  boundaries: Boundary[];
};
export type PlacedOutdoor = Placed<'outdoor'> & { base: number };
/** A roof plane; its heights are above `base`. */
export type PlacedRoof = Placed<'roof'> & { base: number };
/** What lies at one height above the project's zero. */
export type At<K extends ElementKind> = Placed<K> & { z: number };

/** Something that could not be resolved: it is not part of the building, or an end of it is not where it is tied to. */
export interface Unresolved {
  rule: 'noLevel' | 'noWall' | 'beyondWall' | 'noTie' | 'noRoof';
  /** Of the model. */
  elements: string[];
  kind: ElementKind;
  /** What was found, what was expected, what to do. */
  message: string;
  /** Whether it is in the building all the same, and only lies otherwise than it was meant to. */
  kept: boolean;
}

/**
 * The whole building as everything downstream starts from it: repeated levels unrolled, heights and tops filled in,
 * openings in their walls, zones with what bounds them.
 */
export interface Building {
  /** From the lowest up. */
  storeys: Storey[];
  grids: ElementOf<'grid'>[];
  columns: PlacedColumn[];
  beams: PlacedBeam[];
  walls: PlacedWall[];
  slabs: PlacedSlab[];
  zones: PlacedZone[];
  outdoor: PlacedOutdoor[];
  roofs: PlacedRoof[];
  supports: At<'support'>[];
  pointLoads: At<'pointLoad'>[];
  lineLoads: At<'lineLoad'>[];
  /** On the structure's top of its level. */
  areaLoads: At<'areaLoad'>[];
  luminaires: At<'luminaire'>[];
  calculationAreas: At<'calculationArea'>[];
  /** The ground about the building; like grid lines they belong to no storey. */
  contours: ElementOf<'contour'>[];
  unresolved: Unresolved[];
}
