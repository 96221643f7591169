import { boxOf, type Box } from '@/core/geometry/boxIndex';
import { elementsOfCandidates } from '@/core/decisions/decide';
import type { Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { shapedOf, type Candidate } from '@/core/reading/candidate';
import type { TakeReading } from '@/core/reading/takeAt';
import { takeCandidates } from '@/core/tracing/take';
import { calledOf, describeElements } from '@/core/tracing/words';
import { keyOf } from '@/project/keys';
import { readAt, type PointedAt } from '@/project/taking';
import type { ToolRequest } from '../../boardStore';
import { toScreen } from '../../camera';
import { preparedCandidate } from '../../layers/outlines';
import type { Pen } from '../../layers/pen';
import { chipAtCursor, drawBox, drawLine, refusalAtCursor } from '../drawing';
import type { BoardTool, Pointing } from '../tool';
import type { World } from '../world';

/** Pointing, or drawing a box in which all of its like are taken. */
type State = { kind: 'pointing' } | { kind: 'boxing'; from: Point; to: Point };

/** How far from the cursor what was read still counts, pixels. */
const reachPixels = 14;

/**
 * Shows under the cursor what the reader would make of the lines there, and takes it with a click; a drag takes all of
 * its like in a box, a key steps through other readings. One question is asked at a time, the last one counts.
 */
export class TakeTool implements BoardTool {
  readonly wants = 'things';
  readonly cursor = 'crosshair';
  private state: State = { kind: 'pointing' };
  private readings: TakeReading[] = [];
  private chosen = 0;
  /** The line that was pointed at last, whose like a box takes. */
  private like: PointedAt | null = null;
  /** Whether the readings are all there are: while the pointer moves only the first is asked for. */
  private allRead = false;
  private asking = false;
  private next: Pointing | null = null;
  private left = false;
  private problem: string | null = null;

  constructor(
    private readonly request: ToolRequest & { kind: 'take' },
    private readonly world: World,
  ) {}

  exit(): void {
    this.left = true;
    this.world.events.drafted([]);
  }

  move(pointing: Pointing): void {
    this.problem = null;
    this.next = pointing;
    if (!this.asking) void this.ask();
  }

  /** Asks for what lies under the pointer, until it has answered the last place. */
  private async ask(): Promise<void> {
    this.asking = true;
    while (this.next !== null && !this.left) {
      const pointing = this.next;
      this.next = null;
      await this.askAt(pointing.at);
    }
    this.asking = false;
  }

  private async askAt(at: Point): Promise<void> {
    const pointed = this.pointedAt(at);
    let readings: TakeReading[] = [];
    try {
      if (pointed !== null) readings = await readAt(this.world.scene.model, this.request.of, pointed, null, true);
    } catch (error) {
      this.problem = (error as Error).message;
    }
    if (this.left) return;
    if (readings.length > 0) this.like = pointed;
    this.chosen = 0;
    this.allRead = false;
    this.readings = readings;
    this.world.redraw();
  }

  /** The line under a point, or the drawing there where a region is meant. */
  private pointedAt(at: Point): PointedAt | null {
    const { scene, camera } = this.world;
    const reach = reachPixels * camera.metresPerPixel;
    const line = this.world.under.line(at, true);
    const drawing = scene.drawings.find(({ id }) => id === line?.drawingId) ?? scene.drawings[0];
    if (drawing === undefined || (line === null && this.request.of !== 'zone' && this.request.of !== 'slab'))
      return null;
    const { id: drawingId, underlay, placement } = drawing;
    return { drawingId, underlay, placement, path: line?.path ?? null, at, reach };
  }

  private get candidates(): Candidate[] {
    return this.readings[this.chosen]?.candidates ?? [];
  }

  press({ from }: Pointing): boolean {
    this.state = { kind: 'boxing', from: from.at, to: from.at };
    return true;
  }

  drag({ at }: Pointing): void {
    if (this.state.kind === 'boxing') this.state = { ...this.state, to: at };
    this.world.redraw();
  }

  drop({ at }: Pointing): void {
    if (this.state.kind !== 'boxing') return;
    const box = boxOf([this.state.from, at]);
    this.state = { kind: 'pointing' };
    void this.takeAll(box);
  }

  /** Takes all of a kind in a box: of the layer that was pointed at last, else by the roles. */
  private async takeAll(box: Box): Promise<void> {
    const middle: Point = [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2];
    const [drawing] = this.world.scene.drawings;
    const like =
      this.like ??
      (drawing && {
        drawingId: drawing.id,
        underlay: drawing.underlay,
        placement: drawing.placement,
        path: null,
        reach: 0,
      });
    if (!like) return;
    try {
      const readings = await readAt(this.world.scene.model, this.request.of, { ...like, at: middle }, box);
      // The reading that finds most of them is meant.
      const [most] = readings.sort((a, b) => b.candidates.length - a.candidates.length);
      if (most === undefined) this.refuse(`Nothing in the box reads as ${kinds[this.request.of].names[1]}.`);
      else this.take(like.drawingId, most.candidates);
    } catch (error) {
      this.refuse((error as Error).message);
    }
  }

  click(pointing: Pointing): void {
    if (this.candidates.length === 0 || this.like === null) {
      this.move(pointing);
      return;
    }
    this.take(this.like.drawingId, this.candidates);
  }

  private take(drawingId: string, candidates: readonly Candidate[]): void {
    const { model } = this.world.scene;
    const drawing = model.drawing[drawingId];
    const newId = () => crypto.randomUUID();
    const made = takeCandidates(model, drawing, candidates, newId);
    if (!made.ok) {
      this.refuse(made.message);
      return;
    }
    this.world.events.committed((now) => takeCandidates(now, now.drawing[drawingId] ?? drawing, candidates, newId));
  }

  private refuse(message: string): void {
    this.problem = message;
    this.world.redraw();
  }

  /** Steps to another reading of the same lines; the first step asks for all of them. @returns whether there is one */
  otherReading(): boolean {
    if (this.like === null || this.candidates.length === 0) return false;
    if (this.allRead) this.step();
    else void this.askForAll(this.like);
    return true;
  }

  private async askForAll(like: PointedAt): Promise<void> {
    try {
      const readings = await readAt(this.world.scene.model, this.request.of, like);
      if (this.left || this.like !== like) return;
      this.readings = readings;
      this.allRead = true;
      this.step();
    } catch (error) {
      this.refuse((error as Error).message);
    }
  }

  private step(): void {
    if (this.readings.length > 0) this.chosen = (this.chosen + 1) % this.readings.length;
    this.world.redraw();
  }

  key(key: string): boolean {
    if (key !== 'Escape' || this.state.kind === 'pointing') return false;
    this.state = { kind: 'pointing' };
    return true;
  }

  draw(pen: Pen, pointing: Pointing | null): void {
    if (this.state.kind === 'boxing') drawBox(pen, [this.state.from, this.state.to]);
    else for (const candidate of this.candidates) drawCandidate(pen, candidate);
    if (pointing === null) return;
    if (this.problem !== null) refusalAtCursor(pen, pointing, this.problem);
    else chipAtCursor(pen, pointing, ...this.words());
  }

  private words(): [string, string] {
    const [one, many] = kinds[this.request.of].names;
    if (this.state.kind === 'boxing') return [`all ${many} like the last in the box`, ''];
    const { candidates } = this;
    if (candidates.length === 0) return [`no ${one} here`, 'click on its lines'];
    const key = keyOf('otherReading').toUpperCase();
    const other = this.allRead ? `${this.chosen + 1} of ${this.readings.length}` : `${key}: other readings`;
    return [wordsOf(candidates), other];
  }
}

/** What would be taken: "wall, 200 mm, 6.90 m, with 1 opening". */
function wordsOf(candidates: readonly Candidate[]): string {
  const [first, ...more] = candidates;
  const shaped = shapedOf(first) as { kind: 'wall'; shape: never };
  const { size } = kinds[shaped.kind];
  const rows = elementsOfCandidates(candidates, {
    levelId: null,
    drawing: '',
    wallOf: () => '',
    newId: ({ key }) => key,
  }).map(({ element }): ElementRow => element);
  const within = more.length === 0 ? '' : `, with ${describeElements(rows.slice(1))}`;
  return `${calledOf(shaped)}, ${size(shaped.shape)}${within}`;
}

function drawCandidate(pen: Pen, candidate: Candidate): void {
  if (candidate.kind === 'grid') {
    if (candidate.element.kind === 'line') drawPoints(pen, [candidate.element.start, candidate.element.end], false);
    return;
  }
  for (const outline of preparedCandidate(candidate).outlines) drawPoints(pen, [...outline, outline[0]], true);
}

function drawPoints(pen: Pen, points: readonly Point[], filled: boolean): void {
  drawLine(
    pen,
    points.map((p) => toScreen(pen.camera, pen.size, p)),
    filled,
  );
}
