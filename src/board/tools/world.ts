import type { ElementRow } from '@/core/kinds/element';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import type { Result } from '@/core/result';
import type { BoardDesk } from '../boardStore';
import type { Camera, Size } from '../camera';
import type { BoardScene } from '../scene';
import type { UnderPointer } from '../underPointer';

/** What the board tells those who mounted it. */
export interface BoardEvents {
  cameraChanged(camera: Camera): void;
  candidateClicked(key: string | null, adding: boolean): void;
  /** A line of an underlay was clicked, or nothing. */
  lineClicked(line: { drawingId: string; path: number } | null): void;
  /** The elements that are selected now. */
  selected(ids: ReadonlySet<string>): void;
  /** Elements in the middle of a gesture; none where it has ended. */
  drafted(elements: readonly ElementRow[]): void;
  /** Something is done to the model. */
  committed(make: (model: Model) => Result<Edit>): void;
  /** Elements are to be deleted. */
  deleted(ids: ReadonlySet<string>): void;
}

/** What the board offers to tools. */
export interface World {
  readonly scene: BoardScene;
  readonly camera: Camera;
  readonly size: Size;
  readonly events: BoardEvents;
  /** What this board is asked for. */
  readonly desk: BoardDesk;
  /** How many things the cursor could hold on to, and which of them it does. */
  readonly choice: { chosen: number; of: number };
  /** What lies under a point, or in a box. */
  readonly under: Pick<UnderPointer, 'hit' | 'element' | 'endless' | 'inBox' | 'line' | 'straight' | 'thing'>;
  redraw(): void;
}
