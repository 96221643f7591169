import type { ToolRequest } from '../../boardStore';
import type { Pen } from '../../layers/pen';
import { chipAtCursor } from '../drawing';
import type { BoardTool, Pointing } from '../tool';
import type { World } from '../world';

/** Takes lines of underlays, or lines and texts, one by one, until it is ended. */
export class GatherTool implements BoardTool {
  readonly wants = 'things';
  readonly cursor = 'crosshair';

  constructor(
    private readonly request: ToolRequest & { kind: 'gather' },
    private readonly world: World,
  ) {}

  click({ at }: Pointing): void {
    const { under } = this.world;
    if (this.request.what === 'lines') {
      const line = under.line(at);
      if (line !== null) this.request.take(line);
    } else {
      const thing = under.thing(at);
      if (thing !== null) this.request.take(thing);
    }
  }

  draw(pen: Pen, pointing: Pointing | null): void {
    if (pointing !== null) chipAtCursor(pen, pointing, this.request.prompt, 'Escape ends it');
  }
}
