import { leastOf, mostOf } from '@/core/lists';
import { BoxIndex, boxOf, type Box } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import { inFamily, inPlan } from '@/core/patterns/faces';
import { unique } from '@/core/patterns/strips';
import { alongBend, type Bend } from './bends';
import { openingWidth, type Gap, type Mark, type Run } from './runs';

/** A wall as what is drawn over it is measured: straight, or unrolled. */
interface Host {
  from: number;
  to: number;
  thickness: number;
  /** Its openings; those found are added. */
  gaps: Gap[];
  /** Round its faces. */
  box: Box;
  /** Where a point lies along it, and how far beside its middle. */
  local: (p: Point) => Point;
}

const hostOfRun = (run: Run): Host => ({
  from: run.from,
  to: run.to,
  thickness: run.thickness,
  gaps: run.gaps,
  box: boxOf(
    [run.from, run.to].map((along) => inPlan(run.family, along, run.offset)),
    run.thickness,
  ),
  local(p) {
    const [along, offset] = inFamily(run.family, p);
    return [along, offset - run.offset];
  },
});

const hostOfBend = (bend: Bend): Host => ({
  from: 0,
  to: bend.sweep * bend.radius,
  thickness: bend.thickness,
  gaps: bend.gaps,
  box: boxOf([bend.centre], bend.radius + bend.thickness),
  local: (p) => alongBend(bend, p),
});

/** Lines of one window are this near to one another along a wall, metres. */
const oneWindow = 0.01;
/** What is drawn over a wall may begin or end this much beyond it along, and stand out across, metres. */
const beyond = { along: 0.01, across: 0.06 };
/** A leaf is at least this wide, metres. */
const leastLeaf = 0.3;

/**
 * Doors and windows drawn over faces that go on are openings as wide as they are drawn. What stands in a gap of any
 * wall is none of these: it may lean on another.
 */
export function addDrawnOver(runs: readonly Run[], bends: readonly Bend[], marks: readonly Mark[]): void {
  const hosts = [...runs.map(hostOfRun), ...bends.map(hostOfBend)];
  const used = new Set(hosts.flatMap(({ gaps }) => gaps.flatMap(({ sources }) => sources)));
  const free = marks.filter(({ source }) => !used.has(source));
  if (free.length === 0) return;
  const index = new BoxIndex(free, ({ points }) => boxOf(points));
  const taken = new Set<Mark>();
  for (const host of hosts.sort((a, b) => b.to - b.from - (a.to - a.from))) {
    const over = index
      .touching(host.box)
      .filter((mark) => !taken.has(mark))
      .flatMap((mark) => {
        const at = stretchOver(mark, host);
        return at === null ? [] : [{ mark, ...at }];
      })
      .sort((a, b) => a.from - b.from);
    for (const { from, to, kind, marks: group } of groupsOf(over)) {
      const width = to - from;
      if (width < openingWidth.least || width > openingWidth.most) continue;
      if (host.gaps.some((gap) => gap.from < to && gap.to > from)) continue;
      for (const mark of group) taken.add(mark);
      host.gaps.push({ from, to, kind, sources: unique(group.map(({ source }) => source)), over: true });
    }
    host.gaps.sort((a, b) => a.from - b.from);
  }
}

interface Over {
  mark: Mark;
  from: number;
  to: number;
  /** Whether it is a line across the wall. */
  jamb: boolean;
}

/** A jamb is at most this long along a wall, metres, and at least this share of its thickness across. */
const jambLine = { along: 0.03, across: 0.6 };

/** What is drawn over a wall, lines of one window together: they overlap along it. Jambs say how wide it is. */
function groupsOf(over: readonly Over[]): { from: number; to: number; kind: Mark['kind']; marks: Mark[] }[] {
  const groups: { to: number; parts: Over[] }[] = [];
  for (const part of over) {
    const last = groups[groups.length - 1];
    if (last !== undefined && part.from < last.to + oneWindow && part.mark.kind === last.parts[0].mark.kind) {
      last.to = Math.max(last.to, part.to);
      last.parts.push(part);
    } else groups.push({ to: part.to, parts: [part] });
  }
  return groups.map(({ parts }) => {
    const jambs = parts.filter(({ jamb }) => jamb);
    const [low, high] = [leastOf(jambs.map(({ from }) => from)), mostOf(jambs.map(({ to }) => to))];
    // A sill goes on beyond the jambs.
    const telling = high - low >= openingWidth.least ? jambs : parts;
    return {
      from: leastOf(telling.map(({ from }) => from)),
      to: mostOf(telling.map(({ to }) => to)),
      kind: parts[0].mark.kind,
      marks: parts.map(({ mark }) => mark),
    };
  });
}

/**
 * Where along a wall something is drawn over it: a window within its thickness, a door that begins on its face; null
 * where it is beside it or beyond its ends.
 */
function stretchOver({ kind, points }: Mark, { local, thickness, ...host }: Host): Omit<Over, 'mark'> | null {
  const places = points.map(local);
  const [along, offsets] = [places.map(([x]) => x), places.map(([, y]) => y)];
  const [from, to, low, high] = [leastOf(along), mostOf(along), leastOf(offsets), mostOf(offsets)];
  if (from < host.from - beyond.along || to > host.to + beyond.along) return null;
  const reach = thickness / 2 + beyond.across;
  const jamb = to - from <= jambLine.along && high - low >= jambLine.across * thickness;
  if (kind === 'window') return low >= -reach && high <= reach ? { from, to, jamb } : null;
  // A leaf swings to one side, from the face or from the middle.
  return low <= reach && high >= -reach && high - low > leastLeaf ? { from, to, jamb: false } : null;
}
