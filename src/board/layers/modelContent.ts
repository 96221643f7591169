import type { Box } from '@/core/geometry/boxIndex';
import type { ElementRow } from '@/core/kinds/element';
import { kindsUp } from '@/core/kinds/kinds';
import { groupBy } from '@/core/groupBy';
import type { Candidate } from '@/core/reading/candidate';
import type { CandidateIndex } from '../candidateIndex';
import type { BoardScene } from '../scene';
import { drawArea, drawLeak, markOf } from './drawArea';
import { Bubbles, drawGrid } from './drawGrid';
import { drawTexts } from './drawTexts';
import { drawLocalAxes } from './localAxes';
import { preparedCandidate, preparedElement } from './outlines';
import type { Pen } from './pen';
import type { Content } from './slicedPicture';

/** Elements drawn before other work gets a turn. */
const breath = 12;
/** What is smaller than this on the screen is not drawn, pixels. */
const leastPixels = 0.7;
/**
 * Up to this many columns in view are drawn as marks where they would be too small; more would run into one another.
 */
const mostMarks = 1500;

/** The elements of a level and those of no level that touch a box. */
export const elementsIn = ({ model, levelId }: BoardScene, box: Box): ElementRow[] =>
  [...new Set([null, levelId])].flatMap((level) => model.index.touching(level, box));

/** Something to draw: an element of the model, or a candidate. */
type Item =
  | { kind: ElementRow['kind']; element: ElementRow; candidate: null }
  | { kind: ElementRow['kind']; element: null; candidate: Candidate };

/** Everything of the plan that is drawn with areas and lines: texts, the model, and candidates, from below upwards. */
export const modelContent = (scene: () => BoardScene, candidates: () => CandidateIndex): Content =>
  function* ({ context, camera, size, box }) {
    const pen: Pen = { context, camera, size, scene: scene() };
    const { drawings } = pen.scene;
    for (const drawing of drawings) if (!drawing.display.above) yield* drawTexts(pen, drawing, box);
    yield* drawItems(pen, itemsIn(pen.scene, candidates(), box));
    for (const drawing of drawings) if (drawing.display.above) yield* drawTexts(pen, drawing, box);
  };

function itemsIn(scene: BoardScene, candidates: CandidateIndex, box: Box): Item[] {
  return [
    ...candidates.touching(box).map((candidate): Item => ({ kind: candidate.kind, element: null, candidate })),
    ...elementsIn(scene, box).map((element): Item => ({ kind: element.kind, element, candidate: null })),
  ];
}

function* drawItems(pen: Pen, items: readonly Item[]): Generator<void> {
  const byKind = groupBy(items, ({ kind }) => kind);
  const marks = (byKind.get('column')?.length ?? 0) <= mostMarks;
  const bubbles = new Bubbles();
  let drawn = 0;
  for (const kind of kindsUp)
    for (const item of byKind.get(kind) ?? []) {
      drawItem(pen, item, marks, bubbles);
      drawn += 1;
      if (drawn % breath === 0) yield;
    }
}

function drawItem(pen: Pen, { element, candidate }: Item, marks: boolean, bubbles: Bubbles): void {
  if (element?.kind === 'grid') drawGrid(pen, element.shape, null, bubbles);
  else if (candidate?.kind === 'grid') drawGrid(pen, candidate.element, candidate, bubbles);
  else drawOutlines(pen, element, candidate, marks);
  if (element !== null && pen.scene.axesShown) drawLocalAxes(pen, element);
}

function drawOutlines(pen: Pen, element: ElementRow | null, candidate: Candidate | null, marks: boolean): void {
  const { metresPerPixel } = pen.camera;
  const { outlines, box } =
    element === null ? preparedCandidate(candidate!) : preparedElement(element, pen.scene.model.index.hostOf(element));
  const column = columnOf(element, candidate);
  if (outlines.length === 0) return;
  if (Math.max(box[2] - box[0], box[3] - box[1]) < leastPixels * metresPerPixel && !(marks && column)) return;
  const drawn = marks && column !== null ? markOf(outlines, column.position, metresPerPixel) : outlines;
  drawArea(pen, (element ?? candidate!).kind, drawn, candidate);
  if (candidate?.kind === 'zone' && candidate.leak !== null) drawLeak(pen, candidate.leak);
}

function columnOf(element: ElementRow | null, candidate: Candidate | null) {
  if (element?.kind === 'column') return element.shape;
  return candidate?.kind === 'column' ? candidate.element : null;
}
