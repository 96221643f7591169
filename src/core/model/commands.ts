import { betweenPlacements, type Placement } from '@/core/datum/placement';
import { apply, evenScale, type Transform } from '@/core/geometry/transform';
import { degrees, type Point } from '@/core/geometry/vector';
import type { Candidate } from '@/core/reading/candidate';
import type { Role } from '@/core/sorting/roles';
import { unitNames } from '@/core/units/length';
import { put, remove, type Change, type Edit } from './edits';
import type { ElementRow, GridLine, Section } from './elements';
import type { DrawingRow, LevelRow, PlacementRow, ProjectState, RoleRow } from './state';

const count = (n: number, noun: string) => `${n} ${noun}${n === 1 ? '' : 's'}`;
const nouns: Record<Candidate['kind'], string> = { grid: 'grid line', column: 'column' };

function describe(candidates: readonly Candidate[]): string {
  const kinds = [...new Set(candidates.map((c) => c.kind))];
  return kinds.map((kind) => count(candidates.filter((c) => c.kind === kind).length, nouns[kind])).join(', ');
}

export const decisionId = (drawingId: string, key: string): string => `${drawingId}/${key}`;
export const roleId = (drawingId: string, layer: string): string => `${drawingId}/${layer}`;

/**
 * Makes elements of candidates.
 * @param newId gives a fresh UUID
 */
export function acceptCandidates(state: ProjectState, drawing: DrawingRow, candidates: readonly Candidate[], newId: () => string): Edit {
  const changes = candidates.flatMap((candidate): Change[] => {
    const id = decisionId(drawing.id, candidate.key);
    if (state.decision[id]?.verdict === 'accepted') return [];
    const elementId = newId();
    const element = { id: elementId, levelId: candidate.kind === 'grid' ? null : drawing.levelId, source: { drawing: drawing.id, handles: candidate.handles }, kind: candidate.kind, shape: candidate.element } as ElementRow;
    return [put('element', element as never), put('decision', { id, drawingId: drawing.id, key: candidate.key, verdict: 'accepted', elementId })];
  });
  return { label: `Accept ${describe(candidates)}`, changes };
}

/** Says no to candidates; elements made of them before go. */
export function rejectCandidates(state: ProjectState, drawing: DrawingRow, candidates: readonly Candidate[]): Edit {
  const changes = candidates.flatMap((candidate): Change[] => {
    const id = decisionId(drawing.id, candidate.key);
    const before = state.decision[id];
    if (before?.verdict === 'rejected') return [];
    return [
      put('decision', { id, drawingId: drawing.id, key: candidate.key, verdict: 'rejected', elementId: null }),
      ...(before?.elementId && state.element[before.elementId] ? [remove('element', before.elementId)] : []),
    ];
  });
  return { label: `Reject ${describe(candidates)}`, changes };
}

/** Takes decisions back: the candidates are open again. */
export function reopenCandidates(state: ProjectState, drawing: DrawingRow, candidates: readonly Candidate[]): Edit {
  const changes = candidates.flatMap((candidate): Change[] => {
    const before = state.decision[decisionId(drawing.id, candidate.key)];
    if (!before) return [];
    return [remove('decision', before.id), ...(before.elementId && state.element[before.elementId] ? [remove('element', before.elementId)] : [])];
  });
  return { label: `Open ${describe(candidates)} again`, changes };
}

export function setRole(drawing: DrawingRow, rows: readonly RoleRow[], role: Role | null): Edit {
  return { label: `${rows.length === 1 ? rows[0].layer : count(rows.length, 'layer')}: ${role ?? 'no role'}`, changes: rows.map((row) => put('role', { ...row, drawingId: drawing.id, role, suggested: false })) };
}

export function showLayers(rows: readonly RoleRow[], shown: boolean): Edit {
  return { label: `${shown ? 'Show' : 'Hide'} ${rows.length === 1 ? rows[0].layer : count(rows.length, 'layer')}`, changes: rows.map((row) => put('role', { ...row, shown })) };
}

/** The elements that came from a drawing. */
export const elementsOf = (state: ProjectState, drawingId: string): ElementRow[] =>
  Object.values(state.element).filter((element) => element.source?.drawing === drawingId) as ElementRow[];

/**
 * Places a drawing anew.
 * @param takeElements whether the elements that came from it are carried along; else they stay where they are
 */
export function placeDrawing(state: ProjectState, placement: PlacementRow, label: string, takeElements: boolean): Edit {
  const before = state.placement[placement.id];
  const changes: Change[] = [put('placement', placement)];
  if (takeElements && before) {
    const map = betweenPlacements(before as Placement, placement as Placement);
    for (const element of elementsOf(state, placement.id)) changes.push(put('element', moveElement(element, map) as never));
  }
  return { label, changes };
}

export const unitLabel = (drawing: DrawingRow, placement: PlacementRow): string => `${drawing.name} is in ${unitNames[placement.unit]}`;

/** An element carried by a map that turns, shifts and scales evenly. */
export function moveElement(element: ElementRow, map: Transform): ElementRow {
  const factor = evenScale(map);
  if (factor === null) throw new Error('An element can only be carried by a map that keeps angles');
  const at = (p: Point): Point => apply(map, p);
  const turn = degrees(Math.atan2(map[1], map[0]));
  if (element.kind === 'grid') return { ...element, shape: moveGridLine(element.shape, at, turn, factor) };
  const { position, rotation, section, mark } = element.shape;
  return { ...element, shape: { position: at(position), rotation: rotation + turn, section: scaleSection(section, factor), mark } };
}

function moveGridLine(line: GridLine, at: (p: Point) => Point, turn: number, factor: number): GridLine {
  if (line.kind === 'line') return { ...line, start: at(line.start), end: at(line.end) };
  return { ...line, centre: at(line.centre), radius: line.radius * factor, startAngle: line.startAngle + turn, endAngle: line.endAngle + turn };
}

function scaleSection(section: Section, factor: number): Section {
  if (section.shape === 'rectangle') return { ...section, width: section.width * factor, depth: section.depth * factor };
  if (section.shape === 'circle') return { ...section, diameter: section.diameter * factor };
  return { ...section, outline: section.outline.map(([x, y]): Point => [x * factor, y * factor]) };
}

/** A fresh level on top of the highest. */
export function addLevel(state: ProjectState, id: string): Edit {
  const levels = Object.values(state.level).sort((a, b) => a.elevation - b.elevation);
  const top = levels[levels.length - 1];
  const row: LevelRow = { id, name: `Level ${levels.length}`, elevation: top ? Number((top.elevation + top.height).toFixed(6)) : 0, height: top?.height ?? 3 };
  return { label: `Add ${row.name}`, changes: [put('level', row)] };
}
