import { bulgeThrough } from '@/core/geometry/offsetPath';
import { cross, direction, distance, dot, subtract, type Point } from '@/core/geometry/vector';
import { rowsOf } from '@/core/tracing/making/made';
import { formatLength } from '@/core/units/length';
import { useTracing } from '@/project/tracing';
import type { ToolRequest } from '../../boardStore';
import { toScreen } from '../../camera';
import type { Pen } from '../../layers/pen';
import { chipAtCursor, dot as drawDot, drawBox, drawHeld, drawLeak, refusalAtCursor } from '../drawing';
import type { BoardTool, Pointing, Wants } from '../tool';
import type { World } from '../world';
import { drawBent } from './drawBent';
import { TypedPoint, type TypedField, type TypingAxes } from './typedPoint';
import type { Given, Leak, Placed, Way } from './way';
import { ways } from './ways/ways';

/**
 * Placing points; with a side's end set, waiting for the point that its arc goes through; or drawing a box.
 */
type State = { kind: 'placing' } | { kind: 'bending'; end: Placed } | { kind: 'boxing'; from: Placed };

/** How near to the first point a click closes an outline, in pixels. */
const closingReach = 9;
/** A refusal is about a place: it goes when the pointer is further from it than this, pixels. */
const goneFrom = 60;
/** Directions locked with Shift are these parts of a turn of the axes and of the last side. */
const lockedTo = Math.PI / 2;
/** Shapes shown before they are made are rows without ids. */
const nowhere = (): string => 'draft';

/**
 * Makes or changes something by points: clicked and held on to, or typed. What is made of them is its way's to say;
 * the tool knows of points, bends, boxes, typed values, and of one step back.
 */
export class TraceTool implements BoardTool {
  readonly cursor = 'crosshair';
  readonly way: Way;
  private state: State = { kind: 'placing' };
  private placed: Placed[] = [];
  private bulges: number[] = [];
  private bendNext = false;
  private readonly typedPoint = new TypedPoint();
  private typedLength: number | null = null;
  private problem: string | null = null;
  /** Where the pointer was when something was refused, pixels. */
  private refusedAt: Point | null = null;
  private pointing: Pointing | null = null;

  constructor(
    request: ToolRequest & { kind: 'trace' },
    private readonly world: World,
  ) {
    this.way = ways[request.way];
  }

  exit(): void {
    // A chain that is left has been drawn: nothing of it is lost.
    if (this.placed.length >= this.way.points.least && this.way.points.most === null) this.finish(false);
    this.reset();
  }

  get wants(): Wants {
    return this.way.seeks(this.placed.length) === 'points' ? 'points' : 'things';
  }

  /** Where the next point is measured from; the corners of a box are told by their coordinates. */
  get base(): Point | null {
    if (this.way.box === true) return null;
    const from = this.way.about === true ? this.placed[0] : this.placed[this.placed.length - 1];
    return from?.at ?? null;
  }

  private get axes(): TypingAxes {
    const { axes } = this.world.scene;
    return { origin: axes?.origin ?? [0, 0], angle: axes?.angle ?? 0 };
  }

  /** The pointer's place: what is typed counts, then a locked direction, then what is held on to. */
  private placeOf({ at, held, shift }: Pointing): Point {
    const pointed = held?.point ?? at;
    const { base } = this;
    if (this.typedLength !== null && base !== null) return this.alongBy(base, pointed, this.typedLength);
    if (this.typedPoint.typed) return this.typedPoint.place(pointed, base, this.axes);
    return shift && base !== null ? this.locked(base, pointed) : pointed;
  }

  /** A length from the last point towards another. */
  private alongBy(base: Point, towards: Point, length: number): Point {
    const d = subtract(towards, base);
    const away = Math.hypot(...d);
    const u = away === 0 ? direction(this.axes.angle) : ([d[0] / away, d[1] / away] as const);
    return [base[0] + u[0] * length, base[1] + u[1] * length];
  }

  /** A place put onto the nearest of the directions of the axes and of the last side, from the last point. */
  private locked(base: Point, p: Point): Point {
    const angles = [this.axes.angle, ...this.lastSide()];
    const d = subtract(p, base);
    const u = angles
      .flatMap((angle) => [direction(angle), direction(angle + lockedTo)])
      .sort((a, b) => Math.abs(cross(a, d)) - Math.abs(cross(b, d)))[0];
    const along = dot(d, u);
    return [base[0] + along * u[0], base[1] + along * u[1]];
  }

  private lastSide(): number[] {
    const [before, last] = this.placed.slice(-2);
    if (last === undefined || distance(before.at, last.at) === 0) return [];
    const [dx, dy] = subtract(last.at, before.at);
    return [Math.atan2(dy, dx)];
  }

