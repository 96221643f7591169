import type { Axes, V3 } from './vector3';

/** The six freedoms of a node or of a member's end: along x, y and z, and about them. */
export const freedomCount = 6;

/** A point where members meet, metres; `fixed` in its own axes, which are the project's turned about z, radians. */
export interface FrameNode {
  position: V3;
  fixed: readonly boolean[];
  turn: number;
}

/** What a straight member resists with, newtons, newton metres and newton square metres. */
export interface Rigidity {
  ea: number;
  eiy: number;
  eiz: number;
  eiyz: number;
  gj: number;
}

/** A straight member between two nodes; where its ends do not lie in its nodes, rigid arms lead there. */
export interface FrameMember {
  /** The element of the model that it is, or is a piece of. */
  element: string;
  nodes: readonly [start: number, end: number];
  ends: readonly [start: V3, end: V3];
  axes: Axes;
  rigidity: Rigidity;
  /** The freedoms at the start, then at the end, in its own axes, that are not passed on. */
  released: readonly boolean[];
}

/** Nodes that keep their distances in plan. */
export interface Diaphragm {
  nodes: readonly number[];
}

export interface Frame {
  nodes: FrameNode[];
  members: FrameMember[];
  diaphragms: Diaphragm[];
}

/** A load along a piece of a member: per metre at the piece's start and end, in the project's axes. N/m and Nm/m. */
export interface SpreadLoad {
  member: number;
  /** Metres from the member's start. */
  from: number;
  to: number;
  force: readonly [V3, V3];
  moment: readonly [V3, V3];
}

/** A load at a place of a member, in the project's axes. N and Nm. */
export interface PlaceLoad {
  member: number;
  at: number;
  force: V3;
  moment: V3;
}

/** A load at a node, in the project's axes. N and Nm. */
export interface NodeLoad {
  node: number;
  force: V3;
  moment: V3;
}

/** The loads of one case. */
export interface CaseLoads {
  id: string;
  spread: SpreadLoad[];
  places: PlaceLoad[];
  nodes: NodeLoad[];
}
