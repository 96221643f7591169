import type { Place } from '@/core/bodies/shell';
import type { Region } from '@/core/geometry/clipping';
import type { Room } from '@/core/rooms/rooms';
import type { Stretch } from './stretches';

export const surfaceKinds = ['wall', 'floor', 'ceiling', 'roof', 'window', 'door'] as const;
export type SurfaceKind = (typeof surfaceKinds)[number];

/** A surface of a room: what it is, how large, which way it looks, and what lies beyond it. */
export interface Surface {
  kind: SurfaceKind;
  /** Walls, openings and slabs that it is made of. */
  elements: string[];
  /** Square metres by the measure; of walls with and without what is cut out of them. */
  area: number;
  net: number;
  /** A neighbour's building has a temperature of its own; behind what is adiabatic it is as warm as here. */
  beyond: 'outside' | 'ground' | 'neighbour' | 'adiabatic' | Room;
  /** Degrees clockwise from north; zero of what lies level. */
  orientation: number;
  /** Degrees: 0 looks up, 90 stands, 180 looks down. */
  tilt: number;
  /** Its middle. */
  at: Place;
  /** Metres below the ground, of what lies in it. */
  depth: number;
  /** Of what stands along the edge of a floor on the ground: its length, metres. */
  edge: number;
  construction?: string;
  material?: string;
  thickness: number;
  /** Of what lies level, where it lies in plan by inner faces. */
  region?: Region;
  /** Of what slopes or ends under a slope, where it lies by inner faces: parts, each its outline, then its holes. */
  faces?: Place[][][];
  /** Of an opening, the stretch that it lies in, by its place among the room's, and its size, metres. */
  cut?: { stretch: number; width: number; height: number };
}

/** A room with all that closes it. */
export interface Enclosed {
  room: Room;
  volume: number;
  surfaces: Surface[];
  /** Its sides as they are parted; its surfaces begin with theirs, in their order. */
  stretches: Stretch[];
}
