import { groupBy } from '@/core/groupBy';
import { distance, type Point } from '@/core/geometry/vector';
import type { GridLine } from '@/core/kinds/grid';
import type { ElementRow } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { counted } from '@/core/model/counted';
import { put, type Change, type Edit } from '@/core/model/edits';
import { sourceLevel } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import type { DrawingRow } from '@/core/model/state';
import { shapedOf, type Candidate } from '@/core/reading/candidate';
import { decisionId } from './decide';
import { valuesOf } from './likeness';
import { onePlace, otherSize, placeOf, together } from './sameThing';

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
  for (const candidate of model.index.countOnLevel(levelId) === 0 ? [] : open) {
    const there = candidate.kind === 'grid' ? null : standingThere(model, levelId, candidate);
    if (there === null) continue;
    const size = otherSize(shapedOf(candidate), there);
    const words = `the model has a ${kinds[candidate.kind].names[0]} here already`;
    found.set(candidate.key, size === null ? words : `${words}, ${size}`);
  }
  return new Map([...found, ...doubledLabels(model, open)]);
}

/** The element of a candidate's kind at its place, or on its line. */
function standingThere(model: Model, levelId: string | null, candidate: Candidate): ElementRow | null {
  if (candidate.kind === 'opening') return null;
  if (candidate.kind === 'grid') {
    const { element } = candidate;
    const same = (line: GridLine): boolean =>
      line.label.toLowerCase() === element.label.toLowerCase() && sameLine(line, element);
    return [...model.ofKind('grid')].find(({ shape }) => same(shape)) ?? null;
  }
  const at = placeOf(shapedOf(candidate));
  if (at === null) return null;
  const [x, y] = at;
  const near = model.index.touching(levelId, [x - onePlace, y - onePlace, x + onePlace, y + onePlace]);
  const isThere = (element: ElementRow): boolean => {
    const other = element.kind === candidate.kind ? placeOf(element) : null;
    return other !== null && together(at, other);
  };
  return near.find(isThere) ?? null;
}

/**
 * Accepts candidates as what the model has at their place already: both drawings are sources of one element then.
 * Those at whose place there is nothing stay open.
 */
export function joinCandidates(model: Model, drawing: DrawingRow, candidates: readonly Candidate[]): Edit {
  const levelId = sourceLevel(model, drawing.levelId);
  const changes = candidates.flatMap((candidate): Change[] => {
    const there = standingThere(model, levelId, candidate);
    if (there === null) return [];
    const { key, element } = candidate;
    const id = decisionId(drawing.id, key);
    const seen = valuesOf(element);
    return [put('decision', { id, drawingId: drawing.id, key, verdict: 'accepted', elementId: there.id, seen })];
  });
  return { label: `The same as in the model: ${counted(changes.length, 'candidate')}`, changes };
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

/** Whether two grid lines lie on one another. */
export function sameLine(a: GridLine, b: GridLine): boolean {
  if (a.kind === 'arc')
    return b.kind === 'arc' && distance(a.centre, b.centre) < oneLine && Math.abs(a.radius - b.radius) < oneLine;
  if (b.kind === 'arc') return false;
  const length = distance(a.start, a.end);
  const off = ([x, y]: Point) =>
    Math.abs((a.end[0] - a.start[0]) * (y - a.start[1]) - (a.end[1] - a.start[1]) * (x - a.start[0])) / length;
  return off(b.start) < oneLine && off(b.end) < oneLine;
}
