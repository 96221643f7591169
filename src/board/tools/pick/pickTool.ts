import type { ToolRequest } from '../../boardStore';
import type { Pen } from '../../layers/pen';
import { chipAtCursor, drawHeld } from '../drawing';
import type { BoardTool, Pointing } from '../tool';
import type { World } from '../world';

/** Asks for one point to hold on to. */
export class PickTool implements BoardTool {
  readonly wants = 'points';
  readonly cursor = 'crosshair';

  constructor(
    private readonly request: ToolRequest & { kind: 'pick' },
    private readonly world: World,
  ) {}

  click({ held }: Pointing): void {
    if (held === null) return;
    this.world.desk.getState().setTool({ kind: 'look' });
    this.request.take(held);
  }

  draw(pen: Pen, pointing: Pointing | null): void {
    if (pointing === null) return;
    if (pointing.held !== null) drawHeld(pen, pointing.held, this.world.choice);
    else chipAtCursor(pen, pointing, this.request.prompt, 'nothing to hold on to here');
  }
}
