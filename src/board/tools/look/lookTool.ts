import { distance, subtract, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { gripsOf } from '@/core/kinds/kinds';
import { carried, type Joints } from '@/core/tracing/carried';
import { dragGrip, gripped } from '@/core/tracing/corners';
import { moveElements, shift } from '@/core/tracing/moved';
import { describeElements } from '@/core/tracing/words';
import { formatLength } from '@/core/units/length';
import { toScreen } from '../../camera';
import type { Pen } from '../../layers/pen';
import { reachPixels } from '../../snapping/held';
import { chipAtCursor, dot, drawHeld } from '../drawing';
import type { BoardTool, Pointing } from '../tool';
import type { World } from '../world';

type State =
  | { kind: 'idle' }
  /** A box is drawn to select what lies in it. */
  | { kind: 'boxing'; touching: boolean; found: ElementRow[] }
  /**
   * Selected elements go with the pointer; `base` is the point of what was grabbed that comes to lie on what is held.
   */
  | { kind: 'dragging'; base: Point; by: Point }
  /** One grip of a selected element goes with the pointer. */
  | { kind: 'gripping'; id: string; grip: string; to: Point };

/** Grips of up to this many selected elements are shown: of more they would hide what they belong to. */
const mostGripped = 6;
/** How near to a grip a press takes it, pixels. */
const gripReach = 8;

/** Alt tears what is dragged off what is joined to it. */
const jointsOf = ({ alt }: Pointing): Joints => (alt ? 'torn' : 'joined');

/**
 * Looks, selects and moves. A click selects what lies there, with Ctrl or Shift it comes to what is selected; Shift and
 * drag selects what lies inside a box, with Alt also what the box touches. What is selected is dragged, or a grip of
 * it, with what is joined to it, with Alt without. Everything else moves the view.
 */
export class LookTool implements BoardTool {
  cursor = 'grab';
  private state: State = { kind: 'idle' };

  constructor(private readonly world: World) {}

  /** Points are held on to while something is dragged. */
  get wants(): 'points' | 'things' {
    return this.state.kind === 'dragging' || this.state.kind === 'gripping' ? 'points' : 'things';
  }

  get base(): Point | null {
    return this.state.kind === 'dragging' ? this.state.base : null;
  }

  exit(): void {
    this.give();
  }

  press(pointing: Pointing): boolean {
    if (pointing.shift) {
      this.state = { kind: 'boxing', touching: pointing.alt, found: [] };
      return true;
    }
    // What is seen in a section is moved where it stands: in the plan.
    if (this.world.scene.plane !== null) return false;
    const grip = this.gripAt(pointing.from.at);
    if (grip !== null) {
      this.state = { kind: 'gripping', ...grip, to: pointing.from.at };
      return true;
    }
    const hit = this.world.under.hit(pointing.from.at);
    if (hit?.element && this.world.scene.selected.has(hit.element.id)) {
      this.state = { kind: 'dragging', base: this.baseOf(hit.element, pointing.from.at), by: [0, 0] };
      return true;
    }
    return false;
  }

  /** The selected elements whose grips are shown. */
  private grippedElements(): ElementRow[] {
    const { selected, model } = this.world.scene;
    return selected.size > mostGripped ? [] : [...selected].flatMap((id) => model.element[id] ?? []);
  }

  /** The grip under a point; middles carry the whole of a line, which dragging it does anyway. */
  private gripAt(at: Point): { id: string; grip: string } | null {
    const reach = gripReach * this.world.camera.metresPerPixel;
    const { index } = this.world.scene.model;
    const found = this.grippedElements()
      .filter(({ kind }) => kind !== 'column')
      .flatMap((element) =>
        gripsOf(element, index.hostOf(element)).map((grip) => ({
          id: element.id,
          grip: grip.name,
          away: distance(grip.at, at),
        })),
      )
      .filter(({ away, grip }) => away <= reach && grip !== 'middle')
      .sort((a, b) => a.away - b.away);
    return found[0] ?? null;
  }

  /** The grip of what was grabbed that is nearest to where it was, within reach; else that place itself. */
  private baseOf(element: ElementRow, at: Point): Point {
    const host = this.world.scene.model.index.hostOf(element);
    const near = gripsOf(element, host)
      .map((grip) => ({ at: grip.at, away: distance(grip.at, at) }))
      .sort((a, b) => a.away - b.away)[0];
    return near !== undefined && near.away <= reachPixels * this.world.camera.metresPerPixel ? near.at : at;
  }

  drag(pointing: Pointing): void {
    if (this.state.kind === 'boxing') {
      const found = this.world.under.inBox(pointing.from.at, pointing.at, pointing.alt);
      this.state = { kind: 'boxing', touching: pointing.alt, found };
    } else if (this.state.kind === 'dragging') {
      const { base } = this.state;
      const { held, at, from } = pointing;
      const by = held === null ? subtract(at, from.at) : subtract(held.point, base);
      this.state = { kind: 'dragging', base, by };
      const { model, selected } = this.world.scene;
      this.world.events.drafted(carried(model, selected, shift(by), jointsOf(pointing)));
    } else if (this.state.kind === 'gripping') {
      const { id, grip } = this.state;
      const to = pointing.held?.point ?? pointing.at;
      this.state = { kind: 'gripping', id, grip, to };
      this.world.events.drafted(gripped(this.world.scene.model, id, grip, to, jointsOf(pointing)));
    }
    this.world.redraw();
  }

  drop(pointing: Pointing): void {
    this.drag(pointing);
    const { state } = this;
    const { selected } = this.world.scene;
    this.give();
    if (state.kind === 'boxing') this.world.events.selected(new Set([...selected, ...state.found.map(({ id }) => id)]));
    const joints = jointsOf(pointing);
    const { committed } = this.world.events;
    if (state.kind === 'dragging') committed((model) => moveElements(model, selected, state.by, joints));
    if (state.kind === 'gripping') committed((model) => dragGrip(model, state.id, state.grip, state.to, joints));
  }

  click({ at, adding }: Pointing): void {
    const { events, scene } = this.world;
    const hit = this.world.under.hit(at);
    if (hit?.element) {
      events.selected(withClicked(scene.selected, hit.element.id, adding));
      if (!adding) events.candidateClicked(null, false);
      return;
    }
    if (!adding && scene.selected.size > 0) events.selected(new Set());
    events.candidateClicked(hit?.candidate.key ?? null, adding);
    if (hit === null) events.lineClicked(this.world.under.line(at));
  }

  key(key: string): boolean {
    const { selected } = this.world.scene;
    if (key === 'Escape') {
      if (this.state.kind !== 'idle') this.give();
      else if (selected.size > 0) this.world.events.selected(new Set());
      else return false;
      return true;
    }
    if (key !== 'Delete' || selected.size === 0) return false;
    this.world.events.deleted(selected);
    return true;
  }

  /** Ends what is going on, with nothing done. */
  private give(): void {
    this.state = { kind: 'idle' };
    this.world.events.drafted([]);
    this.world.redraw();
  }

  draw(pen: Pen, pointing: Pointing | null): void {
    const { index } = this.world.scene.model;
    if (this.state.kind === 'idle' && this.world.scene.plane === null)
      for (const element of this.grippedElements())
        for (const grip of gripsOf(element, index.hostOf(element)))
          if (grip.name !== 'middle') dot(pen, toScreen(pen.camera, pen.size, grip.at));
    if (pointing === null) return;
    if (this.state.kind === 'boxing') drawBox(pen, pointing, this.state);
    if (this.state.kind === 'dragging') {
      if (pointing.held !== null) drawHeld(pen, pointing.held, this.world.choice);
      else chipAtCursor(pen, pointing, shiftWords(pen, this.state.by), 'Alt: torn off');
    }
    if (this.state.kind === 'gripping' && pointing.held !== null) drawHeld(pen, pointing.held, this.world.choice);
  }
}

function withClicked(selected: ReadonlySet<string>, id: string, adding: boolean): ReadonlySet<string> {
  if (!adding) return new Set([id]);
  const next = new Set(selected);
  if (!next.delete(id)) next.add(id);
  return next;
}

const shiftWords = ({ scene }: Pen, [dx, dy]: Point): string =>
  `${formatLength(dx, scene.unit)} across, ${formatLength(dy, scene.unit)} up`;

function drawBox(pen: Pen, pointing: Pointing, { touching, found }: { touching: boolean; found: ElementRow[] }): void {
  const { context, camera, size, scene } = pen;
  const [[x1, y1], [x2, y2]] = [pointing.from.at, pointing.at].map((p) => toScreen(camera, size, p));
  context.setLineDash(touching ? [5, 4] : []);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 1.5;
  context.fillStyle = scene.tokens.zircon;
  context.globalAlpha = 0.08;
  context.fillRect(x1, y1, x2 - x1, y2 - y1);
  context.globalAlpha = 1;
  context.strokeRect(x1, y1, x2 - x1, y2 - y1);
  context.setLineDash([]);
  const words = found.length === 0 ? 'nothing' : describeElements(found);
  chipAtCursor(
    pen,
    pointing,
    `${words} ${touching ? 'touched' : 'inside'}`,
    touching ? '' : 'Alt: also what it touches',
  );
}
