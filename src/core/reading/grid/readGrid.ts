import { familiesOf } from '@/core/patterns/families';
import type { GridLine } from '@/core/kinds/grid';
import { degrees, scale, type Point } from '@/core/geometry/vector';
import type { Tolerance } from '@/core/tolerance';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { confidenceOf, keyOf, type Evidence, type GridCandidate, type Unread } from '../candidate';
import type { Scene } from '../scene';
import { joinArcs } from './arcs';
import { bubbleAt, findBubbles, type Bubble } from './bubbles';
import { joinLines, type GridPiece } from './families';
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
 * Reads grid lines from the layers with that role: pieces joined across gaps and bubbles, doubled ones merged,
 * directions clustered so that a turned wing is its own family, arcs kept as arcs, labels from the bubbles.
 */
export function readGrid(scene: Scene, tolerance: Tolerance): { candidates: GridCandidate[]; unread: Unread[] } {
  const paths = scene.paths('grid');
  const { bubbles, rest } = findBubbles(paths, scene.texts('grid', 'label'), tolerance.gap);
  const rings = new BoxIndex(bubbles, ({ centre }) => boxOf([centre]));
  const pieces: GridPiece[] = rest.flatMap((path) => {
    const sides = path.points.length - (path.closed ? 0 : 1);
    return Array.from({ length: sides }, (_, i) => ({
      a: path.points[i],
      b: path.points[(i + 1) % path.points.length],
      handle: path.handle,
      entity: path.entity,
      layer: path.layer,
      bulge: path.bulges[i],
    })).filter(({ a, b, bulge }) => bulge === 0 && Math.hypot(b[0] - a[0], b[1] - a[1]) > tolerance.coincidence);
  });
  const found: Found[] = [];
  const unread: Unread[] = [];
  for (const line of pieces.length === 0
    ? []
    : joinLines(familiesOf(pieces, tolerance.offAxis), tolerance.gap, tolerance.gridGap)) {
    const [dx, dy] = [line.end[0] - line.start[0], line.end[1] - line.start[1]];
    const length = Math.hypot(dx, dy);
    const u: Point = [dx / length, dy / length];
    const ends = [bubbleAt(line.start, [-u[0], -u[1]], rings), bubbleAt(line.end, u, rings)];
    if (ends[0] === null && ends[1] === null && length < shortest) {
      for (const piece of line.pieces)
        unread.push({
          role: 'grid',
          entity: piece.entity,
          handle: piece.handle,
          layer: piece.layer,
          why: 'a short line without a bubble',
        });
      continue;
    }
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
    found.push({
      shape: { label: '', kind: 'line', start: line.start, end: line.end },
      ends,
      evidence,
      doubts,
      handles: line.pieces.map((piece) => piece.handle),
    });
  }
  for (const arc of joinArcs(rest, tolerance.coincidence * 5)) {
    const at = (angle: number): Point => [
      arc.centre[0] + arc.radius * Math.cos(angle),
      arc.centre[1] + arc.radius * Math.sin(angle),
    ];
    const along = (angle: number): Point => [-Math.sin(angle), Math.cos(angle)];
    const end = arc.start + arc.sweep;
    const ends = [bubbleAt(at(arc.start), scale(along(arc.start), -1), rings), bubbleAt(at(end), along(end), rings)];
    const evidence: Evidence[] = [
      { text: `arc of ${arc.radius.toFixed(2)} m radius`, weight: arc.radius * arc.sweep >= 3 ? 1 : 0 },
    ];
    found.push({
      shape: {
        label: '',
        kind: 'arc',
        centre: arc.centre,
        radius: arc.radius,
        startAngle: tidyDegrees(arc.start),
        endAngle: tidyDegrees(arc.start) + degrees(arc.sweep),
      },
      ends,
      evidence,
      doubts: [],
      handles: arc.handles,
    });
  }
  const used = new Set(found.flatMap(({ ends }) => ends.map((bubble) => bubble?.label ?? '')));
  const candidates = found.map((entry) => candidateOf(entry, used));
  markTwins(candidates);
  const attached = new Set(found.flatMap(({ ends }) => ends));
  for (const bubble of bubbles) {
    if (!attached.has(bubble))
      unread.push({
        role: 'grid',
        entity: -1,
        handle: bubble.handles[0],
        layer: -1,
        why: `a bubble${bubble.label ? ` "${bubble.label}"` : ''} without a line`,
      });
  }
  return { candidates, unread };
}

const tidyDegrees = (angle: number) => ((degrees(angle) % 360) + 360) % 360;

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
  } else
    evidence.push({
      text: `bubble "${label}" at ${labelled.length === 2 ? 'both ends' : 'one end'}`,
      weight: labelled.length === 2 ? 3.5 : 2.5,
    });
  const all = [...new Set([...handles, ...ends.flatMap((bubble) => bubble?.handles ?? [])])];
  // The bubbles may change with a label; the lines are what the candidate is known by.
  return {
    kind: 'grid',
    key: keyOf('grid', handles),
    element: { ...shape, label },
    proposedLabel,
    evidence,
    confidence: confidenceOf(evidence),
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
    candidate.confidence = confidenceOf(candidate.evidence);
    candidate.doubt = [candidate.doubt, `${label} is there ${count} times`].filter(Boolean).join(', ');
  }
}
