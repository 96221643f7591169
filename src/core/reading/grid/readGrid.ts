import { pushAll } from '@/core/lists';
import type { GridLine } from '@/core/kinds/grid';
import { degrees, distance, pointAlong, scale, type Point } from '@/core/geometry/vector';
import type { Tolerance } from '@/core/tolerance';
import { confidenceOf, keyOf, type Evidence, type GridCandidate, type Unread } from '../candidate';
import type { PlacedPath } from '@/core/placed/placed';
import type { Scene } from '../scene';
import { joinArcs } from './arcs';
import { bubbleAt, bubbleOn, findBubbles, type Bubble } from '@/core/patterns/grid/bubbles';
import type { GridPiece, JoinedLine } from '@/core/patterns/grid/joined';
import { endedLines, endsOf, indexOf } from '@/core/patterns/grid/lines';
import { proposeLabel } from '@/core/kinds/gridLabels';

/** A line without a bubble that is shorter than this is a mark, not a grid line; metres. */
const shortest = 1;

interface Found {
  shape: GridLine;
  ends: (Bubble | null)[];
  evidence: Evidence[];
  doubts: string[];
  handles: string[];
}

/**
 * Reads grid lines from the layers with that role: pieces joined across gaps, bubbles and the building, doubled ones
 * merged, directions clustered so that a turned wing is its own family, arcs kept as arcs, labels from the bubbles,
 * or from texts at their ends.
 */
export function readGrid(scene: Scene, tolerance: Tolerance): { candidates: GridCandidate[]; unread: Unread[] } {
  const paths = scene.paths('grid');
  const { bubbles, bare, rest } = findBubbles(paths, scene.texts('grid', 'label'), tolerance.gap);
  const { found, unread } = straightLines(rest, bubbles, bare, tolerance);
  pushAll(found, arcLines(rest, bubbles, tolerance));
  throughBubbles(found, bubbles);
  labelBare(found, bare, new Set(paths.map(({ layer }) => layer)));
  const used = new Set(found.flatMap(({ ends }) => ends.map((bubble) => bubble?.label ?? '')));
  const candidates = found.map((entry) => candidateOf(entry, used));
  markTwins(candidates);
  const attached = new Set(found.flatMap(({ ends }) => ends));
  for (const bubble of bubbles)
    if (!attached.has(bubble))
      unread.push({
        role: 'grid',
        entity: -1,
        handle: bubble.handles[0],
        layer: -1,
        why: `a bubble${bubble.label ? ` "${bubble.label}"` : ''} without a line`,
      });
  return { candidates, unread };
}

function straightLines(
  paths: readonly PlacedPath[],
  bubbles: readonly Bubble[],
  bare: readonly Bubble[],
  tolerance: Tolerance,
): { found: Found[]; unread: Unread[] } {
  const found: Found[] = [];
  const unread: Unread[] = [];
  for (const { line, ends } of endedLines(paths, bubbles, bare, [...bubbles, ...bare], tolerance))
    if (ends[0] === null && ends[1] === null && distance(line.start, line.end) < shortest)
      pushAll(unread, line.pieces.map(shortMark));
    else found.push(straightLine(line, ends));
  return { found, unread };
}

const shortMark = ({ entity, handle, layer }: GridPiece): Unread => ({
  role: 'grid',
  entity,
  handle,
  layer,
  why: 'a short line without a bubble',
});

function straightLine(line: JoinedLine, ends: (Bubble | null)[]): Found {
  const length = distance(line.start, line.end);
  const evidence: Evidence[] = [
    { text: `${length.toFixed(1)} m long`, weight: length >= 5 ? 1 : 0 },
    { text: `${line.parallels} parallel`, weight: line.parallels > 0 ? 1 : -0.5 },
  ];
  const doubts: string[] = [];
  if (line.pieces.length > 1) evidence.push({ text: `joined from ${line.pieces.length} pieces`, weight: 0 });
  if (line.straightened > 1e-6) {
    evidence.push({ text: `straightened by ${degrees(line.straightened).toFixed(2)}\u00b0`, weight: -0.5 });
    doubts.push(`off by ${degrees(line.straightened).toFixed(2)}\u00b0`);
  }
  return {
    shape: { label: '', kind: 'line', start: line.start, end: line.end },
    ends,
    evidence,
    doubts,
    handles: line.pieces.map((piece) => piece.handle),
  };
}

function arcLines(paths: readonly PlacedPath[], bubbles: readonly Bubble[], tolerance: Tolerance): Found[] {
  const rings = indexOf(bubbles);
  return joinArcs(paths, tolerance.coincidence * 5).map((arc) => {
    const at = (angle: number): Point => [
      arc.centre[0] + arc.radius * Math.cos(angle),
      arc.centre[1] + arc.radius * Math.sin(angle),
    ];
    const along = (angle: number): Point => [-Math.sin(angle), Math.cos(angle)];
    const end = arc.start + arc.sweep;
    return {
      shape: {
        label: '',
        kind: 'arc',
        centre: arc.centre,
        radius: arc.radius,
        startAngle: tidyDegrees(arc.start),
        endAngle: tidyDegrees(arc.start) + degrees(arc.sweep),
      },
      ends: [bubbleAt(at(arc.start), scale(along(arc.start), -1), rings), bubbleAt(at(end), along(end), rings)],
      evidence: [{ text: `arc of ${arc.radius.toFixed(2)} m radius`, weight: arc.radius * arc.sweep >= 3 ? 1 : 0 }],
      doubts: [],
      handles: arc.handles,
    };
  });
}

