import type { Box } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import type { ElementKind, ElementRow } from '@/core/kinds/element';
import { endlessOf } from '@/core/tracing/align';
import type { Pointed } from '@/core/sorting/alike';
import type { EndlessLine } from '@/core/tracing/reach';
import type { PickedLine } from './boardStore';
import type { CandidateIndex } from './candidateIndex';
import { elementAt, elementsInBox, hitAt, type Hit } from './hits';
import type { BoardScene } from './scene';
import { lineAt, straightAt } from './snapping/lineAt';
import { textAt } from './snapping/textAt';

/** What a board looks at now. */
interface Looking {
  scene: BoardScene;
  candidates: CandidateIndex;
  metresPerPixel: number;
}

/** What lies under a point of the project, or of the plane of a section, or in a box. */
export class UnderPointer {
  constructor(private readonly looking: () => Looking) {}

  /** An element, or a candidate that nobody has decided on. */
  hit(at: Point): Hit | null {
    const { scene, candidates, metresPerPixel } = this.looking();
    return hitAt(scene, candidates, at, metresPerPixel);
  }

  /** The element of some kinds, the nearest, held ones too. */
  element(at: Point, kinds: readonly ElementKind[] | 'any'): ElementRow | null {
    const { scene, metresPerPixel } = this.looking();
    return elementAt(scene, at, metresPerPixel, kinds);
  }

  /** The straight line, of the model or of a drawing, on which something endless runs. */
  endless(at: Point): EndlessLine | null {
    const element = this.element(at, ['wall', 'beam', 'grid']);
    const own = element === null ? null : endlessOf(element);
    const drawn = own === null ? this.straight(at) : null;
    return own ?? (drawn && [drawn.from, drawn.to]);
  }

  /** The elements that lie in a box, or that it touches. */
  inBox([x1, y1]: Point, [x2, y2]: Point, touching: boolean): ElementRow[] {
    const box: Box = [Math.min(x1, x2), Math.min(y1, y2), Math.max(x1, x2), Math.max(y1, y2)];
    const { scene } = this.looking();
    return elementsInBox(scene, box, touching);
  }

  /** The line of a drawing. @param heldToo whether of held drawings as well */
  line(at: Point, heldToo = false): { drawingId: string; path: number } | null {
    const { scene, metresPerPixel } = this.looking();
    const line = lineAt(scene.drawings, at, metresPerPixel, heldToo);
    return line && { drawingId: line.drawingId, path: line.path };
  }

  /** What is drawn: a line, else the text that the point lies in. */
  thing(at: Point): ({ drawingId: string } & Pointed) | null {
    return this.line(at) ?? textAt(this.looking().scene.drawings, at);
  }

  /** The straight line of a drawing, with its ends. */
  straight(at: Point): PickedLine | null {
    const { scene, metresPerPixel } = this.looking();
    return straightAt(scene.drawings, at, metresPerPixel);
  }
}
