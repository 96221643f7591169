import { groupBy } from '@/core/groupBy';
import { distance, type Point } from '@/core/geometry/vector';
import type { GridLine } from '@/core/kinds/grid';
import { kinds, pointsOf } from '@/core/kinds/kinds';
import { sourceLevel } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import type { DrawingRow } from '@/core/model/state';
import { shapedOf, type Candidate } from '@/core/reading/candidate';
import { decisionId } from './decide';

/** Middles closer than this are one place, metres. */
const onePlace = 0.1;
/** A grid line whose ends lie further than this from another's line is another, metres. */
const oneLine = 0.05;

/**
 * What open candidates are at odds with, in words, by their keys: something of their kind that the model has at their
 * place already, from another drawing or by hand, and grid lines whose label another line has.
 */
export function conflictsOf(model: Model, drawing: DrawingRow, candidates: readonly Candidate[]): Map<string, string> {
  const open = candidates.filter(({ key }) => model.decision[decisionId(drawing.id, key)] === undefined);
  const found = new Map<string, string>();
  const levelId = sourceLevel(model, drawing.levelId);
  for (const candidate of open)
    if (standsThere(model, levelId, candidate))
      found.set(candidate.key, `the model has a ${kinds[candidate.kind].names[0]} here already`);
  return new Map([...found, ...doubledLabels(model, open)]);
}

/** Whether the model has an element of a candidate's kind at its place. */
function standsThere(model: Model, levelId: string | null, candidate: Candidate): boolean {
  if (candidate.kind === 'grid' || candidate.kind === 'opening') return false;
  const at = middleOf(pointsOf(shapedOf(candidate)));
  if (at === null) return false;
  const [x, y] = at;
  return model.index.touching(levelId, [x - onePlace, y - onePlace, x + onePlace, y + onePlace]).some((element) => {
    const other = element.kind === candidate.kind ? middleOf(pointsOf(element)) : null;
    return other !== null && distance(at, other) < onePlace;
  });
}

interface Labelled {
  /** Of a candidate; null for a line of the model. */
  key: string | null;
  line: GridLine;
}

/** Candidates of grid lines whose label the model, or another candidate, has. */
function doubledLabels(model: Model, open: readonly Candidate[]): Map<string, string> {
  const lines: Labelled[] = Array.from(model.ofKind('grid'), ({ shape }) => ({ key: null, line: shape }));
  for (const candidate of open)
    if (candidate.kind === 'grid') lines.push({ key: candidate.key, line: candidate.element });
  const found = new Map<string, string>();
  for (const list of groupBy(lines, ({ line }) => line.label.toLowerCase()).values())
    for (const { key, line } of list) {
      if (key === null) continue;
      const other = list.find((entry) => entry.line !== line && (entry.key === null || !sameLine(entry.line, line)));
      if (!other) continue;
      const same = sameLine(other.line, line);
      found.set(key, same ? `the model has grid line ${line.label} already` : `another line is called ${line.label}`);
    }
  return found;
}

function middleOf(points: readonly Point[]): Point | null {
  if (points.length === 0) return null;
  const sum = points.reduce(([x, y], p): Point => [x + p[0], y + p[1]], [0, 0]);
  return [sum[0] / points.length, sum[1] / points.length];
}

/** Whether two grid lines lie on one another. */
function sameLine(a: GridLine, b: GridLine): boolean {
  if (a.kind === 'arc')
    return b.kind === 'arc' && distance(a.centre, b.centre) < oneLine && Math.abs(a.radius - b.radius) < oneLine;
  if (b.kind === 'arc') return false;
  const length = distance(a.start, a.end);
  const off = ([x, y]: Point) =>
    Math.abs((a.end[0] - a.start[0]) * (y - a.start[1]) - (a.end[1] - a.start[1]) * (x - a.start[0])) / length;
  return off(b.start) < oneLine && off(b.end) < oneLine;
}