const isLabelled = ({ ends }: Found): boolean => ends.some((bubble) => bubble?.label != null);

/** Lines that run on through a bubble end at it. */
function throughBubbles(found: Found[], bubbles: readonly Bubble[]): void {
  const taken = new Set(found.flatMap(({ ends }) => ends));
  const isFree = (bubble: Bubble): boolean => bubble.label !== null && !taken.has(bubble);
  const rings = indexOf(bubbles.filter(isFree));
  for (const line of found) {
    if (line.shape.kind !== 'line' || isLabelled(line)) continue;
    const { start, end } = line.shape;
    const [after, before] = [bubbleOn(start, end, rings), bubbleOn(end, start, rings)];
    const length = distance(start, end);
    const upTo = (from: Point, to: Point, on: typeof after): Point =>
      on === null ? to : pointAlong(from, to, Math.max(0, on.along - on.bubble.radius) / length);
    line.shape = { ...line.shape, start: upTo(end, start, before), end: upTo(start, end, after) };
    line.ends = [before?.bubble ?? line.ends[0], after?.bubble ?? line.ends[1]];
    if (after !== null || before !== null) line.evidence.push({ text: 'runs on through its bubble', weight: 0 });
  }
}

/** Lines without a label in a ring take the text at an end of theirs, each text the line that it is nearest to. */
function labelBare(found: readonly Found[], bare: readonly Bubble[], gridLayers: ReadonlySet<number>): void {
  const texts = indexOf(bare);
  const ends = found.flatMap((line) => {
    if (line.shape.kind !== 'line' || isLabelled(line)) return [];
    const points = [line.shape.start, line.shape.end];
    return endsOf(line.shape, texts).flatMap((label, i) =>
      label === null ? [] : [{ line, i, label, away: distance(points[i], label.centre) }],
    );
  });
  const taken = new Set<Bubble>();
  for (const { line, i, label } of ends.sort((a, b) => a.away - b.away)) {
    if (taken.has(label)) continue;
    taken.add(label);
    line.ends[i] = label;
    // Beside the grid's own lines such a text may be any short word.
    if (label.alone !== null && !gridLayers.has(label.alone)) line.doubts.push(`"${label.label}" is on another layer`);
  }
}

const tidyDegrees = (angle: number) => ((degrees(angle) % 360) + 360) % 360;

/** What the bubbles or texts at its ends say for a line. */
function saidBy(labelled: readonly Bubble[]): Evidence {
  const where = labelled.length === 2 ? 'both ends' : 'one end';
  const [{ label }] = labelled;
  if (labelled.every(({ alone }) => alone === null))
    return { text: `bubble "${label}" at ${where}`, weight: labelled.length === 2 ? 3.5 : 2.5 };
  return { text: `"${label}" written at ${where}, without a ring`, weight: labelled.length === 2 ? 2.5 : 1.5 };
}

function candidateOf({ shape, ends, evidence, doubts, handles }: Found, used: Set<string>): GridCandidate {
  const labelled = ends.filter((bubble): bubble is Bubble => bubble?.label != null);
  const labels = [...new Set(labelled.map((bubble) => bubble.label!))];
  let label = labels[0];
  const proposedLabel = label === undefined;
  if (proposedLabel) {
    label = proposeLabel(
      shape.kind === 'line' && Math.abs(shape.end[1] - shape.start[1]) > Math.abs(shape.end[0] - shape.start[0]),
      used,
    );
    used.add(label);
    evidence.push({ text: 'no bubble at its ends: the label is a proposal', weight: -1.5 });
    doubts.push('no bubble');
  } else if (labels.length > 1) {
    evidence.push({ text: `its bubbles say ${labels.join(' and ')}`, weight: -3 });
    doubts.push(`bubbles say ${labels.join(' and ')}`);
  } else evidence.push(saidBy(labelled));
  const all = [...new Set([...handles, ...ends.flatMap((bubble) => bubble?.handles ?? [])])];
  // The bubbles may change with a label; the lines are what the candidate is known by.
  return {
    kind: 'grid',
    key: keyOf('grid', handles),
    element: { ...shape, label },
    proposedLabel,
    evidence,
    confidence: confidenceOf('grid', evidence),
    handles: all,
    doubt: doubts.join(', ') || null,
  };
}

/** Two lines with one label cannot both be right. */
function markTwins(candidates: GridCandidate[]): void {
  const counts = new Map<string, number>();
  for (const { element } of candidates) counts.set(element.label, (counts.get(element.label) ?? 0) + 1);
  for (const candidate of candidates) {
    const { label } = candidate.element;
    const count = counts.get(label)!;
    if (count < 2) continue;
    candidate.evidence.push({ text: `${count} lines are labelled ${label}`, weight: -2 });
    candidate.confidence = confidenceOf('grid', candidate.evidence);
    candidate.doubt = [candidate.doubt, `${label} is there ${count} times`].filter(Boolean).join(', ');
  }
}
