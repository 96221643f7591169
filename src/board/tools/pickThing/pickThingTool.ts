import type { ToolRequest } from '../../boardStore';
import type { Pen } from '../../layers/pen';
import { chipAtCursor } from '../drawing';
import type { BoardTool, Pointing } from '../tool';
import type { World } from '../world';

/** Picks one thing of a drawing: a line or a text. */
export class PickThingTool implements BoardTool {
  readonly wants = 'things';
  readonly cursor = 'crosshair';

  constructor(
    private readonly request: ToolRequest & { kind: 'pickThing' },
    private readonly world: World,
  ) {}

  click({ at }: Pointing): void {
    const thing = this.world.under.thing(at);
    if (thing !== null) this.request.take(thing);
  }

  draw(pen: Pen, pointing: Pointing | null): void {
    if (pointing !== null) chipAtCursor(pen, pointing, this.request.prompt, 'Escape ends it');
  }
}
