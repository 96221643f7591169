import type { PickedLine, ToolRequest } from '../../boardStore';
import { toScreen } from '../../camera';
import type { Pen } from '../../layers/pen';
import { chipAtCursor } from '../drawing';
import type { BoardTool, Pointing } from '../tool';
import type { World } from '../world';

/** Asks for one straight line of an underlay. */
export class PickLineTool implements BoardTool {
  readonly wants = 'line';
  readonly cursor = 'crosshair';
  private line: PickedLine | null = null;

  constructor(
    private readonly request: ToolRequest & { kind: 'pickLine' },
    private readonly world: World,
  ) {}

  move({ at }: Pointing): void {
    this.line = this.world.under.straight(at);
    this.world.redraw();
  }

  click({ at }: Pointing): void {
    const line = this.world.under.straight(at);
    if (line === null) return;
    this.world.desk.getState().setTool({ kind: 'look' });
    this.request.take(line);
  }

  draw(pen: Pen, pointing: Pointing | null): void {
    if (pointing === null) return;
    const { context, camera, size, scene } = pen;
    if (this.line !== null) {
      context.setLineDash([]);
      context.strokeStyle = scene.tokens.zircon;
      context.lineWidth = 3;
      context.beginPath();
      context.moveTo(...toScreen(camera, size, this.line.from));
      context.lineTo(...toScreen(camera, size, this.line.to));
      context.stroke();
    }
    chipAtCursor(
      pen,
      pointing,
      this.line?.words ?? this.request.prompt,
      this.line === null ? 'no straight line here' : '',
    );
  }
}
