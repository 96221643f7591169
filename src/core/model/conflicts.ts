import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, type Point } from '@/core/geometry/vector';
import { kindNames, type Candidate } from '@/core/reading/candidate';
import { decisionId } from './commands';
import type { ElementRow, GridLine } from './elements';
import { sourceLevel } from './levels';
import { pointsOf } from './outlines';
import type { DrawingRow, ProjectState } from './state';

/** Middles closer than this are one place, metres. */
const onePlace = 0.1;
/** A grid line whose ends lie further than this from another's line is another, metres. */
const oneLine = 0.05;

/**
 * What open candidates are at odds with, in words, by their keys: something of their kind that the model has at their
 * place already, from another drawing or by
 * hand, and grid lines whose label another line has.
 */
export function conflictsOf(
  state: ProjectState,
  drawing: DrawingRow,
  candidates: readonly Candidate[],
): Map<string, string> {
  const levelId = sourceLevel(state, drawing.levelId);
  const decided = (candidate: Candidate) => state.decision[decisionId(drawing.id, candidate.key)] !== undefined;
  const open = candidates.filter((candidate) => !decided(candidate));
  const elements = Object.values(state.element) as ElementRow[];
  const there = new BoxIndex(
    elements.flatMap((element) => {
      const at = middleOf(pointsOf(element));
      return at !== null && element.kind !== 'opening' && (element.levelId === null || element.levelId === levelId)
        ? [{ element, at }]
        : [];
    }),
    ({ at }) => boxOf([at], onePlace),
  );
  const found = new Map<string, string>();
  for (const candidate of open) {
    if (candidate.kind === 'grid' || candidate.kind === 'opening') continue;
    const at = middleOf(pointsOf({ kind: candidate.kind, shape: candidate.element } as ElementRow));
    if (
      at !== null &&
      there
        .around(at)
        .some(({ element, at: other }) => element.kind === candidate.kind && distance(at, other) < onePlace)
    )
      found.set(candidate.key, `the model has a ${kindNames[candidate.kind][0]} here already`);
  }
  const labelled = [
    ...elements.flatMap((element) => (element.kind === 'grid' ? [{ key: null, line: element.shape }] : [])),
    ...open.flatMap((candidate) =>
      candidate.kind === 'grid' ? [{ key: candidate.key, line: candidate.element }] : [],
    ),
  ];
  const byLabel = new Map<string, typeof labelled>();
  for (const entry of labelled) {
    const label = entry.line.label.toLowerCase();
    const list = byLabel.get(label);
    if (list) list.push(entry);
    else byLabel.set(label, [entry]);
  }
  for (const list of byLabel.values()) {
    for (const { key, line } of list) {
      const other =
        key === null
          ? undefined
          : list.find((entry) => entry.line !== line && (entry.key === null || !sameLine(entry.line, line)));
      if (key !== null && other)
        found.set(
          key,
          sameLine(other.line, line)
            ? `the model has grid line ${line.label} already`
            : `another line is called ${line.label}`,
        );
    }
  }
  return found;
}

function middleOf(points: readonly Point[]): Point | null {
  return points.length === 0
    ? null
    : [
        points.reduce((sum, [x]) => sum + x, 0) / points.length,
        points.reduce((sum, [, y]) => sum + y, 0) / points.length,
      ];
}

/** Whether two grid lines lie on one another. */
function sameLine(a: GridLine, b: GridLine): boolean {
  if (a.kind === 'arc' || b.kind === 'arc')
    return (
      a.kind === 'arc' &&
      b.kind === 'arc' &&
      distance(a.centre, b.centre) < oneLine &&
      Math.abs(a.radius - b.radius) < oneLine
    );
  const length = distance(a.start, a.end);
  const off = ([x, y]: Point) =>
    Math.abs((a.end[0] - a.start[0]) * (y - a.start[1]) - (a.end[1] - a.start[1]) * (x - a.start[0])) / length;
  return off(b.start) < oneLine && off(b.end) < oneLine;
}
