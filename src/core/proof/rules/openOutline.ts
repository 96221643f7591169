import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { area, contains } from '@/core/geometry/polygon';
import { distance, pointAlong, type Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import { awayFromLine } from '@/core/kinds/lines';
import { elevationOf, found, type Rule } from '../rule';
import { inPlan, type ModelZone, type Subject } from '../subject';

/** A room's outline is asked at places so far apart, metres; a shorter gap than the second is none. */
const [step, shortest] = [0.1, 0.15];
/** What encloses lies within this of a room's outline, metres; what lies beyond is looked for so far outside it. */
const [atOutline, beyond] = [0.1, 0.6];
/** Rooms of which less than this share is enclosed are meant to be open: terraces, yards, canopies. */
const enclosed = 0.6;

/** A place on the outline of a room, with the direction out of it. */
interface Edge {
  at: Point;
  out: Point;
  length: number;
}

/** A room's outline in short pieces, each seen from its middle. */
function edgesOf(ring: readonly Point[]): Edge[] {
  const turn = Math.sign(area(ring)) || 1;
  return ring.flatMap((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const size = distance(a, b);
    if (size === 0) return [];
    const count = Math.max(1, Math.round(size / step));
    const out: Point = [(turn * (b[1] - a[1])) / size, (-turn * (b[0] - a[0])) / size];
    return Array.from({ length: count }, (_, k) => ({
      at: pointAlong(a, b, (k + 0.5) / count),
      out,
      length: size / count,
    }));
  });
}

/** Whether a wall or a column stands at a place of a level. */
function isEnclosed({ wallsNear, columnsNear }: Subject, { at }: Edge, z: number): boolean {
  const stands = ({ base, top, outline }: { base: number; top: number; outline: readonly Point[] }): boolean =>
    base <= z && top >= z && (contains(outline, at) || awayFromLine([...outline, outline[0]], at) <= atOutline);
  return wallsNear(at, atOutline).some(stands) || columnsNear(at, atOutline).some(stands);
}

/** Runs of a ring's pieces of which something is true, also over its end. */
function runsOf(edges: readonly Edge[], isOpen: (edge: Edge) => boolean): Edge[][] {
  const first = edges.findIndex((edge) => !isOpen(edge));
  if (first < 0) return [[...edges]];
  const runs: Edge[][] = [[]];
  for (const edge of [...edges.slice(first), ...edges.slice(0, first)]) {
    if (isOpen(edge)) runs[runs.length - 1].push(edge);
    else if (runs[runs.length - 1].length > 0) runs.push([]);
  }
  return runs;
}

const lengthOf = (edges: readonly Edge[]): number => edges.reduce((sum, { length }) => sum + length, 0);

/** Rooms whose walls leave a gap to the outside: the outline of the building does not close there. */
export const openOutline: Rule = {
  name: 'open outline',
  near: false,
  find(subject) {
    return [...groupBy(subject.model.zones, ({ level }) => level)].flatMap(([level, zones]) => {
      const z = elevationOf(subject, level);
      const rings = zones.map(({ outline }) => outline.map(inPlan));
      const index = new BoxIndex([...rings.keys()], (i) => boxOf(rings[i]));
      const leads = (from: number, { at, out }: Edge): boolean => {
        const p: Point = [at[0] + out[0] * beyond, at[1] + out[1] * beyond];
        return index.around(p, 0).some((i) => i !== from && contains(rings[i], p));
      };
      return zones.flatMap((zone, i) => gapsOf(subject, zone, rings[i], z, (edge) => leads(i, edge)));
    });
  },
};

/** Where somebody stands between the floor and the head of a door, metres above the floor. */
const eye = 1;

function gapsOf(
  subject: Subject,
  { id, name, number }: ModelZone,
  ring: readonly Point[],
  z: number,
  leads: (edge: Edge) => boolean,
) {
  if (ring.length < 3) return [];
  const edges = edgesOf(ring);
  const bare = new Set(edges.filter((edge) => !isEnclosed(subject, edge, z + eye)));
  if (lengthOf(edges) - lengthOf([...bare]) < enclosed * lengthOf(edges)) return [];
  return runsOf(edges, (edge) => bare.has(edge) && !leads(edge)).flatMap((run) => {
    const length = lengthOf(run);
    if (length < shortest) return [];
    return [
      found('warning', [id], run[Math.floor(run.length / 2)].at, z, [
        `The outline of the building is open over about ${length.toFixed(1)} m at ${name || number || 'this room'}.`,
        'Draw the wall that is missing there, or close the gap with Tidy; accept it where the room is meant to be open.',
      ]),
    ];
  });
}