  /** What lies under the pointer, as far as the way asks for it. */
  private under(pointing: Pointing): Placed {
    const seeks = this.way.seeks(this.placed.length);
    const at = this.placeOf(pointing);
    if (seeks === 'points' || seeks === 'place') return { at, element: null, line: null };
    if (seeks === 'line') return { at: pointing.at, element: null, line: this.world.under.endless(pointing.at) };
    const placed = { at: pointing.at, element: this.world.under.element(pointing.at, seeks.elements), line: null };
    return { ...placed, at: this.way.settle?.(placed) ?? placed.at };
  }

  private given(points: readonly Placed[], bulges: readonly number[], closed: boolean): Given {
    const { model, plane, levelId, selected, unit } = this.world.scene;
    return {
      model: plane?.model ?? model,
      plane: plane?.of ?? null,
      levelId,
      selected,
      lengths: unit,
      axes: this.axes,
      points,
      bulges,
      closed,
      settings: useTracing.getState(),
      newId: () => crypto.randomUUID(),
    };
  }

  move(pointing: Pointing): void {
    this.pointing = pointing;
    if (this.refusedAt !== null && distance(this.refusedAt, pointing.pixels) > goneFrom) this.problem = null;
    this.show(pointing);
  }

  /** Where what lies about the pointer is open; null where it is not, or where that is not asked. */
  get leak(): Leak | null {
    if (this.pointing === null || this.way.leak === undefined) return null;
    return this.way.leak(this.given(...this.withNext(this.pointing), false));
  }

  /** Shows what there would be if the pointer's place were the last point. */
  private show(pointing: Pointing): void {
    const [points, bulges] = this.withNext(pointing);
    const { least } = this.way.points;
    const enough = points.length >= Math.min(least, 2);
    const given = { ...this.given(points, bulges, false), newId: nowhere };
    this.world.events.drafted(
      enough ? rowsOf(this.way.preview(given), { levelId: given.levelId, newId: nowhere }) : [],
    );
    this.world.redraw();
  }

  /** The points with the one under the pointer, and the bends with it. */
  private withNext(pointing: Pointing): [Placed[], number[]] {
    const next = this.under(pointing);
    const { state } = this;
    if (state.kind === 'boxing') return [[state.from, next], [0]];
    if (state.kind === 'bending') {
      const bulge = bulgeThrough(this.base!, state.end.at, next.at);
      return [
        [...this.placed, state.end],
        [...this.bulges, bulge],
      ];
    }
    return [
      [...this.placed, next],
      [...this.bulges, 0],
    ];
  }

  press(pointing: Pointing): boolean {
    if (this.way.box !== true || this.placed.length > 0) return false;
    this.state = { kind: 'boxing', from: { at: pointing.from.at, element: null, line: null } };
    return true;
  }

  drag(pointing: Pointing): void {
    this.move(pointing);
  }

  drop(pointing: Pointing): void {
    if (this.state.kind !== 'boxing') return;
    const [points] = this.withNext(pointing);
    this.state = { kind: 'placing' };
    this.placed = points;
    this.finish(false);
  }

  click(pointing: Pointing): void {
    this.pointing = pointing;
    this.problem = null;
    const misplaced = this.misplaced();
    if (misplaced !== null) {
      this.refuse(misplaced);
      return;
    }
    if (this.way.selection === true && this.world.scene.selected.size === 0) {
      this.refuse('Nothing is selected. Leave this with Escape, click on elements, and choose it again.');
      return;
    }
    const next = this.under(pointing);
    if (this.state.kind === 'bending') this.bendThrough(next);
    else if (this.closesAt(next.at)) this.finish(true);
    else if (this.bendNext && this.placed.length > 0) this.state = { kind: 'bending', end: next };
    else this.place(next);
    this.show(pointing);
  }

  /** Why nothing can be made here in this way; null where it can. */
  private misplaced(): string | null {
    const facing = this.world.scene.plane !== null;
    if (facing === (this.way.upright === true)) return null;
    return facing
      ? 'This is made in the plan, and a section is seen. Go back to the plan, or make members and columns here.'
      : 'This is made in a section that is seen face on. Look at one face on first.';
  }

  private place(next: Placed): void {
    const { base } = this;
    const { most } = this.way.points;
    // A second click on one point ends a chain.
    if (base !== null && distance(base, next.at) === 0 && this.way.seeks(this.placed.length) === 'points') {
      if (most === null) this.finish(false);
      else this.refuse('That is the point that was clicked before. Click on another, or type how far it is.');
      return;
    }
    this.placed.push(next);
    this.bulges.push(0);
    this.dropTyped();
    if (most !== null && this.placed.length >= most) this.finish(false);
  }

  private bendThrough(through: Placed): void {
    if (this.state.kind !== 'bending') return;
    const { end } = this.state;
    this.bulges[this.placed.length - 1] = bulgeThrough(this.base!, end.at, through.at);
    this.state = { kind: 'placing' };
    this.bendNext = false;
    if (this.closesAt(end.at)) this.finish(true);
    else {
      this.placed.push(end);
      this.bulges.push(0);
      this.dropTyped();
    }
  }

