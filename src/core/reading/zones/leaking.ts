import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { centroid, contains } from '@/core/geometry/polygon';
import type { PlacedText } from '@/core/placed/placed';
import { regionFinder } from '../walls/regions';
import type { Segment } from '../walls/network';
import type { Bounded, Leak } from './bounded';

/** Walls further than this from a name are not looked at to close its room, metres. */
const reach = 25;
/** A room open over more than this is none that only lacks a wall's face, metres: a name there is told as one. */
const widestClosed = 2.5;
/** Names that rooms are looked for by, at most: where there are more, the walls themselves were not read. */
const mostNames = 300;

/**
 * The rooms of names that stand in none: bounded by walls whose gaps are closed, the smallest first. Where the widest
 * gap is too wide to be closed, the name stays without a room, and the gap is told.
 * @param names texts that are names of rooms
 * @param closed rooms that are bounded already
 * @param gap widest gap that is closed without a word, metres
 */
export function leakingZones(
  names: readonly PlacedText[],
  segments: readonly Segment[],
  closed: readonly Bounded[],
  gap: number,
): { rooms: Bounded[]; open: Map<PlacedText, Leak> } {
  const [rooms, open]: [Bounded[], Map<PlacedText, Leak>] = [[], new Map()];
  if (names.length > mostNames) return { rooms, open };
  const sides = new BoxIndex(
    segments.map(({ start, end, thickness, run }) => ({ a: start, b: end, thickness, run })),
    ({ a, b }) => boxOf([a, b]),
  );
  for (const name of names) {
    if (rooms.some(({ outline }) => contains(outline, name.at))) continue;
    const near = sides.around(name.at, reach);
    const found = regionFinder(near, gap)(name.at);
    if (found.kind === 'open') continue;
    const {
      region: { outline, holes },
      areas,
    } = found;
    const leak = found.kind === 'leak' ? { from: found.from, to: found.to, width: found.width } : null;
    if (
      closed.some((other) => contains(outline, centroid(other.outline)) || contains(other.outline, centroid(outline)))
    )
      continue;
    if (leak !== null && leak.width > widestClosed) {
      open.set(name, leak);
      continue;
    }
    const box = boxOf(outline, 1);
    const handles = new Set(sides.touching(box).flatMap(({ run }) => run.sources.map(({ handle }) => handle)));
    rooms.push({ outline, holes, areas, handles: [...handles], drawn: false, leak });
  }
  return { rooms, open };
}