  private closesAt(p: Point): boolean {
    const reach = closingReach * this.world.camera.metresPerPixel;
    return this.way.closes === true && this.placed.length >= 3 && distance(p, this.placed[0].at) <= reach;
  }

  private dropTyped(): void {
    this.typedPoint.clear();
    this.typedLength = null;
  }

  /** Does what there are points for; a refusal stays on the board with its reason, and takes one step back. */
  private finish(closed: boolean): void {
    const { least, most } = this.way.points;
    if (this.placed.length < least) return;
    const given = this.given([...this.placed], [...this.bulges], closed);
    const edit = this.way.edit(given);
    if (!edit.ok) {
      if (most !== null) this.reset();
      this.refuse(edit.message);
      return;
    }
    this.reset();
    this.world.events.committed((model) => this.way.edit({ ...given, model }));
  }

  private refuse(message: string): void {
    this.problem = message;
    this.refusedAt = this.pointing?.pixels ?? null;
    this.world.redraw();
  }

  private reset(): void {
    this.state = { kind: 'placing' };
    this.placed = [];
    this.bulges = [];
    this.bendNext = false;
    this.problem = null;
    this.dropTyped();
    this.world.events.drafted([]);
    this.world.redraw();
  }

  key(key: string): boolean {
    if (key === 'Escape') return this.stepBack();
    if (key === 'Backspace') return this.placed.length > 0 && this.stepBack();
    if (key === 'Enter' && this.placed.length >= this.way.points.least) {
      this.finish(false);
      return true;
    }
    return false;
  }

  /** One step back: what is typed, then an arc, then the last point. @returns whether there was one */
  private stepBack(): boolean {
    if (this.problem !== null) this.problem = null;
    else if (this.typedPoint.typed || this.typedLength !== null) this.dropTyped();
    else if (this.state.kind !== 'placing') this.state = { kind: 'placing' };
    else if (this.bendNext) this.bendNext = false;
    else if (this.placed.pop() !== undefined) this.bulges.pop();
    else return false;
    if (this.pointing !== null) this.show(this.pointing);
    return true;
  }

  /** The next side is an arc, or straight again. @returns whether sides can be bent here */
  bend(): boolean {
    if (this.way.bends !== true) return false;
    this.bendNext = !this.bendNext;
    this.world.redraw();
    return true;
  }

  // What is typed at the cursor.

  fields(): TypedField[] {
    const { pointing } = this;
    const seeks = this.way.seeks(this.placed.length);
    if (pointing === null || this.state.kind === 'boxing' || (seeks !== 'points' && seeks !== 'place')) return [];
    const at = this.placeOf(pointing);
    if (this.way.length !== undefined && this.base !== null) {
      const value = this.typedLength ?? distance(this.base, at);
      return [{ name: 'length', label: this.way.length, kind: 'length', value, typed: this.typedLength !== null }];
    }
    return this.typedPoint.fields(at, this.base, this.axes);
  }

  type(name: string, value: number | null): void {
    if (this.way.length !== undefined && this.base !== null) this.typedLength = value;
    else this.typedPoint.set(name, value);
    if (this.pointing !== null) this.show(this.pointing);
  }

  /** Takes the point that is typed, as a click would. */
  takeTyped(): void {
    if (this.pointing !== null) this.click(this.pointing);
  }

  turnForm(): void {
    this.typedPoint.turn(this.base);
    if (this.pointing !== null) this.show(this.pointing);
  }

  draw(pen: Pen, pointing: Pointing | null): void {
    const points = pointing === null ? this.placed : this.withNext(pointing)[0];
    const bulges = pointing === null ? this.bulges : this.withNext(pointing)[1];
    if (this.state.kind === 'boxing') drawBox(pen, [points[0].at, points[1].at]);
    else if (this.wants === 'points' || this.placed.length > 0) drawBent(pen, points, bulges);
    for (const { at } of this.placed) drawDot(pen, toScreen(pen.camera, pen.size, at));
    const { leak } = this;
    if (leak !== null) drawLeak(pen, leak, this.problem !== null);
    if (pointing !== null) this.drawWords(pen, pointing);
  }

  private drawWords(pen: Pen, pointing: Pointing): void {
    if (this.problem !== null) {
      refusalAtCursor(pen, pointing, this.problem);
      return;
    }
    const length = this.base === null ? '' : formatLength(distance(this.base, this.placeOf(pointing)), pen.scene.unit);
    if (pointing.held !== null && !this.typedPoint.typed) drawHeld(pen, pointing.held, this.world.choice);
    else chipAtCursor(pen, pointing, this.words(), length);
  }

  private words(): string {
    if (this.state.kind === 'bending') return 'a point that the arc goes through';
    const words = this.way.prompt(this.placed.length);
    return this.bendNext ? `${words}, at the end of an arc` : words;
  }
}
